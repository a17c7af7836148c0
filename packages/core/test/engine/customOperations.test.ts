import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement, type CustomEffect } from '@isomeros/core/arrangement';
import { openApiDocument } from '@isomeros/core/publication';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Pier
  name: text(1..20), required

entity Berth
  number: integer(1..99), required, unique
  free: boolean, default true
  price: decimal(0..), read-only
  since: instant
  state: choice(open, shut), default open
    shut: open -> shut

each Pier owns many Berth as berths
each Berth refers to optional Berth as twin, on remove detach
`;

function mockOf(name: string, effect: CustomEffect, entity = 'Berth'): TestMock {
  const customOperations = [{ id: name, name, entity, effect }];
  const mock = new TestMock(
    modelOf(TEXT),
    { Pier: 1, Berth: 0 },
    arrangementOf('main', {
      ...NO_CHOICES,
      arrangements: [{ ...plainArrangement('main'), customOperations }],
    }),
  );
  for (const [number, free] of [
    [7, true],
    [3, false],
    [9, true],
  ] as const)
    expect(mock.send('POST', '/api/v1/piers/1/berths', { number, free }).status).toBe(201);
  return mock;
}

const literal = (
  value: string | number | boolean,
): { kind: 'literal'; value: string | number | boolean } => ({
  kind: 'literal',
  value,
});
const BERTHS = '/api/v1/piers/1/berths';

describe('a query that is asked with inputs', () => {
  const filters = [
    { member: 'Berth.number', operator: 'gte', value: { kind: 'input', name: 'fromNumber' } },
    {
      member: 'Berth.number',
      operator: 'lt',
      value: { kind: 'input', name: 'below', default: literal(9) },
    },
  ] as const;
  const order = [{ member: 'Berth.number', descending: false }];
  const mock = mockOf('between', { kind: 'query', filters, order, limit: 5 });
  const asked = (query: string): Answer => mock.send('GET', `${BERTHS}/between${query}`);
  const numbers = (query: string): readonly number[] =>
    (asked(query).body as { items: { number: number }[] }).items.map(({ number }) => number);

  test('compares with what is sent, or with the default', () => {
    expect(numbers('?fromNumber=1')).toEqual([3, 7]);
    expect(numbers('?fromNumber=4&below=99')).toEqual([7, 9]);
    expect(numbers('?fromNumber=1&below=3')).toEqual([]);
  });

  test.each([
    ['', 'fromNumber', 'required'],
    ['?fromNumber=x', 'fromNumber', 'type'],
    ['?fromNumber=1&fromNumber=2', 'fromNumber', 'repeated'],
    ['?fromNumber=1&until=2', 'until', 'unknown'],
  ])('%s is refused', (query, parameter, code) => {
    const { status, body } = asked(query);
    expect([status, (body as { errors: unknown }).errors]).toMatchObject([400, [{ parameter, code }]]);
  });

  test('is linked as a template of what must be sent, and published so', () => {
    const { links } = mock.send('GET', BERTHS).body as { links: Record<string, object> };
    expect(links['between']).toEqual({
      href: `${BERTHS}/between{?fromNumber,below}`,
      templated: true,
    });
    const { paths } = openApiDocument(mock.service.contract) as {
      paths: Record<string, { get: { parameters: { name: string }[] } }>;
    };
    const { parameters } = paths['/piers/{pierId}/berths/between']?.get ?? { parameters: [] };
    expect(parameters.filter(({ name }) => name === 'fromNumber' || name === 'below')).toEqual([
      expect.objectContaining({ required: true, schema: expect.objectContaining({ type: 'integer' }) }),
      expect.objectContaining({ required: false, schema: expect.objectContaining({ default: 9 }) }),
    ]);
  });

  test.each<readonly [string, CustomEffect, string]>([
    [
      'two types',
      {
        kind: 'find',
        order: [],
        filters: [
          { member: 'Berth.number', operator: 'eq', value: { kind: 'input', name: 'x' } },
          { member: 'Berth.free', operator: 'eq', value: { kind: 'input', name: 'x' } },
        ],
      },
      'two types',
    ],
    [
      'a default that does not fit',
      {
        kind: 'find',
        order: [],
        filters: [
          {
            member: 'Berth.number',
            operator: 'eq',
            value: { kind: 'input', name: 'x', default: literal('red') },
          },
        ],
      },
      'cannot be "red"',
    ],
  ])('with %s does not fit the model', (_what, effect, message) => {
    const { findings } = mockOf('odd', effect).service.contract;
    expect(findings.find(({ id }) => id === 'custom.unfit')?.message).toContain(message);
  });
});

describe('a query that answers one', () => {
  const byNumber: CustomEffect = {
    kind: 'find',
    filters: [{ member: 'Berth.number', operator: 'eq', value: { kind: 'input', name: 'number' } }],
    order: [],
  };
  const mock = mockOf('numbered', byNumber);
  const read = (query: string, headers = {}): Answer =>
    mock.send('GET', `${BERTHS}/numbered${query}`, undefined, headers);

  test('answers the record with its own address and tag, and 404 where there is none', () => {
    const answer = read('?number=9');
    expect(answer.handled.operation).toBe('readNumberedBerth');
    expect([answer.status, answer.body]).toMatchObject([200, { number: 9, links: { self: {} } }]);
    expect(answer.headers.get('content-location')).toMatch(/\/piers\/1\/berths\/3$/);
    expect(read('?number=9', { 'if-none-match': answer.headers.get('etag') }).status).toBe(304);
    const none = read('?number=50');
    expect([none.status, none.body]).toMatchObject([
      404,
      { detail: expect.stringContaining('readNumberedBerth') },
    ]);
    expect(mock.send('HEAD', `${BERTHS}/numbered?number=9`).status).toBe(200);
    expect(mock.send('POST', `${BERTHS}/numbered`).status).toBe(405);
  });

  test('takes the first in its order', () => {
    const last = mockOf('highest', {
      kind: 'find',
      filters: [],
      order: [{ member: 'Berth.number', descending: true }],
    });
    expect(last.send('GET', `${BERTHS}/highest`).body).toMatchObject({ number: 9 });
  });

  test('is what a list of one may have been meant to be', () => {
    const list = mockOf('first', {
      kind: 'query',
      filters: [],
      order: [{ member: 'Berth.since', descending: true }],
      limit: 1,
    });
    const [found] = list.service.contract.findings.filter(({ id }) => id === 'custom.one');
    expect(found?.quickFixes?.[0]?.answer).toMatchObject({ operation: { effect: { kind: 'find' } } });
  });
});

describe('a query', () => {
  const mock = mockOf('highestFree', {
    kind: 'query',
    filters: [{ member: 'Berth.free', operator: 'eq', value: literal(true) }],
    order: [{ member: 'Berth.number', descending: true }],
    limit: 1,
  });

  test('answers what it always looks for, and no pages', () => {
    const answer = mock.send('GET', `${BERTHS}/highest-free`);
    expect(answer.handled.operation).toBe('listHighestFreeBerths');
    expect(answer.body).toMatchObject({ items: [{ number: 9 }], links: { up: { href: BERTHS } } });
    expect(answer.body).not.toHaveProperty('page');
    expect(mock.send('GET', `${BERTHS}/highest-free?size=2`).status).toBe(400);
  });

  test('is linked from its collection', () => {
    expect(mock.send('GET', BERTHS).body).toMatchObject({
      links: { highestFree: { href: `${BERTHS}/highest-free` } },
    });
  });
});

describe('what assigns', () => {
  const effect: CustomEffect = {
    kind: 'assign',
    when: [{ member: 'Berth.free', operator: '=', value: literal(true) }],
    values: [
      { member: 'Berth.free', value: literal(false) },
      { member: 'Berth.price', value: literal(12.5) },
      { member: 'Berth.since', value: { kind: 'now' } },
      { member: 'Berth.number', value: { kind: 'input' } },
    ],
  };
  const take = (mock: TestMock, id: number, body: unknown = { number: 50 }): Answer =>
    mock.send('POST', `${BERTHS}/${id}/take`, body);

  test('gives the values that are fixed and those that are sent, and answers the item', () => {
    const answer = take(mockOf('take', effect), 1);
    expect(answer.status).toBe(200);
    expect(answer.headers.get('content-location')).toBe(`${BERTHS}/1`);
    expect(answer.body).toMatchObject({
      number: 50,
      free: false,
      price: 12.5,
      since: '2026-06-14T09:12:00.000Z',
    });
  });

  test('does nothing while its condition does not hold', () => {
    const answer = take(mockOf('take', effect), 2);
    expect(answer).toMatchObject({ status: 409, body: { title: 'Not allowed now' } });
    expect(answer.handled.changes).toEqual([]);
  });

  test('is linked only while its condition holds, and the tag tells so', () => {
    const mock = mockOf('take', effect);
    expect(mock.send('GET', `${BERTHS}/1`).body).toHaveProperty('links.take');
    expect(mock.send('GET', `${BERTHS}/2`).body).not.toHaveProperty('links.take');
  });

  test.each([
    [{}, 400, 'invalid'],
    [{ number: 100 }, 400, 'invalid'],
    [{ number: 1, price: 2 }, 400, 'invalid'],
    [[], 400, 'invalid'],
    [{ number: 9 }, 409, 'conflict'],
  ])('checks what is sent: %p', (body, status, code) => {
    const answer = take(mockOf('take', effect), 1, body);
    expect(answer).toMatchObject({ status, body: { type: `/api/v1/-/problems/${code}` } });
  });

  test('unsets', () => {
    const mock = mockOf('clear', {
      kind: 'assign',
      when: [],
      values: [{ member: 'Berth.free', value: { kind: 'unset' } }],
    });
    expect(mock.send('POST', `${BERTHS}/1/clear`).body).toMatchObject({ free: null });
  });

  test('a fixed reference to what is not there is a conflict, with nothing to send', () => {
    const mock = mockOf('pair', {
      kind: 'assign',
      when: [],
      values: [{ member: 'Berth>Berth:twin', value: literal(3) }],
    });
    expect(mock.send('POST', `${BERTHS}/1/pair`).body).toMatchObject({ twinId: 3 });
    expect(mock.send('DELETE', `${BERTHS}/3`).status).toBe(204);
    expect(mock.send('POST', `${BERTHS}/1/pair`).status).toBe(409);
  });

  test.each([
    ['what moves by transitions', 'Berth.state'],
    ['the key', 'Berth/id'],
    ['what is not there', 'Berth.gone'],
  ])('never touches %s', (_name, member) => {
    const mock = mockOf('take', { kind: 'assign', when: [], values: [{ member, value: literal(1) }] });
    expect(mock.service.contract.findings).toContainEqual(
      expect.objectContaining({ id: 'custom.unfit', about: 'take' }),
    );
    expect(mock.send('POST', `${BERTHS}/1/take`).status).toBe(404);
  });
});

describe('what makes a related record', () => {
  test('makes it below its owner', () => {
    const mock = mockOf(
      'extend',
      {
        kind: 'create',
        when: [],
        relationship: 'Pier>Berth:berths',
        values: [
          { member: 'Berth.number', value: { kind: 'input' } },
          { member: 'Berth.free', value: literal(false) },
        ],
      },
      'Pier',
    );
    const answer = mock.send('POST', '/api/v1/piers/1/extend', { number: 11 });
    expect(answer.status).toBe(201);
    expect(answer.headers.get('location')).toBe(`${BERTHS}/4`);
    expect(answer.body).toMatchObject({ id: 4, number: 11, free: false, state: 'open', pierId: 1 });
    expect(mock.send('POST', '/api/v1/piers/1/extend', { number: 11 }).status).toBe(409);
    expect(mock.send('POST', '/api/v1/piers/1/extend', {}).status).toBe(400);
  });

  test('needs whatever the record must have', () => {
    const mock = mockOf(
      'extend',
      { kind: 'create', when: [], relationship: 'Pier>Berth:berths', values: [] },
      'Pier',
    );
    expect(mock.service.contract.findings).toContainEqual(
      expect.objectContaining({
        id: 'custom.unfit',
        message: 'extend is left out. A Berth needs number: give it a value, or have it sent.',
      }),
    );
  });
});
