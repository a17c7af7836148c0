import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import fc from 'fast-check';
import { madeRoutes, routeNames, routesMock, type RouteBody } from '../support/routes.js';
import { rounds } from '../support/rounds.js';

interface WrittenKey {
  readonly name: 'name' | 'distance' | 'id';
  readonly descending: boolean;
}

function written(keys: readonly WrittenKey[], style: 'minus' | 'suffix' | 'repeated' | 'beside'): string {
  const all = (write: (key: WrittenKey) => string): string => keys.map(write).join(',');
  const names = all(({ name }) => name);
  switch (style) {
    case 'minus':
      return `sort=${all(({ name, descending }) => (descending ? `-${name}` : name))}`;
    case 'suffix':
      return `sort=${all(({ name, descending }) => `${name}:${descending ? 'desc' : 'asc'}`)}`;
    case 'repeated':
      return keys.map(({ name, descending }) => `sort=${name}${descending ? ',desc' : ''}`).join('&');
    case 'beside':
      return `sort=${names}&order=${all(({ descending }) => (descending ? 'desc' : 'asc'))}`;
  }
}

/** What is unset comes last. */
function plainOrder(a: string | number | null, b: string | number | null): number {
  if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
  return a < b ? -1 : a > b ? 1 : 0;
}

describe('sort keys', () => {
  test.each<readonly [SettingValues, string, string[]]>([
    [{}, 'sort=-distance', ['c', 'b', 'a']],
    [{ sortStyle: 'suffix' }, 'sort=distance:desc', ['c', 'b', 'a']],
    [{ sortStyle: 'suffix' }, 'sort=distance:asc,name', ['a', 'b', 'c']],
    [{ sortStyle: 'repeated' }, 'sort=distance,desc', ['c', 'b', 'a']],
    [{ sortStyle: 'repeated' }, 'sort=state&sort=distance,desc', ['c', 'b', 'a']],
    [{ sortStyle: 'beside' }, 'sort=distance', ['a', 'b', 'c']],
    [{ sortStyle: 'beside' }, 'sort=state,distance&order=asc,desc', ['c', 'b', 'a']],
    [{ sortStyle: 'beside' }, 'order=desc&sort=distance', ['c', 'b', 'a']],
  ])('%j %s', (settings, query, names) => {
    const mock = routesMock(settings);
    madeRoutes(mock, { name: 'b', distance: 2 }, { name: 'c', distance: 3 }, { name: 'a', distance: 1 });
    expect(routeNames(mock, query)).toEqual(names);
  });

  test.each<readonly [SettingValues, string, string]>([
    [{ sortStyle: 'repeated' }, 'sort=distance,name', 'key'],
    [{ sortStyle: 'repeated' }, 'sort=-distance', 'key'],
    [{ sortStyle: 'beside' }, 'sort=distance,name&order=desc', 'direction'],
    [{ sortStyle: 'beside' }, 'sort=distance&order=down', 'direction'],
    [{ sortStyle: 'beside' }, 'order=desc', 'direction'],
    [{ sortStyle: 'beside' }, 'sort=nothing&order=desc', 'key'],
    [{ sortStyle: 'beside' }, 'sort=name&sort=name', 'repeated'],
  ])('%j %s is refused', (settings, query, code) => {
    const answer = routesMock(settings).send('GET', `/api/v1/routes?${query}`);
    expect([answer.status, (answer.body as { errors: object[] }).errors]).toMatchObject([400, [{ code }]]);
  });

  test('give the order that a plain comparison of the members gives, however they are spelled', () => {
    const record = fc.record({
      name: fc.option(fc.constantFrom('a', 'b', 'c')),
      distance: fc.option(fc.integer({ min: 0, max: 3 })),
    });
    const key = fc.record({
      name: fc.constantFrom('name', 'distance', 'id'),
      descending: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(record, { maxLength: 10 }),
        fc.uniqueArray(key, { minLength: 1, maxLength: 3, selector: ({ name }) => name }),
        fc.constantFrom('minus', 'suffix', 'repeated', 'beside'),
        (records, keys, sortStyle) => {
          const mock = routesMock({ sortStyle });
          madeRoutes(mock, ...records);
          const all = records.map((one, index) => ({ ...one, id: index + 1 }));
          const sorted = all.toSorted((a, b) => {
            for (const { name, descending } of keys) {
              const order = plainOrder(a[name], b[name]);
              if (order !== 0) return descending ? -order : order;
            }
            return a.id - b.id;
          });
          const answer = mock.send('GET', `/api/v1/routes?${written(keys, sortStyle)}`);
          expect((answer.body as { items: RouteBody[] }).items.map(({ id }) => id)).toEqual(
            sorted.map(({ id }) => id),
          );
        },
      ),
      rounds(60),
    );
  });

  test('written otherwise, or where lists are not sorted, are refused', () => {
    expect(routesMock({ sortStyle: 'suffix' }).send('GET', '/api/v1/routes?sort=-name').status).toBe(400);
    expect(routesMock().send('GET', '/api/v1/routes?sort=name:desc').status).toBe(400);
    expect(routesMock({ sortStyle: 'none' }).send('GET', '/api/v1/routes?sort=name').status).toBe(400);
  });
});
