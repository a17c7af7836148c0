import { randomUUID } from 'node:crypto';
import { renumbered, type Counters } from '@isomeros/core/engine';
import { recordsUnder } from '@isomeros/core/initialRecords';
import type { Model, Row } from '@isomeros/core/model';
import { seedSteps, type SeedPlan, type SeedResult } from '@isomeros/core/seeding';
import { modelOf } from '../designs/modelColumns.js';
import type { RecordState } from '../designs/recordState.js';
import { ApiProblem } from '../http/problem.js';
import { inSlices, type Watching } from '../slices.js';

/** What fresh records are made from. */
export interface FreshSource {
  readonly seed: number;
  readonly plan: SeedPlan;
  /** The initial records of the design; `null` where seed records are wanted, or there are none. */
  readonly initial: RecordState | null;
}

/** Fresh records of a mock. */
export interface FreshRecords extends Omit<SeedResult, 'overflows'> {
  /** What of the initial records did not fit, and what was done about it. */
  readonly adjustments: readonly string[];
}

/** Fresh records, made in slices. Initial records that cannot be taken are told, and seed records take their place. */
export async function freshRecords(
  model: Model,
  source: FreshSource,
  most: number,
  watching: Watching,
): Promise<FreshRecords> {
  if (source.initial === null) return { ...(await seeded(model, source, most, watching)), adjustments: [] };
  const { rows, model: then } = source.initial;
  if (rows.length > most) {
    const why = `A mock holds at most ${most} records; the design has ${rows.length}. Seed records are taken instead.`;
    return { ...(await seeded(model, source, most, watching)), adjustments: [why] };
  }
  const runtime = { now: Date.now(), uuid: randomUUID };
  const taken = await inSlices(recordsUnder(modelOf(then), model, rows, runtime), watching);
  if (taken === null) {
    const why = 'The initial records do not fit the model any more. Seed records are taken instead.';
    return { ...(await seeded(model, source, most, watching)), adjustments: [why] };
  }
  const { counters, adjusted } = taken;
  return { rows: taken.rows, counters: counters.attributes, shortfalls: [], adjustments: adjusted };
}

async function seeded(
  model: Model,
  { seed, plan }: FreshSource,
  most: number,
  watching: Watching,
): Promise<SeedResult> {
  const made = await inSlices(seedSteps(model, { ...plan, seed, now: Date.now(), most }), watching);
  if (made.overflows)
    throw new ApiProblem('invalid', `A mock holds at most ${most} records; there would be more.`);
  return made;
}

/** Fresh records with numbers that no record had before. */
export async function numberedAfter(
  model: Model,
  made: Pick<FreshRecords, 'rows' | 'counters'>,
  before: Pick<Counters, 'rid'>,
  watching: Watching = {},
): Promise<{ readonly rows: readonly Row[]; readonly counters: Counters }> {
  const { rows, last } = await inSlices(renumbered(model, made.rows, before.rid), watching);
  return { rows, counters: { rid: last, attributes: made.counters } };
}
