export { seed } from './seed.js';
export type { SeedOptions, SeedResult, Shortfall } from './seed.js';
export { Random, randomUuid } from './random.js';
export { seedScalar } from './scalars.js';
export type { SeedSubject } from './scalars.js';
export { MOST_CHILDREN, planProblems, USUAL_PLAN } from './plan.js';
export type { Children, PlanProblem, SeedPlan } from './plan.js';
export { printPlan, readPlan } from './planText.js';
export type { PlanRead, PlanTextProblem } from './planText.js';
