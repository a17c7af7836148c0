import { storageOf, type Model } from '../model/index.js';
import { seed, type SeedOptions } from './seed.js';
import type { Shortfall } from './shortfall.js';

/** What a plan would give, counted. */
export interface SeedPreview {
  /** Entities and pairings with how many records of each would be made. */
  readonly types: readonly { readonly name: string; readonly records: number }[];
  readonly shortfalls: readonly Shortfall[];
  /** Whether the plan asks for more records than may be made. */
  readonly overflows: boolean;
}

/** Makes the records of a plan, and tells how many there are of each type. */
export function previewSeed(model: Model, options: SeedOptions): SeedPreview {
  const { rows, shortfalls, overflows } = seed(model, options);
  const counts = new Map<string, number>();
  for (const { entity } of rows) counts.set(entity, (counts.get(entity) ?? 0) + 1);
  const types = [...storageOf(model).byId].map(([id, { entity }]) => ({
    name: entity.name,
    records: counts.get(id) ?? 0,
  }));
  return { types, shortfalls, overflows };
}
