import { sameJson, storageOf, type EntityStorage, type Model, type Row } from '../model/index.js';
import { findViolations, type Change, type Draft, type ProblemDetail } from '../engine/index.js';
import { Entries, type Entry } from './entries.js';
import type { GivenKind } from './given.js';
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
export class Problems {
  readonly shown: ProblemDetail[] = [];
  count = 0;
  readonly report: Report = (problem) => {
    this.count++;
    if (this.shown.length < PROBLEMS_SHOWN) this.shown.push(problem);
  };
}

/**
 * Takes records in, all or none. They are found by their keys, so that a record that is there changes, and keep
 * every rule of the model together with those that are there. The changes are not applied yet. `given`: the kinds
 * that `replace` is about, each once; `problems`: with what was wrong about the source already.
 */
export function takeIn(
  model: Model,
  draft: Draft,
  given: readonly GivenKind[],
  options: TakingOptions,
  problems = new Problems(),
): TakingIn {
  const entries = new Entries(model, draft, given, options, problems.report);
  if (problems.count > 0) return refused(problems);
  const changes: Change[] = [];
  const kinds = [...entries.byKind].map(([storage, known]) => {
    const outcome = changesOf(storage, known, entries, options.way);
    changes.push(...outcome.changes);
    return outcome.taken;
  });
  checkWhole(model, draft, changes, entries, options, problems.report);
  return problems.count > 0 ? refused(problems) : { ok: true, changes, kinds };
}

const refused = ({ shown, count }: Problems): TakingIn => ({ ok: false, problems: shown, count });

function changesOf(
  storage: EntityStorage,
  entries: readonly Entry[],
  { gone }: Entries,
  way: TakingWay,
): { readonly changes: readonly Change[]; readonly taken: TakenKind } {
  const removed = way === 'merge' ? [] : gone(storage);
  const changes: Change[] = removed.map((before) => ({ kind: 'remove', before }));
  const counts = { added: 0, changed: 0, unchanged: 0, removed: removed.length };
  for (const { rid, before, values } of entries) {
    if (before === null) {
      changes.push({ kind: 'add', after: { rid, entity: storage.entity.id, values, revision: 1 } });
      counts.added++;
    } else if (sameJson(values, before.values)) counts.unchanged++;
    else {
      changes.push({ kind: 'update', before, after: { ...before, values, revision: before.revision + 1 } });
      counts.changed++;
    }
  }
  return { changes, taken: { kind: storage.entity.name, ...counts } };
}

/** Checks the records as they would be, those that are not touched among them. */
function checkWhole(
  model: Model,
  draft: Draft,
  changes: readonly Change[],
  entries: Entries,
  { most }: TakingOptions,
  report: Report,
): void {
  const after = new Map<number, Row>();
  for (const storage of storageOf(model).byId.values())
    for (const row of draft.all(storage)) after.set(row.rid, row);
  for (const change of changes) {
    if (change.kind === 'remove') after.delete(change.before.rid);
    else after.set(change.after.rid, change.after);
  }
  if (after.size > most) {
    const message = `A mock holds at most ${most} records; there would be ${after.size}.`;
    report({ pointer: '', code: 'range', message });
    return;
  }
  for (const { rid, entity, message } of findViolations(model, after.values())) {
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
