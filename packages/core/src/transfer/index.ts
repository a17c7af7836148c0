export { csvHeader, csvLine, readCsv } from './csv.js';
export { givenDocument, givenRecords, kindNamed } from './given.js';
export type { GivenKind, GivenRecord } from './given.js';
export { kindsOf, pathAttributes, pathOf } from './kinds.js';
export { Problems, takeIn } from './takeIn.js';
export type { TakenKind, TakingIn, TakingOptions, TakingWay } from './takeIn.js';
export { inward, readAttributes } from './values.js';
export { recordsByKind, writeRecord } from './write.js';
export type { WritingOptions } from './write.js';
