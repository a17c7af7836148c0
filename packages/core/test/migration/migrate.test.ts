import { describe, expect, test } from '@jest/globals';
import { Dataset, findViolations } from '@isomeros/core/engine';
import { migrate, type Decision, type Migration } from '@isomeros/core/migration';
import { reconcile, type Json, type Model, type Row } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import { seed } from '@isomeros/core/seeding';
import { recordsByType, writeRecord } from '@isomeros/core/transfer';
import fc from 'fast-check';
import { NOW } from '../support/mock.js';
import { anyModel, modelOf } from '../support/models.js';
import { Store } from '../support/store.js';
import { rounds } from '../support/rounds.js';

const TOOLS = { now: NOW, uuid: () => '0b1c2d3e-4f50-4a6b-8c7d-8e9fa0b1c2d3' };

const BASE = `entity Route
  code: text(1..9), key
  name: text(1..60)
  length: text(0..9)

entity Sailing
  berth: text(1..9)
  note: text

each Route owns many Sailing as sailings
each Sailing refers to optional Route as detour
`;

const RECORDS: Json = {
  Route: [
    { code: 'A', name: 'Over', length: '12.6' },
    { code: 'B', name: 'Over', length: 'far' },
    { code: 'C', length: '' },
  ],
  Sailing: [
    { id: 1, berth: 'B1', note: 'First', route: 'A' },
    { id: 2, route: 'A', detour: 'B' },
    { id: 3, berth: 'B3', route: 'B' },
  ],
};

const before = modelOf(BASE);

function start(): readonly Row[] {
  const store = new Store(before);
  const taken = store.takeJson(RECORDS);
  if (!taken.ok) throw new Error(JSON.stringify(taken.problems));
  return [...store.dataset.everything()];
}

const edited = (...edits: readonly (readonly [from: string, to: string])[]): Model => {
  const text = edits.reduce((known, [from, to]) => {
    if (!known.includes(from)) throw new Error(`Nothing to edit: ${from}`);
    return known.replace(from, to);
  }, BASE);
  return parse(text, reconcile(before, modelOf(text))).model;
};

function moved(after: Model, decisions: Readonly<Record<string, Decision>>): Migration {
  const counters = { rid: 6, attributes: { 'Sailing#id': 3 } };
  return migrate(before, after, start(), counters, new Map(Object.entries(decisions)), TOOLS);
}

const outcome = (after: Model, { rows }: Migration): Record<string, Json[]> => {
  const dataset = new Dataset(after, rows, { rid: 0, attributes: {} });
  return Object.fromEntries(
    [...recordsByType(after, rows)].map(([storage, own]) => [
      storage.entity.name,
      own.map((row) => writeRecord(after, dataset, storage, row, { secrets: true })),
    ]),
  );
};

interface Case {
  readonly name: string;
  readonly after: Model;
  /** Ids of steps that wait, with what is offered. */
  readonly waits: Readonly<Record<string, string>>;
  readonly decisions: Readonly<Record<string, Decision>>;
  /** What becomes of one kind of record. */
  readonly becomes: Readonly<Record<string, unknown>>;
}

