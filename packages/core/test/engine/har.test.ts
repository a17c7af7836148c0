import { describe, expect, test } from '@jest/globals';
import { createRequire } from 'node:module';
import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import { harEntry, harFrame, type ArchivedExchange } from '@isomeros/core/engine';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const require = createRequire(import.meta.url);

/** The published schemas of the format, by people who have nothing to do with this project. */
const validator = new Ajv({ strict: false });
addFormats.default(validator);
validator.addMetaSchema(require('ajv/dist/refs/json-schema-draft-06.json') as object);
const SCHEMAS = require('har-schema') as Readonly<Record<string, object>>;
for (const schema of Object.values(SCHEMAS)) validator.addSchema(schema);
const isArchive = validator.getSchema('har.json#');
if (isArchive === undefined) throw new Error('There is no schema of archives.');

const archiveOf = (...exchanges: readonly ArchivedExchange[]): unknown => {
  const [before, after] = harFrame('0.1.0');
  const entries = exchanges.map((exchange) => JSON.stringify(harEntry(exchange, 'http://127.0.0.1:4811')));
  return JSON.parse(before + entries.join(',') + after);
};

const MESSAGE = { body: '', cut: false, withheld: null };

const READ: ArchivedExchange = {
  at: '2026-06-14T09:12:00.000Z',
  milliseconds: 1.23,
  operation: 'listRoutes',
  status: 200,
  page: false,
  request: {
    ...MESSAGE,
    head: 'GET /api/v1/routes?size=2&q=a%20b HTTP/1.1\r\nHost: here:80\r\nCookie: a=1; b=2=3',
  },
  response: {
    ...MESSAGE,
    head: 'HTTP/1.1 200 OK\r\nContent-Type: application/json\r\nSet-Cookie: s=x; Path=/; HttpOnly',
    body: '{"é":1}',
  },
};

describe('an archive of exchanges', () => {
  test.each<readonly [string, Partial<ArchivedExchange>, object]>([
    [
      'a read',
      {},
      {
        request: {
          method: 'GET',
          url: 'http://here:80/api/v1/routes?size=2&q=a%20b',
          queryString: [
            { name: 'size', value: '2' },
            { name: 'q', value: 'a b' },
          ],
          cookies: [
            { name: 'a', value: '1' },
            { name: 'b', value: '2=3' },
          ],
          headersSize: -1,
          bodySize: 0,
        },
        response: {
          status: 200,
          statusText: 'OK',
          content: { size: 8, mimeType: 'application/json', text: '{"é":1}' },
          cookies: [{ name: 's', value: 'x', path: '/', httpOnly: true, secure: false }],
          redirectURL: '',
        },
        timings: { send: 0, wait: 1.23, receive: 0, dns: -1 },
      },
    ],
    [
      'a body as JSON',
      {
        request: {
          ...MESSAGE,
          head: 'POST /x HTTP/1.1\r\nContent-Type: application/json\r\nContent-Length: 2',
          body: '{}',
        },
      },
      { request: { bodySize: 2, postData: { mimeType: 'application/json', params: [], text: '{}' } } },
    ],
    [
      'a form',
      {
        request: {
          ...MESSAGE,
          head: 'POST /x HTTP/1.1\r\nContent-Type: application/x-www-form-urlencoded',
          body: 'a=1&b=%26',
        },
      },
      {
        request: {
          postData: {
            params: [
              { name: 'a', value: '1' },
              { name: 'b', value: '&' },
            ],
            text: '',
          },
        },
      },
    ],
    [
      'a body that is not whole',
      {
        request: { head: 'POST /x HTTP/1.1', body: '', cut: true, withheld: null },
        response: { head: 'HTTP/1.1 200 OK', body: 'abc', cut: true, withheld: null },
      },
      {
        request: { bodySize: -1 },
        response: { bodySize: -1, content: { size: 0, comment: expect.any(String) } },
      },
    ],
    [
      'a body that is withheld',
      { request: { head: 'POST /x HTTP/1.1', body: '', cut: false, withheld: 17 } },
      { request: { bodySize: 17, postData: { comment: expect.stringContaining('17 bytes') } } },
    ],
    [
      'a connection that was cut',
      { status: 0, response: { ...MESSAGE, head: '' } },
      { response: { status: 0, httpVersion: 'unknown', content: { size: 0, mimeType: 'x-unknown' } } },
    ],
    [
      'a redirection',
      { status: 307, response: { ...MESSAGE, head: 'HTTP/1.1 307 Temporary Redirect\r\nLocation: /api/v1' } },
      { response: { redirectURL: '/api/v1', statusText: 'Temporary Redirect' } },
    ],
    [
      'a page',
      { page: true },
      {
        response: { content: { mimeType: 'application/json', comment: 'A page was sent that shows this.' } },
      },
    ],
    [
      'what is no HTTP',
      { request: { ...MESSAGE, head: 'hello' }, operation: null },
      { request: { method: 'hello', url: 'http://127.0.0.1:4811', httpVersion: 'unknown' } },
    ],
  ])('tells of %s what its standard asks for', (_what, more, told) => {
    const archive = archiveOf({ ...READ, ...more });
    expect([isArchive(archive), isArchive.errors]).toEqual([true, null]);
    expect(archive).toMatchObject({ log: { version: '1.2', entries: [told] } });
  });

  test('is one whatever travelled', () => {
    const message = fc.record({
      head: fc.oneof(
        fc.string(),
        fc
          .tuple(fc.string(), fc.array(fc.tuple(fc.string(), fc.string())))
          .map(
            ([line, headers]) =>
              `GET /${line} HTTP/1.1${headers.map(([name, value]) => `\r\n${name}: ${value}`).join('')}`,
          ),
      ),
      body: fc.string(),
      cut: fc.boolean(),
      withheld: fc.option(fc.nat()),
    });
    fc.assert(
      fc.property(fc.array(fc.tuple(message, message, fc.nat(599)), { maxLength: 4 }), (sent) => {
        const archive = archiveOf(
          ...sent.map(([request, response, status]) => ({ ...READ, request, response, status })),
        );
        void isArchive(archive);
        // A target that is no URL stays what it was.
        expect(isArchive.errors?.filter(({ keyword }) => keyword !== 'format') ?? []).toEqual([]);
      }),
      rounds(200),
    );
  });
});
