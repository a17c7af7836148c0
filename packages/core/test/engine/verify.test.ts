import { describe, expect, test } from '@jest/globals';
import { operationKey, type SettingValues } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import {
  exampleRequest,
  findViolations,
  maskedAnswer,
  maskedBody,
  maskedHeaders,
  type EngineRequest,
} from '@isomeros/core/engine';
import { openApiDocument } from '@isomeros/core/publication';
import fc from 'fast-check';
import { arrangedWith, type OperationLine } from '../support/lines.js';
import { NOW, TestMock, type Answer } from '../support/mock.js';
import { rounds } from '../support/rounds.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Keeper
  email: email, required, unique
  password: text(8..80), required, write-only
  rank: choice(mate, master), default mate

entity Buoy
  name: text(1..20), required
`;

const SIGN_IN: OperationLine = [
  'Keeper',
  'signIn',
  'verify email = input email and password = input password answers token for 2 hours with role from rank',
];
const SIGN_OUT: OperationLine = ['Keeper', 'signOut', 'revoke token'];
const ME: OperationLine = ['Keeper', 'me', 'caller'];
const ALL = [SIGN_IN, SIGN_OUT, ME];
const BEARER = { security: ['bearer'] } as const;
const HOUR = 3_600_000;

/** Two keepers, made by somebody the mock knows. */
function mockOf(
  lines: readonly OperationLine[] = ALL,
  settings: SettingValues = BEARER,
  operations = {},
): TestMock {
  const model = modelOf(TEXT);
  const mock = new TestMock(model, { Keeper: 0 }, arrangedWith(model, lines, settings, operations));
  for (const email of ['ada@harbour.example', 'bo@harbour.example']) {
    const sent = { email, password: `${email} rows` };
    expect(mock.send('POST', '/api/v1/keepers', sent, KNOWN).status).toBe(201);
  }
  return mock;
}

const KNOWN = { authorization: 'Bearer user-secret', 'x-api-key': 'user-secret' };
const ADA = { email: 'ada@harbour.example', password: 'ada@harbour.example rows' };

const signIn = (mock: TestMock, sent: unknown = ADA): Answer =>
  mock.send('POST', '/api/v1/keepers/sign-in', sent);
const tokenOf = ({ body }: Answer): string => (body as { access_token: string }).access_token;
const by = (token: string): Record<string, string> => ({ authorization: `Bearer ${token}` });
const me = (mock: TestMock, token: string): Answer => mock.send('GET', '/api/v1/me', undefined, by(token));

describe('signing in', () => {
  test('hands out a token by RFC 6749 §5.1, which nobody stores', () => {
    const mock = mockOf();
    const answer = signIn(mock);
    expect(answer.status).toBe(200);
    expect(answer.body).toEqual({ access_token: 'token-1', token_type: 'Bearer', expires_in: 7200 });
    expect(Object.fromEntries(answer.headers)).toMatchObject({
      'cache-control': 'no-store',
      pragma: 'no-cache',
    });
    expect([...answer.headers.keys()]).not.toContain('etag');
    expect(JSON.stringify([...mock.dataset.tokens.all()])).not.toContain('token-1');
  });

  test.each([
    ['a password that is wrong', { ...ADA, password: 'ada@harbour.example ROWS' }],
    ['a password that begins right', { ...ADA, password: 'ada@harbour.example row' }],
    ['a password that is short', { ...ADA, password: 'x' }],
    ['somebody unknown', { ...ADA, email: 'cy@harbour.example' }],
    ["somebody else's password", { ...ADA, password: 'bo@harbour.example rows' }],
  ])('%s is 401, and it is not told why', (_, sent) => {
    const mock = mockOf();
    const [wrong, other] = [
      signIn(mock, sent),
      signIn(mock, { email: 'no@one.example', password: 'nothing' }),
    ];
    expect(wrong.status).toBe(401);
    expect(wrong.headers.get('www-authenticate')).toMatch(/^Bearer realm=/);
    expect(wrong.body).toEqual(other.body);
    expect([...mock.dataset.tokens.all()]).toEqual([]);
  });

  test.each([
    [{ email: 'ada@harbour.example' }, '/password', 'required'],
    [{ ...ADA, email: 'ada' }, '/email', 'format'],
    [{ ...ADA, rank: 'master' }, '/rank', 'unknown'],
    ['no object', '', 'type'],
  ])('%j is no sign-in', (sent, pointer, code) => {
    const { status, body } = signIn(mockOf(), typeof sent === 'string' ? JSON.stringify(sent) : sent);
    expect([status, (body as { errors: unknown }).errors]).toMatchObject([400, [{ pointer, code }]]);
  });

  test('asks for no credentials, is told twice without a key, and is not kept', () => {
    const mock = mockOf();
    const key = { 'idempotency-key': '"k"' };
    const [first, second] = [1, 2].map(() => mock.send('POST', '/api/v1/keepers/sign-in', ADA, key));
    expect(first?.body).not.toEqual(second?.body);
    expect(first?.handled.kept).toBeNull();
  });

  test('is written nowhere but in the answer', () => {
    const mock = mockOf();
    const token = tokenOf(signIn(mock));
    const said = [me(mock, token), mock.send('GET', '/api/v1/keepers', undefined, by(token))];
    for (const { handled, body } of said) {
      expect(JSON.stringify([handled.trace, handled.changes, body])).not.toContain(token);
      expect(JSON.stringify(body)).not.toContain('rows');
    }
    expect(JSON.stringify(openApiDocument(mock.service.contract))).not.toContain('rows');
  });
});

describe('a token', () => {
  test('stands for its record, which is read without its id', () => {
    const mock = mockOf();
    const answer = me(mock, tokenOf(signIn(mock)));
    expect(answer.status).toBe(200);
    expect(answer.body).toMatchObject({ id: 1, email: 'ada@harbour.example' });
    expect(Object.fromEntries(answer.headers)).toMatchObject({
      'content-location': '/api/v1/keepers/1',
      'cache-control': 'private, no-cache',
      vary: 'Accept, Accept-Encoding, Authorization',
    });
    const again = mock.send('GET', '/api/v1/me', undefined, {
      ...by('token-1'),
      'if-none-match': answer.headers.get('etag') ?? '',
    });
    expect(again.status).toBe(304);
  });

  test('is what its record is now: the role of each request is read anew', () => {
    const mock = mockOf(ALL, BEARER, {
      [operationKey('Buoy', 'create')]: { access: 'role', role: 'master' },
    });
    const token = tokenOf(signIn(mock));
    const create = (): number => mock.send('POST', '/api/v1/buoys', { name: 'Inner' }, by(token)).status;
    expect(create()).toBe(403);
    expect(mock.send('PATCH', '/api/v1/keepers/1', { rank: 'master' }, KNOWN).status).toBe(200);
    expect(create()).toBe(201);
    expect(mock.send('PATCH', '/api/v1/keepers/1', { rank: 'mate' }, KNOWN).status).toBe(200);
    expect(create()).toBe(403);
  });

  test.each([
    ['its time is over', (mock: TestMock): void => void (mock.now += 2 * HOUR + 1)],
    [
      'whoever has it signs out',
      (mock: TestMock): void => {
        expect(mock.send('POST', '/api/v1/keepers/sign-out', undefined, by('token-1')).status).toBe(204);
      },
    ],
    [
      'its record is removed',
      (mock: TestMock): void => {
        expect(mock.send('DELETE', '/api/v1/keepers/1', undefined, KNOWN).status).toBe(204);
      },
    ],
  ])('ends when %s', (_, end) => {
    const mock = mockOf();
    const [ada, bo] = [
      signIn(mock),
      signIn(mock, { email: 'bo@harbour.example', password: 'bo@harbour.example rows' }),
    ].map(tokenOf);
    mock.now += HOUR;
    expect(me(mock, ada ?? '').status).toBe(200);
    end(mock);
    expect(me(mock, ada ?? '').status).toBe(401);
    if (mock.now < HOUR * 2) expect(me(mock, bo ?? '').status).toBe(200);
  });

  test('that was never handed out is refused, and so is nothing at all', () => {
    const mock = mockOf();
    signIn(mock);
    expect(me(mock, 'token-2').status).toBe(401);
    expect(me(mock, '').status).toBe(401);
    expect(mock.send('GET', '/api/v1/me').status).toBe(401);
  });

  test('is not had by whom the mock knows for good', () => {
    const mock = mockOf();
    expect(mock.send('GET', '/api/v1/me', undefined, KNOWN).status).toBe(403);
    expect(mock.send('POST', '/api/v1/keepers/sign-out', undefined, KNOWN).status).toBe(403);
  });

  test('is a key where the API takes keys, and no bearer then', () => {
    const mock = mockOf(ALL, { security: ['api key'] });
    const { body, headers } = signIn(mock);
    expect(body).toEqual({ key: 'token-1', expires_in: 7200 });
    expect(headers.get('cache-control')).toBe('no-store');
    expect(mock.send('GET', '/api/v1/me', undefined, { 'x-api-key': 'token-1' }).status).toBe(200);
    expect(me(mock, 'token-1').status).toBe(401);
  });
});

describe('looking up by something secret', () => {
  const FIND: OperationLine = [
    'Keeper',
    'known',
    'verify email = input email and password = input secret answers record else 404',
  ];

  test('answers the record, or 404', () => {
    const mock = mockOf([FIND], {});
    const known = (secret: string): Answer =>
      mock.send('POST', '/api/v1/keepers/known', { email: ADA.email, secret });
    expect(known('nothing').status).toBe(404);
    const found = known(ADA.password);
    expect(found.status).toBe(200);
    expect(found.body).toMatchObject({ id: 1, email: ADA.email });
    expect(found.body).not.toHaveProperty('password');
    expect(found.headers.get('content-location')).toBe('/api/v1/keepers/1');
  });
});

test('no secret is told, whatever is asked by whomever', () => {
  const step = fc.record({ operation: fc.nat(), as: fc.nat(), spoils: fc.boolean() });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
      const mock = mockOf([...ALL, ...SECRET_INPUTS]);
      const { contract, model } = mock.service;
      const tokens = [tokenOf(signIn(mock))];
      for (const { operation: picked, as, spoils } of steps) {
        const operation = contract.operations[picked % contract.operations.length];
        const request =
          operation === undefined
            ? null
            : exampleRequest(mock.service, mock.dataset, operation, NOW, spoils ? 'masked' : 'told');
        if (request === null || operation === undefined) continue;
        const bearer = `Bearer ${[...tokens, 'user-secret'][as % (tokens.length + 1)] ?? ''}`;
        const headers = new Map([...request.headers, ['authorization', bearer]]);
        const { handled, body } = mock.exchange({ ...request, headers });
        const handedOut = handled.tokens.some(({ kind }) => kind === 'issue')
          ? tokenOf({ body } as Answer)
          : null;
        if (handedOut !== null) tokens.push(handedOut);
        const recorded = [
          maskedAnswer(contract, operation.id, handled.response),
          maskedBody(mock.service, operation.id, request.body, 10_000),
          maskedHeaders(contract, [...headers].flat()),
          handled.trace,
        ];
        const written = JSON.stringify(recorded);
        for (const secret of [...tokens, ...passwordsOf(mock), ...sentSecrets(request)])
          expect(written).not.toContain(`"${secret}"`);
        if (handedOut === null)
          for (const token of tokens) expect(handled.response.body ?? '').not.toContain(token);
      }
      expect(findViolations(model, mock.rows)).toEqual([]);
    }),
    rounds(40),
  );
});

/** Nothing stores them, and they are told as little. */
const SECRET_INPUTS: readonly OperationLine[] = [
  ['Keeper', 'passwordAgain', 'accepts text, equals password'],
  ['Keeper', 'invitation', 'accepts text(10..), secret'],
];

function sentSecrets({ body }: EngineRequest): readonly string[] {
  if (body.kind !== 'text') return [];
  const sent = JSON.parse(body.text) as Readonly<Record<string, string>>;
  return ['passwordAgain', 'invitation'].flatMap((name) => sent[name] ?? []);
}

const passwordsOf = ({ rows }: TestMock): readonly string[] =>
  rows.flatMap(({ values }) => {
    const password = values['Keeper.password'];
    return typeof password === 'string' ? [password] : [];
  });

describe('what does not fit', () => {
  test.each<[string, readonly OperationLine[], SettingValues, RegExp]>([
    [
      'nothing unique',
      [['Keeper', 'x', 'verify password = input p answers record else 404']],
      {},
      /is unique/,
    ],
    ['an API without tokens', [SIGN_IN], { security: ['basic'] }, /neither/],
    ['an API without credentials', [SIGN_IN], {}, /say else 404/],
    ['nobody who signs in', [ME], BEARER, /hands out a token/],
    [
      'a role that is no choice',
      [['Keeper', 'x', 'verify email = input e answers token for 1 day with role from email']],
      BEARER,
      /is read from a choice/,
    ],
    [
      'an attribute twice',
      [['Keeper', 'x', 'verify email = input e and email = input f answers record']],
      BEARER,
      /twice/,
    ],
    [
      'an input twice',
      [['Keeper', 'x', 'verify email = input e and password = input e answers record']],
      BEARER,
      /twice/,
    ],
    [
      'a secret that is looked for',
      [['Keeper', 'x', 'first 3 where password = secret']],
      BEARER,
      /never returned/,
    ],
    [
      'a secret in a condition',
      [['Keeper', 'x', 'when password = secret set rank from body']],
      BEARER,
      /never returned/,
    ],
  ])('%s is a finding, and nothing is offered', (_, lines, settings, said) => {
    const model = modelOf(TEXT);
    const { findings, operations } = derive(model, arrangedWith(model, lines, settings));
    expect(findings.filter(({ id }) => id === 'custom.unfit').map(({ message }) => message)).toEqual([
      expect.stringMatching(said),
    ]);
    expect(operations.filter(({ custom }) => custom !== null)).toEqual([]);
  });

  test('signing in that asks for credentials is a finding', () => {
    const model = modelOf(TEXT);
    const guarded = arrangedWith(model, [SIGN_IN], BEARER, {
      [operationKey('signIn/custom', 'custom')]: { access: 'authenticated' },
    });
    expect(derive(model, guarded).findings.map(({ id }) => id)).toContain('custom.guarded');
    expect(derive(model, arrangedWith(model, [SIGN_IN], BEARER)).findings.map(({ id }) => id)).not.toContain(
      'custom.guarded',
    );
  });
});
