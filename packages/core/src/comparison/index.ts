export { compareContracts } from './compare.js';
export { breakingFindings, releaseHeld, type ReleasedContract } from './releases.js';
export type { Broken, Change, Weight } from './types.js';
