export { takeIn, INTAKE_FORMATS } from './takeIn.js';
export type { IntakeFormat } from './takeIn.js';
export { readSql } from './sql/readSql.js';
export { readJsonSchema } from './jsonSchema/readJsonSchema.js';
export { readRecords } from './records/readRecords.js';
export { answer } from './answer.js';
export { MAX_INTAKE_BYTES } from './report.js';
export type {
  Intake,
  IntakeOption,
  IntakeQuestion,
  LeftOut,
  Progress,
  SourceLines,
  Understood,
} from './report.js';
