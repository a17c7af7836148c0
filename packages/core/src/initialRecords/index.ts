export { fitRecords, type FittedRecords } from './fitRecords.js';
export { namedRecords, readNamedRecords, type NamedRecordsRead } from './namedRecords.js';
export { recordsUnder, type RecordsUnder } from './recordsUnder.js';
export { withRecords, type IntakeWithRecords } from './withRecords.js';
