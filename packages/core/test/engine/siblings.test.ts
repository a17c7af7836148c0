import { describe, expect, test } from '@jest/globals';
import { addressed, canShareOrigin, type Addressing } from '@isomeros/core/engine';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const at = (root: string, version = 'v1', versionHeader: string | null = null): Addressing => ({
  root,
  version,
  versionHeader,
});

const HEADER = 'API-Version';

describe('contracts at one origin', () => {
  test.each<readonly [Addressing, Addressing, boolean]>([
    [at('/api/v1'), at('/api/v2'), true],
    [at('/api/v1'), at('/api/v10'), true],
    [at('/api'), at('/api/v2'), false],
    [at(''), at('/api'), false],
    [at('/api/v1'), at('/api/v1'), false],
    [at('/api', '1', HEADER), at('/api', '2', HEADER), true],
    [at('/api', '1', HEADER), at('/api', '1', HEADER), false],
    [at('/api', '1', HEADER), at('/api', '2'), false],
    [at('/api', '1', HEADER), at('/api/v2', '2', HEADER), false],
  ])('%j and %j are told apart: %j', (one, other, can) => {
    expect([canShareOrigin(one, other), canShareOrigin(other, one)]).toEqual([can, can]);
  });

  const all = [at('/api/v1'), at('/shop', '1', HEADER), at('/shop', '2', HEADER)];
  test.each<readonly [string, string | undefined, number]>([
    ['/api/v1', undefined, 0],
    ['/api/v1/routes?x=1', undefined, 0],
    ['/api/v10/routes', undefined, -1],
    ['/shop/x', undefined, 1],
    ['/shop/x', '2', 2],
    ['/shop/x', '3', 1],
    ['/', undefined, -1],
    ['/api/../shop', '2', 2],
    ['/%61pi/v1', undefined, 0],
    ['no path', undefined, -1],
  ])('%s with version %j goes to place %i', (target, version, place) => {
    const header = (name: string): string | undefined => (name === 'api-version' ? version : undefined);
    expect(addressed(all, target, header)).toBe(place);
  });

  test('of those that can be told apart, each gets what is below its root', () => {
    const word = fc.constantFrom('a', 'b', 'c');
    const root = fc.array(word, { maxLength: 3 }).map((words) => words.map((one) => `/${one}`).join(''));
    fc.assert(
      fc.property(fc.uniqueArray(root, { maxLength: 5 }), word, (roots, below) => {
        const kept = roots.reduce<Addressing[]>(
          (some, one) => (some.every((other) => canShareOrigin(other, at(one))) ? [...some, at(one)] : some),
          [],
        );
        for (const [place, one] of kept.entries())
          expect(addressed(kept, `${one.root}/${below}`, () => undefined)).toBe(place);
      }),
      rounds(300),
    );
  });
});
