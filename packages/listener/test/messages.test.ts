import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { ServedContract } from './support/servedContract.js';
import { exchange, statuses, type Answer } from './support/wire.js';

const ROUTES = 'entity Route\n  name: text(1..60), required, unique\n';

let port: number;
/** The port of a contract that is answered late. */
let slow: number;
/** The port of a contract that wants credentials. */
let guarded: number;
const served: ServedContract[] = [];
async function serve(...given: Parameters<typeof ServedContract.start>): Promise<number> {
  const contract = await ServedContract.start(...given);
  served.push(contract);
  return contract.port;
}
beforeAll(async () => {
  port = await serve(ROUTES, { counts: { Route: 60 } });
  guarded = await serve(ROUTES, { settings: { security: ['bearer'] } });
  slow = await serve(ROUTES, { counts: { Route: 3 }, delay: 300 });
});
afterAll(() => Promise.all(served.map((one) => one.stop())));

const HOST = 'Host: front.example\r\n';
const JSON_TYPE = 'Content-Type: application/json\r\n';

const post = (body: string | Buffer, more = ''): Buffer =>
  Buffer.concat([
    Buffer.from(
      `POST /api/v1/routes HTTP/1.1\r\n${HOST}${JSON_TYPE}${more}Content-Length: ${body.length}\r\n\r\n`,
    ),
    Buffer.from(body),
  ]);
const get = (target: string, more = ''): Buffer =>
  Buffer.from(`GET ${target} HTTP/1.1\r\n${HOST}${more}\r\n`);

describe('messages in one packet', () => {
  test('are answered in order, and one behind a write sees it', async () => {
    const target = '/api/v1/routes?name=Behind%20it';
    const [made, list] = await exchange(slow, Buffer.concat([post('{"name":"Behind it"}'), get(target)]), 2);
    expect(made?.status).toBe(201);
    expect((JSON.parse(String(list?.body)) as { items: object[] }).items).toHaveLength(1);
  });

  test.each<readonly [string, string, number, RegExp]>([
    ['a method nobody knows', `BREW /api/v1/routes HTTP/1.1\r\n${HOST}\r\n`, 501, /the method BREW/],
    ['no HTTP at all', 'hello\r\n\r\n', 400, /not HTTP/],
    ['a broken header', `GET /api/v1/routes HTTP/1.1\r\nBad Header: x\r\n\r\n`, 400, /not HTTP/],
  ])('%s behind a write is answered after it, and the write is done', async (name, text, status, detail) => {
    const body = `{"name":"Before ${name}"}`;
    const packet = Buffer.concat([post(body), Buffer.from(text)]);
    const [first, second, ...more] = await exchange(slow, packet, 3);
    expect([first?.status, second?.status, more]).toEqual([201, status, []]);
    expect((JSON.parse(String(second?.body)) as { detail: string }).detail).toMatch(detail);
  });
});

describe('the head of a message', () => {
  const one = (text: string): Buffer => Buffer.from(text.replaceAll('\n', '\r\n'));
  test.each<readonly [string, Buffer, number]>([
    ['a host of a front end', get('/api/v1/routes'), 200],
    ['two Host lines', one('GET /api/v1/routes HTTP/1.1\nHost: a\nHost: b\n\n'), 400],
    ['the same Host twice', one('GET /api/v1/routes HTTP/1.1\nHost: a\nHost: a\n\n'), 400],
    ['no Host', one('GET /api/v1/routes HTTP/1.1\n\n'), 400],
    ['a Host that is none', one('GET /api/v1/routes HTTP/1.1\nHost: a b\n\n'), 400],
    ['HTTP/1.0 without Host', one('GET /api/v1/routes HTTP/1.0\n\n'), 200],
    [
      'an absolute target',
      one('GET http://other.example/api/v1/routes HTTP/1.1\nHost: front.example\n\n'),
      200,
    ],
    ['OPTIONS *', one('OPTIONS * HTTP/1.1\nHost: a\n\n'), 204],
    [
      'an unknown transfer coding',
      one('POST /api/v1/routes HTTP/1.1\nHost: a\nTransfer-Encoding: gzip\n\n'),
      501,
    ],
    [
      'an unknown transfer coding in chunks',
      one('POST /api/v1/routes HTTP/1.1\nHost: a\nTransfer-Encoding: gzip, chunked\n\n0\n\n'),
      501,
    ],
    ['an unknown expectation', one('GET /api/v1/routes HTTP/1.1\nHost: a\nExpect: 200-maybe\n\n'), 417],
    ['an expectation in HTTP/1.0', one('GET /api/v1/routes HTTP/1.0\nExpect: 200-maybe\n\n'), 200],
    [
      'a preflight for what is not there',
      one('OPTIONS /nowhere HTTP/1.1\nHost: a\nOrigin: http://x\nAccess-Control-Request-Method: GET\n\n'),
      204,
    ],
  ])('%s is answered', async (_name, bytes, status) => {
    expect(await statuses(port, bytes, 1)).toEqual([status]);
  });

  test.each<readonly [string, string, number]>([
    ['too large a body', `${JSON_TYPE}Content-Length: 9000000\r\n`, 413],
    ['a media type that is not accepted', 'Content-Type: text/plain\r\nContent-Length: 10\r\n', 415],
    ['a body that may come', `${JSON_TYPE}Content-Length: 19\r\n`, 100],
  ])('who asks before sending %s is answered at once', async (_name, lines, status) => {
    const head = Buffer.from(`POST /api/v1/routes HTTP/1.1\r\n${HOST}${lines}Expect: 100-continue\r\n\r\n`);
    expect(await statuses(port, head, 1)).toEqual([status]);
  });

  test('who asks before sending without credentials is answered 401 at once', async () => {
    const lines = `${HOST}${JSON_TYPE}Content-Length: 19\r\nExpect: 100-continue\r\n`;
    const bytes = Buffer.from(`POST /api/v1/routes HTTP/1.1\r\n${lines}\r\n`);
    expect(await statuses(guarded, bytes, 1)).toEqual([401]);
  });
});

