import { Dataset } from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import { seed } from '@isomeros/core/seeding';

export const EXAMPLE_SEED = 42;
/** A fixed moment, so that an example stays the same until the model changes. */
export const EXAMPLE_NOW = Date.parse('2026-06-14T09:12:00Z');

/** The records that examples are run on. */
export function exampleRecords(model: Model): Dataset {
  const { rows, counters } = seed(model, { seed: EXAMPLE_SEED, counts: {}, now: EXAMPLE_NOW });
  return new Dataset(model, rows, { rid: rows.length, attributes: counters });
}
