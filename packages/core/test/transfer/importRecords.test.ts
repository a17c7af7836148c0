import { describe, expect, test } from '@jest/globals';
import { MOST_COLUMNS, constraintValue, type Json } from '@isomeros/core/model';
import type { ImportMode } from '@isomeros/core/transfer';
import { NOW } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { messages, Store } from '../support/store.js';

const SHED = modelOf(`entity Vessel
  pennant: text(2..6), key
  built: integer(1900..2100)
  state: choice(new, old), default new
  serial: integer, generated
  changedAt: instant, touched

entity Cabin
  label: text(1..6), key within vessel
  berths: integer(1..6), required

entity Paper
  number: text(1..9), required

each Vessel owns many Cabin as cabins, back as vessel
each Vessel owns optional Paper as paper
each Vessel refers to optional Cabin as best
`);

const shed = (): Store => {
  const store = new Store(SHED);
  const document = {
    Vessel: [
      { pennant: 'V1', built: 1990, serial: 7, best: ['V1', 'A'] },
      { pennant: 'V2', state: null },
    ],
    Cabin: [
      { label: 'A', berths: 2, vessel: 'V1' },
      { label: 'A', berths: 4, vessel: 'V2' },
    ],
    Paper: [{ number: '12', vessel: 'V2' }],
  };
  expect(messages(store.takeJson(document))).toEqual([]);
  return store;
};

