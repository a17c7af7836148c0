export { compare } from './compare.js';
export type { ComparedContract, ContractComparison } from './compare.js';
export type { ChangeSummary } from './summary.js';
export {
  baselineRelease,
  breakingFindings,
  changesSince,
  type ChangeSinceRelease,
  type ReleasedContract,
} from './releases.js';
export { PARTIES } from './types.js';
export type { AffectedParty, ContractChange, Compatibility } from './types.js';
