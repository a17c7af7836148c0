export { seed } from './seed.js';
export type { SeedOptions, SeedResult } from './seed.js';
export { Random, randomUuid } from './random.js';
export { seedScalar } from './scalars.js';
export type { SeedSubject } from './scalars.js';
