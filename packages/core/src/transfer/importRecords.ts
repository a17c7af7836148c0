import type { ImportMode, ImportOptions } from './importOptions.js';
import {
  eachInSteps,
  sameJson,
  storageOf,
  type EntityStorage,
  type Model,
  type Row,
  type Steps,
} from '../model/index.js';
import { violationsIn, type RowChange, type Draft, type ProblemDetail } from '../engine/index.js';
import { Entries, type Entry } from './entries.js';
import type { SourceRecords } from './sourceRecords.js';
import { keyPathOf } from './recordTypes.js';
import type { ProblemReporter } from './values.js';

/** What became of the records of one kind. */
export interface ImportedRecords {
  readonly type: string;
  readonly added: number;
  readonly changed: number;
  readonly unchanged: number;
  readonly removed: number;
  /** Names of what was given and is computed, so that it is not taken in; absent where there is none. */
  readonly passedOver?: readonly string[];
}

export type ImportOutcome =
  | { readonly ok: true; readonly changes: readonly RowChange[]; readonly types: readonly ImportedRecords[] }
  /** Nothing is imported. `problems` are the first of them. */
  | { readonly ok: false; readonly problems: readonly ProblemDetail[]; readonly count: number };

const PROBLEMS_SHOWN = 100;

/** Gathers problems, and counts those that are too many to be shown. */
class Problems {
  readonly shown: ProblemDetail[] = [];
  count = 0;
  readonly report: ProblemReporter = (problem) => {
    this.count++;
    if (this.shown.length < PROBLEMS_SHOWN) this.shown.push(problem);
  };
}

/**
 * Takes records in, all or none, in steps. They are found by their keys, so that a record that is there changes, and
 * keep every rule of the model together with those that are there. The changes are not applied yet. `given`: the
 * records; `replace` is about all kinds that are among them.
 */
export function* importRecords(
  model: Model,
  draft: Draft,
  given: (report: ProblemReporter) => Iterable<SourceRecords>,
  options: ImportOptions,
): Steps<ImportOutcome> {
  const problems = new Problems();
  const entries = yield* Entries.read(model, draft, given(problems.report), options, problems.report);
  if (problems.count > 0) return refused(problems);
  const changes: RowChange[] = [];
  const types: ImportedRecords[] = [];
  for (const [storage, known] of entries.byKind)
    types.push(yield* findChanges(storage, known, entries, options.mode, changes));
  yield* checkWhole(model, draft, changes, entries, options, problems.report);
  return problems.count > 0 ? refused(problems) : { ok: true, changes, types };
}

const refused = ({ shown, count }: Problems): ImportOutcome => ({ ok: false, problems: shown, count });

/** Adds what changes of the records of one kind, and counts it. */
function* findChanges(
  storage: EntityStorage,
  entries: readonly Entry[],
  { gone, passed }: Entries,
  mode: ImportMode,
  changes: RowChange[],
): Steps<ImportedRecords> {
  const removed = mode === 'merge' ? [] : gone(storage);
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
  const passedOver = [...passed(storage)];
  return { type: storage.entity.name, ...counts, ...(passedOver.length === 0 ? {} : { passedOver }) };
}

/** Checks the records as they would be, those that are not touched among them. */
function* checkWhole(
  model: Model,
  draft: Draft,
  changes: readonly RowChange[],
  entries: Entries,
  { most }: ImportOptions,
  report: ProblemReporter,
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
  for (const { rid, entity, message, cause } of yield* violationsIn(model, after)) {
    if (cause.kind === 'none') {
      report({ pointer: '', code: 'rule', message });
      continue;
    }
    const entry = entries.byRid.get(rid);
    if (entry !== undefined) {
      report({ pointer: entry.given.pointer, code: 'rule', message: entry.given.place + message });
      continue;
    }
    const storage = storageOf(model).byName.get(entity);
    const row = after.get(rid);
    const path = storage === undefined || row === undefined ? null : keyPathOf(model, after, storage, row);
    const name = [entity, ...(path ?? []).map((key) => JSON.stringify(key))].join(' ');
    report({ pointer: '', code: 'rule', message: `${name}, which is there already: ${message}` });
  }
}
