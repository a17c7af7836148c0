import type { Parameters } from 'fast-check';

const { ISOMEROS_ROUNDS: thoroughness } = process.env;

/** The same cases in every run, so that a run tells of a change and not of luck. Who asks for more rounds looks for new ones. */
const SEED = thoroughness === undefined ? { seed: 1 } : {};

/** How a property is tested that is tested `usual` times in every run, and more often by `ISOMEROS_ROUNDS`, which is 20 of a usual run. */
export const rounds = (usual: number): Pick<Parameters, 'seed'> & { readonly numRuns: number } => ({
  ...SEED,
  numRuns: Math.ceil((usual * Number(thoroughness ?? 20)) / 20),
});
