import { describe, expect, test } from '@jest/globals';
import { storageOf } from '@isomeros/core/model';
import { Dataset } from '@isomeros/core/engine';
import { completeFind, readFind, recordPage } from '@isomeros/core/records';
import { seed } from '@isomeros/core/seeding';
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
      { numRuns: rounds(20) },
    );
  });
});
