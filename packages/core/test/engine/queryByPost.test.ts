import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { openApiDocument } from '@isomeros/core/publication';
import { arrangedWith, type OperationLine } from '../support/lines.js';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { PublishedSchemas } from '../support/schemas.js';

const TEXT = `entity Pier
  name: text(1..20), required

entity Berth
  number: integer(1..99), required, unique
  since: instant

each Pier owns many Berth as berths
`;

const LINES: readonly OperationLine[] = [
  [
    'Berth',
    'between',
    'first 5 where number >= input fromNumber and number < input below default 9 by number',
  ],
  ['Berth', 'exactly', 'one where number = input number'],
  ['Berth', 'old', 'first 5 where since < input before default now by number desc'],
  ['Berth', 'newest', 'first 2 by number desc'],
];

function mockOf(settings: SettingValues): TestMock {
  const model = modelOf(TEXT);
  const mock = new TestMock(model, { Pier: 1, Berth: 0 }, arrangedWith(model, LINES, settings));
  for (const number of [7, 3, 9])
    mock.send('POST', '/api/v1/piers/1/berths', { number, since: `2026-0${number}-01T00:00:00Z` });
  return mock;
}

const at = (name: string): string => `/api/v1/piers/1/berths/${name}`;
const numbers = ({ body }: Answer): readonly number[] =>
  (body as { items: { number: number }[] }).items.map(({ number }) => number);

describe('a query that is sent by POST', () => {
  const mock = mockOf({ queryBy: 'POST' });

  test('compares with what the body says, or with the default', () => {
    expect(numbers(mock.send('POST', at('between'), { fromNumber: 1 }))).toEqual([3, 7]);
    expect(numbers(mock.send('POST', at('between'), { fromNumber: 4, below: 99 }))).toEqual([7, 9]);
    expect(numbers(mock.send('POST', at('old'), {}))).toEqual([3]);
    expect(numbers(mock.send('POST', at('newest')))).toEqual([9, 7]);
  });

  test('answers the one it finds, with its own address, or 404', () => {
    const found = mock.send('POST', at('exactly'), { number: 7 });
    expect([found.status, found.body]).toMatchObject([200, { number: 7 }]);
    expect(found.headers.get('content-location')).toBe('/api/v1/piers/1/berths/1');
    expect(mock.send('POST', at('exactly'), { number: 8 }).status).toBe(404);
  });

  test('has no state and is not kept', () => {
    const key = { 'idempotency-key': '"k"', 'if-match': '"x"' };
    const { status, headers, handled } = mock.send('POST', at('between'), { fromNumber: 1 }, key);
    expect([status, handled.kept, handled.changes]).toEqual([200, null, []]);
    expect([...headers.keys()]).toEqual(['content-type']);
  });

  test('is not read by GET, links to no page of itself, and is linked without a template', () => {
    expect(mock.send('GET', at('between')).headers.get('allow')).toBe('POST, OPTIONS');
    expect(mock.send('POST', at('newest')).body).toMatchObject({
      links: { up: { href: at('').slice(0, -1) } },
    });
    expect(mock.send('POST', at('newest')).body).not.toHaveProperty('links.self');
    expect(mock.send('GET', at('').slice(0, -1)).body).toMatchObject({
      links: { between: { href: at('between') } },
    });
  });

  test.each([
    [{}, '/fromNumber', 'required'],
    [{ fromNumber: 'x' }, '/fromNumber', 'type'],
    [{ fromNumber: 1, until: 2 }, '/until', 'unknown'],
  ])('%j is refused', (sent, pointer, code) => {
    const { status, body } = mock.send('POST', at('between'), sent);
    expect([status, (body as { errors: unknown }).errors]).toMatchObject([400, [{ pointer, code }]]);
  });

  test('is answered as it is published', () => {
    const schemas = new PublishedSchemas(openApiDocument(mock.service.contract));
    for (const [name, sent] of [
      ['between', { fromNumber: 1 }],
      ['exactly', { number: 3 }],
      ['newest', undefined],
    ] as const) {
      const answer = mock.send('POST', at(name), sent);
      expect(schemas.problemWith(answer.handled.operation ?? '', answer)).toBeNull();
    }
  });
});

test('both ways a query looks for the same', () => {
  const mock = mockOf({ queryBy: 'both' });
  const [read, sent] = [
    mock.send('GET', `${at('between')}?fromNumber=1`),
    mock.send('POST', at('between'), { fromNumber: 1 }),
  ];
  expect([read.status, sent.status]).toEqual([200, 200]);
  expect(numbers(sent)).toEqual(numbers(read));
  const ids = mock.service.contract.operations.filter(({ custom }) => custom !== null).map(({ id }) => id);
  expect(ids).toContain('listBetweenBerths');
  expect(ids).toContain('queryBetweenBerths');
});
