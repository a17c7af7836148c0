import { connect, type Socket } from 'node:net';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';
import { ROUTES } from './support/models.js';

let app: TestApp;
let port: number;
let slow: MockBody;
/** The port of a mock that wants credentials. */
let guarded: number;
beforeAll(async () => {
  app = await TestApp.start();
  const { id } = await app.createDesign(ROUTES);
  ({ port } = await app.createMock(id, { counts: { Route: 60 } }));
  const closed = await app.createDesign(ROUTES);
  await app.json('PUT', `/api/designs/${closed.id}/choices`, {
    settings: { security: ['bearer'] },
    answered: [],
  });
  guarded = (await app.createMock(closed.id)).port;
  slow = await app.createMock(id, { counts: { Route: 3 } });
  await app.json('PUT', `/api/mocks/${slow.id}/faults`, {
    seed: 1,
    items: [{ operation: 'createRoute', latency: { kind: 'fixed', ms: 300 } }],
  });
});
afterAll(() => app.close());

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

interface Answer {
  readonly status: number;
  readonly headers: ReadonlyMap<string, string>;
  readonly body: Buffer;
}

/** The answers in some bytes, whole ones only. */
function answersIn(bytes: Buffer): Answer[] {
  const answers: Answer[] = [];
  for (let rest = bytes; rest.length > 0;) {
    const end = rest.indexOf('\r\n\r\n');
    if (end === -1) return answers;
    const [line = '', ...lines] = rest.toString('latin1', 0, end).split('\r\n');
    const headers = new Map(
      lines.map((one) => [
        one.slice(0, one.indexOf(':')).toLowerCase(),
        one.slice(one.indexOf(':') + 1).trim(),
      ]),
    );
    const length = Number(headers.get('content-length') ?? 0);
    if (rest.length < end + 4 + length) return answers;
    answers.push({
      status: Number(line.split(' ')[1]),
      headers,
      body: rest.subarray(end + 4, end + 4 + length),
    });
    rest = rest.subarray(end + 4 + length);
  }
  return answers;
}

/** Sends bytes in one packet, and reads until so many answers are there, or the connection ends. */
function exchange(to: number, bytes: Buffer, count: number): Promise<Answer[]> {
  return new Promise((resolve, reject) => {
    let received = Buffer.alloc(0);
    const socket: Socket = connect(to, '127.0.0.1', () => socket.write(bytes));
    const done = (): void => {
      socket.destroy();
      resolve(answersIn(received));
    };
    socket.on('data', (part: Buffer) => {
      received = Buffer.concat([received, part]);
      if (answersIn(received).length >= count) done();
    });
    // What never comes is missing in the comparison.
    socket.setTimeout(8_000, done);
    socket.on('close', done);
    socket.on('error', reject);
  });
}

const statuses = async (to: number, bytes: Buffer, count: number): Promise<number[]> =>
  (await exchange(to, bytes, count)).map(({ status }) => status);

describe('messages in one packet', () => {
  test('are answered in order, and one behind a write sees it', async () => {
    const target = '/api/v1/routes?name=Behind%20it';
    const [made, list] = await exchange(
      slow.port,
      Buffer.concat([post('{"name":"Behind it"}'), get(target)]),
      2,
    );
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
    const [first, second, ...more] = await exchange(slow.port, packet, 3);
    expect([first?.status, second?.status, more]).toEqual([201, status, []]);
    expect((JSON.parse(String(second?.body)) as ProblemBody).detail).toMatch(detail);
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
    const { id } = await app.createDesign('entity Note\n  text: text(..4000), required');
    const mock = await app.createMock(id, { counts: { Note: 1 } });
    const read = (): Promise<Answer[]> =>
      exchange(mock.port, get('/api/v1/notes/1', 'Accept-Encoding: gzip\r\n'), 1);
    const change = (tag: string): Promise<number[]> => {
      const body = JSON.stringify({ text: name });
      const head = `PATCH /api/v1/notes/1 HTTP/1.1\r\n${HOST}Content-Type: application/merge-patch+json\r\nIf-Match: ${tag}\r\n`;
      return statuses(mock.port, Buffer.from(`${head}Content-Length: ${body.length}\r\n\r\n${body}`), 1);
    };
    expect(await change('*')).toEqual([200]);
    const [zipped] = await read();
    const tag = zipped?.headers.get('etag') ?? '';
    expect(zipped?.headers.get('content-encoding')).toBe('gzip');
    expect(await change(tag)).toEqual([200]);
    const [plain] = await exchange(mock.port, get('/api/v1/notes/1'), 1);
    expect(await change(plain?.headers.get('etag') ?? '')).toEqual([200]);
    expect(await change('"other"')).toEqual([412]);
  });
});

describe("the application's own messages", () => {
  const own = (): number => Number(new URL(app.url).port);
  const one = (text: string): Buffer => Buffer.from(text.replaceAll('\n', '\r\n'));
  test.each<readonly [string, string, number]>([
    ['two Host lines', 'GET /api/designs HTTP/1.1\nHost: 127.0.0.1\nHost: 127.0.0.1\n\n', 400],
    ['an absolute target', 'GET http://127.0.0.1/api/designs HTTP/1.1\nHost: 127.0.0.1\n\n', 200],
    ['a target of another host', 'GET http://evil.example/api/designs HTTP/1.1\nHost: 127.0.0.1\n\n', 421],
    ['a foreign host', 'GET /api/designs HTTP/1.1\nHost: evil.example\n\n', 421],
    ['a segment that is not UTF-8', 'GET /api/designs/%ff HTTP/1.1\nHost: 127.0.0.1\n\n', 400],
    [
      'a cursor of no moment',
      `GET /api/designs?cursor=${Buffer.from('["x","y"]').toString('base64url')} HTTP/1.1\nHost: 127.0.0.1\n\n`,
      400,
    ],
    ['a cursor that is none', 'GET /api/designs?cursor=%ff HTTP/1.1\nHost: 127.0.0.1\n\n', 400],
    [
      'a body in an unknown coding',
      `POST /api/designs HTTP/1.1\nHost: 127.0.0.1\nContent-Type: application/json\nContent-Encoding: br\nContent-Length: 2\n\n{}`,
      415,
    ],
    [
      'half of a surrogate pair',
      'POST /api/designs HTTP/1.1\nHost: 127.0.0.1\nContent-Type: application/json\nContent-Length: 17\n\n{"name":"\\ud800"}',
      400,
    ],
  ])('%s is answered', async (_name, text, status) => {
    expect(await statuses(own(), one(text), 1)).toEqual([status]);
  });

  test('half of a surrogate pair is refused in every body of records', async () => {
    const { id } = await app.createDesign(ROUTES);
    const mock = await app.createMock(id);
    const body = '[{"id":77,"name":"\\udc00"}]';
    const imported = await fetch(`${app.url}/api/mocks/${mock.id}/records/Route`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body,
    });
    expect(imported.status).toBe(400);
    expect(await statuses(port, post('{"name":"\\ud800x"}'), 1)).toEqual([400]);
  });
});
