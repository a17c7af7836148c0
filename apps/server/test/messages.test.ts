import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { statuses } from '../../../packages/listener/test/support/wire.js';
import { TestApp } from './support/app.js';
import { ROUTES } from './support/models.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

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
    const send = async (url: string, body: string): Promise<number> => {
      const headers = { 'Content-Type': 'application/json' };
      return (await fetch(url, { method: 'POST', headers, body })).status;
    };
    const imported = `${app.url}/api/mocks/${mock.id}/records/Route`;
    expect(await send(imported, '[{"id":77,"name":"\\udc00"}]')).toBe(400);
    expect(await send(`${mock.baseUrls.main}/routes`, '{"name":"\\ud800x"}')).toBe(400);
  });
});
