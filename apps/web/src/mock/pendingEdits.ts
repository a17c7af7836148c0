import type { Model } from '@isomeros/core/model';
import { valueOfCell, type EditedValues, type RecordEdit } from '@isomeros/core/records';
import { recordTypesOf } from '@isomeros/core/transfer';
import { amount } from '../app/parts/amount.js';
import type { PendingEdit } from './recordEditsSlice.js';

/** What is typed, as it is sent; values are read by the model. */
export function asRecordEdits(model: Model, edits: readonly PendingEdit[]): readonly RecordEdit[] {
  return edits.map(({ type, row, isRemoved, texts }): RecordEdit => {
    const values = readValues(model, type, texts);
    if (row.kind === 'added') return { kind: 'add', type, values };
    const { number, version } = row;
    return isRemoved
      ? { kind: 'remove', type, number, version }
      : { kind: 'change', type, number, version, values };
  });
}

function readValues(model: Model, type: string, texts: Readonly<Record<string, string>>): EditedValues {
  const storage = recordTypesOf(model).get(type);
  return Object.fromEntries(
    Object.entries(texts).map(([column, text]) => [
      column,
      storage === undefined ? text : valueOfCell(model, storage, column, text),
    ]),
  );
}

/** What is to be written, in words: `2 cells changed, 1 row added`. */
export function editsInWords(edits: readonly PendingEdit[]): string {
  const removed = edits.filter(({ isRemoved }) => isRemoved).length;
  const added = edits.filter(({ row }) => row.kind === 'added').length;
  const cells = edits
    .filter(({ row, isRemoved }) => row.kind === 'there' && !isRemoved)
    .reduce((sum, { texts }) => sum + Object.keys(texts).length, 0);
  return [
    ...(cells > 0 ? [`${amount(cells, 'cell')} changed`] : []),
    ...(added > 0 ? [`${amount(added, 'row')} added`] : []),
    ...(removed > 0 ? [`${amount(removed, 'row')} removed`] : []),
  ].join(', ');
}
