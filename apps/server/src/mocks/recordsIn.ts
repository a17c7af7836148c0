import { randomUUID } from 'node:crypto';
import { Draft, withDefaultsOf, misfit, type Change } from '@isomeros/core/engine';
import type { Model, Progress, Steps } from '@isomeros/core/model';
import {
  givenDocument,
  givenRecords,
  kindsOf,
  readCsv,
  takeIn,
  type GivenPart,
  type Report,
  type TakenKind,
  type TakingWay,
} from '@isomeros/core/transfer';
import type { ServedRelease } from '../designs/releases.service.js';
import { ApiProblem } from '../http/problem.js';
import { inSlices } from '../slices.js';
import type { Held } from './held.js';
import { kindOf } from './recordsOut.js';

/** What a client sends, as text: a document of all kinds, or the records of one. */
export type RecordsGiven =
  | { readonly kind: 'document'; readonly text: string }
  | { readonly kind: 'records'; readonly of: string; readonly text: string }
  | { readonly kind: 'csv'; readonly of: string; readonly text: string };

export interface TakenIn {
  /** Whether it was done, and not only checked. */
  readonly done: boolean;
  readonly kinds: readonly TakenKind[];
}

export interface TakingInto {
  /** More records than this there may not be afterwards. */
  readonly most: number;
  /** Gives releases records of their own. */
  readonly part: (releases: readonly ServedRelease[]) => Promise<void>;
  readonly onProgress: (progress: Progress) => void;
}

/**
 * Takes records in as one write, all or none; nothing is written where it is only to be checked. It is done in
 * slices: reads go on meanwhile, writes wait. Nobody else may replace records or the model at the same time.
 */
export async function takeRecordsIn(
  held: Held,
  { most, part, onProgress }: TakingInto,
  given: RecordsGiven,
  way: TakingWay,
  checkOnly: boolean,
): Promise<TakenIn> {
  for (;;) {
    const parted = await held.records.exclusively(async (): Promise<TakenIn | readonly ServedRelease[]> => {
      const { dataset } = held.records;
      const draft = new Draft(dataset);
      const { changes, kinds } = await inSlices(taken(dataset.model, draft, given, way, most), onProgress);
      if (checkOnly) return { done: false, kinds };
      const others = held.releases.filter(({ derivation }) => derivation.model !== dataset.model);
      const shared = await inSlices(sharedChanges(dataset.model, others, changes), onProgress);
      if ('apart' in shared) return shared.apart;
      await held.records.writeLarge(shared.changes, draft.counters, false);
      return { done: true, kinds };
    });
    if ('kinds' in parted) return parted;
    await part(parted);
  }
}

/** Checks what is given against the records of a draft. */
function* taken(
  model: Model,
  draft: Draft,
  given: RecordsGiven,
  way: TakingWay,
  most: number,
): Steps<{ readonly changes: readonly Change[]; readonly kinds: readonly TakenKind[] }> {
  const options = { way, now: Date.now(), uuid: randomUUID, most };
  const outcome = yield* takeIn(model, draft, (report) => read(model, given, way, report), options);
  if (outcome.ok) return outcome;
  const things = outcome.count === 1 ? '1 thing does' : `${outcome.count} things do`;
  const shown =
    outcome.count > outcome.problems.length ? `; the first ${outcome.problems.length} are told` : '';
  throw new ApiProblem('invalid', `Nothing was taken in: ${things} not fit${shown}.`, {
    errors: outcome.problems,
  });
}

const CHANGES_AT_ONCE = 500;

/**
 * The changes with the defaults that releases would fill in which share the records; or the releases that they
 * contradict, and all of them where the records themselves may not be what was written under a release.
 */
function* sharedChanges(
  model: Model,
  others: readonly ServedRelease[],
  changes: readonly Change[],
): Steps<{ readonly changes: readonly Change[] } | { readonly apart: readonly ServedRelease[] }> {
  if (others.length === 0) return { changes };
  const models = [model, ...others.map(({ derivation }) => derivation.model)];
  const whole: Change[] = [];
  const apart = new Set<ServedRelease>();
  for (let from = 0; from < changes.length; from += CHANGES_AT_ONCE) {
    const some = withDefaultsOf(models, changes.slice(from, from + CHANGES_AT_ONCE));
    if (misfit(model, some) !== null) return { apart: others };
    for (const other of others) if (misfit(other.derivation.model, some) !== null) apart.add(other);
    for (const change of some) whole.push(change);
    yield { doing: 'checking', count: from + some.length };
  }
  return apart.size > 0 ? { apart: [...apart] } : { changes: whole };
}

function* read(model: Model, given: RecordsGiven, way: TakingWay, report: Report): Generator<GivenPart> {
  if (given.kind !== 'document') {
    const storage = kindOf(model, given.of);
    yield* given.kind === 'csv'
      ? readCsv(model, storage, given.text, report)
      : givenRecords(storage, given.text, report);
    return;
  }
  const named = new Set<GivenPart['storage']>();
  for (const part of givenDocument(model, given.text, report)) {
    named.add(part.storage);
    yield part;
  }
  if (way === 'merge') return;
  for (const storage of kindsOf(model).values()) if (!named.has(storage)) yield { storage, record: null };
}
