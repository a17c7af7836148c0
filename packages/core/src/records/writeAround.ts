import { planRemoval, type Draft, type RowChange } from '../engine/index.js';
import {
  appendAll,
  bareObject,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
  type Steps,
} from '../model/index.js';
import {
  importRecords,
  recordTypesOf,
  scopeOf,
  writeRecord,
  type ImportOptions,
  type SourceRecords,
} from '../transfer/index.js';
import {
  editedRow,
  editProblem,
  pointerIn,
  unknownType,
  type EditedValues,
  type EditProblem,
  type ProblemOfEdit,
  type RecordEdit,
} from './edit.js';

export type WrittenAround =
  | { readonly ok: true; readonly changes: readonly RowChange[] }
  | { readonly ok: false; readonly problems: readonly EditProblem[] };

/**
 * Writes edits around the contract, all or none, in steps: what it does not offer, what only a transition moves, what is
 * fixed or read-only. The rules of the model hold. The changes are not applied to the records of the draft yet.
 */
export function* writeAround(
  model: Model,
  draft: Draft,
  edits: readonly RecordEdit[],
  options: Omit<ImportOptions, 'mode'>,
): Steps<WrittenAround> {
  const problems: EditProblem[] = [];
  const tell = (edit: number, found: readonly ProblemOfEdit[]): void => {
    appendAll(
      problems,
      found.map((one) => ({ ...one, edit })),
    );
  };
  const given: SourceRecords[] = [];
  for (const [index, edit] of edits.entries()) {
    if (edit.kind === 'remove') continue;
    const read = sourceOf(model, draft, edit, `/${index}`);
    if ('problems' in read) tell(index, read.problems);
    else given.push(read);
  }
  for (const [index, edit] of edits.entries())
    if (edit.kind === 'remove') tell(index, removed(model, draft, edit));
  if (problems.length > 0) return { ok: false, problems };
  const gone = [...draft.changes];
  const outcome = yield* importRecords(model, draft, () => given, { ...options, mode: 'merge' });
  if (outcome.ok) return { ok: true, changes: [...gone, ...outcome.changes] };
  for (const error of outcome.problems) {
    const [index = '', column = null] = pointerIn(error);
    const edit = edits[Number(index)];
    const isColumn = edit !== undefined && edit.kind !== 'remove' && column !== null && column in edit.values;
    tell(Number(index), [editProblem(error.message, isColumn ? column : null)]);
  }
  return { ok: false, problems };
}

type Refused = { readonly problems: readonly ProblemOfEdit[] };

/** An edit as a record that is imported: what tells which one it is, and the columns that are given. */
function sourceOf(
  model: Model,
  draft: Draft,
  edit: Exclude<RecordEdit, { kind: 'remove' }>,
  pointer: string,
): SourceRecords | Refused {
  const storage = recordTypesOf(model).get(edit.type);
  if (storage === undefined) return { problems: [unknownType(edit)] };
  const computed = storage.computed.filter(({ name }) => name in edit.values);
  if (computed.length > 0)
    return { problems: computed.map(({ name }) => editProblem(`${name} is computed of others.`, name)) };
  if (edit.kind === 'add') return { storage, record: { value: edit.values, pointer, place: '' } };
  const found = editedRow(draft, storage, edit);
  if (!found.ok) return { problems: [found.problem] };
  const telling = identityOf(model, draft, storage, found.row);
  const renamed = Object.keys(edit.values).filter((column) => telling.columns.includes(column));
  if (renamed.length > 0)
    return {
      problems: renamed.map((column) =>
        editProblem(`${column} tells which ${edit.type} this is, and stays.`, column),
      ),
    };
  const value = Object.assign(bareObject(), telling.values, edit.values);
  return { storage, record: { value, pointer, place: '' } };
}

/** What tells which record one is, by the names of its columns. */
function identityOf(
  model: Model,
  draft: Draft,
  storage: EntityStorage,
  row: Row,
): { readonly columns: readonly string[]; readonly values: EditedValues } {
  const written = writeRecord(model, draft, storage, row, { secrets: false });
  const columns = scopeOf(model, storage).map(({ name }) => name);
  if (!storage.singleton) columns.push(storage.key.name);
  const values: Record<string, Json> = bareObject();
  for (const column of columns) values[column] = written[column] ?? null;
  return { columns, values };
}

/** Takes a record out of the draft, with what goes with it; why it stays where it does. */
function removed(
  model: Model,
  draft: Draft,
  edit: Extract<RecordEdit, { kind: 'remove' }>,
): readonly ProblemOfEdit[] {
  const storage = recordTypesOf(model).get(edit.type);
  if (storage === undefined) return [unknownType(edit)];
  const found = editedRow(draft, storage, edit);
  if (!found.ok) return [found.problem];
  const plan = planRemoval(model, draft, found.row);
  if (!plan.ok) {
    const roles = [...new Set(plan.blocking.map(({ role }) => role))].join(', ');
    return [editProblem(`It is still needed by ${roles}.`)];
  }
  draft.apply(plan.changes);
  return [];
}