describe('content codings', () => {
  test('a body in gzip is read, its limit counts what it decodes to, and another coding is refused', async () => {
    const coded = (text: string): Buffer => post(gzipSync(text), 'Content-Encoding: gzip\r\n');
    expect(await statuses(port, coded('{"name":"In gzip"}'), 1)).toEqual([201]);
    const bomb = gzipSync(`{"name":"${'a'.repeat(50_000_000)}"}`);
    expect(await statuses(port, post(bomb, 'Content-Encoding: gzip\r\n'), 1)).toEqual([413]);
    expect(await statuses(port, post('no gzip', 'Content-Encoding: gzip\r\n'), 1)).toEqual([400]);
    const [refused] = await exchange(port, post('{"name":"x"}', 'Content-Encoding: br\r\n'), 1);
    expect([refused?.status, refused?.headers.get('accept-encoding')]).toEqual([415, 'gzip']);
  });

  test('longer answers are offered in gzip, each coding with its own tag, and a write takes either', async () => {
    const target = '/api/v1/routes?size=50';
    const [plain] = await exchange(port, get(target), 1);
    const [zipped] = await exchange(port, get(target, 'Accept-Encoding: br, gzip;q=0.5\r\n'), 1);
    expect(zipped?.headers.get('content-encoding')).toBe('gzip');
    expect(zipped?.headers.get('vary')).toBe('Accept, Accept-Encoding');
    expect(gunzipSync(zipped?.body ?? '').toString()).toBe(String(plain?.body));
    const tag = zipped?.headers.get('etag') ?? '';
    expect(tag).not.toBe(plain?.headers.get('etag'));
    const [same] = await exchange(port, get(target, `Accept-Encoding: gzip\r\nIf-None-Match: ${tag}\r\n`), 1);
    expect([same?.status, same?.headers.get('etag')]).toEqual([304, tag]);
    const [head] = await exchange(
      port,
      Buffer.from(`HEAD ${target} HTTP/1.1\r\n${HOST}Accept-Encoding: gzip\r\nConnection: close\r\n\r\n`),
      9,
    );
    expect([head?.status, head?.headers.get('etag'), head?.headers.get('content-encoding')]).toEqual([
      200,
      tag,
      'gzip',
    ]);
    const [short] = await exchange(port, get('/api/v1/routes/1', 'Accept-Encoding: gzip\r\n'), 1);
    expect(short?.headers.has('content-encoding')).toBe(false);
    const [refused] = await exchange(port, get(target, 'Accept-Encoding: gzip;q=0, *\r\n'), 1);
    expect(refused?.headers.has('content-encoding')).toBe(false);
  });

  test('If-Match takes the tag of either coding', async () => {
    const name = 'n'.repeat(2_000);
    const notes = await serve('entity Note\n  text: text(..4000), required\n', { counts: { Note: 1 } });
    const read = (): Promise<Answer[]> =>
      exchange(notes, get('/api/v1/notes/1', 'Accept-Encoding: gzip\r\n'), 1);
    const change = (tag: string): Promise<number[]> => {
      const body = JSON.stringify({ text: name });
      const head = `PATCH /api/v1/notes/1 HTTP/1.1\r\n${HOST}Content-Type: application/merge-patch+json\r\nIf-Match: ${tag}\r\n`;
      return statuses(notes, Buffer.from(`${head}Content-Length: ${body.length}\r\n\r\n${body}`), 1);
    };
    expect(await change('*')).toEqual([200]);
    const [zipped] = await read();
    const tag = zipped?.headers.get('etag') ?? '';
    expect(zipped?.headers.get('content-encoding')).toBe('gzip');
    expect(await change(tag)).toEqual([200]);
    const [plain] = await exchange(notes, get('/api/v1/notes/1'), 1);
    expect(await change(plain?.headers.get('etag') ?? '')).toEqual([200]);
    expect(await change('"other"')).toEqual([412]);
  });
});
