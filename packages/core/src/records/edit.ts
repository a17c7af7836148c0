import { pointerTokens, type ProblemDetail, type RecordView } from '../engine/index.js';
import type { EntityStorage, Json, Row } from '../model/index.js';

/** The values of columns, by their names in the model; what a role leads to by its key, or the keys that lead to it. */
export type EditedValues = Readonly<Record<string, Json>>;

/** One thing that is to be written to records. */
export type RecordEdit =
  | { readonly kind: 'add'; readonly type: string; readonly values: EditedValues }
  | ({ readonly kind: 'change'; readonly values: EditedValues } & EditedRecord)
  | ({ readonly kind: 'remove' } & EditedRecord);

interface EditedRecord {
  readonly type: string;
  /** The number of the record in the mock. */
  readonly number: number;
  /** The version that was seen when it was edited. */
  readonly version: number;
}

/** Why an edit is not written. */
export interface EditProblem {
  /** Which of the edits, from 0. */
  readonly edit: number;
  /** The column that it is about; `null` where it is about the whole record. */
  readonly column: string | null;
  /** What the contract answers (RFC 9110 §15); `null` where it was not asked. */
  readonly status: number | null;
  readonly message: string;
}

/** A problem that is not told yet of which edit it is. */
export type ProblemOfEdit = Omit<EditProblem, 'edit'>;

export const editProblem = (message: string, column: string | null = null): ProblemOfEdit => ({
  column,
  status: null,
  message,
});

/** A record that is to be changed or removed, as it is now. */
export type EditTarget =
  { readonly ok: true; readonly row: Row } | { readonly ok: false; readonly problem: ProblemOfEdit };

/** Finds the record of an edit. What somebody else changed meanwhile is not written over. */
export function editedRow(
  view: RecordView,
  storage: EntityStorage,
  { type, number, version }: EditedRecord,
): EditTarget {
  const row = view.get(number);
  if (row?.entity !== storage.entity.id) return isOver(`The ${type} is not there any more.`);
  return row.revision === version
    ? { ok: true, row }
    : isOver(
        `It was changed meanwhile, from version ${version} to ${row.revision}. Edit it again to write over that.`,
      );
}

const isOver = (message: string): EditTarget => ({ ok: false, problem: editProblem(message) });

/** Where something is wrong, by the names and places that lead there (RFC 6901); empty where it is about the whole. */
export const pointerIn = (error: ProblemDetail): readonly string[] =>
  'pointer' in error ? (pointerTokens(error.pointer) ?? []) : [];

export const unknownType = ({ type }: RecordEdit): ProblemOfEdit =>
  editProblem(`There is no type of record ${type}.`);
