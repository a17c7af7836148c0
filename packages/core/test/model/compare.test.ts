import { expect, test } from '@jest/globals';
import { compareScalars, sortValue, type ScalarType } from '@isomeros/core/model';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const INSTANT = { kind: 'instant' } as const;

const moment = fc.integer({ min: Date.UTC(1, 0, 1), max: Date.UTC(9999, 0, 1) });
/** A moment as it may be written: with milliseconds, without, or with an offset. */
const spelling = fc.constantFrom<(at: number) => string>(
  (at) => new Date(at).toISOString(),
  (at) => new Date(at).toISOString().toLowerCase(),
  (at) => new Date(at).toISOString().replace('Z', '+00:00'),
  (at) => new Date(at).toISOString().replace('Z', '000Z'),
);

test('instants are in the order of their moments, however they are written', () => {
  fc.assert(
    fc.property(moment, moment, spelling, spelling, (one, other, spellOne, spellOther) => {
      fc.pre(one !== other);
      const order = compareScalars(INSTANT, spellOne(one), spellOther(other));
      expect(Math.sign(order)).toBe(Math.sign(one - other));
    }),
    rounds(500),
  );
});

test('a leap second comes before the second after it', () => {
  expect(compareScalars(INSTANT, '2016-12-31T23:59:60Z', '2017-01-01T00:00:00Z')).toBeLessThan(0);
  expect(compareScalars(INSTANT, '2016-12-31T23:59:60Z', '2016-12-31T23:59:59Z')).toBeGreaterThan(0);
});

const OPTIONS = ['planned', 'departed', 'arrived'];
const anyText = fc.string({ unit: 'binary', maxLength: 4 });
const VALUES: readonly (readonly [ScalarType, fc.Arbitrary<string | number | boolean>])[] = [
  [{ kind: 'integer', min: null, max: null }, fc.integer()],
  [{ kind: 'boolean' }, fc.boolean()],
  [{ kind: 'choice', options: OPTIONS }, fc.constantFrom(...OPTIONS)],
  [INSTANT, fc.tuple(moment, spelling).map(([at, spell]) => spell(at))],
  [{ kind: 'duration' }, fc.nat(9_999).map((minutes) => `PT${minutes}M`)],
  [{ kind: 'text', min: null, max: null, pattern: null }, anyText],
  [{ kind: 'date' }, moment.map((at) => new Date(at).toISOString().slice(0, 10))],
];

test.each(VALUES.map(([type, values]) => [type.kind, type, values] as const))(
  'what stands for a value of type %s where many are sorted is in the order of the values',
  (_kind, type, values) => {
    const { of } = sortValue(type);
    fc.assert(
      fc.property(values, values, (one, other) => {
        const [a, b] = [of(one), of(other)];
        const order = Math.sign(compareScalars(type, one, other));
        // Instants that are the same moment are told apart by their text.
        if (a !== b || type.kind !== 'instant') expect(order).toBe(a < b ? -1 : a > b ? 1 : 0);
      }),
      rounds(500),
    );
  },
);
