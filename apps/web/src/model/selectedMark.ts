import { StateEffect, StateField, type EditorState, type Extension } from '@codemirror/state';
import { Decoration, EditorView, type DecorationSet } from '@codemirror/view';

/** Lines from the first to the last, both counted from 1. */
export interface LineRange {
  readonly first: number;
  readonly last: number;
}

/** Tints the lines of the statement that is selected, here or on the map. */
export const showSelected = StateEffect.define<LineRange | null>();

export const selectedMark = (): Extension => field;

const line = Decoration.line({ class: 'cm-selected-statement' });

const field = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    let next = marks.map(transaction.changes);
    for (const effect of transaction.effects)
      if (effect.is(showSelected)) next = decorate(transaction.state, effect.value);
    return next;
  },
  provide: (marks) => EditorView.decorations.from(marks),
});

function decorate({ doc }: EditorState, range: LineRange | null): DecorationSet {
  if (range === null) return Decoration.none;
  const numbers = Array.from(
    { length: Math.max(0, range.last - range.first + 1) },
    (_, index) => range.first + index,
  );
  return Decoration.set(
    numbers.filter((number) => number <= doc.lines).map((number) => line.range(doc.line(number).from)),
  );
}
