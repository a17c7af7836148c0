import { expect, test } from '@jest/globals';
import { exampleRequest } from '@isomeros/core/engine';
import fc from 'fast-check';
import { arranged } from '../support/arrangement.js';
import { NOW, TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';

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
    { numRuns: 25 },
  );
});
