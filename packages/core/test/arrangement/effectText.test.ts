import { describe, expect, test } from '@jest/globals';
import { printEffect, readEffect, type CustomEffect } from '@isomeros/core/arrangement';
import fc from 'fast-check';
import { anyCustomOperations, anyFixedBody } from '../support/customOperations.js';
import { anyModel, modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const MODEL = modelOf(`entity Pier
  name: text(1..20), required

entity Berth
  number: integer, required
  free: boolean
  since: instant
  colour: choice(red, "dark red", now)

each Pier owns many Berth as berths
each Berth refers to optional Pier as visitor, back as visits
`);

const literal = (
  value: string | number | boolean,
): { kind: 'literal'; value: string | number | boolean } => ({
  kind: 'literal',
  value,
});

describe("the effect of an operation of one's own, in a line", () => {
  test.each<readonly [entity: string, text: string, effect: CustomEffect]>([
    ['Berth', 'first 3', { kind: 'query', filters: [], order: [], limit: 3 }],
    [
      'Berth',
      'first 20 where since >= input from and number < input below default 10 and colour = input by since',
      {
        kind: 'query',
        filters: [
          { member: 'Berth.since', operator: 'gte', value: { kind: 'input', name: 'from' } },
          {
            member: 'Berth.number',
            operator: 'lt',
            value: { kind: 'input', name: 'below', default: literal(10) },
          },
          { member: 'Berth.colour', operator: 'eq', value: literal('input') },
        ],
        order: [{ member: 'Berth.since', descending: false }],
        limit: 20,
      },
    ],
    [
      'Pier',
      'one where name = input name by name desc',
      {
        kind: 'find',
        filters: [{ member: 'Pier.name', operator: 'eq', value: { kind: 'input', name: 'name' } }],
        order: [{ member: 'Pier.name', descending: true }],
      },
    ],
    ['Pier', 'one', { kind: 'find', filters: [], order: [] }],
    [
      'Berth',
      'first 10 where free = true and since < now and visitor is set by number desc, since',
      {
        kind: 'query',
        filters: [
          { member: 'Berth.free', operator: 'eq', value: literal(true) },
          { member: 'Berth.since', operator: 'lt', value: { kind: 'now' } },
          { member: 'Berth>Pier:visitor', operator: 'unset', value: literal(false) },
        ],
        order: [
          { member: 'Berth.number', descending: true },
          { member: 'Berth.since', descending: false },
        ],
        limit: 10,
      },
    ],
    [
      'Berth',
      'when free = true and number >= 2 set free = false, since = now, number from body, visitor unset, colour = "dark red"',
      {
        kind: 'assign',
        when: [
          { member: 'Berth.free', operator: '=', value: literal(true) },
          { member: 'Berth.number', operator: '>=', value: literal(2) },
        ],
        values: [
          { member: 'Berth.free', value: literal(false) },
          { member: 'Berth.since', value: { kind: 'now' } },
          { member: 'Berth.number', value: { kind: 'input' } },
          { member: 'Berth>Pier:visitor', value: { kind: 'unset' } },
          { member: 'Berth.colour', value: literal('dark red') },
        ],
      },
    ],
    [
      'Pier',
      'make berths set number from body',
      {
        kind: 'create',
        when: [],
        relationship: 'Pier>Berth:berths',
        values: [{ member: 'Berth.number', value: { kind: 'input' } }],
      },
    ],
    [
      'Pier',
      'make visits when name = x',
      {
        kind: 'create',
        when: [{ member: 'Pier.name', operator: '=', value: literal('x') }],
        relationship: 'Berth>Pier:visitor',
        values: [],
      },
    ],
  ])('%s: %s', (entity, text, effect) => {
    expect(readEffect(MODEL, entity, text)).toEqual({ ok: true, effect });
    expect(printEffect(MODEL, entity, effect)).toBe(text);
  });

  test.each([
    ['', 1, 'Expected set; the line ends.'],
    ['first', 6, 'Expected a number after first; the line ends.'],
    ['first 3 where weight = 1', 15, 'Berth has no weight.'],
    ['first 3 where free', 19, 'Expected one of = != < <= > >=; the line ends.'],
    ['first 3 where free is open', 23, 'Expected unset; found open.'],
    ['first 3 free', 9, 'The statement ends before free.'],
    ['set free', 9, 'Expected =, from body, or unset; the line ends.'],
    ['set free = ,', 13, 'Expected a value or now; the line ends.'],
    ['make piers', 6, 'Berth has no piers to make. It has nothing that could be made.'],
    ['set free = $', 12, 'The notation does not use $.'],
  ])('refuses %p', (text, column, message) => {
    expect(readEffect(MODEL, 'Berth', text)).toEqual({ ok: false, message, column });
  });

  test('a fixed answer is read as it was written, whatever it is', () => {
    fc.assert(
      fc.property(anyFixedBody, (body) => {
        const effect = { kind: 'fixed', body } as const;
        expect(readEffect(MODEL, null, printEffect(MODEL, null, effect))).toEqual({ ok: true, effect });
      }),
      rounds(100),
    );
  });

  test.each([
    ['answers { "status": up }', 21, 'Expected a JSON value.'],
    ['answers { "a": 1, "a": 2 }', 19, 'The member "a" stands twice.'],
    ['answers', 8, 'The text ends too early.'],
    ['first 3', 1, 'Expected answers and what is answered, as in answers { "status": "up" }.'],
  ])('at the entry, %p is refused', (text, column, message) => {
    expect(readEffect(MODEL, null, text)).toEqual({ ok: false, message, column });
  });

  test('what is written is read again, for any effect whose names are there', () => {
    fc.assert(
      fc.property(
        anyModel.chain((model) =>
          anyCustomOperations(model).map((customOperations) => ({ model, customOperations })),
        ),
        ({ model, customOperations }) => {
          for (const { entity, effect } of customOperations) {
            const found = model.declarations.find(({ id }) => id === entity);
            const about = found?.kind === 'entity' ? found.name : null;
            const text = printEffect(model, about, effect);
            const read = readEffect(model, about, text);
            if (read.ok) expect(printEffect(model, about, read.effect)).toBe(text);
          }
        },
      ),
      rounds(100),
    );
  });
});
