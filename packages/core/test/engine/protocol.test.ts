import { describe, expect, test } from '@jest/globals';
import type { SettingsById, SettingValues } from '@isomeros/core/arrangement';
import { judgeResponse } from '@isomeros/core/conformance';
import { credentialsOf, presentedBy } from '@isomeros/core/engine';
import { arranged } from '../support/arrangement.js';
import { NOW, TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Buoy
  name: text(1..20), required, unique
  depth: integer
  state: choice(afloat, sunk), default afloat
    sink: afloat -> sunk

each Buoy refers to optional Buoy as neighbour, on remove detach
`;

function mockOf(
  settings: SettingValues = {},
  resources: SettingsById = {},
  operations: SettingsById = {},
): TestMock {
  return new TestMock(modelOf(TEXT), { Buoy: 3 }, arranged(settings, resources, operations));
}

const BUOYS = '/api/v1/buoys';
const ONE = `${BUOYS}/1`;

describe('an Idempotency-Key that is none', () => {
  test.each(['', '""', `"${'k'.repeat(3_000)}"`, 'two words'])(
    '%j is refused, and nothing is done',
    (key) => {
      const mock = mockOf();
      const before = mock.rows.length;
      const answer = mock.send('POST', BUOYS, { name: 'New' }, { 'idempotency-key': key });
      expect([answer.status, mock.rows.length]).toEqual([400, before]);
      expect(answer.body).toMatchObject({
        detail: expect.stringContaining('1 to 255 characters') as unknown,
      });
    },
  );
});

describe('Prefer (RFC 7240)', () => {
  const cases: readonly (readonly [string, string, unknown, number])[] = [
    ['POST', BUOYS, { name: 'New' }, 201],
    ['PUT', ONE, { name: 'New' }, 204],
    ['PATCH', ONE, { name: 'New' }, 204],
    ['POST', `${ONE}/sink`, undefined, 204],
  ];

  test.each(cases)('return=minimal leaves the body out of %s %s', (method, target, body, status) => {
    const answer = mockOf().send(method, target, body, { prefer: 'return=minimal' });
    expect([answer.status, answer.handled.response.body]).toEqual([status, null]);
    expect(answer.headers.get('preference-applied')).toBe('return=minimal');
    expect(answer.headers.has('content-type')).toBe(false);
    if (status === 201) expect(answer.headers.get('location')).toBe(`${BUOYS}/4`);
  });

  test.each(['return=representation', 'wait=5, return = "representation"; x=1'])('%s has one', (prefer) => {
    const answer = mockOf().send('PATCH', ONE, { name: 'New' }, { prefer });
    expect([answer.status, answer.headers.get('preference-applied')]).toEqual([200, 'return=representation']);
  });

  test.each([
    ['what is no preference', {}, 'return=nothing'],
    ['what the arrangement ignores', { prefer: 'ignored' } as const, 'return=minimal'],
  ])('%s changes nothing', (_name, settings: SettingValues, prefer) => {
    const answer = mockOf(settings).send('PATCH', ONE, { name: 'New' }, { prefer });
    expect([answer.status, answer.headers.get('preference-applied')]).toEqual([200, undefined]);
  });

  test('a removal that answers the record can do without', () => {
    const answer = mockOf({ removeAnswers: 'record' }).send('DELETE', ONE, undefined, {
      prefer: 'return=minimal',
    });
    expect(answer.status).toBe(204);
  });
});

describe('success, where the standards leave a choice', () => {
  const SINK = `${ONE}/sink`;
  test.each<readonly [SettingValues, string, string, unknown, number, Readonly<Record<string, string>>]>([
    [{ createAnswers: 'record' }, 'POST', BUOYS, { name: 'New' }, 201, { location: `${BUOYS}/4` }],
    [{ createAnswers: 'nothing' }, 'POST', BUOYS, { name: 'New' }, 201, { location: `${BUOYS}/4` }],
    [{ createAnswers: 'see other' }, 'POST', BUOYS, { name: 'New' }, 303, { location: `${BUOYS}/4` }],
    [{ replaceAnswers: 'record' }, 'PUT', ONE, { name: 'New' }, 200, {}],
    [{ replaceAnswers: 'nothing' }, 'PUT', ONE, { name: 'New' }, 204, {}],
    [{ removeAnswers: 'record' }, 'DELETE', ONE, undefined, 200, {}],
    [{ removeAnswers: 'nothing' }, 'DELETE', ONE, undefined, 204, {}],
    [{ actionAnswers: 'record' }, 'POST', SINK, undefined, 200, { 'content-location': ONE }],
    [{ actionAnswers: 'nothing' }, 'POST', SINK, undefined, 204, {}],
    [{ actionAnswers: 'see other' }, 'POST', SINK, undefined, 303, { location: ONE }],
  ])('%j: %s %s', (settings, method, target, body, status, headers) => {
    const mock = mockOf(settings);
    const answer = mock.send(method, target, body);
    const named = ['location', 'content-location'].flatMap((name) => {
      const value = answer.headers.get(name);
      return value === undefined ? [] : [[name, value] as const];
    });
    expect([answer.status, Object.fromEntries(named)]).toEqual([status, headers]);
    const isShown = Object.values(settings).includes('record');
    expect(answer.body !== null).toBe(isShown);
    const { operation, response } = answer.handled;
    const received = { status: answer.status, headers: answer.headers, body: response.body };
    expect(judgeResponse(mock.service.contract, operation ?? '', received)).toEqual([]);
  });

  test('nobody is sent where nothing can be read', () => {
    const [item = ''] = mockOf()
      .service.contract.resources.filter(({ kind }) => kind === 'item')
      .map(({ id }) => id);
    const settings = { createAnswers: 'see other', actionAnswers: 'see other' } as const;
    const mock = mockOf(settings, { [item]: { leftOut: ['read'] } });
    expect(mock.send('POST', BUOYS, { name: 'New' }).status).toBe(201);
    expect(mock.send('POST', SINK).status).toBe(204);
  });
});

describe('Idempotency-Key', () => {
  const post = (mock: TestMock, key: string, name = 'New', target = BUOYS): Answer =>
    mock.send('POST', target, target === BUOYS ? { name } : undefined, { 'idempotency-key': key });

  test('the same request again gets the first answer, and is done once', () => {
    const mock = mockOf();
    const first = post(mock, '"a"');
    const again = post(mock, '"a"');
    expect([first.status, again.status, again.body]).toEqual([201, 201, first.body]);
    expect(again.headers.get('location')).toBe(first.headers.get('location'));
    expect(mock.rows.length).toBe(4);
  });

  test('another body under the same key answers 422', () => {
    const mock = mockOf();
    post(mock, '"a"');
    expect(post(mock, '"a"', 'Other')).toMatchObject({ status: 422, body: { title: 'Key used before' } });
  });

  test('keys are told apart by operation; quoted and bare ones are the same', () => {
    const mock = mockOf();
    expect(post(mock, '"a"').status).toBe(201);
    expect(post(mock, '"a"', '', `${ONE}/sink`).status).toBe(200);
    expect(post(mock, 'a').status).toBe(201);
    expect(mock.rows.length).toBe(4);
  });

  test('a refused write is not stored: it may be mended under the same key', () => {
    const mock = mockOf();
    expect(post(mock, '"a"', '').status).toBe(400);
    expect(post(mock, '"a"').status).toBe(201);
  });

  test('while the first is being carried out, another answers 409', () => {
    const mock = mockOf();
    const draft = mock.draft();
    const request = mock.request('POST', BUOYS, { name: 'New' }, { 'idempotency-key': '"a"' });
    expect(mock.handle(draft, request).response.status).toBe(201);
    expect(mock.handle(draft, request).response.status).toBe(409);
  });

  test('it is forgotten after a day', () => {
    const mock = mockOf();
    post(mock, '"a"');
    mock.now = NOW + 24 * 60 * 60 * 1000;
    expect(post(mock, '"a"', 'Other').status).toBe(201);
  });

  test.each([undefined, '""', '"a', 'a b', `"${'x'.repeat(256)}"`])(
    'where it is required, %p answers 400',
    (key) => {
      const mock = mockOf({ idempotency: 'required' });
      const answer = mock.send(
        'POST',
        BUOYS,
        { name: 'New' },
        key === undefined ? {} : { 'idempotency-key': key },
      );
      expect(answer).toMatchObject({ status: 400, body: { title: 'No Idempotency-Key' } });
    },
  );

  test('where it is ignored, the request is done again', () => {
    const mock = mockOf({ idempotency: 'ignored' });
    post(mock, '"a"');
    expect(post(mock, '"a"', 'Other').status).toBe(201);
  });
});

describe('credentials', () => {
  const guarded = (settings: SettingValues): TestMock =>
    mockOf(
      settings,
      { entry: { access: 'anonymous' } },
      { 'Buoy/item:remove': { access: 'role', role: 'keeper' } },
    );
  const get = (mock: TestMock, headers: Record<string, string>): Answer =>
    mock.send('GET', BUOYS, undefined, headers);

  test.each<readonly [NonNullable<SettingValues['security']>, Record<string, string>, number]>([
    [['bearer'], {}, 401],
    [['bearer'], { authorization: 'Bearer user-secret' }, 200],
    [['bearer'], { authorization: 'bearer   user-secret' }, 200],
    [['bearer'], { authorization: 'Bearer other' }, 401],
    [['bearer'], { authorization: 'Bearer' }, 401],
    [['bearer'], { authorization: `Basic ${btoa('user:user-secret')}` }, 401],
    [['basic'], { authorization: `Basic ${btoa('user:user-secret')}` }, 200],
    [['basic'], { authorization: `Basic ${btoa('keeper:user-secret')}` }, 401],
    [['basic'], { authorization: 'Basic !!' }, 401],
    [['api key'], { 'x-api-key': 'user-secret' }, 200],
    [['api key'], { authorization: 'Bearer user-secret' }, 401],
    [['bearer', 'api key'], { 'x-api-key': 'keeper-secret' }, 200],
    [['basic', 'bearer', 'api key'], { authorization: 'Bearer keeper-secret' }, 200],
    [[], {}, 200],
  ])('by %j, %p answers %d', (security, headers, status) => {
    expect(get(guarded({ security }), headers).status).toBe(status);
  });

  test('a 401 names every scheme that is taken', () => {
    const { handled } = get(guarded({ security: ['basic', 'bearer', 'api key'] }), {});
    const challenges = handled.response.headers
      .filter(([name]) => name === 'WWW-Authenticate')
      .map(([, value]) => value);
    expect(challenges).toEqual([
      'Basic realm="Untitled design", charset="UTF-8"',
      'Bearer realm="Untitled design"',
      'ApiKey realm="Untitled design", header="X-API-Key"',
    ]);
  });

  test.each<readonly [string, Record<string, string>, string]>([
    [
      'what is expected and one that would do',
      {},
      'Expected credentials by Bearer; this mock knows Authorization: Bearer keeper-secret.',
    ],
    [
      'one that would do',
      { authorization: 'Bearer other' },
      'The credentials are not known here; this mock knows Authorization: Bearer keeper-secret.',
    ],
  ])('a 401 tells %s: for what a role is wanted for somebody who has it', (_name, headers, detail) => {
    const mock = guarded({ security: ['bearer'] });
    const { handled } = mock.send('DELETE', ONE, undefined, headers);
    expect(JSON.parse(handled.response.body ?? '')).toMatchObject({ status: 401, detail });
  });

  test('a role is asked for after the record was found, and before the body is read', () => {
    const mock = guarded({ security: ['bearer'] });
    const remove = (target: string, token: string): number =>
      mock.send('DELETE', target, undefined, { authorization: `Bearer ${token}` }).status;
    expect(remove(`${BUOYS}/99`, 'nobody')).toBe(401);
    expect(remove(`${BUOYS}/99`, 'user-secret')).toBe(404);
    expect(remove(ONE, 'user-secret')).toBe(403);
    expect(remove(ONE, 'keeper-secret')).toBe(204);
  });

  test('what anybody may do needs none; neither do the pages of the mock about itself', () => {
    const mock = guarded({ security: ['bearer'] });
    expect(mock.send('GET', '/api/v1').status).toBe(200);
    expect(mock.send('GET', '/api/v1/-/openapi.json').status).toBe(200);
    expect(mock.send('OPTIONS', ONE).status).toBe(204);
  });

  test('the mock knows somebody for each role that is asked for', () => {
    const { contract } = guarded({ security: ['basic'] }).service;
    const known = credentialsOf(contract);
    expect(known.map(({ name, roles }) => [name, roles])).toEqual([
      ['user', []],
      ['keeper', ['keeper']],
    ]);
    expect(known.map((one) => presentedBy('basic', one))).toEqual(
      ['user:user-secret', 'keeper:keeper-secret'].map((pair) => `Basic ${btoa(pair)}`),
    );
    expect(credentialsOf(mockOf().service.contract)).toEqual([]);
  });
});

describe('forms of an answer', () => {
  test.each([
    [404, 404],
    [400, 400],
  ] as const)('an id of the wrong type is %d where that is chosen', (wrongId, status) => {
    const mock = mockOf({ wrongId });
    expect(mock.send('GET', `${BUOYS}/abc`).status).toBe(status);
    expect(mock.send('GET', `${BUOYS}/99`).status).toBe(404);
  });

  test('links can be whole URIs, by the host that was asked', () => {
    const headers = { host: '127.0.0.1:4811' };
    const mock = mockOf({ linkForm: 'absolute' });
    const self = `http://127.0.0.1:4811${ONE}`;
    expect(mock.send('GET', ONE, undefined, headers).body).toMatchObject({ links: { self: { href: self } } });
    const hal = mock.send('GET', ONE, undefined, { ...headers, accept: 'application/hal+json' });
    expect(hal.body).toMatchObject({ _links: { self: { href: self } } });
    const list = mock.send('GET', BUOYS, undefined, headers).body as { items: object[]; links: object };
    expect(list.items[0]).toMatchObject({ links: { self: { href: self } } });
    expect(list.links).toMatchObject({ self: { href: `http://127.0.0.1:4811${BUOYS}` } });
    const inHeader = mockOf({ linkForm: 'absolute', links: 'header' }).send('GET', ONE, undefined, headers);
    expect(inHeader.headers.get('link')).toContain(`<${self}>; rel="self"`);
    const made = mock.send('POST', BUOYS, { name: 'New' }, headers);
    expect(made.headers.get('location')).toBe(`http://127.0.0.1:4811${BUOYS}/4`);
    const redirecting = mockOf({ linkForm: 'absolute', trailingSlash: 'redirected' });
    const redirected = redirecting.send('GET', `${BUOYS}/`, undefined, headers);
    expect(redirected.headers.get('location')).toBe(`http://127.0.0.1:4811${BUOYS}`);
  });

  test.each([undefined, 'a b', '<x>'])('and stay paths where the host is %p', (host) => {
    const headers = host === undefined ? {} : { host };
    const answer = mockOf({ linkForm: 'absolute' }).send('GET', ONE, undefined, headers);
    expect(answer.body).toMatchObject({ links: { self: { href: ONE } } });
  });

  test('what has no value can be left out, and is not required', () => {
    const mock = mockOf({ unset: 'left out' });
    const made = mock.send('POST', BUOYS, { name: 'New' });
    expect(Object.keys(made.body as object)).toEqual(['id', 'name', 'state', 'links']);
    const sentBack = mock.send('PUT', `${BUOYS}/4`, made.body);
    expect(sentBack.status).toBe(200);
  });

  test('members nobody knows are ignored where that is chosen', () => {
    expect(mockOf().send('PATCH', ONE, { colour: 'red' }).status).toBe(400);
    expect(mockOf({ unknownMembers: 'ignored' }).send('PATCH', ONE, { colour: 'red' }).status).toBe(200);
  });

  test('a PATCH in plain JSON is refused where that is chosen', () => {
    const answer = mockOf({ plainPatch: 'refused' }).send(
      'PATCH',
      ONE,
      { name: 'New' },
      { 'content-type': 'application/json' },
    );
    expect([answer.status, answer.headers.get('accept-patch')]).toEqual([
      415,
      'application/merge-patch+json, application/json-patch+json',
    ]);
  });
});
