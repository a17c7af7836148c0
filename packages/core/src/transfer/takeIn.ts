import {
  eachInSteps,
  sameJson,
  storageOf,
  type EntityStorage,
  type Model,
  type Row,
  type Steps,
} from '../model/index.js';
import { violationsIn, type Change, type Draft, type ProblemDetail } from '../engine/index.js';
import { Entries, type Entry } from './entries.js';
import type { GivenPart } from './given.js';
import { pathOf } from './kinds.js';
import type { Report } from './values.js';

/** `merge`: records with a known key change, others are added. `replace`: whatever is not given goes, too. */
export type TakingWay = 'merge' | 'replace';

export interface TakingOptions {
  readonly way: TakingWay;
  /** Milliseconds since 1970. */
  readonly now: number;
  readonly uuid: () => string;
  /** More records than this there may not be afterwards. */
  readonly most: number;
}

/** What became of the records of one kind. */
export interface TakenKind {
  readonly kind: string;
  readonly added: number;
  readonly changed: number;
  readonly unchanged: number;
  readonly removed: number;
}

export type TakingIn =
  | { readonly ok: true; readonly changes: readonly Change[]; readonly kinds: readonly TakenKind[] }
  /** Nothing is taken in. `problems` are the first of them. */
  | { readonly ok: false; readonly problems: readonly ProblemDetail[]; readonly count: number };

const PROBLEMS_SHOWN = 100;

/** Gathers problems, and counts those that are too many to be shown. */
class Problems {
  readonly shown: ProblemDetail[] = [];
  count = 0;
  readonly report: Report = (problem) => {
    this.count++;
    if (this.shown.length < PROBLEMS_SHOWN) this.shown.push(problem);
  };
}

/**
 * Takes records in, all or none, in steps. They are found by their keys, so that a record that is there changes, and
 * keep every rule of the model together with those that are there. The changes are not applied yet. `given`: the
 * records; `replace` is about all kinds that are among them.
 */
export function* takeIn(
  model: Model,
  draft: Draft,
  given: (report: Report) => Iterable<GivenPart>,
  options: TakingOptions,
): Steps<TakingIn> {
  const problems = new Problems();
  const entries = yield* Entries.read(model, draft, given(problems.report), options, problems.report);
  if (problems.count > 0) return refused(problems);
  const changes: Change[] = [];
  const kinds: TakenKind[] = [];
  for (const [storage, known] of entries.byKind)
    kinds.push(yield* findChanges(storage, known, entries, options.way, changes));
  yield* checkWhole(model, draft, changes, entries, options, problems.report);
  return problems.count > 0 ? refused(problems) : { ok: true, changes, kinds };
}

const refused = ({ shown, count }: Problems): TakingIn => ({ ok: false, problems: shown, count });

/** Adds what changes of the records of one kind, and counts it. */
function* findChanges(
  storage: EntityStorage,
  entries: readonly Entry[],
  { gone }: Entries,
  way: TakingWay,
  changes: Change[],
): Steps<TakenKind> {
  const removed = way === 'merge' ? [] : gone(storage);
  for (const before of removed) changes.push({ kind: 'remove', before });
  const counts = { added: 0, changed: 0, unchanged: 0, removed: removed.length };
  yield* eachInSteps('comparing', entries, ({ rid, before, values }) => {
    if (before === null) {
      changes.push({ kind: 'add', after: { rid, entity: storage.entity.id, values, revision: 1 } });
      counts.added++;
    } else if (sameJson(values, before.values)) counts.unchanged++;
    else {
      changes.push({ kind: 'update', before, after: { ...before, values, revision: before.revision + 1 } });
      counts.changed++;
    }
  });
  return { kind: storage.entity.name, ...counts };
}

/** Checks the records as they would be, those that are not touched among them. */
function* checkWhole(
  model: Model,
  draft: Draft,
  changes: readonly Change[],
  entries: Entries,
  { most }: TakingOptions,
  report: Report,
): Steps<void> {
  const after = new Map<number, Row>();
  for (const storage of storageOf(model).byId.values())
    yield* eachInSteps('checking', draft.all(storage), (row) => after.set(row.rid, row));
  yield* eachInSteps('checking', changes, (change) => {
    if (change.kind === 'remove') after.delete(change.before.rid);
    else after.set(change.after.rid, change.after);
  });
  if (after.size > most) {
    const message = `A mock holds at most ${most} records; there would be ${after.size}.`;
    report({ pointer: '', code: 'range', message });
    return;
  }
  for (const { rid, entity, message } of yield* violationsIn(model, after)) {
    const entry = entries.byRid.get(rid);
    if (entry !== undefined) {
      report({ pointer: entry.given.pointer, code: 'rule', message: entry.given.place + message });
      continue;
    }
    const storage = storageOf(model).byName.get(entity);
    const row = after.get(rid);
    const path = storage === undefined || row === undefined ? null : pathOf(model, after, storage, row);
    const name = [entity, ...(path ?? []).map((key) => JSON.stringify(key))].join(' ');
    report({ pointer: '', code: 'rule', message: `${name}, which is there already: ${message}` });
  }
}
