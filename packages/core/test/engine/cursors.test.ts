import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import fc from 'fast-check';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const TEXT = `entity Buoy
  name: text(1..20)
  depth: integer
`;

const mockOf = (settings: SettingValues = {}): TestMock =>
  new TestMock(modelOf(TEXT), { Buoy: 0 }, arranged({ pageStyle: 'cursor', ...settings }));

interface Page {
  readonly items: readonly { readonly id: number }[];
  readonly page: { readonly limit: number; readonly next: string | null; readonly prev: string | null };
  readonly links: Readonly<Record<string, { readonly href: string }>>;
}

const pageAt = (mock: TestMock, target: string): Page => {
  const answer = mock.send('GET', target);
  expect([target, answer.status]).toEqual([target, 200]);
  return answer.body as Page;
};

const make = (mock: TestMock, depth: number | null, name = 'Buoy'): void => {
  expect(mock.send('POST', '/api/v1/buoys', { name, depth }).status).toBe(201);
};

const idsOf = ({ items }: Page): number[] => items.map(({ id }) => id);

describe('cursor pages', () => {
  test('lead forwards and back again over the same records, unset ones by their rule', () => {
    const mock = mockOf();
    for (const depth of [5, null, 3, 5, null, 1, 4]) make(mock, depth);
    const seen: number[][] = [];
    let page = pageAt(mock, '/api/v1/buoys?sort=depth&limit=3');
    for (;;) {
      seen.push(idsOf(page));
      if (page.page.next === null) break;
      expect(page.links['next']?.href).toContain(encodeURIComponent(page.page.next));
      page = pageAt(mock, `/api/v1/buoys?sort=depth&limit=3&cursor=${page.page.next}`);
    }
    expect(seen).toEqual([[6, 3, 7], [1, 4, 2], [5]]);
    const back: number[][] = [];
    while (page.page.prev !== null) {
      page = pageAt(mock, `/api/v1/buoys?sort=depth&limit=3&cursor=${page.page.prev}`);
      back.push(idsOf(page));
    }
    expect(back).toEqual([
      [1, 4, 2],
      [6, 3, 7],
    ]);
    expect(page.links['last']).toBeUndefined();
  });

  test.each([
    ['made up', 'cursor=abc'],
    ['signed by nobody', `cursor=${Buffer.from('{"after":[1,1]}').toString('base64url')}.AAAAAAAAAAAAAAAA`],
    ['empty', 'cursor='],
  ])('a cursor that is %s is refused', (_name, query) => {
    const mock = mockOf();
    make(mock, 1);
    const answer = mock.send('GET', `/api/v1/buoys?${query}`);
    expect(answer.status).toBe(400);
    expect(answer.body).toMatchObject({ errors: [{ parameter: 'cursor', code: 'cursor' }] });
  });

  test.each(['sort=-depth', 'sort=depth&name=Buoy'])(
    'a cursor of another order or filter is refused: %s',
    (other) => {
      const mock = mockOf();
      for (const depth of [1, 2, 3]) make(mock, depth);
      const { next } = pageAt(mock, '/api/v1/buoys?sort=depth&limit=1').page;
      expect(mock.send('GET', `/api/v1/buoys?${other}&limit=1&cursor=${next ?? ''}`).status).toBe(400);
      expect(mock.send('GET', `/api/v1/buoys?sort=depth&limit=2&cursor=${next ?? ''}`).status).toBe(200);
    },
  );

  test('beyond the end, the way back leaves nothing out', () => {
    const mock = mockOf();
    for (const depth of [1, 2, 3]) make(mock, depth);
    const { next } = pageAt(mock, '/api/v1/buoys?sort=depth&limit=2').page;
    expect(mock.send('DELETE', '/api/v1/buoys/3').status).toBe(204);
    const beyond = pageAt(mock, `/api/v1/buoys?sort=depth&limit=2&cursor=${next ?? ''}`);
    expect(idsOf(beyond)).toEqual([]);
    expect(idsOf(pageAt(mock, `/api/v1/buoys?sort=depth&limit=2&cursor=${beyond.page.prev ?? ''}`))).toEqual([
      1, 2,
    ]);
  });

  test('records that stay are met once, whatever is made and removed between the pages', () => {
    const between = fc.array(
      fc.oneof(
        fc.record({ make: fc.option(fc.integer({ min: 0, max: 9 }), { nil: null }) }),
        fc.record({ remove: fc.nat(40) }),
      ),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(
        fc.array(fc.option(fc.integer({ min: 0, max: 9 }), { nil: null }), { minLength: 1, maxLength: 14 }),
        fc.array(between, { minLength: 20, maxLength: 20 }),
        fc.constantFrom('sort=depth', 'sort=-depth', 'sort=name,-depth'),
        fc.integer({ min: 1, max: 4 }),
        (depths, steps, sort, limit) => {
          const mock = mockOf();
          for (const depth of depths) make(mock, depth);
          const first = depths.map((_, index) => index + 1);
          const removed = new Set<number>();
          const met: number[] = [];
          let target = `/api/v1/buoys?${sort}&limit=${limit}`;
          for (let turn = 0; ; turn++) {
            const page = pageAt(mock, target);
            met.push(...idsOf(page));
            if (page.page.next === null) break;
            for (const step of steps[turn % steps.length] ?? []) {
              if ('make' in step) make(mock, turn < 15 ? step.make : 0, 'Also');
              else {
                const id = step.remove + 1;
                if (mock.send('DELETE', `/api/v1/buoys/${id}`).status === 204) removed.add(id);
              }
            }
            target = `/api/v1/buoys?${sort}&limit=${limit}&cursor=${page.page.next}`;
            if (turn > 200) break;
          }
          expect(new Set(met).size).toBe(met.length);
          expect(first.filter((id) => !removed.has(id) && !met.includes(id))).toEqual([]);
        },
      ),
      rounds(60),
    );
  });
});
