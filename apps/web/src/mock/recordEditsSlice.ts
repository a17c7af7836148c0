import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { EditProblem } from '@isomeros/core/records';

/** A row of a table: a record that is there, in the version that was seen, or one that is to be added. */
export type EditedRow =
  | { readonly kind: 'there'; readonly number: number; readonly version: number }
  | { readonly kind: 'added'; readonly id: number };

/** What was typed about one record and is not written yet. */
export interface PendingEdit {
  readonly type: string;
  readonly row: EditedRow;
  readonly isRemoved: boolean;
  /** What was typed into its columns. */
  readonly texts: Readonly<Record<string, string>>;
  readonly problems: readonly Omit<EditProblem, 'edit'>[];
}

/** Whether edits are written through the contract, or around it. */
export type EditWay = 'contract' | 'around';

/** What is typed into the tables of one mock. */
export interface PendingEdits {
  readonly way: EditWay;
  readonly edits: readonly PendingEdit[];
}

export const NO_EDITS: PendingEdits = { way: 'contract', edits: [] };

export interface RecordEditsState {
  /** By the ids of mocks. */
  readonly byMock: Readonly<Record<string, PendingEdits>>;
  /** How many rows were added so far: each has its own number. */
  readonly added: number;
}

interface OfRow {
  readonly mock: string;
  readonly type: string;
  readonly row: EditedRow;
}

const initialState: RecordEditsState = { byMock: {}, added: 0 };

export const isSameRow = (one: EditedRow, other: EditedRow): boolean =>
  one.kind === 'there'
    ? other.kind === 'there' && one.number === other.number
    : other.kind === 'added' && one.id === other.id;

/** The edits of a mock after those of one row are other ones; `null` where nothing is to be done about it. */
function withRow(
  state: RecordEditsState,
  { mock, type, row }: OfRow,
  change: (known: PendingEdit) => PendingEdit | null,
): RecordEditsState {
  const known = state.byMock[mock] ?? NO_EDITS;
  const isMeant = (edit: PendingEdit): boolean => edit.type === type && isSameRow(edit.row, row);
  const before = known.edits.find(isMeant);
  // Who was told of what is wrong and goes on has seen what the record is now.
  const seen = before !== undefined && before.problems.length > 0 ? { ...before, row } : before;
  const after = change(seen ?? { type, row, isRemoved: false, texts: {}, problems: [] });
  const edits = before === undefined ? known.edits : known.edits.filter((edit) => !isMeant(edit));
  const next =
    after === null
      ? edits
      : before === undefined
        ? [...edits, after]
        : known.edits.map((edit) => (edit === before ? after : edit));
  return { ...state, byMock: { ...state.byMock, [mock]: { ...known, edits: next } } };
}

const slice = createSlice({
  name: 'recordEdits',
  initialState,
  reducers: {
    cellTyped: (
      state,
      {
        payload,
      }: PayloadAction<OfRow & { readonly column: string; readonly text: string; readonly before: string }>,
    ) =>
      withRow(state, payload, (known) => {
        const { column, text, before } = payload;
        const rest = Object.fromEntries(Object.entries(known.texts).filter(([name]) => name !== column));
        const texts = text === before ? rest : { ...rest, [column]: text };
        const isNothing = known.row.kind === 'there' && !known.isRemoved && Object.keys(texts).length === 0;
        const problems = known.problems.filter((one) => one.column !== column && one.column !== null);
        return isNothing ? null : { ...known, texts, problems };
      }),
    rowAdded: (
      state,
      { payload: { mock, type } }: PayloadAction<{ readonly mock: string; readonly type: string }>,
    ) => {
      const row: EditedRow = { kind: 'added', id: state.added + 1 };
      return withRow({ ...state, added: state.added + 1 }, { mock, type, row }, (known) => known);
    },
    /** Takes an added row away; of a record that is there, whether it is to be removed changes. */
    rowRemovalTurned: (state, { payload }: PayloadAction<OfRow>) =>
      withRow(state, payload, (known) => {
        if (known.row.kind === 'added') return null;
        const isRemoved = !known.isRemoved;
        return isRemoved || Object.keys(known.texts).length > 0
          ? { ...known, isRemoved, problems: [] }
          : null;
      }),
    wayChosen: (
      state,
      { payload: { mock, way } }: PayloadAction<{ readonly mock: string; readonly way: EditWay }>,
    ) => ({
      ...state,
      byMock: { ...state.byMock, [mock]: { ...(state.byMock[mock] ?? NO_EDITS), way } },
    }),
    /** Told of the edits in their order. */
    editsRefused: (
      state,
      {
        payload: { mock, problems },
      }: PayloadAction<{ readonly mock: string; readonly problems: readonly EditProblem[] }>,
    ) => {
      const known = state.byMock[mock] ?? NO_EDITS;
      const edits = known.edits.map((edit, index) => ({
        ...edit,
        problems: problems.filter((problem) => problem.edit === index),
      }));
      return { ...state, byMock: { ...state.byMock, [mock]: { ...known, edits } } };
    },
    /** They are written, or not wanted any more. */
    editsEnded: (state, { payload: mock }: PayloadAction<string>) => ({
      ...state,
      byMock: { ...state.byMock, [mock]: { ...(state.byMock[mock] ?? NO_EDITS), edits: [] } },
    }),
  },
});

export const recordEditsReducer = slice.reducer;
export const { cellTyped, rowAdded, rowRemovalTurned, wayChosen, editsRefused, editsEnded } = slice.actions;
