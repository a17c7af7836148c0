import type { Parameters } from 'fast-check';
/** How a property is tested that is tested `usual` times in every run, and more often by `ISOMEROS_ROUNDS`, which is 20 of a usual run. */
export declare const rounds: (usual: number) => Pick<Parameters, 'seed'> & {
  readonly numRuns: number;
};
