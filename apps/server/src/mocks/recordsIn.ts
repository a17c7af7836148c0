import { randomUUID } from 'node:crypto';
import { Draft } from '@isomeros/core/engine';
import type { Json, Model } from '@isomeros/core/model';
import {
  givenDocument,
  givenRecords,
  kindsOf,
  Problems,
  readCsv,
  takeIn,
  type GivenKind,
  type TakenKind,
  type TakingWay,
} from '@isomeros/core/transfer';
import { ApiProblem } from '../http/problem.js';
import type { Held } from './held.js';
import { writeShared, type Partners } from './partners.js';
import { kindOf } from './recordsOut.js';

/** What a client sends: a document of all kinds, or the records of one, as JSON or as comma-separated values. */
export type RecordsGiven =
  | { readonly kind: 'document'; readonly document: Json }
  | { readonly kind: 'records'; readonly of: string; readonly records: Json }
  | { readonly kind: 'csv'; readonly of: string; readonly text: string };

export interface TakenIn {
  /** Whether it was done, and not only checked. */
  readonly done: boolean;
  readonly kinds: readonly TakenKind[];
}

/** Takes records in as one write, all or none; nothing is written where it is only to be checked. */
export async function takeRecordsIn(
  held: Held,
  { partners, most }: { readonly partners: Partners; readonly most: number },
  given: RecordsGiven,
  way: TakingWay,
  checkOnly: boolean,
): Promise<TakenIn> {
  const { records } = held;
  const attempt = (draft: Draft): Attempt => taken(records.dataset.model, draft, given, way, most);
  if (checkOnly) return { done: false, kinds: attempt(new Draft(records.dataset)).kinds };
  const { kinds } = await writeShared(
    () => ({ records, partners }),
    attempt,
    () => true,
  );
  return { done: true, kinds };
}

type Attempt = {
  readonly changes: Extract<ReturnType<typeof takeIn>, { ok: true }>['changes'];
  readonly kinds: readonly TakenKind[];
  readonly kept: null;
};

/** Checks what is given against the records of a draft, and applies it there. */
function taken(model: Model, draft: Draft, given: RecordsGiven, way: TakingWay, most: number): Attempt {
  const problems = new Problems();
  const kinds = read(model, given, way, problems);
  const options = { way, now: Date.now(), uuid: randomUUID, most };
  const outcome = takeIn(model, draft, kinds, options, problems);
  if (!outcome.ok) {
    const things = outcome.count === 1 ? '1 thing does' : `${outcome.count} things do`;
    const shown =
      outcome.count > outcome.problems.length ? `; the first ${outcome.problems.length} are told` : '';
    throw new ApiProblem('invalid', `Nothing was taken in: ${things} not fit${shown}.`, {
      errors: outcome.problems,
    });
  }
  draft.apply(outcome.changes);
  return { changes: outcome.changes, kinds: outcome.kinds, kept: null };
}

function read(model: Model, given: RecordsGiven, way: TakingWay, { report }: Problems): readonly GivenKind[] {
  if (given.kind === 'document') {
    const kinds = givenDocument(model, given.document, report);
    if (way === 'merge') return kinds;
    const named = new Set(kinds.map(({ storage }) => storage));
    const absent = [...kindsOf(model).values()].filter((storage) => !named.has(storage));
    return [...kinds, ...absent.map((storage) => ({ storage, records: [] }))];
  }
  const storage = kindOf(model, given.of);
  const records =
    given.kind === 'csv'
      ? readCsv(model, storage, given.text, report)
      : givenRecords(given.records, '', report);
  return [{ storage, records }];
}
