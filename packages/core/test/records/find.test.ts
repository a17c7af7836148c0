import { describe, expect, test } from '@jest/globals';
import { storageOf } from '@isomeros/core/model';
import { Dataset } from '@isomeros/core/engine';
import { completeFind, readFind, recordPage } from '@isomeros/core/records';
import { seed } from '@isomeros/core/seeding';
import { recordTypesOf } from '@isomeros/core/transfer';
import fc from 'fast-check';
import { anyModel, modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const NOW = Date.parse('2026-06-14T09:12:00Z');

const MODEL = modelOf(`entity Route
  code: text(2..6), key

entity Sailing
  departsAt: instant
  state: choice(planned, "long gone"), default planned
  isFull: boolean
  secret: text(4..8), write-only
  position: json

each Sailing refers to optional Route as route, back as sailings
`);

const sailing = storageOf(MODEL).byName.get('Sailing');

describe('a line that looks for records', () => {
  const completed = (text: string): readonly string[] =>
    sailing === undefined ? [] : completeFind(MODEL, sailing, text);

  test.each<readonly [string, readonly string[]]>([
    ['', ['where', 'by']],
    ['wh', ['where']],
    ['where ', ['id', 'departsAt', 'state', 'isFull', 'route'].map((name) => `where ${name}`)],
    ['where d', ['where departsAt']],
    ['where state ', ['=', '!=', '<', '<=', '>', '>=', 'is'].map((one) => `where state ${one}`)],
    ['where state = ', ['where state = planned', 'where state = "long gone"']],
    ['where isFull = t', ['where isFull = true']],
    ['where departsAt > ', ['where departsAt > now']],
    ['where state is ', ['where state is set', 'where state is unset']],
    ['where state = planned ', ['where state = planned and', 'where state = planned by']],
    ['where state = planned by departsAt ', ['where state = planned by departsAt desc']],
    ['by departsAt, s', ['by departsAt, state']],
  ])('%j can go on to be %j', (text, lines) => {
    expect(completed(text)).toEqual(lines);
  });

  test.each<readonly [string, string, number]>([
    ['where state = gone', 'state is compared with one of planned, long gone', 7],
    ['where isFull = true and state = now', 'state is one of planned, long gone, and no moment', 25],
    ['where isFull = true by secret', 'secret is never returned', 24],
    ['where position = 1', 'position is json', 7],
    ['where colour = 1', 'Sailing has no colour', 7],
    ['where state', 'Expected one of', 12],
  ])('%j is refused, and where: %s', (text, says, column) => {
    const read = sailing === undefined ? null : readFind(MODEL, sailing, text, NOW);
    expect(read).toMatchObject({ ok: false, column });
    expect(read?.ok === false ? read.message : '').toContain(says);
  });

  test('is read wherever it was completed to its end', () => {
    for (const end of ['where state = planned by departsAt desc', 'where isFull = true and departsAt > now'])
      expect(sailing === undefined ? null : readFind(MODEL, sailing, end, NOW).ok).toBe(true);
  });
});

describe('pages of any records', () => {
  test('hold each record once, in the order of any column', () => {
    fc.assert(
      fc.property(anyModel, fc.integer({ min: 1, max: 7 }), (model, limit) => {
        const { rows } = seed(model, { seed: 7, counts: {}, now: NOW });
        const dataset = new Dataset(model, rows, { rid: rows.length, attributes: {} });
        for (const storage of storageOf(model).byId.values()) {
          const found = readFind(model, storage, '', NOW);
          if (!found.ok) throw new Error(found.message);
          const numbers: number[] = [];
          for (let offset = 0; offset < dataset.countOf(storage); offset += limit)
            numbers.push(
              ...recordPage(dataset, storage, found.find, { offset, limit }).rows.map(({ number }) => number),
            );
          const own = rows.filter(({ entity }) => entity === storage.entity.id).map(({ rid }) => rid);
          expect(numbers).toEqual(own.sort((a, b) => a - b));
        }
      }),
      rounds(20),
    );
  });
});

describe('a line that looks for pairs', () => {
  const PAIRED = modelOf(`entity Route
  code: text(2..6), key

entity Member
  name: text(1..60)

value Duty
  role: text(1..20)

each Route pairs with many Member as crew, back as routes, carrying Duty
`);
  const pairs = recordTypesOf(PAIRED).get('Route crew');

  test.each<readonly [string, string | null]>([
    ['where route = "AB" and crew = 3', null],
    ['by crew desc, route', null],
    ['where duty = 1', 'Route crew has no duty'],
    ['where crew = now', 'crew is an integer'],
  ])('%s is read by the sides of a pair', (text, wrong) => {
    const read = pairs === undefined ? null : readFind(PAIRED, pairs, text, NOW);
    expect(read?.ok).toBe(wrong === null);
    if (read?.ok === false) expect(read.message).toContain(wrong);
  });

  test('narrows them, and is completed', () => {
    if (pairs === undefined) throw new Error('There are no pairs.');
    const { rows } = seed(PAIRED, { seed: 42, counts: {}, now: NOW });
    const dataset = new Dataset(PAIRED, rows, { rid: rows.length, attributes: {} });
    const found = (text: string): number => {
      const read = readFind(PAIRED, pairs, text, NOW);
      return read.ok ? recordPage(dataset, pairs, read.find, { offset: 0, limit: 1 }).found : -1;
    };
    const all = found('');
    const each = Array.from({ length: 40 }, (_, key) => found(`where crew = ${key + 1}`));
    expect(all).toBeGreaterThan(0);
    expect(each.reduce((sum, count) => sum + count, 0)).toBe(all);
    expect(completeFind(PAIRED, pairs, 'where c')).toEqual(['where crew']);
  });
});
