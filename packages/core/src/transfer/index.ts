export { csvHeader, csvLine, readCsv } from './csv.js';
export { recordsInDocument, recordsInArray, recordTypeNamed } from './sourceRecords.js';
export type { SourceRecords, SourceRecord } from './sourceRecords.js';
export {
  recordTypesOf,
  pathAttributes,
  keyPathOf,
  pointersOf,
  recordAtPath,
  scopeOf,
} from './recordTypes.js';
export type { Pointer } from './recordTypes.js';
export { importRecords } from './importRecords.js';
export type { ImportOptions, ImportMode } from './importOptions.js';
export type { ImportedRecords, ImportOutcome } from './importRecords.js';
export { unsetValue, type ValueRuntime } from './unsetValue.js';
export { toStored, readAttributes } from './values.js';
export type { ProblemReporter } from './values.js';
export { recordsByType, writeRecord } from './write.js';
export type { WritingOptions } from './write.js';
