import { describe, expect, test } from '@jest/globals';
import { plainAttribute, type Expression } from '@isomeros/core/model';
import { parse, print, printAttribute, renameAt, suggest } from '@isomeros/core/notation';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const TEXT = (computed: string, type = 'integer'): string => `entity Sailing
  capacity: integer
  departsAt: instant
  lasts: duration
  secret: text, write-only
  notes: json
  it: ${type}, ${computed}

entity Booking
  seats: integer, required
  fare: decimal(scale 2)
  state: choice(held, confirmed)

entity Passenger
  age: integer

each Sailing owns many Booking as bookings, back as sailing
each Booking owns many Passenger as passengers, back as booking
`;

describe('what an attribute is computed from', () => {
  test.each([
    ['integer', 'capacity * 2 - 1'],
    ['decimal(scale 2)', '(capacity + 1) / 3'],
    ['decimal(scale 1)', 'average of bookings.fare where state = confirmed and seats > 1'],
    ['integer', 'count of bookings.passengers where bookings.state = confirmed and age >= 18'],
    ['integer', 'capacity - sum of bookings.seats where state != held'],
    ['text', '"no " & capacity & ", " & departsAt'],
    ['instant', 'departsAt + lasts'],
    ['decimal', 'max of bookings.fare'],
    ['integer', '2 * (capacity - (1 - capacity))'],
  ])('%s: %s', (type, expression) => {
    const text = TEXT(`computed ${expression}`, type);
    const { model, diagnostics } = parse(text);
    expect(diagnostics).toEqual([]);
    expect(print(model)).toContain(`  it: ${type}, computed ${expression}\n`);
  });

  test.each([
    ['computed nothing', 'Sailing has no attribute nothing.'],
    ['computed it + 1', 'it needs itself: it needs it.'],
    ['computed capacity / 2', 'it is integer, and is computed to decimal.'],
    ['computed capacity & 1', 'it is integer, and is computed to text.'],
    ['computed notes', 'notes is json; only single values are computed with.'],
    ['computed secret', 'secret is write-only: nothing is computed from it.'],
    ['computed count of crew', 'Sailing has no role crew; there are bookings.'],
    ['computed count of bookings where age = 1', 'Booking has no attribute age.'],
    ['computed count of bookings where passengers.age = 1', 'is not on the way'],
    ['computed count of bookings where state = left', 'state cannot be compared with "left".'],
    ['computed sum of bookings.state', 'There is no sum of choice.'],
    ['computed departsAt + 1', '+ takes numbers, or an instant and a duration'],
    ['computed capacity, required', 'it takes no flag but example; it has required'],
    ['computed capacity-1', 'A minus stands between spaces: capacity - 1.'],
    ['computed capacity -1', 'Put a space behind the minus: - 1.'],
    ['computed (capacity', 'Expected a closing parenthesis'],
    [`computed ${'1 + '.repeat(100)}1`, 'at most 100 parts'],
    [`computed ${'('.repeat(200)}`, 'at most 100 parts'],
  ])('%s: %s', (computed, message) => {
    const { diagnostics } = parse(TEXT(computed));
    expect(diagnostics.map((one) => one.message).join('\n')).toContain(message);
  });

  test('stands in no rule and in no condition, and in no value', () => {
    const wrong = parse(
      'entity A\n  n: integer\n  s: choice(a, b), default a\n    go: a -> b when c > 1\n  c: integer, computed n\n  unique (c)\n\nvalue V\n  n: integer, computed 1\n',
    ).diagnostics.map(({ message }) => message);
    expect(new Set(wrong)).toEqual(
      new Set([
        'c is computed, so no rule is about it.',
        'c is computed; conditions compare what is stored.',
        'Only attributes of entities are computed; n is of a value.',
      ]),
    );
  });

  test('a way around that needs itself through other records is told', () => {
    const text = `entity A
  n: integer, computed sum of bs.m

entity B
  m: integer, computed sum of as.n

each A pairs with many B as bs, back as as
`;
    expect(parse(text).diagnostics.map(({ code }) => code)).toEqual(['computed.invalid']);
  });

  test('names in it follow a rename, across entities', () => {
    const text = TEXT('computed sum of bookings.seats where state = confirmed and bookings.seats > 1');
    const line = (lines: string): number => text.split('\n').findIndex((one) => one.startsWith(lines)) + 1;
    for (const [at, column, name] of [
      [line('  seats'), 3, 'places'],
      [line('  state'), 3, 'phase'],
      [line('  state'), 24, 'settled'],
    ] as const) {
      const renamed = renameAt(text, at, column, name);
      if (!renamed.ok) throw new Error(renamed.message);
      expect(renamed.text.split('\n')[6]).toContain(name);
      expect(parse(renamed.text).diagnostics).toEqual([]);
    }
  });
});

describe('completion in an expression', () => {
  const offered = (computed: string): readonly string[] => {
    const before = TEXT(computed).split('\n').slice(0, 7).join('\n');
    const text = TEXT(computed);
    const line = before.split('\n').length;
    const column = (text.split('\n')[line - 1]?.length ?? 0) + 1;
    return suggest(text, line, column).options.map(({ label }) => label);
  };

  test.each([
    ['computed ', ['capacity', 'bookings', 'count of']],
    ['computed capacity * ', ['capacity', 'sum of']],
    ['computed sum of ', ['bookings']],
    ['computed sum of bookings.', ['seats', 'passengers']],
    ['computed count of bookings.passengers where ', ['age']],
    ['computed sum of bookings.seats where state = confirmed and ', ['fare', 'state']],
    ['computed capacity ', ['where', 'example']],
  ])('%s', (computed, some) => {
    expect(offered(computed)).toEqual(expect.arrayContaining(some));
  });
});

const expression: fc.Arbitrary<Expression> = fc.letrec<{ tree: Expression; leaf: Expression }>((tie) => ({
  leaf: fc.oneof(
    fc.integer({ min: -9, max: 99 }).map((value): Expression => ({ kind: 'literal', value })),
    fc.string({ maxLength: 4 }).map((value): Expression => ({ kind: 'literal', value })),
    fc.constantFrom('a', 'count', 'where').map((name): Expression => ({ kind: 'attribute', name })),
    fc.constantFrom('count', 'sum').map((of): Expression => ({
      kind: 'aggregate',
      of,
      roles: ['r', 's'],
      attribute: of === 'count' ? null : 'x',
      where: [{ roles: of === 'sum' ? ['r'] : [], attribute: 'y', operator: '!=', value: 'now' }],
    })),
  ),
  tree: fc.oneof(
    { maxDepth: 4 },
    tie('leaf'),
    fc
      .tuple(fc.constantFrom('+', '-', '*', '/', '&'), tie('tree'), tie('tree'))
      .map(([operator, left, right]): Expression => ({ kind: 'operation', operator, left, right })),
  ),
})).tree;

test('what is printed reads as it was, with no parenthesis that could go', () => {
  fc.assert(
    fc.property(expression, (computed) => {
      const type = { kind: 'text', pattern: null, min: null, max: null } as const;
      const line = printAttribute(plainAttribute('A.it', 'it', type, { computed, description: 'said' }));
      const { model } = parse(`entity A\n  ${line}\n`);
      const [block] = model.declarations;
      const read = block?.kind === 'entity' ? block.attributes[0] : undefined;
      expect(read?.computed).toEqual(computed);
      expect(read?.description).toBe('said');
    }),
    rounds(200),
  );
});
