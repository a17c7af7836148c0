import { describe, expect, test } from '@jest/globals';
import { findViolations, inverseOf, type ProblemDetail } from '@isomeros/core/engine';
import { storageOf, type Json } from '@isomeros/core/model';
import { recordsInArray, recordTypesOf } from '@isomeros/core/transfer';
import fc from 'fast-check';
import { anyModel, modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { messages, Store } from '../support/store.js';
import { rounds } from '../support/rounds.js';

const FERRIES = modelOf(kestrelText);

describe('records out and in', () => {
  test('what was written as JSON is the same records when it is read, for any model', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), (model, number) => {
        const store = Store.seeded(model, number);
        const copy = new Store(model);
        const taken = copy.takeJson(store.json());
        expect(messages(taken)).toEqual([]);
        expect(copy.json()).toEqual(store.json());
        expect(findViolations(model, copy.dataset.everything())).toEqual([]);
      }),
      rounds(30),
    );
  });

  test('what was written as CSV changes nothing where it is read again, for any model', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), (model, number) => {
        const store = Store.seeded(model, number);
        for (const kind of recordTypesOf(model).keys()) {
          const taken = store.takeCsv(kind, store.csv(kind));
          expect(messages(taken)).toEqual([]);
          expect(taken.ok && taken.types.map(({ added, changed }) => added + changed)).toEqual([0]);
        }
      }),
      rounds(30),
    );
  });

  test('taking in is a write that can be taken back', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), fc.nat(), (model, one, other) => {
        const store = Store.seeded(model, one);
        const before = store.json();
        const taken = store.takeJson(Store.seeded(model, other).json(), 'replace');
        expect(messages(taken)).toEqual([]);
        if (!taken.ok) return;
        store.dataset.apply(inverseOf(taken.changes, store.dataset), store.dataset.counters);
        const sorted = (all: Record<string, Json[]>): unknown =>
          Object.entries(all).map(([kind, records]) => [kind, records.map((r) => JSON.stringify(r)).sort()]);
        expect(sorted(store.json())).toEqual(sorted(before));
      }),
      rounds(20),
    );
  });

  test('any text is the same after it was a cell', () => {
    const model = modelOf('entity Note\n  code: text, key\n  text: text\n  free: json\n');
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.jsonValue(), (text, free) => {
        const store = new Store(model);
        const first = store.takeJson({ Note: [{ code: 'A', text, free: free as Json }] });
        fc.pre(first.ok);
        const again = store.takeCsv('Note', store.csv('Note'));
        expect(messages(again)).toEqual([]);
        expect(again).toMatchObject({ types: [{ unchanged: 1 }] });
      }),
      rounds(75),
    );
  });

  test('is written by the names of the model, with keys for references', () => {
    const store = Store.seeded(FERRIES);
    const [vessel] = store.json(false).Vessel ?? [];
    expect(vessel).toMatchObject({
      pennant: expect.stringMatching(/^KS-/) as unknown,
      homePort: expect.stringMatching(/^[A-Z]{3,5}$/) as unknown,
    });
    const [passenger] = store.json(false).Passenger ?? [];
    expect(passenger).toHaveProperty('booking', expect.any(Number));
    const [crew] = store.json(false)['Sailing crew'] ?? [];
    expect(Object.keys(crew as object)).toEqual(expect.arrayContaining(['duty', 'sailing', 'crew']));
    expect(store.csv('Harbour').split('\r\n')[0]).toBe(
      'code,name,position.latitude,position.longitude,services,openedOn,website',
    );
  });

  test('what is write-only is written only when it is asked for, and stays where it is not sent back', () => {
    const store = Store.seeded(FERRIES);
    const secret = store.json().CrewMember;
    expect(JSON.stringify(store.json(false).CrewMember)).not.toContain('pin');
    expect(store.csv('CrewMember', false)).not.toContain('pin');
    expect(messages(store.takeJson({ CrewMember: store.json(false).CrewMember ?? [] }))).toEqual([]);
    expect(store.json().CrewMember).toEqual(secret);
  });
});

test('kinds have names of their own in any model', () => {
  fc.assert(
    fc.property(anyModel, (model) => {
      expect(recordTypesOf(model).size).toBe(storageOf(model).byId.size);
    }),
    rounds(100),
  );
});

test('an array of one kind is read as such', () => {
  const storage = new Store(FERRIES).kind('Harbour');
  const problems: ProblemDetail[] = [];
  const parts = [...recordsInArray(storage, '[{"a":1},"x"]', (problem) => problems.push(problem))];
  expect(parts.map(({ record }) => record)).toEqual([null, { value: { a: 1 }, pointer: '/0', place: '' }]);
  expect(problems).toMatchObject([{ pointer: '/1' }]);
});
