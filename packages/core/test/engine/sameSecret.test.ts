import { beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import { NOBODYS_SECRET, sameSecret } from '../../src/engine/sameSecret.js';
import { arrangedWith } from '../support/lines.js';
import type { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

describe('comparing secrets', () => {
  test('is what equality is', () => {
    const text = fc.string({ unit: 'binary', maxLength: 12 });
    fc.assert(
      fc.property(text, text, (one, other) => {
        expect(sameSecret(one, one)).toBe(true);
        expect(sameSecret(one, other)).toBe(one === other);
        expect(sameSecret(`${one}\0`, one)).toBe(false);
      }),
      rounds(100),
    );
  });

  test('reads all of both, wherever they differ', () => {
    const reads = (given: string, known: string): number => {
      const read = jest.spyOn(String.prototype, 'charCodeAt');
      sameSecret(given, known);
      const { length } = read.mock.calls;
      read.mockRestore();
      return length;
    };
    expect(reads('aaaaaaaa', 'aaaaaaaa')).toBe(16);
    expect(reads('zaaaaaaa', 'aaaaaaaa')).toBe(16);
    expect(reads('z', 'aaaaaaaa')).toBe(16);
    expect(reads('', NOBODYS_SECRET)).toBe(2 * NOBODYS_SECRET.length);
  });
});

describe('whoever signs in', () => {
  const compare = jest.fn(sameSecret);
  let engine: { readonly TestMock: typeof TestMock };

  // The engine is read with another comparison, once for all.
  beforeAll(async () => {
    jest.unstable_mockModule('../../src/engine/sameSecret.js', () => ({
      NOBODYS_SECRET,
      sameSecret: compare,
    }));
    engine = await import('../support/mock.js');
  });

  beforeEach(() => {
    compare.mockClear();
  });

  test.each([
    ['is known', { email: 'ada@harbour.example', password: 'a password' }],
    ['has another password', { email: 'ada@harbour.example', password: 'another one' }],
    ['is nobody', { email: 'bo@harbour.example', password: 'a password' }],
  ])('is compared as often, whether it %s', (_, sent) => {
    const model = modelOf(
      'entity Keeper\n  email: email, required, unique\n  password: text(8..80), required, write-only\n',
    );
    const line = 'verify email = input email and password = input password answers record else 404';
    const mock = new engine.TestMock(model, { Keeper: 0 }, arrangedWith(model, [['Keeper', 'known', line]]));
    mock.send('POST', '/api/v1/keepers', { email: 'ada@harbour.example', password: 'a password' });
    expect(compare).toHaveBeenCalledTimes(0);
    mock.send('POST', '/api/v1/keepers/known', sent);
    expect(compare).toHaveBeenCalledTimes(2);
  });
});