describe('taking in', () => {
  test('makes what is not said: numbers behind the given ones, defaults, the moment', () => {
    const at = new Date(NOW).toISOString();
    expect(shed().json().Vessel).toEqual([
      { pennant: 'V1', built: 1990, state: 'new', serial: 7, changedAt: at, best: ['V1', 'A'] },
      // Unset on purpose, so that it is said again when it is written.
      { pennant: 'V2', state: null, serial: 8, changedAt: at },
    ]);
  });

  test('merges: what is absent stays, what is null is unset, what is new is added', () => {
    const store = shed();
    const taken = store.takeJson({
      Vessel: [{ pennant: 'V1', state: 'old', best: null }, { pennant: 'V3' }],
      Paper: [{ vessel: 'V2', number: '13' }],
    });
    expect(taken).toMatchObject({
      ok: true,
      types: [
        { type: 'Vessel', added: 1, changed: 1, unchanged: 0, removed: 0 },
        { type: 'Paper', added: 0, changed: 1 },
      ],
    });
    const { Vessel, Paper } = store.json();
    expect(Vessel?.[0]).not.toHaveProperty('best');
    expect(Vessel).toMatchObject([
      { pennant: 'V1', built: 1990, state: 'old', serial: 7 },
      { pennant: 'V2' },
      { pennant: 'V3', state: 'new', serial: 9 },
    ]);
    expect(Paper).toEqual([{ number: '13', vessel: 'V2' }]);
  });

  test('replaces: what is not given goes, and a record keeps its number by its key', () => {
    const store = shed();
    const [first] = [...store.dataset.all(store.kind('Vessel'))];
    const taken = store.takeJson(
      { Vessel: [{ pennant: 'V1' }], Cabin: [{ label: 'A', berths: 2, vessel: 'V1' }], Paper: [] },
      'replace',
    );
    expect(taken).toMatchObject({
      types: [
        { type: 'Vessel', changed: 1, removed: 1 },
        { type: 'Cabin', unchanged: 1, removed: 1 },
        { type: 'Paper', removed: 1 },
      ],
    });
    const [vessel] = [...store.dataset.all(store.kind('Vessel'))];
    expect(vessel).toMatchObject({ rid: first?.rid, revision: 2 });
    expect(store.json().Vessel).toMatchObject([{ pennant: 'V1', serial: 7 }]);
    expect(store.json().Vessel?.[0]).not.toHaveProperty('built');
  });

  test('two records may change their keys with each other', () => {
    const model = modelOf('entity Seat\n  code: text, key\n  row: integer, unique\n');
    const store = new Store(model);
    store.takeJson({
      Seat: [
        { code: 'A', row: 1 },
        { code: 'B', row: 2 },
      ],
    });
    const swapped = [
      { code: 'A', row: 2 },
      { code: 'B', row: 1 },
    ];
    expect(messages(store.takeJson({ Seat: swapped }))).toEqual([]);
    expect(store.json().Seat).toEqual(swapped);
    const seat = store.kind('Seat');
    const row = seat.uniques.at(-1) ?? seat.keyConstraint;
    const first = constraintValue(row, { [row.parts[0] ?? '']: 1 });
    expect(store.dataset.find(seat, row, first ?? '')?.values[seat.key.id]).toBe('B');
  });

  const REFUSED: readonly { name: string; document: Json; way?: ImportMode; says: readonly RegExp[] }[] = [
    { name: 'no object', document: [], says: [/^ Expected an object with an array/] },
    { name: 'no array', document: { Vessel: {} }, says: [/^\/Vessel Expected an array/] },
    { name: 'no record', document: { Vessel: [7] }, says: [/^\/Vessel\/0 Expected an object/] },
    {
      name: 'an unknown kind',
      document: { Vesel: [] },
      says: [/^\/Vesel The model has no records called Vesel. The nearest is Vessel/],
    },
    {
      name: 'an unknown member',
      document: { Vessel: [{ pennant: 'V9', bilt: 1 }] },
      says: [/^\/Vessel\/0\/bilt There is nothing called bilt here. The nearest is built/],
    },
    {
      name: 'values that do not fit, all at once',
      document: {
        Vessel: [
          { pennant: 'V', built: 'x' },
          { pennant: 'V9', state: 'lost' },
        ],
      },
      says: [
        /\/0\/pennant Expected text of 2 to 6/,
        /\/0\/built Expected an integer/,
        /\/1\/state Expected one of new, old/,
      ],
    },
    {
      name: 'no key',
      document: { Vessel: [{ built: 1990 }] },
      says: [/^\/Vessel\/0 Expected pennant: it is the key/],
    },
    {
      name: 'no owner where the key is unique below it',
      document: { Cabin: [{ label: 'A', berths: 1 }] },
      says: [/^\/Cabin\/0 Expected vessel: it tells which record this is/],
    },
    {
      name: 'one key where two are needed',
      document: { Vessel: [{ pennant: 'V1', best: 'A' }] },
      says: [/^\/Vessel\/0\/best Expected an array of 2 keys that lead to a Cabin as best/],
    },
    {
      name: 'a reference to nothing',
      document: { Vessel: [{ pennant: 'V1', best: ['V2', 'B'] }] },
      says: [/^\/Vessel\/0\/best Expected the best of a Cabin that is there; there is none with V2, B/],
    },
    {
      name: 'the same key twice',
      document: { Vessel: [{ pennant: 'V9' }, { pennant: 'V9' }] },
      says: [/^\/Vessel\/1 A record before it has the same key/],
    },
    {
      name: 'what is required and not there',
      document: { Cabin: [{ label: 'B', vessel: 'V1' }] },
      says: [/^\/Cabin\/0 berths is required/],
    },
    {
      name: 'what a record that is there points at going away',
      document: { Cabin: [] },
      way: 'replace',
      says: [/Vessel "V1", which is there already: It points at a Cabin that is not there/],
    },
  ];

  test.each(REFUSED)('is refused as a whole: $name', ({ document, way, says }) => {
    const store = shed();
    const before = store.json();
    const said = messages(store.takeJson(document, way));
    expect(said).toHaveLength(says.length);
    says.forEach((pattern, index) => expect(said[index]).toMatch(pattern));
    expect(store.json()).toEqual(before);
  });

  test('no more records than a mock holds', () => {
    const records = Array.from({ length: 1_001 }, (_, index) => ({ pennant: `X${index}` }));
    expect(messages(shed().takeJson({ Vessel: records }))).toEqual([
      ' A mock holds at most 1000 records; there would be 1006.',
    ]);
  });

  test('names that objects have by themselves are only names', () => {
    const model = modelOf('entity Odd\n  code: text, key\n  constructor: text\n');
    const store = new Store(model);
    const document = JSON.parse('{"Odd":[{"code":"__proto__","constructor":"x"}]}') as Json;
    expect(messages(store.takeJson(document))).toEqual([]);
    const hostile = JSON.parse('{"Odd":[{"code":"a","__proto__":"x"}],"toString":[]}') as Json;
    expect(messages(store.takeJson(hostile))).toEqual([
      expect.stringMatching(/^\/Odd\/0\/__proto__ There is nothing called/) as unknown as string,
      expect.stringMatching(/^\/toString The model has no records/) as unknown as string,
    ]);
  });
});

