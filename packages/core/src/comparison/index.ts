export { compareContracts } from './compare.js';
export { breakingFindings, baselineRelease, type ReleasedContract } from './releases.js';
export type { AffectedParty, ContractChange, Compatibility } from './types.js';