const CASES: readonly Case[] = [
  {
    name: 'an attribute goes: its values are dropped',
    after: edited(['  length: text(0..9)\n', '']),
    waits: { 'lost Route.length': 'drop' },
    decisions: { 'lost Route.length': { do: 'drop' } },
    becomes: { Route: [{ code: 'A', name: 'Over' }, { code: 'B', name: 'Over' }, { code: 'C' }] },
  },
  {
    name: 'a new required attribute: all get one value',
    after: edited(['  length', '  kind: choice(ferry, taxi), required\n  length']),
    waits: { 'unset Route.kind Route': 'fill drop' },
    decisions: { 'unset Route.kind Route': { do: 'fill', value: 'taxi' } },
    becomes: { Route: [{ kind: 'taxi' }, { kind: 'taxi' }, { kind: 'taxi' }] },
  },
  {
    name: 'what is required now: records without it go, with what they own, and are let go of',
    after: edited(['name: text(1..60)', 'name: text(1..60), required']),
    waits: { 'unset Route.name Route': 'fill drop' },
    decisions: { 'unset Route.name Route': { do: 'drop' } },
    becomes: { Route: [{ code: 'A' }, { code: 'B' }], Sailing: [{ id: 1 }, { id: 2 }, { id: 3 }] },
  },
  {
    name: 'another type: numbers are read and rounded, and what is none waits until it is decided again',
    after: edited(['length: text(0..9)', 'length: integer(0..10)']),
    waits: { 'misfit Route.length Route': 'convert fill drop' },
    decisions: { 'misfit Route.length Route': { do: 'convert' } },
    becomes: { waiting: { 'misfit Route.length Route': ['B', 'C'] } },
  },
  {
    name: 'another type: what is no number goes, what is one stays',
    after: edited(['length: text(0..9)', 'length: integer(0..10)']),
    waits: { 'misfit Route.length Route': 'convert fill drop' },
    decisions: { 'misfit Route.length Route': { do: 'convert', otherwise: { do: 'drop' } } },
    becomes: { Route: [{ code: 'A', length: 10 }, { code: 'B', name: 'Over' }, { code: 'C' }] },
  },
  {
    name: 'another type: what is no number gets one',
    after: edited(['length: text(0..9)', 'length: integer(0..99)']),
    waits: { 'misfit Route.length Route': 'convert fill drop' },
    decisions: { 'misfit Route.length Route': { do: 'convert', otherwise: { do: 'fill', value: 0 } } },
    becomes: { Route: [{ length: 13 }, { length: 0 }, { length: 0 }] },
  },
  {
    name: 'another type: what does not fit is unset where it may be',
    after: edited(['length: text(0..9)', 'length: integer']),
    waits: { 'misfit Route.length Route': 'convert fill drop' },
    decisions: { 'misfit Route.length Route': { do: 'drop' } },
    becomes: { Route: [{ code: 'A', name: 'Over' }, { code: 'B', name: 'Over' }, { code: 'C' }] },
  },
  {
    name: 'a shorter text: values are cut',
    after: edited(['length: text(0..9)', 'length: text(0..2)']),
    waits: { 'misfit Route.length Route': 'convert fill drop' },
    decisions: { 'misfit Route.length Route': { do: 'convert' } },
    becomes: { Route: [{ length: '12' }, { length: 'fa' }, { length: '' }] },
  },
  {
    name: 'unique now: all but the first are numbered',
    after: edited(['name: text(1..60)', 'name: text(1..60), unique']),
    waits: { 'taken Route.name Route': 'convert drop' },
    decisions: { 'taken Route.name Route': { do: 'convert' } },
    becomes: { Route: [{ name: 'Over' }, { name: 'Over-2' }, { code: 'C' }] },
  },
  {
    name: 'unique now: all but the first go, with what they own',
    after: edited(['name: text(1..60)', 'name: text(1..60), unique']),
    waits: { 'taken Route.name Route': 'convert drop' },
    decisions: { 'taken Route.name Route': { do: 'drop' } },
    becomes: {
      Route: [{ code: 'A' }, { code: 'C' }],
      Sailing: [{ id: 1 }, { id: 2, route: 'A' }],
    },
  },
  {
    name: 'an entity goes',
    after: edited(
      ['entity Sailing\n  berth: text(1..9)\n  note: text\n', ''],
      ['each Route owns many Sailing as sailings\neach Sailing refers to optional Route as detour\n', ''],
    ),
    waits: { 'lost Sailing': 'drop' },
    decisions: { 'lost Sailing': { do: 'drop' } },
    becomes: { Route: [{ code: 'A' }, { code: 'B' }, { code: 'C' }], Sailing: undefined },
  },
  {
    name: 'an owner becomes a reference: each leads where it led',
    after: edited(['each Route owns many Sailing as sailings', 'each Sailing refers to one Route as line']),
    waits: {
      'lost Route>Sailing:sailings': 'drop',
      'pointer Sailing>Route:line Sailing': 'convert fill drop',
    },
    decisions: {
      'lost Route>Sailing:sailings': { do: 'drop' },
      'pointer Sailing>Route:line Sailing': { do: 'convert' },
    },
    becomes: { Sailing: [{ line: 'A' }, { line: 'A', detour: 'B' }, { line: 'B' }] },
  },
  {
    name: 'a reference that must lead somewhere: all lead to one record',
    after: edited(['refers to optional Route', 'refers to one Route']),
    waits: { 'pointer Sailing>Route:detour Sailing': 'fill drop' },
    decisions: { 'pointer Sailing>Route:detour Sailing': { do: 'fill', value: 'C' } },
    becomes: { Sailing: [{ detour: 'C' }, { detour: 'B' }, { detour: 'C' }] },
  },
  {
    name: 'a slot that is never empty: each gets one',
    after: edited(
      [
        'entity Sailing',
        'entity Pilot\n  name: text, required\n  grade: integer, default 2\n\nentity Sailing',
      ],
      ['each Sailing refers', 'each Sailing owns one Pilot as pilot\neach Sailing refers'],
    ),
    waits: { 'slot Sailing>Pilot:pilot Sailing': 'fill drop' },
    decisions: { 'slot Sailing>Pilot:pilot Sailing': { do: 'fill', value: { name: 'Nobody yet' } } },
    becomes: {
      Pilot: [
        { name: 'Nobody yet', grade: 2, sailing: 1 },
        { name: 'Nobody yet', grade: 2, sailing: 2 },
        { name: 'Nobody yet', grade: 2, sailing: 3 },
      ],
    },
  },
  {
    name: 'a counted key: each gets a number that is made',
    after: edited(['  berth: text(1..9)', '  number: integer(10..), key, generated\n  berth: text(1..9)']),
    waits: { 'lost Sailing#id': 'drop', 'unset Sailing.number Sailing': 'fill convert drop' },
    decisions: { 'lost Sailing#id': { do: 'drop' }, 'unset Sailing.number Sailing': { do: 'convert' } },
    becomes: { Sailing: [{ number: 10 }, { number: 11 }, { number: 12 }] },
  },
];

