import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import fc from 'fast-check';
import type { TestMock } from '../support/mock.js';
import { madeRoutes, routesMock, type RouteBody } from '../support/routes.js';
import { rounds } from '../support/rounds.js';

describe('pages', () => {
  const five = [{ name: 'a' }, { name: 'b' }, { name: 'c' }, { name: 'd' }, { name: 'e' }];
  interface Page {
    readonly items: readonly RouteBody[];
    readonly page?: object;
    readonly links: Readonly<Record<string, { readonly href: string }>>;
  }
  const read = (mock: TestMock, query: string): Page =>
    mock.send('GET', `/api/v1/routes${query}`).body as Page;

  test('by offset and limit lead to each other', () => {
    const mock = routesMock({ pageStyle: 'offset', pageSize: 2 });
    madeRoutes(mock, ...five);
    const second = read(mock, '?offset=2');
    expect(second.items.map(({ name }) => name)).toEqual(['c', 'd']);
    expect(second.page).toEqual({ offset: 2, limit: 2, totalItems: 5 });
    expect(Object.entries(second.links).map(([relation, { href }]) => [relation, href])).toEqual([
      ['self', '/api/v1/routes?offset=2'],
      ['up', '/api/v1'],
      ['first', '/api/v1/routes?offset=0'],
      ['prev', '/api/v1/routes?offset=0'],
      ['next', '/api/v1/routes?offset=4'],
      ['last', '/api/v1/routes?offset=4'],
    ]);
    expect(mock.send('GET', '/api/v1/routes?page=1').status).toBe(400);
  });

  test('following next from the first page meets every record once, by number and by offset', () => {
    for (const pageStyle of ['number', 'offset'] as const) {
      const mock = routesMock({ pageStyle, pageSize: 2, totals: 'none' });
      madeRoutes(mock, ...five);
      const seen: (string | null)[] = [];
      for (let href: string | undefined = '/api/v1/routes'; href !== undefined;) {
        const page = mock.send('GET', href).body as Page;
        seen.push(...page.items.map(({ name }) => name));
        expect(Object.keys(page.links)).not.toContain('last');
        href = page.links['next']?.href;
      }
      expect(seen).toEqual(['a', 'b', 'c', 'd', 'e']);
    }
  });

  test('of a collection that stands still are exact, by number and by offset, whatever their size and order', () => {
    const distance = fc.option(fc.integer({ min: 0, max: 4 }));
    fc.assert(
      fc.property(
        fc.array(distance, { maxLength: 15 }),
        fc.integer({ min: 1, max: 6 }),
        fc.constantFrom('id', 'distance', '-distance'),
        fc.constantFrom('number', 'offset'),
        (distances, size, sort, pageStyle) => {
          const mock = routesMock({ pageStyle });
          madeRoutes(mock, ...distances.map((one) => ({ distance: one })));
          const whole = read(mock, `?sort=${sort}&${pageStyle === 'number' ? 'size' : 'limit'}=100`).items;
          for (let from = 0; from < distances.length; from += size) {
            const query =
              pageStyle === 'number'
                ? `page=${from / size + 1}&size=${size}`
                : `offset=${from}&limit=${size}`;
            expect(read(mock, `?sort=${sort}&${query}`).items).toEqual(whole.slice(from, from + size));
          }
        },
      ),
      rounds(40),
    );
  });

  test('of none everything comes at once, and that is doubtful', () => {
    const mock = routesMock({ pageStyle: 'none' });
    madeRoutes(mock, ...five);
    const all = read(mock, '');
    expect([all.items.length, all.page, Object.keys(all.links)]).toEqual([5, undefined, ['self', 'up']]);
    expect(mock.service.contract.findings.map(({ id }) => id)).toContain('list.unbounded');
  });

  test('tell the total in the body, in a header, or nowhere', () => {
    const told = (settings: SettingValues): readonly unknown[] => {
      const mock = routesMock(settings);
      madeRoutes(mock, ...five);
      const answer = mock.send('GET', '/api/v1/routes?size=2');
      return [Object.keys((answer.body as Page).page ?? {}), answer.headers.get('total-count') ?? null];
    };
    expect(told({})).toEqual([['number', 'size', 'totalItems', 'totalPages'], null]);
    expect(told({ totals: 'header' })).toEqual([['number', 'size'], '5']);
    expect(told({ totals: 'none' })).toEqual([['number', 'size'], null]);
    const named = routesMock({ totals: 'header', totalHeader: 'X-Total' });
    const answer = named.send('GET', '/api/v1/routes', undefined, { origin: 'http://elsewhere' });
    expect(answer.headers.get('x-total')).toBe('0');
  });

  test('that are too large are refused, or as large as may be', () => {
    expect(routesMock({ maxPageSize: 3 }).send('GET', '/api/v1/routes?size=4').status).toBe(400);
    const clamped = routesMock({ maxPageSize: 3, oversize: 'clamped' });
    madeRoutes(clamped, ...five);
    expect(read(clamped, '?size=4').page).toMatchObject({ size: 3 });
  });
});
