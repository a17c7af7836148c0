import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type MockBody } from './support/app.js';
import { createSchema, dropSchema } from './support/database.js';
import { eventually, sendJson, ServerProcess } from './support/server.js';

const TEXT = `entity Keeper
  email: email, required, unique
  password: text(8..80), required, write-only
`;

const CHOICES = {
  settings: { security: ['bearer'] },
  customOperations: [
    {
      id: 'c1',
      name: 'signIn',
      entity: 'Keeper',
      effect: {
        kind: 'verify',
        compared: [
          { member: 'Keeper.email', input: 'email' },
          { member: 'Keeper.password', input: 'password' },
        ],
        answers: { kind: 'token', seconds: 3600, role: null },
        failure: 'unauthenticated',
      },
    },
    { id: 'c2', name: 'me', entity: 'Keeper', effect: { kind: 'caller' } },
    { id: 'c3', name: 'signOut', entity: 'Keeper', effect: { kind: 'revoke' } },
  ],
};

const SECRET = 'harbour lights';
const KNOWN = { authorization: 'Bearer user-secret' };

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

interface Signed {
  readonly design: string;
  readonly base: string;
  readonly path: string;
  readonly token: string;
}

type Send = (method: string, path: string, body?: unknown) => Promise<Response>;

/** A mock with one keeper, who has signed in. */
async function signedIn(
  send: Send = (method, path, body) => app.send(method, path, body),
  release = false,
): Promise<Signed> {
  const json = async <T>(method: string, path: string, body?: unknown): Promise<T> =>
    (await (await send(method, path, body)).json()) as T;
  const { id: design } = await json<{ id: string }>('POST', '/api/designs', {
    source: { format: 'notation', text: TEXT },
  });
  await send('PUT', `/api/designs/${design}/arrangements/main`, CHOICES);
  if (release) await send('POST', `/api/designs/${design}/releases`, { label: '1.0', arrangement: 'main' });
  const mock = await json<MockBody>('POST', '/api/mocks', {
    design,
    arrangements: ['main'],
    ...(release ? { releases: ['1.0'] } : {}),
    counts: { Keeper: 0 },
  });
  const base = mock.baseUrls.main;
  const keeper = { email: 'ada@harbour.example', password: SECRET };
  expect((await sendJson(`${base}/keepers`, 'POST', keeper, KNOWN)).status).toBe(201);
  const answer = await sendJson(`${base}/keepers/sign-in`, 'POST', keeper);
  const { access_token: token } = (await answer.json()) as { access_token: string };
  return { design, base, path: `/api/mocks/${mock.id}`, token };
}

const me = async ({ base, token }: Pick<Signed, 'base' | 'token'>): Promise<number> =>
  (await fetch(`${base}/me`, { headers: { authorization: `Bearer ${token}` } })).status;

