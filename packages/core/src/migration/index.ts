export { migrate } from './migrate.js';
export type { Decision, Migration } from './migrate.js';
export type { Doing, MigrationStep, Offer } from './plan.js';
export type { Tools } from './rewriting.js';
