export { migrate, migrateInSteps } from './migrate.js';
export type { Decision } from './decision.js';
export type { Migration } from './migrate.js';
export type { ResolutionKind, MigrationStep, Resolution } from './plan.js';
export type { MigrationRuntime } from './recordMigrator.js';
