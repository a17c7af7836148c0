import { describe, expect, test } from '@jest/globals';
import { parse } from '@isomeros/core/notation';
import { asRecordEdits, editsInWords } from '../src/mock/pendingEdits.js';
import {
  cellTyped,
  editsEnded,
  editsRefused,
  recordEditsReducer,
  rowAdded,
  rowRemovalTurned,
  wayChosen,
  type EditedRow,
  type PendingEdits,
} from '../src/mock/recordEditsSlice.js';
import { kestrelText } from './support/kestrel.js';

const MOCK = 'm';
const SAILING: EditedRow = { kind: 'there', number: 7, version: 3 };
const ADDED: EditedRow = { kind: 'added', id: 1 };

type Action = Parameters<typeof recordEditsReducer>[1];

const typed = (row: EditedRow, column: string, text: string, before = ''): Action =>
  cellTyped({ mock: MOCK, type: 'Sailing', row, column, text, before });
const turned = (row: EditedRow): Action => rowRemovalTurned({ mock: MOCK, type: 'Sailing', row });
const added = rowAdded({ mock: MOCK, type: 'Sailing' });

const after = (...actions: readonly Action[]): PendingEdits =>
  actions.reduce(recordEditsReducer, recordEditsReducer(undefined, { type: 'begin' })).byMock[MOCK] ?? {
    way: 'contract',
    edits: [],
  };

describe('what is typed into tables', () => {
  test.each<readonly [string, readonly Action[], string]>([
    ['a cell', [typed(SAILING, 'berth', '2A')], '1 cell changed'],
    [
      'two cells of one record',
      [typed(SAILING, 'berth', '2A'), typed(SAILING, 'places', '3')],
      '2 cells changed',
    ],
    ['what was there', [typed(SAILING, 'berth', '2A', '1'), typed(SAILING, 'berth', '1', '1')], ''],
    ['a row', [added, typed(ADDED, 'berth', '1')], '1 row added'],
    ['a row that is taken away again', [added, turned(ADDED)], ''],
    ['a removal', [turned(SAILING)], '1 row removed'],
    ['a removal that is taken back', [turned(SAILING), turned(SAILING)], ''],
    ['a removal of what was typed into', [typed(SAILING, 'berth', '2A'), turned(SAILING)], '1 row removed'],
    ['what is discarded', [typed(SAILING, 'berth', '2A'), editsEnded(MOCK)], ''],
  ])('%s is told as what it is', (_what, actions, words) => {
    expect(editsInWords(after(...actions).edits)).toBe(words);
  });

  test('is sent as the values it stands for, in the version that was seen', () => {
    const { model } = parse(kestrelText);
    const { edits } = after(
      typed(SAILING, 'places', '12'),
      typed(SAILING, 'vessel', '', 'KS-04'),
      added,
      typed(ADDED, 'route', '4'),
      turned({ kind: 'there', number: 9, version: 1 }),
    );
    expect(asRecordEdits(model, edits)).toEqual([
      { kind: 'change', type: 'Sailing', number: 7, version: 3, values: { places: 12, vessel: null } },
      { kind: 'add', type: 'Sailing', values: { route: 4 } },
      { kind: 'remove', type: 'Sailing', number: 9, version: 1 },
    ]);
  });

  test('keeps what is wrong at its column until something else is typed there', () => {
    const problem = { edit: 1, column: 'berth', status: 400, message: 'Expected text of 1 to 4 characters.' };
    const refused = editsRefused({ mock: MOCK, problems: [problem] });
    const before = [added, typed(SAILING, 'berth', 'PIER2'), wayChosen({ mock: MOCK, way: 'around' })];
    const told = after(...before, refused);
    expect(told.edits.map(({ problems }) => problems.length)).toEqual([0, 1]);
    expect(told.way).toBe('around');
    const mended = after(...before, refused, typed(SAILING, 'berth', 'P2'));
    expect(mended.edits.map(({ problems }) => problems.length)).toEqual([0, 0]);
  });

  test('goes on in the version that is seen once it was refused, and not before', () => {
    const changed = 'It was changed meanwhile, from version 3 to 5.';
    const refused = editsRefused({
      mock: MOCK,
      problems: [{ edit: 0, column: null, status: null, message: changed }],
    });
    const first = typed(SAILING, 'berth', '2A');
    const again = typed({ kind: 'there', number: 7, version: 5 }, 'berth', '2A');
    const rowsAfter = (...actions: readonly Action[]): unknown =>
      after(...actions).edits.map(({ row }) => row);
    expect(rowsAfter(first, again)).toEqual([SAILING]);
    expect(rowsAfter(first, refused, again)).toEqual([{ ...SAILING, version: 5 }]);
    expect(after(first, refused, again).edits.map(({ problems }) => problems)).toEqual([[]]);
    const removedAgain = turned({ kind: 'there', number: 7, version: 5 });
    expect(rowsAfter(first, turned(SAILING), refused, removedAgain)).toEqual([{ ...SAILING, version: 5 }]);
  });
});