describe('a token', () => {
  test('is long, and tells nobody anything', async () => {
    const { token, ...signed } = await signedIn();
    expect(token).toMatch(/^[A-Za-z0-9_-]{43}$/);
    expect(await me({ ...signed, token })).toBe(200);
  });

  test.each<[string, (signed: Signed) => Promise<unknown>]>([
    ['a reset', ({ path }) => app.json('POST', `${path}/reset`)],
    [
      'a restore',
      async ({ path }) => {
        await app.json('POST', `${path}/snapshots`, { name: 'now' });
        await app.json('POST', `${path}/snapshots/now/restore`);
      },
    ],
    ['the end of its record', ({ base }) => sendJson(`${base}/keepers/1`, 'DELETE', undefined, KNOWN)],
    [
      'the end of its record, though that is taken back',
      async ({ base, path }) => {
        await sendJson(`${base}/keepers/1`, 'DELETE', undefined, KNOWN);
        await app.json('POST', `${path}/undo`);
        expect((await fetch(`${base}/keepers/1`, { headers: KNOWN })).status).toBe(200);
      },
    ],
    [
      'an import that replaces everything',
      ({ path }) => app.json('POST', `${path}/records?mode=replace`, { Keeper: [] }),
    ],
    [
      'its revocation',
      ({ base, token }) =>
        sendJson(`${base}/keepers/sign-out`, 'POST', undefined, { authorization: `Bearer ${token}` }),
    ],
  ])('does not outlive %s', async (_, end) => {
    const signed = await signedIn();
    await end(signed);
    expect(await me(signed)).toBe(401);
  });

  test('is not taken back with the write before it, and goes on after another arrangement is chosen', async () => {
    const signed = await signedIn();
    await sendJson(`${signed.base}/keepers/1`, 'PATCH', { password: 'other lights' }, KNOWN);
    await app.json('POST', `${signed.path}/undo`);
    expect(await me(signed)).toBe(200);
    const wider = TEXT.replace('entity Keeper\n', 'entity Keeper\n  nickname: text(1..20)\n');
    await app.json('PUT', `/api/designs/${signed.design}/model`, { text: wider });
    expect(await me(signed)).toBe(200);
  });

  test('stands nowhere but in the answer that handed it out, and so does the password', async () => {
    const { base, path, token } = await signedIn();
    await me({ base, token });
    const { items } = await app.json<{ items: { number: number }[] }>('GET', `${path}/exchanges`);
    const exchanges = await Promise.all(
      items.map(async ({ number }) => (await app.send('GET', `${path}/exchanges/${number}`)).text()),
    );
    expect(exchanges.join()).toContain('sign-in');
    const exported = await (await app.send('GET', `${path}/records`)).text();
    const records = await (await fetch(`${base}/keepers`, { headers: KNOWN })).text();
    for (const text of [...exchanges, exported, records]) {
      expect(text).not.toContain(token);
      expect(text).not.toContain(SECRET);
    }
    expect(await (await app.send('GET', `${path}/records?secrets=include`)).text()).toContain(SECRET);
  });

  test('holds under every release of the mock, also once that has records of its own', async () => {
    const signed = await signedIn(undefined, true);
    const mocksOf = async (): Promise<readonly (MockBody & { releaseUrls: Record<string, string> })[]> =>
      (
        await app.json<{ items: (MockBody & { releaseUrls: Record<string, string> })[] }>(
          'GET',
          `/api/mocks?design=${signed.design}`,
        )
      ).items;
    const [shared] = await mocksOf();
    const release = shared?.releaseUrls['1.0'] ?? '';
    expect(await me({ ...signed, base: release })).toBe(200);
    const larger = TEXT.replace('text(8..80)', 'text(1..80)');
    await app.json('PUT', `/api/designs/${signed.design}/model`, { text: larger });
    await eventually(async () => {
      const { servesRevision } = await app.json<MockBody>('GET', signed.path);
      return servesRevision === 3 ? true : null;
    }, 'the wider model to be served');
    const bo = { email: 'bo@harbour.example', password: 'x' };
    const made = await sendJson(`${signed.base}/keepers`, 'POST', bo, KNOWN);
    expect([made.status, await made.json()]).toMatchObject([201, { email: bo.email }]);
    expect(await mocksOf()).toHaveLength(2);
    expect(await me({ ...signed, base: release })).toBe(200);
    expect(await me(signed)).toBe(200);
    await sendJson(`${signed.base}/keepers/1`, 'DELETE', undefined, KNOWN);
    expect(await me({ ...signed, base: release })).toBe(200);
    expect(await me(signed)).toBe(401);
  });
});

test('a token that was answered is there after the server is killed', async () => {
  const schema = await createSchema();
  let server = await ServerProcess.start(schema);
  try {
    const signed = await signedIn((method, path, body) => sendJson(server.url + path, method, body));
    const { base: _, ...same } = signed;
    await server.end('SIGKILL');
    server = await ServerProcess.start(schema);
    const mock = (await (await fetch(server.url + signed.path)).json()) as MockBody;
    expect(await me({ ...same, base: mock.baseUrls.main })).toBe(200);
  } finally {
    await server.end('SIGKILL');
    await dropSchema(schema);
  }
});
