import { expect, test } from '@jest/globals';
import { compareScalars } from '@isomeros/core/model';
import fc from 'fast-check';

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
    { numRuns: 500 },
  );
});

test('a leap second comes before the second after it', () => {
  expect(compareScalars(INSTANT, '2016-12-31T23:59:60Z', '2017-01-01T00:00:00Z')).toBeLessThan(0);
  expect(compareScalars(INSTANT, '2016-12-31T23:59:60Z', '2016-12-31T23:59:59Z')).toBeGreaterThan(0);
});
