import { expect, test } from '@jest/globals';
import { exampleRequest } from '@isomeros/core/engine';
import fc from 'fast-check';
import { anyArrangement } from '../support/arrangements.js';
import { arranged } from '../support/arrangement.js';
import { NOW, TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

const readsOf = (mock: TestMock): readonly string[] =>
  mock.service.contract.operations
    .filter(({ verb }) => verb === 'list' || verb === 'read')
    .flatMap((operation) => exampleRequest(mock.service, mock.dataset, operation, mock.now)?.target ?? []);

/** Writes something by one of the operations there are; what is refused changes nothing. */
function write(mock: TestMock, pick: number): void {
  const { operations } = mock.service.contract;
  const operation = operations[pick % operations.length];
  const request = operation === undefined ? null : exampleRequest(mock.service, mock.dataset, operation, NOW);
  if (request !== null) mock.exchange(request);
}

test('a strong tag never stands for two different bodies (RFC 9110 §8.8.1)', () => {
  fc.assert(
    fc.property(anyArrangement, fc.array(fc.nat(), { maxLength: 15 }), ({ model, arrangement }, picks) => {
      const mock = new TestMock(model, {}, arrangement);
      const bodies = new Map<string, string>();
      for (const pick of [0, ...picks]) {
        write(mock, pick);
        mock.now += pick % 3 === 0 ? 3_600_000 : 0;
        for (const target of readsOf(mock)) {
          const { headers, body } = mock.handle(mock.dataset, mock.request('GET', target)).response;
          const tag = headers.find(([name]) => name === 'ETag')?.[1];
          if (tag === undefined || body === null) continue;
          const known = bodies.get(`${target} ${tag}`) ?? body;
          expect([target, tag, body]).toEqual([target, tag, known]);
          bodies.set(`${target} ${tag}`, known);
        }
      }
    }),
    rounds(40),
  );
});

const tagOf = (mock: TestMock, target: string): string => mock.send('GET', target).headers.get('etag') ?? '';

test('the tag of a page stays while other pages change, and goes with any record on it', () => {
  const mock = TestMock.of(kestrelText);
  const page = '/api/v1/harbours?size=3&sort=code';
  const codes = (mock.send('GET', page).body as { items: { code: string }[] }).items.map(({ code }) => code);
  const last = (mock.send('GET', '/api/v1/harbours?size=1&sort=-code').body as { items: { code: string }[] })
    .items[0]?.code;
  const before = tagOf(mock, page);
  expect(mock.send('PATCH', `/api/v1/harbours/${last ?? ''}`, { name: 'Elsewhere' }).status).toBe(200);
  expect(tagOf(mock, page)).toBe(before);
  expect(mock.send('GET', page, undefined, { 'if-none-match': before }).status).toBe(304);
  for (const code of codes) {
    const tag = tagOf(mock, page);
    expect(mock.send('PATCH', `/api/v1/harbours/${code}`, { name: `Named ${code}` }).status).toBe(200);
    expect(tagOf(mock, page)).not.toBe(tag);
    expect(mock.send('GET', page, undefined, { 'if-none-match': tag }).status).toBe(200);
  }
});

test.each([
  ['an expansion', '/api/v1/routes?expand=origin&size=2'],
  ['a choice of members', '/api/v1/routes?fields=originCode,name&size=2'],
  ['a search', '/api/v1/harbours?q=a&size=2'],
  ['a filter', '/api/v1/routes?number[gte]=1&sort=-number&size=2'],
])('%s that is asked for again shows what was changed meanwhile', (_, target) => {
  const settings = { expand: 'on', fields: 'on', search: 'on' } as const;
  const mock = new TestMock(modelOf(kestrelText), {}, arranged(settings));
  const first = mock.send('GET', target);
  expect(first.status).toBe(200);
  for (const harbour of (mock.send('GET', '/api/v1/harbours?size=100').body as { items: { code: string }[] })
    .items)
    mock.send('PATCH', `/api/v1/harbours/${harbour.code}`, { name: `A ${harbour.code}` });
  for (const route of (mock.send('GET', '/api/v1/routes?size=100').body as { items: { number: number }[] })
    .items)
    mock.send('PATCH', `/api/v1/routes/${route.number}`, { name: `A route ${route.number}` });
  const again = mock.send('GET', target);
  const fresh = mock.handle(mock.draft(), mock.request('GET', `${target}&`));
  expect(again.body).not.toEqual(first.body);
  const withoutQuery = (text: string): string => text.replaceAll(/\?[^"]*/g, '');
  expect(withoutQuery(JSON.stringify(again.body))).toBe(withoutQuery(fresh.response.body ?? ''));
});