describe('comma-separated values', () => {
  test('take other separators, a mark at the beginning, and lines inside a cell', () => {
    const store = shed();
    const text = '\uFEFFpennant;built\nV8;"1991"\n"V9";\n';
    expect(messages(store.takeCsv('Vessel', text))).toEqual([]);
    expect(store.json().Vessel).toMatchObject([{}, {}, { pennant: 'V8', built: 1991 }, { pennant: 'V9' }]);
  });

  const BROKEN: readonly { text: string; says: readonly RegExp[] }[] = [
    { text: '', says: [/Expected a first line with the names/] },
    { text: 'pennant,tonnage\nV1,3\n', says: [/^ Line 1: There is nothing called tonnage here/] },
    { text: 'pennant,pennant\nV1,V2\n', says: [/^ Line 1: The column pennant stands there twice/] },
    {
      text: `pennant${','.repeat(MOST_COLUMNS)}\n`,
      says: [/^ Line 1: there are 16385 columns; at most 16384 are read/],
    },
    { text: 'pennant,built\nV1\n', says: [/^\/0 Line 2: Expected 2 cells; there are 1/] },
    {
      text: 'pennant,built\nV1,1990\nV2,soon\n',
      says: [/^\/1\/built Line 3: Expected an integer from 1900 to 2100; it is "soon"/],
    },
    { text: 'pennant,best\nV1,"[""V1"""\n', says: [/^\/0\/best Line 2: Expected JSON/] },
    { text: 'pennant,built\n"V1,1990\n', says: [/Line \d+: a quote is not closed/] },
  ];

  test.each(BROKEN)('say the line of what is wrong: $says', ({ text, says }) => {
    const said = messages(shed().takeCsv('Vessel', text));
    expect(said).toHaveLength(says.length);
    says.forEach((pattern, index) => expect(said[index]).toMatch(pattern));
  });

  test('a kind is replaced alone', () => {
    const store = shed();
    const taken = store.takeCsv('Paper', 'number,vessel\n77,V1\n', 'replace');
    expect(taken).toMatchObject({ types: [{ type: 'Paper', added: 1, removed: 1 }] });
    expect(store.json().Paper).toEqual([{ number: '77', vessel: 'V1' }]);
    expect(store.json().Vessel).toHaveLength(2);
  });
});

test('a write-only value that was unset when all was written out does not stay when it replaces', () => {
  const model = modelOf('entity Door\n  code: text, key\n  pin: text, unique, write-only\n');
  const first = new Store(model);
  first.takeJson({ Door: [{ code: 'A' }, { code: 'B', pin: '1' }] });
  const second = new Store(model);
  second.takeJson({ Door: [{ code: 'A', pin: '1' }, { code: 'B' }] });
  expect(messages(second.takeJson(first.json(), 'replace'))).toEqual([]);
  expect(second.json()).toEqual(first.json());
});

describe('what is computed', () => {
  const model = modelOf(
    'entity Box\n  number: integer, key\n  sides: integer\n  double: integer, computed sides * 2\n',
  );

  test('is not written out, and passed over where it is given, which is told', () => {
    const store = new Store(model);
    const taken = store.takeJson({
      Box: [
        { number: 1, sides: 3, double: 7 },
        { number: 2, double: null },
      ],
    });
    expect(messages(taken)).toEqual([]);
    expect(taken).toMatchObject({ types: [{ type: 'Box', added: 2, passedOver: ['double'] }] });
    expect(store.json().Box).toEqual([{ number: 1, sides: 3 }, { number: 2 }]);
    const again = store.takeJson({ Box: [{ number: 1, sides: 4 }] });
    expect(again).toMatchObject({ types: [{ changed: 1 }] });
    expect(JSON.stringify(again)).not.toContain('passedOver');
  });

  test('is passed over in a table, whatever stands in it', () => {
    const store = new Store(model);
    const taken = store.takeCsv('Box', 'number,double,sides\n1,any thing,3\n');
    expect(messages(taken)).toEqual([]);
    expect(store.json().Box).toEqual([{ number: 1, sides: 3 }]);
  });
});
