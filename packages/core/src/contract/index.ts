export type * from './types.js';
export { RULES } from './rules.js';
export type { RuleId } from './rules.js';
export { indexContract, successStatus } from './lookup.js';
export type { ContractIndex } from './lookup.js';
export { figuresOf, fingerprintOf } from './figures.js';
export type { ContractFigures, FingerprintColumn } from './figures.js';
