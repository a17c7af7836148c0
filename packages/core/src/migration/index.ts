export { migrate, migrateBy, migrateInSteps } from './migrate.js';
export type { Decision } from './decision.js';
export type { Decide, Migration } from './migrate.js';
export type { MigrationStep, OpenStep, Resolution, ResolutionKind } from './plan.js';
export type { MigrationRuntime } from './recordMigrator.js';
