/** How thoroughly properties are tested: 20 in every run, more by `ISOMEROS_ROUNDS`. */
const THOROUGHNESS = Number(process.env['ISOMEROS_ROUNDS'] ?? 20) / 20;

/** How often a property is tested that is tested `usual` times in every run. */
export const rounds = (usual: number): number => Math.ceil(usual * THOROUGHNESS);
