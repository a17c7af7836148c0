export { readSql } from './sql/readSql.js';
export { MAX_INTAKE_BYTES } from './report.js';
export type { Intake, IntakeNote } from './report.js';
