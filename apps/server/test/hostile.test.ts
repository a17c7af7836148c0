import { connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { TestApp, type MockBody } from './support/app.js';

/** A pattern that takes for ever where it is tried by going back. */
const TEXT = `entity Route
  name: text(1..60), required, pattern "(a+)+b"
  size: integer(0..10)
  more: json

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`;

const REQUESTS = 1_000;
const AT_ONCE = 16;
const PATIENCE_MS = 20_000;

let app: TestApp;
let port: number;
beforeAll(async () => {
  app = await TestApp.start();
  const { id } = await app.createDesign(TEXT);
  const mock = await app.json<MockBody>('POST', '/api/mocks', { design: id, arrangements: ['main'] });
  port = mock.port;
});
afterAll(() => app.close());

const bytes = (text: string): Buffer => Buffer.from(text, 'utf8');
const HOST = 'Host: 127.0.0.1\r\n';

const withBody = (start: string, type: string, body: Buffer): Buffer =>
  Buffer.concat([
    bytes(`${start} HTTP/1.1\r\n${HOST}Content-Type: ${type}\r\nContent-Length: ${body.length}\r\n\r\n`),
    body,
  ]);

const target = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 40 }).map((text) => `/api/v1/${encodeURI(text)}`),
  fc.constantFrom(
    '/api/v1/routes/%',
    '/api/v1/routes/%ff',
    '/api/v1/routes/%2e%2e/%2e%2e/%2e%2e/etc',
    '/api/v1//routes',
    '/api/v1/routes/__proto__',
    '/api/v1/routes/constructor/sailings',
    '/api/v1/routes?__proto__=1',
    '/api/v1/routes?sort=__proto__',
    '/api/v1/routes?size=99999999999999999999',
    '/api/v1/routes?page=-1',
    '/api/v1/routes?size[eq]=1&size[eq]=2',
    `/api/v1/routes?name[contains]=${'a'.repeat(4_000)}`,
    `/api/v1/${'x/'.repeat(3_000)}`,
    `/${'y'.repeat(9_000)}`,
    'routes',
    '*',
    'http://',
    '/\u00e9',
  ),
);

const json = fc.oneof(
  fc.json({ maxDepth: 3 }),
  fc.constantFrom(
    '{',
    '{"name":}',
    '{"name":"ab","name":"ab"}',
    '{"__proto__":{"x":1},"name":"ab"}',
    '{"constructor":{"prototype":{}}}',
    `{"name":"${'a'.repeat(50)}!"}`,
    `{"name":"ab","size":1e400}`,
    `{"name":"ab","size":${'9'.repeat(400)}}`,
    `${'['.repeat(5_000)}${']'.repeat(5_000)}`,
    `{"name":"ab","more":${'{"a":'.repeat(200)}1${'}'.repeat(200)}}`,
    '"\ud800"',
    '\ufeff{"name":"ab"}',
    `{"name":"ab","more":"${'z'.repeat(1_100_000)}"}`,
  ),
);

const body = fc.oneof(
  { weight: 4, arbitrary: json.map((text) => bytes(text)) },
  { weight: 1, arbitrary: fc.uint8Array({ maxLength: 60 }).map((data) => Buffer.from(data)) },
);

const type = fc.constantFrom(
  'application/json',
  'application/json; charset=utf-16',
  'application/merge-patch+json',
  'application/json-patch+json',
  'text/plain',
  '',
  '*/*',
  'application/json, text/html',
);

const header = fc.constantFrom(
  'Accept: ;;;q=',
  'Accept: application/json;q=2,*/*;q=-1',
  'If-Match: W/"',
  `If-None-Match: ${'"a",'.repeat(2_000)}`,
  'If-Modified-Since: yesterday',
  'Idempotency-Key: once',
  `Idempotency-Key: "${'k'.repeat(3_000)}"`,
  'Prefer: return=;;;,,',
  'Authorization: Basic !!!',
  'Content-Length: -1',
  'Content-Length: 1e3',
  'Transfer-Encoding: gzip',
  'Transfer-Encoding: chunked\r\nContent-Length: 5',
  'Expect: 200-ok',
  'Bad Header: x',
  'NoColon',
  ' Folded: x',
  `X-Long: ${'h'.repeat(40_000)}`,
  'Origin: null\r\nAccess-Control-Request-Method: <script>',
  'Content-Encoding: gzip',
);

