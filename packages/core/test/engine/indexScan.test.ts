import { expect, test } from '@jest/globals';
import { exampleRequest } from '@isomeros/core/engine';
import fc from 'fast-check';
import { arranged } from '../support/arrangement.js';
import { NOW, TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

const QUERIES = [
  '/vessels?sort=-built,name',
  '/vessels?homePortCode=KSH&sort=name',
  '/vessels?homePortCode=KSH&built[gte]=1950&sort=-built',
  '/harbours?sort=name&q=a',
  '/routes?originCode=KSH&destinationCode[ne]=KSH',
  '/crew-members?sort=-name&email[contains]=a',
  '/notices?sort=-id&size=3',
];

/** The orders kept up to date answer as if everything was put in order anew, whatever was written meanwhile. */
test('orders follow every write', () => {
  const model = modelOf(kestrelText);
  const settings = { search: 'on' } as const;
  fc.assert(
    fc.property(fc.array(fc.nat(), { minLength: 5, maxLength: 30 }), (picks) => {
      const mock = new TestMock(model, {}, arranged(settings));
      const { operations } = mock.service.contract;
      const writes = operations.filter(({ method }) => method !== 'GET');
      const lists = (): unknown[] =>
        QUERIES.map((query) => {
          const answer = mock.send('GET', `/api/v1${query}`);
          return [query, answer.status, answer.body];
        });
      lists();
      for (const pick of picks) {
        const operation = writes[pick % writes.length];
        const request =
          operation === undefined ? null : exampleRequest(mock.service, mock.dataset, operation, NOW);
        if (request !== null) mock.exchange(request);
      }
      const kept = lists();
      // A draft keeps no orders: it looks at all records and puts them in order.
      const anew = QUERIES.map((query) => {
        const { response } = mock.handle(mock.draft(), mock.request('GET', `/api/v1${query}`));
        return [query, response.status, JSON.parse(response.body ?? 'null') as unknown];
      });
      expect(kept).toEqual(anew);
    }),
    rounds(15),
  );
});

const MANY = `design "Many"

entity Item
  name: text(1..40), required
  size: integer(0..40), required
  kind: choice(a, b, c), required
`;

interface Item {
  readonly id: number;
  readonly size: number;
  readonly kind: string;
}

interface ItemPage {
  readonly items: readonly Item[];
  readonly page: { readonly totalItems: number };
}

/** So many that an order is kept in several parts, which are parted again and emptied. */
test('an order of many records follows additions, removals and moves at both ends and between', () => {
  const settings = { maxPageSize: 5_000 } as const;
  fc.assert(
    fc.property(
      fc.array(fc.record({ pick: fc.nat(), size: fc.nat(40), kind: fc.constantFrom('a', 'b', 'c') }), {
        minLength: 300,
        maxLength: 900,
      }),
      fc.constantFrom(1, 3, 700),
      (steps, keptMore) => {
        const mock = new TestMock(modelOf(MANY), { Item: 1_100 }, arranged(settings));
        const known = new Map(
          pageOf(mock, '/items?size=5000').items.map(({ id, size, kind }) => [id, { size, kind }]),
        );
        const isRight = (kind: string): void => {
          const expected = [...known]
            .filter(([, item]) => item.kind === kind)
            .sort(([idA, a], [idB, b]) => b.size - a.size || idA - idB)
            .map(([id]) => id);
          const [first, whole] = ['&size=7', '&size=5000'].map((size) =>
            pageOf(mock, `/items?kind=${kind}&sort=-size${size}`),
          );
          expect(whole?.items.map(({ id }) => id)).toEqual(expected);
          expect(first?.items.map(({ id }) => id)).toEqual(expected.slice(0, 7));
          expect(first?.page.totalItems).toBe(expected.length);
        };
        isRight('b');
        for (const { pick, size, kind } of steps) {
          const id = [...known.keys()][pick % known.size] ?? 0;
          if (pick % 4 < keptMore) {
            const { body } = mock.send('POST', '/api/v1/items', { name: 'One more', size, kind });
            known.set((body as Item).id, { size, kind });
          } else if (known.size > 1 && pick % 2 === 0) {
            expect(mock.send('DELETE', `/api/v1/items/${id}`).status).toBe(204);
            known.delete(id);
          } else {
            expect(mock.send('PATCH', `/api/v1/items/${id}`, { size, kind }).status).toBe(200);
            known.set(id, { size, kind });
          }
        }
        for (const kind of ['a', 'b', 'c']) isRight(kind);
      },
    ),
    rounds(6),
  );
});

const pageOf = (mock: TestMock, query: string): ItemPage =>
  mock.send('GET', `/api/v1${query}`).body as ItemPage;

test('an order is of use again after all its records went', () => {
  const mock = TestMock.of(MANY, { Item: 600 });
  const list = '/items?kind=a&sort=size&size=100';
  pageOf(mock, list);
  for (const { rid } of mock.rows) mock.send('DELETE', `/api/v1/items/${rid}`);
  expect(pageOf(mock, list).items).toEqual([]);
  for (const size of [5, 1, 3]) mock.send('POST', '/api/v1/items', { name: 'Again', size, kind: 'a' });
  expect(pageOf(mock, list).items.map(({ size }) => size)).toEqual([1, 3, 5]);
});
