import type { ImportResult } from '@isomeros/api';
import { randomUUID } from 'node:crypto';
import { Draft, withDefaultsOf, firstViolation, type RowChange } from '@isomeros/core/engine';
import type { Model, Progress, Steps } from '@isomeros/core/model';
import {
  recordsInDocument,
  recordsInArray,
  recordTypesOf,
  readCsv,
  importRecords,
  type SourceRecords,
  type ProblemReporter,
  type ImportedRecords,
  type ImportMode,
} from '@isomeros/core/transfer';
import type { ServedRelease } from '../designs/releases.service.js';
import { ApiProblem } from '../http/problem.js';
import { inSlices } from '../slices.js';
import type { LoadedMock } from './loadedMock.js';
import { recordTypeOf } from './recordExport.js';

/** What a client sends, as text: a document of all record types, or the records of one. */
export type RecordsSource =
  | { readonly kind: 'document'; readonly text: string }
  | { readonly kind: 'records'; readonly of: string; readonly text: string }
  | { readonly kind: 'csv'; readonly of: string; readonly text: string };

export interface ImportTarget {
  /** More records than this there may not be afterwards. */
  readonly most: number;
  /** Gives releases records of their own. */
  readonly split: (releases: readonly ServedRelease[]) => Promise<void>;
  readonly onProgress: (progress: Progress) => void;
}

/**
 * Takes records in as one write, all or none; nothing is written where it is only to be checked. It is done in
 * slices: reads go on meanwhile, writes wait. Nobody else may replace records or the model at the same time.
 */
export async function importInto(
  mock: LoadedMock,
  { most, split, onProgress }: ImportTarget,
  given: RecordsSource,
  mode: ImportMode,
  checkOnly: boolean,
): Promise<ImportResult> {
  for (;;) {
    const parted = await mock.records.exclusively(
      async (): Promise<ImportResult | readonly ServedRelease[]> => {
        const { dataset } = mock.records;
        const draft = new Draft(dataset);
        const { changes, types } = await inSlices(taken(dataset.model, draft, given, mode, most), onProgress);
        if (checkOnly) return { done: false, types };
        const others = mock.releases.filter(({ derivation }) => derivation.model !== dataset.model);
        const shared = await inSlices(sharedChanges(dataset.model, others, changes), onProgress);
        if ('apart' in shared) return shared.apart;
        await mock.records.writeLarge(shared.changes, draft.counters, false);
        return { done: true, types };
      },
    );
    if ('types' in parted) return parted;
    await split(parted);
  }
}

/** Checks what is given against the records of a draft. */
function* taken(
  model: Model,
  draft: Draft,
  given: RecordsSource,
  mode: ImportMode,
  most: number,
): Steps<{ readonly changes: readonly RowChange[]; readonly types: readonly ImportedRecords[] }> {
  const options = { mode, now: Date.now(), uuid: randomUUID, most };
  const outcome = yield* importRecords(model, draft, (report) => read(model, given, mode, report), options);
  if (outcome.ok) return outcome;
  const things = outcome.count === 1 ? '1 thing does' : `${outcome.count} things do`;
  const shown =
    outcome.count > outcome.problems.length ? `; the first ${outcome.problems.length} are told` : '';
  throw new ApiProblem('invalid', `Nothing was imported: ${things} not fit${shown}.`, {
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
  changes: readonly RowChange[],
): Steps<{ readonly changes: readonly RowChange[] } | { readonly apart: readonly ServedRelease[] }> {
  if (others.length === 0) return { changes };
  const models = [model, ...others.map(({ derivation }) => derivation.model)];
  const whole: RowChange[] = [];
  const apart = new Set<ServedRelease>();
  for (let from = 0; from < changes.length; from += CHANGES_AT_ONCE) {
    const some = withDefaultsOf(models, changes.slice(from, from + CHANGES_AT_ONCE));
    if (firstViolation(model, some) !== null) return { apart: others };
    for (const other of others) if (firstViolation(other.derivation.model, some) !== null) apart.add(other);
    for (const change of some) whole.push(change);
    yield { doing: 'checking', count: from + some.length };
  }
  return apart.size > 0 ? { apart: [...apart] } : { changes: whole };
}

function* read(
  model: Model,
  given: RecordsSource,
  mode: ImportMode,
  report: ProblemReporter,
): Generator<SourceRecords> {
  if (given.kind !== 'document') {
    const storage = recordTypeOf(model, given.of);
    yield* given.kind === 'csv'
      ? readCsv(model, storage, given.text, report)
      : recordsInArray(storage, given.text, report);
    return;
  }
  const named = new Set<SourceRecords['storage']>();
  for (const part of recordsInDocument(model, given.text, report)) {
    named.add(part.storage);
    yield part;
  }
  if (mode === 'merge') return;
  for (const storage of recordTypesOf(model).values())
    if (!named.has(storage)) yield { storage, record: null };
}
