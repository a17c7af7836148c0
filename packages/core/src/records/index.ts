export { completeFind } from './completeFind.js';
export { columnsOf, type RecordColumn } from './columns.js';
export { readFind, sortBy, type RecordFind, type RecordFindRead } from './find.js';
export type { RecordLink } from './hint.js';
export { recordDetail, type RecordDetail, type Referring, type RemovalPreview } from './record.js';
export { recordPage, type RecordCell, type RecordPage, type TableRecord } from './table.js';
