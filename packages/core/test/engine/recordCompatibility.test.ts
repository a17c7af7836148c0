import { describe, expect, test } from '@jest/globals';
import {
  canShareRecords,
  firstViolation,
  withDefaultsOf,
  withDeprecation,
  type RowChange,
  type EngineResponse,
} from '@isomeros/core/engine';
import { modelOf } from '../support/models.js';

const BASE = `value Place
  name: text, required

entity Route
  code: text(2..4), key
  state: choice(open, closed)
  place: Place

entity Sailing
  berth: integer

each Route owns many Sailing as sailings
`;

const edit = (from: string, to: string): string => {
  if (!BASE.includes(from)) throw new Error(`Nothing to edit: ${from}`);
  return BASE.replace(from, to);
};

const CASES: readonly (readonly [name: string, text: string, canShare: boolean])[] = [
  ['the same text', BASE, true],
  ['an attribute more', edit('  place:', '  note: text\n  place:'), true],
  ['an attribute less', edit('  state: choice(open, closed)\n', ''), true],
  ['a wider type', edit('text(2..4)', 'text(1..9)'), true],
  ['an option more', edit('open, closed', 'open, seasonal, closed'), true],
  ['options in another order', edit('open, closed', 'closed, open'), false],
  ['another type', edit('berth: integer', 'berth: text'), false],
  ['a number that is counted', edit('berth: integer', 'berth: integer, generated'), false],
  ['stored here, computed there', edit('berth: integer', 'berth: integer, computed 2 * 3'), false],
  [
    'something computed more',
    edit('berth: integer', 'berth: integer\n  twice: integer, computed berth * 2'),
    true,
  ],
  ['another value', edit('name: text, required', 'name: text'), false],
  ['an entity more', `${BASE}\nentity Meal\n`, false],
  ['a relationship more', `${BASE}\neach Sailing refers to optional Route as other\n`, false],
  ['another owner', edit('owns many', 'owns one'), false],
  ['another rule of removal', edit('as sailings', 'as sailings, on remove restrict'), false],
  ['another key', edit('code: text(2..4), key', 'code: text(2..4)'), false],
  ['a unique rule more', edit('berth: integer', 'berth: integer, unique'), false],
  ['only other words', edit('state: choice(open, closed)', 'state: choice(open, closed) "How it is"'), true],
];

describe('records of two models', () => {
  test.each(CASES)('may be the same ones: %s', (_name, text, canShare) => {
    const [one, other] = [modelOf(BASE), modelOf(text)];
    expect(canShareRecords(one, other)).toBe(canShare);
    expect(canShareRecords(other, one)).toBe(canShare);
    expect(canShareRecords(one, one)).toBe(true);
  });

  const adding = (values: Readonly<Record<string, string>>): RowChange => ({
    kind: 'add',
    after: { rid: 1, entity: 'Route', values, revision: 3 },
  });

  test('a write is held against each of them', () => {
    const model = modelOf(BASE);
    expect(firstViolation(model, [adding({ 'Route.code': 'KS', 'Route.state': 'open' })])).toBeNull();
    expect(firstViolation(model, [adding({ 'Route.code': 'KS', 'Route.state': 'seasonal' })])).toMatch(
      /^Route: state does not fit/,
    );
    expect(firstViolation(model, [adding({})])).toMatch(/^Route: code is required/);
  });

  test('a write gets the defaults of each of them, and stays the same revision', () => {
    const other = modelOf(edit('  place:', '  kind: choice(a, b), required, default b\n  place:'));
    const [filled] = withDefaultsOf([modelOf(BASE), other], [adding({ 'Route.code': 'KS' })]);
    expect(filled).toMatchObject({
      after: { revision: 3, values: { 'Route.code': 'KS', 'Route.kind': 'b' } },
    });
    const removal: RowChange = {
      kind: 'remove',
      before: { rid: 1, entity: 'Route', values: {}, revision: 1 },
    };
    expect(withDefaultsOf([other], [removal])).toEqual([removal]);
  });
});

describe('the end of a release', () => {
  const answer: EngineResponse = { status: 204, headers: [['Allow', 'GET']], body: null };
  const deprecatedAt = Date.UTC(2026, 10, 1, 12);

  test('is told by headers: RFC 9745 §2.1, RFC 8594 §3, RFC 5829 §3.3', () => {
    const sunsetAt = Date.UTC(2027, 5, 30, 23, 59, 59);
    const successor = 'http://127.0.0.1:4811/api/v2';
    expect(withDeprecation(answer, { deprecatedAt, sunsetAt, successor }).headers).toEqual([
      ['Allow', 'GET'],
      ['Deprecation', '@1793534400'],
      ['Sunset', 'Wed, 30 Jun 2027 23:59:59 GMT'],
      ['Link', '<http://127.0.0.1:4811/api/v2>; rel="successor-version"'],
    ]);
  });

  test('tells only what is known', () => {
    expect(withDeprecation(answer, { deprecatedAt, sunsetAt: null, successor: null }).headers).toEqual([
      ['Allow', 'GET'],
      ['Deprecation', '@1793534400'],
    ]);
    expect(withDeprecation(answer, null)).toBe(answer);
  });
});
