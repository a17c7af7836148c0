export type * from './types.js';
export { RULES } from './rules.js';
export type { RuleId } from './rules.js';
export { indexContract, successStatus } from './lookup.js';
export type { ContractIndex } from './lookup.js';
export { differenceOf } from './difference.js';
export type { ContractDifference } from './difference.js';
export { figuresOf, fingerprintOf, openAssumptions } from './figures.js';
export type { ContractFigures, FingerprintColumn } from './figures.js';
