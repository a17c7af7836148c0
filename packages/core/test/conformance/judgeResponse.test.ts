import { describe, expect, test } from '@jest/globals';
import { judgeResponse, type Deviation, type ReceivedResponse } from '@isomeros/core/conformance';
import { exampleRequest } from '@isomeros/core/engine';
import { openApiDocument } from '@isomeros/core/publication';
import fc from 'fast-check';
import { everythingPublished } from '../support/documentation.js';
import { arranged } from '../support/arrangement.js';
import { anyArrangement } from '../support/arrangements.js';
import { NOW, TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { PublishedSchemas } from '../support/schemas.js';
import { rounds } from '../support/rounds.js';

const received = ({ status, headers, handled }: Answer): ReceivedResponse => ({
  status,
  headers,
  body: handled.response.body,
});

const model = modelOf(kestrelText);

/** Every operation of a mock, asked for once as its example shows it. */
function examples(mock: TestMock): readonly (readonly [string, Answer])[] {
  return mock.service.contract.operations.flatMap((operation) => {
    const request = exampleRequest(mock.service, mock.dataset, operation, NOW);
    return request === null ? [] : [[operation.id, mock.exchange(request)] as const];
  });
}

/** Values that stand in for a part of a body. */
const OTHERS: readonly unknown[] = [
  null,
  '',
  'x'.repeat(300),
  -1,
  1.5,
  1e21,
  true,
  [],
  {},
  ['x'],
  { x: 1 },
  '2026-02-30',
];

/** A body with one part left out, or another in its place. */
function spoilt(value: unknown, pick: readonly number[]): unknown {
  const [here = 0, ...deeper] = pick;
  if (typeof value !== 'object' || value === null || deeper.length === 0) return OTHERS[here % OTHERS.length];
  const entries = Object.entries(value as Record<string, unknown>);
  const [name, member] = entries[here % Math.max(1, entries.length)] ?? ['added', null];
  const kept = entries.filter(([other]) => other !== name);
  const changed = here % 5 === 0 ? kept : [...kept, [name, spoilt(member, deeper)]];
  return Array.isArray(value) ? changed.map(([, item]) => item) : Object.fromEntries(changed);
}

describe('what the engine answers', () => {
  test('is as its contract says, under any arrangement', () => {
    fc.assert(
      fc.property(anyArrangement, ({ model, arrangement }) => {
        const mock = new TestMock(model, {}, arrangement);
        for (const [id, answer] of examples(mock))
          expect([id, judgeResponse(mock.service.contract, id, received(answer))]).toEqual([id, []]);
      }),
      rounds(25),
    );
  });

  test('is judged, once it is spoilt, as an independent validator of the published description judges it', () => {
    const mocks = [arranged({}), arranged({ mediaTypes: ['hal', 'json'] })].map((arrangement) => {
      const mock = new TestMock(model, {}, arrangement);
      const published = new PublishedSchemas(openApiDocument(everythingPublished(mock.service.contract)));
      return { mock, published, answers: examples(mock) };
    });
    let wrong = 0;
    fc.assert(
      fc.property(
        fc.nat(1),
        fc.nat(10_000),
        fc.array(fc.nat(100), { minLength: 1, maxLength: 5 }),
        (which, at, pick) => {
          const chosen = mocks[which];
          if (chosen === undefined) throw new Error('There are two.');
          const { mock, published, answers } = chosen;
          const [id, answer] = answers[at % answers.length] ?? ['', null];
          if (answer?.body == null) return;
          const body = spoilt(answer.body, pick);
          const mine = judgeResponse(mock.service.contract, id, {
            ...received(answer),
            body: JSON.stringify(body),
          });
          const theirs = published.problemWith(id, { ...answer, body }, true);
          if (theirs !== null) wrong++;
          expect([id, body, mine, theirs]).toEqual([
            id,
            body,
            theirs === null ? [] : expect.arrayContaining([expect.anything()]),
            theirs,
          ]);
        },
      ),
      rounds(300),
    );
    expect(wrong).toBeGreaterThan(100);
  });
});

describe('a deviation', () => {
  const { contract } = new TestMock(
    modelOf(
      'entity Route\n  number: integer(1..99), key\n  name: text(1..5), pattern "[a-z]+"\n  opened: date\n',
    ),
  ).service;
  const JSON_TYPE = ['content-type', 'application/json'] as const;
  const route = { number: 1, name: null, opened: null, links: { self: { href: '/api/v1/routes/1' } } };
  const read = (body: unknown, type = JSON_TYPE[1]): readonly Deviation[] =>
    judgeResponse(contract, 'readRoute', {
      status: 200,
      headers: new Map([['content-type', type]]),
      body: typeof body === 'string' ? body : JSON.stringify(body),
    });

  test.each<readonly [string, unknown, readonly (readonly [string, string])[]]>([
    ['nothing', { ...route, name: 'north' }, []],
    ['a member more', { ...route, colour: 'red' }, []],
    ['a member that is missing', { ...route, number: undefined }, [['/number', 'It is missing.']]],
    ['a number out of its range', { ...route, number: 100 }, [['/number', 'Expected at most 99.']]],
    ['a type', { ...route, number: '1' }, [['/number', 'Expected integer.']]],
    ['a length', { ...route, name: 'southern' }, [['/name', 'Expected at most 5 characters.']]],
    ['a pattern', { ...route, name: 'No' }, [['/name', 'Expected text that matches ^(?:[a-z]+)$.']]],
    ['a day that is none', { ...route, opened: '2026-02-30' }, [['/opened', 'Expected the format date.']]],
    ['a link without address', { ...route, links: { 'a/b': {} } }, [['/links/a~1b/href', 'It is missing.']]],
    ['no JSON', '{', [['', expect.stringContaining('The body is no JSON') as unknown as string]]],
  ])('is told where it is: %s', (_name, body, expected) => {
    expect(read(body)).toEqual(expected.map(([pointer, message]) => ({ part: 'body', pointer, message })));
  });

  test('may be a status, a media type, a header, or a body that is there or not', () => {
    const judge = (
      status: number,
      headers: Record<string, string>,
      body: string | null,
    ): readonly Deviation[] =>
      judgeResponse(contract, 'createRoute', { status, headers: new Map(Object.entries(headers)), body });
    expect(judge(418, {}, null)).toMatchObject([{ part: 'status' }]);
    const made = JSON.stringify(route);
    expect(judge(201, { 'content-type': 'application/json', location: '/x' }, made)).toEqual([]);
    expect(judge(201, { 'content-type': 'application/json; charset=utf-8' }, made)).toMatchObject([
      { part: 'header', name: 'Location' },
    ]);
    expect(judge(201, { 'content-type': 'text/plain', location: '/x' }, made)).toMatchObject([
      { part: 'header', name: 'Content-Type' },
    ]);
    expect(judge(201, { location: '/x' }, null)).toMatchObject([{ part: 'body' }]);
    expect(judge(201, { location: '/x', 'preference-applied': 'return=minimal' }, null)).toEqual([]);
  });

  test('is none in the body of an answer to HEAD', () => {
    const headers = new Map([JSON_TYPE]);
    expect(judgeResponse(contract, 'readRoute', { status: 200, headers, body: null }, true)).toEqual([]);
    expect(() => judgeResponse(contract, 'nothing', { status: 200, headers, body: null })).toThrow(
      /no operation/,
    );
  });
});