describe('a plan of migration', () => {
  test.each(CASES)('$name', ({ after, waits, decisions, becomes }) => {
    const plan = moved(after, {});
    expect(
      Object.fromEntries(
        plan.open.map(({ id, resolutions }) => [id, resolutions.map((offer) => offer.do).join(' ')]),
      ),
    ).toEqual(waits);
    const migrated = moved(after, decisions);
    const { waiting = {}, ...kinds } = becomes as Record<string, Json | undefined>;
    expect(Object.fromEntries(migrated.open.map(({ id, first }) => [id, first]))).toEqual(waiting);
    if (migrated.open.length === 0) expect(findViolations(after, migrated.rows)).toEqual([]);
    const all = outcome(after, migrated);
    for (const [kind, records] of Object.entries(kinds)) {
      if (records === undefined) expect(all).not.toHaveProperty(kind);
      else expect(all[kind]).toMatchObject(records as object);
    }
  });

  test('tells which records, and goes one revision further with those that change', () => {
    const after = edited(['name: text(1..60)', 'name: text(1..60), required']);
    expect(moved(after, {}).open).toEqual([
      {
        id: 'unset Route.name Route',
        message: 'Route.name is required, and has no value.',
        records: 1,
        first: ['C'],
        resolutions: expect.anything() as unknown,
      },
    ]);
    const { rows } = moved(after, { 'unset Route.name Route': { do: 'fill', value: 'Named' } });
    expect(rows.map(({ revision }) => revision)).toEqual([1, 1, 2, 1, 1, 1]);
  });

  test.each<readonly [Decision, RegExp]>([
    [{ do: 'fill', value: 7 }, /Expected one of ferry, taxi/],
    [{ do: 'fill', value: null }, /Expected one of ferry, taxi/],
  ])('a value that does not fit is told, and nothing is settled: %j', (decision, message) => {
    const after = edited(['  length', '  kind: choice(ferry, taxi), required\n  length']);
    const { open, problems } = moved(after, { 'unset Route.kind Route': decision });
    expect(open).toHaveLength(1);
    expect(problems).toEqual([
      {
        pointer: '/unset Route.kind Route',
        code: 'choice',
        message: expect.stringMatching(message) as unknown,
      },
    ]);
  });

  test('what is not offered, or is about something else, is passed over', () => {
    const after = edited(['  length: text(0..9)\n', '']);
    const { open } = moved(after, { 'lost Route.length': { do: 'convert' }, nothing: { do: 'drop' } });
    expect(open).toHaveLength(1);
  });

  test.each<readonly [from: string, to: string, value: Json, becomes: Json | undefined]>([
    ['text', 'integer', ' 12 ', 12],
    ['text', 'decimal(0..9, scale 1)', '7.46', 7.5],
    ['text', 'decimal(0..9)', '12', 9],
    ['text', 'integer', 'many', undefined],
    ['integer', 'text(0..3)', 12345, '123'],
    ['text', 'boolean', 'Yes', true],
    ['text', 'boolean', 'maybe', undefined],
    ['text', 'choice(open, "not yet")', 'Not Yet', 'not yet'],
    ['instant', 'date', '2026-06-14T08:30:00Z', '2026-06-14'],
    ['date', 'instant', '2026-06-14', '2026-06-14T00:00:00Z'],
    ['instant', 'time', '2026-06-14T08:30:00Z', '08:30:00'],
    ['text', 'email', 'nobody', undefined],
    ['text', 'list(0..2) of integer', '4', [4]],
    ['list of text', 'list(0..2) of integer', ['4', '5', '6'], [4, 5]],
    ['list of text', 'list of integer', ['4', 'x'], undefined],
    ['list of text', 'text', ['4'], undefined],
    ['text', 'json', 'free', 'free'],
  ])('a value of %s becomes one of %s: %j', (from, to, value, becomes) => {
    const [old, now] = [from, to].map((type) => modelOf(`entity It\n  value: ${type}\n`)) as [Model, Model];
    const row: Row = { rid: 1, entity: 'It', values: { 'It#id': 1, 'It.value': value }, revision: 1 };
    const decisions = new Map<string, Decision>([['misfit It.value It', { do: 'convert' }]]);
    const { rows, open } = migrate(old, now, [row], { rid: 1, attributes: {} }, decisions, TOOLS);
    expect(open).toHaveLength(becomes === undefined ? 1 : 0);
    expect(rows[0]?.values['It.value']).toEqual(becomes ?? value);
  });

  test('dropping always leads to an end: from any model to any other one', () => {
    fc.assert(
      fc.property(anyModel, anyModel, fc.nat(), (one, other, number) => {
        const { rows, counters } = seed(one, { seed: number, counts: {}, now: NOW });
        const decisions = new Map<string, Decision>();
        let migrated = migrate(
          one,
          other,
          rows,
          { rid: rows.length, attributes: counters },
          decisions,
          TOOLS,
        );
        // Each round decides what came up; a model has only so many elements to contradict.
        for (let round = 0; round < 20 && migrated.open.length > 0; round++) {
          for (const { id } of migrated.open) decisions.set(id, { do: 'drop' });
          migrated = migrate(one, other, rows, { rid: rows.length, attributes: counters }, decisions, TOOLS);
        }
        expect(migrated.open).toEqual([]);
        expect(findViolations(other, migrated.rows)).toEqual([]);
      }),
      rounds(60),
    );
  });
});

test('what is new and has a default is filled in, as any write leaves it, required or not', () => {
  const before = modelOf('entity Task\n  name: text\n');
  const after = modelOf(
    'entity Task\n  name: text\n  grade: integer, default 2\n  kind: choice(a, b), default a\n',
  );
  const rows = [{ rid: 1, entity: 'Task', revision: 1, values: { 'Task#id': 1, 'Task.name': 'One' } }];
  const counters = { rid: 1, attributes: {} };
  const migrated = migrate(before, after, rows, counters, new Map(), { now: 0, uuid: () => '' });
  expect(migrated.open).toEqual([]);
  expect(migrated.rows[0]?.values).toMatchObject({ 'Task.grade': 2, 'Task.kind': 'a' });
});
