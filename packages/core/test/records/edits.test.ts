import { describe, expect, test } from '@jest/globals';
import { findViolations } from '@isomeros/core/engine';
import type { Model, Row } from '@isomeros/core/model';
import {
  columnsOf,
  textOfCell,
  valueOfCell,
  type EditProblem,
  type TableRecord,
} from '@isomeros/core/records';
import { recordTypesOf } from '@isomeros/core/transfer';
import type { SettingValues } from '@isomeros/core/arrangement';
import fc from 'fast-check';
import { EditedRecords, recordWith, type Way } from '../support/editedRecords.js';
import { anyModel, modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';
import { kestrelText } from '../support/samples.js';

const KESTREL = modelOf(kestrelText);

const told = (problems: readonly EditProblem[]): readonly (string | number | null)[][] =>
  problems.map(({ edit, column, status }) => [edit, column, status]);

describe('an edit through the contract', () => {
  test.each<
    readonly [string, string, Readonly<Record<string, string>>, Readonly<Record<string, string>>, RegExp]
  >([
    [
      'a text',
      'Sailing',
      { status: 'planned' },
      { berth: '2A' },
      /^PATCH \/api\/v1\/routes\/\d+\/sailings\/\d+ 200$/,
    ],
    ['a reference', 'Sailing', { status: 'planned' }, { master: '3' }, /^PATCH .* 200$/],
    ['nothing', 'Sailing', { status: 'planned' }, { berth: '', vessel: '' }, /^PATCH .* 200$/],
    ['a state', 'Sailing', { status: 'planned' }, { status: 'boarding' }, /^POST .*\/board 200$/],
    ['a structure', 'Harbour', {}, { position: '{"latitude":1,"longitude":-2}' }, /^PATCH .* 200$/],
    ['a list', 'Harbour', {}, { services: '["fuel","shore power"]' }, /^PATCH .* 200$/],
    ['a secret', 'CrewMember', {}, { pin: '481516' }, /^PATCH .* 200$/],
    ['what there is one of', 'Operator', {}, { checkInEnds: '35' }, /^PATCH \/api\/v1\/operators\/1 200$/],
    ['what a pair carries', 'Sailing crew', {}, { duty: '{"role":"mate"}' }, /^PATCH .*\/crew\/\d+ 200$/],
  ])('writes %s', (_what, type, wanted, texts, sent) => {
    const edited = EditedRecords.of(KESTREL);
    const record = recordWith(edited, type, wanted);
    expect(edited.write('through', edited.change(type, record, texts))).toEqual([]);
    expect(edited.sent).toEqual([expect.stringMatching(sent)]);
    const now = edited.texts(type, record.number);
    const shown = 'pin' in texts ? { pin: '' } : texts;
    expect(Object.fromEntries(Object.keys(texts).map((name) => [name, now[name]]))).toEqual(shown);
  });

  test.each<
    readonly [string, string, Readonly<Record<string, string>>, string | null, number | null, string]
  >([
    ['what is too long', 'Sailing', { berth: 'PIER2' }, 'berth', 400, '1 to 4 characters'],
    ['what is of another type', 'Sailing', { places: 'many' }, 'places', 400, 'integer'],
    ['what leads nowhere', 'Sailing', { vessel: 'KS-00' }, 'vessel', 400, 'KS-00'],
    ['what is fixed', 'Sailing', { departsAt: '2030-01-01T10:00:00Z' }, 'departsAt', 400, 'departsAt'],
    ['what is computed', 'Sailing', { placesLeft: '3' }, 'placesLeft', null, 'takes no placesLeft'],
    ['where no transition leads from here', 'Sailing', { status: 'departed' }, 'status', 409, 'planned'],
    ['what must be unique', 'Vessel', { name: 'TAKEN' }, 'name', 409, 'name'],
    ['what needs a value', 'Vessel', { name: '' }, 'name', 400, 'required'],
  ])('tells the contract’s own error of %s', (_what, type, texts, column, status, says) => {
    const edited = EditedRecords.of(KESTREL);
    const record = recordWith(edited, type, type === 'Sailing' ? { status: 'planned' } : {});
    const other = edited.records(type).find(({ number }) => number !== record.number)?.number ?? 0;
    const taken = edited.texts(type, other)['name'] ?? '';
    const given = Object.fromEntries(
      Object.entries(texts).map(([name, text]) => [name, text === 'TAKEN' ? taken : text]),
    );
    const before = [...edited.dataset.everything()];
    const [problem] = edited.write('through', edited.change(type, record, given));
    expect(problem).toMatchObject({ edit: 0, column, status });
    expect(problem?.message).toContain(says);
    expect([...edited.dataset.everything()]).toEqual(before);
  });

  test('adds and removes, where the owner and the pair are told by their keys', () => {
    const edited = EditedRecords.of(KESTREL);
    const [route] = edited.records('Route');
    const key = edited.texts('Route', route?.number ?? 0)['number'] ?? '';
    const counted = edited.records('Sailing').length;
    const times = { departsAt: '2031-02-03T04:05:00Z', arrivesAt: '2031-02-03T05:05:00Z' };
    expect(edited.write('through', edited.add('Sailing', { route: key, ...times }))).toEqual([]);
    const made = recordWith(edited, 'Sailing', { departsAt: times.departsAt });
    const id = edited.texts('Sailing', made.number)['id'] ?? '';
    expect(edited.write('through', edited.add('Sailing crew', pairOf(edited, id, '1')))).toEqual([]);
    const pair = recordWith(edited, 'Sailing crew', pairOf(edited, id, '1'));
    expect(edited.write('through', edited.remove('Sailing crew', pair))).toEqual([]);
    expect(edited.write('through', edited.remove('Sailing', made))).toEqual([]);
    expect(edited.records('Sailing')).toHaveLength(counted);
    expect(edited.sent).toEqual([
      `POST /api/v1/routes/${key}/sailings 201`,
      expect.stringMatching(/^PUT \/api\/v1\/.*\/crew\/1 201$/),
      expect.stringMatching(/^DELETE \/api\/v1\/.*\/crew\/1 204$/),
      `DELETE /api/v1/routes/${key}/sailings/${id} 204`,
    ]);
  });

  test('writes all edits or none, and tells what is wrong with each', () => {
    const edited = EditedRecords.of(KESTREL);
    const record = recordWith(edited, 'Sailing', { status: 'planned' });
    const [vessel] = edited.records('Vessel');
    if (vessel === undefined) throw new Error('There is no vessel.');
    const before = [...edited.dataset.everything()];
    const problems = edited.write(
      'through',
      edited.change('Sailing', record, { berth: '9Z' }),
      edited.change('Vessel', vessel, { built: '1066' }),
      edited.add('Route', { name: 'Nowhere' }),
    );
    expect(told(problems)).toEqual(
      expect.arrayContaining([
        [1, 'built', 400],
        [2, 'origin', 400],
      ]),
    );
    expect(problems.some(({ edit }) => edit === 0)).toBe(false);
    expect([...edited.dataset.everything()]).toEqual(before);
  });

  test('does not write over what somebody else changed meanwhile', () => {
    const edited = EditedRecords.of(KESTREL);
    const record = recordWith(edited, 'Sailing', { status: 'planned' });
    expect(edited.write('through', edited.change('Sailing', record, { berth: '1' }))).toEqual([]);
    for (const way of ['through', 'around'] as const) {
      const [problem] = edited.write(way, edited.change('Sailing', record, { berth: '2' }));
      expect(problem?.message).toContain(`from version ${record.version} to ${record.version + 1}`);
    }
  });

  test.each<readonly [string, SettingValues]>([
    ['asks for If-Match', { ifMatch: 'required' }],
    ['asks for an Idempotency-Key', { idempotency: 'required' }],
    ['has bodies in an envelope', { recordEnvelope: 'bodies' }],
    ['takes whole records only', { leftOut: ['change'] }],
    ['calls its members otherwise', { memberCase: 'snake' }],
    ['knows its callers', { access: 'authenticated' }],
  ])('is written where the contract %s', (_what, settings) => {
    const edited = EditedRecords.of(KESTREL, settings);
    const record = recordWith(edited, 'Sailing', { status: 'planned' });
    const texts = { arrivesAt: '2031-01-01T00:00:00Z', master: '2' };
    expect(edited.write('through', edited.change('Sailing', record, texts))).toEqual([]);
    expect(edited.texts('Sailing', record.number)).toMatchObject(texts);
    const [problem] = edited.write(
      'through',
      edited.change('Sailing', recordWith(edited, 'Sailing', texts), { berth: 'PIER2' }),
    );
    expect(problem).toMatchObject({ column: 'berth', status: 400 });
  });

  test('says so where the contract offers no operation', () => {
    const edited = EditedRecords.of(KESTREL, { leftOut: ['create', 'replace', 'change', 'remove'] });
    const [record] = edited.records('Notice');
    if (record === undefined) throw new Error('There is no notice.');
    for (const edit of [
      edited.change('Notice', record, { title: 'Fog' }),
      edited.remove('Notice', record),
      edited.add('Notice', { title: 'Fog' }),
    ]) {
      const [problem] = edited.write('through', edit);
      expect(problem?.message).toMatch(/^The contract offers no operation that/);
    }
    expect(edited.write('around', edited.add('Notice', { title: 'Fog' }))).toEqual([]);
    expect(recordWith(edited, 'Notice', { title: 'Fog' }).version).toBe(1);
  });
});

describe('JSON and structures in a patch that merges (RFC 7396)', () => {
  const model = modelOf(`value Stay
  nights: integer
  terms: json

entity Cabin
  number: integer, key
  terms: json
  stay: Stay

entity Guest
  name: text, key

each Cabin pairs with many Guest as guests, back as cabins, carrying Stay
`);

  test.each([
    ['an object over another one', '{"a":{"b":1,"c":2},"d":3}', '{"a":{"c":4}}'],
    ['a list over an object', '{"a":1}', '[1,{"b":null}]'],
    ['an object over a number', '5', '{"a":{"b":1}}'],
    [
      'an object with names that objects have',
      '{"constructor":{"a":1},"toString":2}',
      '{"constructor":{"b":1}}',
    ],
  ])('%s is what is seen then', (_what, before, after) => {
    const edited = EditedRecords.of(model);
    const cabin = (): TableRecord => recordWith(edited, 'Cabin');
    const stay = (terms: string): string => `{"nights":2,"terms":${terms}}`;
    for (const terms of [before, after]) {
      const texts = { terms, stay: stay(terms) };
      expect(edited.write('through', edited.change('Cabin', cabin(), texts))).toEqual([]);
      expect(edited.texts('Cabin', cabin().number)).toMatchObject(texts);
      const pair = recordWith(edited, 'Cabin guests');
      expect(edited.write('through', edited.change('Cabin guests', pair, { stay: stay(terms) }))).toEqual([]);
      expect(edited.texts('Cabin guests', pair.number)).toMatchObject({ stay: stay(terms) });
    }
  });

  test('what it would remove is refused, and written around the contract', () => {
    const edited = EditedRecords.of(model);
    const edit = edited.change('Cabin', recordWith(edited, 'Cabin'), { terms: '{"a":{"b":null}}' });
    expect(told(edited.write('through', edit))).toEqual([[0, 'terms', null]]);
    expect(edited.write('around', edit)).toEqual([]);
  });
});

const pairOf = (edited: EditedRecords, sailing: string, member: string): Readonly<Record<string, string>> => {
  const [from = '', to = ''] = edited.storage('Sailing crew').references.map(({ role }) => role ?? '');
  return { [from]: sailing, [to]: member, duty: '{"role":"mate"}' };
};

describe('an edit around the contract', () => {
  test('passes over the life cycle, what is fixed and what is read-only, and never the model', () => {
    const edited = EditedRecords.of(KESTREL, { leftOut: ['create', 'replace', 'change', 'remove'] });
    const record = recordWith(edited, 'Sailing', { status: 'planned' });
    const texts = { status: 'departed', departsAt: '2030-01-01T10:00:00Z', berth: '7' };
    expect(edited.write('around', edited.change('Sailing', record, texts))).toEqual([]);
    expect(edited.texts('Sailing', record.number)).toMatchObject(texts);
    const [booking] = edited.records('Booking');
    if (booking === undefined) throw new Error('There is no booking.');
    expect(edited.write('around', edited.change('Booking', booking, { price: '12.5' }))).toEqual([]);
    const now = recordWith(edited, 'Sailing', texts);
    const wrong = edited.write('around', edited.change('Sailing', now, { berth: 'PIER2', vessel: 'KS-00' }));
    expect(told(wrong)).toEqual(expect.arrayContaining([[0, 'vessel', null]]));
  });

  test('removes what goes with a record, and nothing that others need', () => {
    const edited = EditedRecords.of(KESTREL);
    const record = recordWith(edited, 'Sailing');
    expect(edited.write('around', edited.remove('Sailing', record))).toEqual([]);
    expect(findViolations(KESTREL, edited.dataset.everything())).toEqual([]);
    const [harbour] = edited.records('Harbour');
    if (harbour === undefined) throw new Error('There is no harbour.');
    const [problem] = edited.write('around', edited.remove('Harbour', harbour));
    expect(problem?.message).toMatch(/^It is still needed by/);
  });
});

describe('whatever the model', () => {
  /** An edit of a record by what another of its type has in some column. */
  const tried = (model: Model, way: Way, dice: readonly number[]): void => {
    const edited = EditedRecords.of(model);
    for (const one of dice) {
      const types = [...recordTypesOf(model).keys()];
      const type = types[one % types.length] ?? '';
      const records = edited.records(type);
      const record = records[one % Math.max(1, records.length)];
      const other = records[(one * 7 + 1) % Math.max(1, records.length)];
      const columns = columnsOf(model, edited.storage(type)).filter(({ isSecret }) => !isSecret);
      const column = columns[one % Math.max(1, columns.length)]?.name;
      if (record === undefined || other === undefined || column === undefined) continue;
      const text = edited.texts(type, other.number)[column] ?? '';
      const removes = one % 5 === 0;
      const edit = removes ? edited.remove(type, record) : edited.change(type, record, { [column]: text });
      const before: readonly Row[] = [...edited.dataset.everything()];
      const problems = edited.write(way, edit);
      if (problems.length > 0) expect([...edited.dataset.everything()]).toEqual(before);
      else if (removes) expect(edited.dataset.get(record.number)).toBeUndefined();
      else expect([column, edited.texts(type, record.number)[column]]).toEqual([column, text]);
    }
    expect(findViolations(model, edited.dataset.everything())).toEqual([]);
  };

  test.each(['through', 'around'] as const)('what is written %s the contract is what is seen', (way) => {
    fc.assert(
      fc.property(anyModel, fc.array(fc.nat(10_000), { minLength: 3, maxLength: 8 }), (model, dice) => {
        tried(model, way, dice);
      }),
      rounds(40),
    );
  });

  test('what stands in a cell is read as the value it is', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const edited = EditedRecords.of(model);
        for (const [type, storage] of recordTypesOf(model))
          for (const { cells } of edited.records(type).slice(0, 5))
            columnsOf(model, storage).forEach(({ name }, at) => {
              const cell = cells[at];
              if (cell === undefined || cell.kind === 'secret') return;
              const value = cell.kind === 'record' ? cell.to.key : cell.value;
              expect(valueOfCell(model, storage, name, textOfCell(cell))).toEqual(value);
            });
      }),
      rounds(40),
    );
  });
});
