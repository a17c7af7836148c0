export { importModel, INTAKE_FORMATS } from './importModel.js';
export type { IntakeFormat } from './importModel.js';
export { readSql } from './sql/readSql.js';
export { readJsonSchema } from './jsonSchema/readJsonSchema.js';
export { readRecords } from './records/readRecords.js';
export { answer, wrongAnswers, type WrongAnswer } from './answer.js';
export { typedValue } from './typedValue.js';
export type { SourceLines } from './lines.js';
export type { IntakePointer, IntakeRecord } from './intakeRecord.js';
export { MAX_INTAKE_BYTES } from './report.js';
export type {
  Assumed,
  CountedKind,
  Intake,
  IntakeCount,
  IntakeOption,
  IntakeQuestion,
  LeftOut,
  IntakeOptions,
  IntakeProgress,
  Understood,
} from './report.js';