const method = fc.constantFrom(
  'GET',
  'POST',
  'PUT',
  'PATCH',
  'DELETE',
  'OPTIONS',
  'HEAD',
  'BREW',
  'get',
  'G\u00cbT',
);

const request = fc.oneof(
  fc.tuple(method, target).map(([verb, to]) => bytes(`${verb} ${to} HTTP/1.1\r\n${HOST}\r\n`)),
  fc
    .tuple(method, fc.constantFrom('/api/v1/routes', '/api/v1/routes/1', '/api/v1/routes/1/sailings'), header)
    .map(([verb, to, line]) => bytes(`${verb} ${to} HTTP/1.1\r\n${HOST}${line}\r\n\r\n`)),
  fc
    .tuple(fc.constantFrom('POST', 'PUT', 'PATCH'), fc.constantFrom('routes', 'routes/1'), type, body)
    .map(([verb, to, media, content]) => withBody(`${verb} /api/v1/${to}`, media, content)),
  // More than one at a time, and one that ends before its body does.
  fc
    .tuple(target, json)
    .map(([to, content]) =>
      Buffer.concat([
        bytes(`GET ${to} HTTP/1.1\r\n${HOST}\r\n`),
        withBody('POST /api/v1/routes', 'application/json', bytes(content)),
        bytes(`GET /api/v1/routes HTTP/1.1\r\n${HOST}Connection: close\r\n\r\n`),
      ]),
    ),
  fc.constant(bytes(`POST /api/v1/routes HTTP/1.1\r\n${HOST}Content-Length: 400\r\n\r\n{"name"`)),
  fc.uint8Array({ minLength: 1, maxLength: 200 }).map((data) => Buffer.from(data)),
);

interface Seen {
  readonly statuses: readonly number[];
  /** It neither answered nor hung up. */
  readonly hung: boolean;
}

/** Sends bytes as they are, says that no more will come, and waits for the end. */
function exchange(data: Buffer): Promise<Seen> {
  return new Promise((resolve) => {
    const parts: Buffer[] = [];
    const socket = connect(port, '127.0.0.1', () => socket.end(data));
    const done = (hung: boolean): void => {
      clearTimeout(timer);
      socket.destroy();
      const text = Buffer.concat(parts).toString('latin1');
      resolve({
        statuses: [...text.matchAll(/^HTTP\/1\.1 (\d{3}) /gm)].map(([, code]) => Number(code)),
        hung,
      });
    };
    const timer = setTimeout(() => done(true), PATIENCE_MS);
    socket.on('data', (part: Buffer) => parts.push(part));
    socket.on('close', () => done(false));
    socket.on('error', () => done(false));
  });
}

describe('whatever bytes arrive', () => {
  test('a mock answers or hangs up, never fails inside, and stays well', async () => {
    const all = fc.sample(request, { numRuns: REQUESTS, seed: 20_261_125 });
    const before = process.memoryUsage().rss;
    const wrong: string[] = [];
    let answered = 0;
    for (let index = 0; index < all.length; index += AT_ONCE) {
      const batch = all.slice(index, index + AT_ONCE);
      const seen = await Promise.all(batch.map(exchange));
      for (const [at, { statuses, hung }] of seen.entries()) {
        answered += statuses.length > 0 ? 1 : 0;
        const failed = statuses.filter((status) => status >= 500 && status !== 501);
        if (hung || failed.length > 0)
          wrong.push(
            `${hung ? 'hung' : failed.join()}: ${batch[at]?.toString('latin1').slice(0, 200) ?? ''}`,
          );
      }
    }
    expect(wrong).toEqual([]);
    expect(answered).toBeGreaterThan(REQUESTS * 0.8);
    const read = await fetch(`http://127.0.0.1:${port}/api/v1/routes`);
    expect(read.status).toBe(200);
    expect(Object.keys(Object.prototype)).toEqual([]);
    expect(process.memoryUsage().rss - before).toBeLessThan(400 * 1_048_576);
  });
});
