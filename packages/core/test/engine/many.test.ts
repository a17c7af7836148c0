import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { findViolations } from '@isomeros/core/engine';
import fc from 'fast-check';
import { arrangedWith, type OperationLine } from '../support/lines.js';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const TEXT = `entity Pier
  name: text(1..20), required

entity Berth
  number: integer(1..9999), required, unique
  note: text(1..20), unique
  price: integer(0..)
  state: choice(open, shut, gone), default open
    shut: open -> shut
    lose: shut -> gone when price > 5

each Pier owns many Berth as berths
`;

const LINES: readonly OperationLine[] = [
  ['Berth', 'shutCheap', 'all where price < input below default 4 do shut'],
  ['Berth', 'shutThese', 'ids do shut'],
  ['Berth', 'raise', 'ids when state = open set price from body'],
  ['Berth', 'label', 'all where state = open set note = same'],
  ['Berth', 'lose', 'all do lose'],
];

const BERTHS = '/api/v1/piers/1/berths';

/** Two piers; berths 1 to 5 at the first, 6 at the second, each at a price of its number. */
function mockOf(settings: SettingValues = {}): TestMock {
  const model = modelOf(TEXT);
  const mock = new TestMock(model, { Pier: 2, Berth: 0 }, arrangedWith(model, LINES, settings));
  for (let number = 1; number <= 6; number++) {
    const pier = number === 6 ? 2 : 1;
    const sent = { number, price: number };
    expect(mock.send('POST', `/api/v1/piers/${pier}/berths`, sent).status).toBe(201);
  }
  return mock;
}

const act = (mock: TestMock, name: string, body?: unknown): Answer =>
  mock.send('POST', `${BERTHS}/${name}`, body);

const statesOf = (mock: TestMock): readonly unknown[] =>
  mock.rows
    .filter(({ entity }) => entity === 'Berth')
    .sort((one, other) => one.rid - other.rid)
    .map(({ values }) => values['Berth.state']);

describe('an action on many', () => {
  test('is about the records of its collection that meet the condition, with what is sent', () => {
    const mock = mockOf();
    expect(act(mock, 'shut-cheap', {}).body).toEqual({ found: 3, changed: 3 });
    expect(statesOf(mock)).toEqual(['shut', 'shut', 'shut', 'open', 'open', 'open']);
    expect(act(mock, 'shut-cheap', { below: 'x' }).status).toBe(400);
  });

  test('is about those whose ids are sent, each once', () => {
    const mock = mockOf();
    expect(act(mock, 'shut-these', { ids: [2, 4, 2] }).body).toEqual({ found: 2, changed: 2 });
    expect(statesOf(mock)).toEqual(['open', 'shut', 'open', 'shut', 'open', 'open']);
  });

  test('is one write: one commit, one undo', () => {
    const mock = mockOf();
    const { handled } = act(mock, 'shut-these', { ids: [1, 2, 3] });
    expect(handled.changes).toHaveLength(3);
  });

  test('takes values, and does not write what is as it would be', () => {
    const mock = mockOf();
    const { body, handled } = act(mock, 'raise', { ids: [1, 2, 3], price: 3 });
    expect(body).toEqual({ found: 3, changed: 2 });
    expect(handled.changes).toHaveLength(2);
  });

  test('answers the records where that is chosen', () => {
    const mock = mockOf({ manyAnswers: 'records' });
    expect(act(mock, 'raise', { ids: [2, 1], price: 9 }).body).toMatchObject({
      items: [
        { number: 2, price: 9 },
        { number: 1, price: 9 },
      ],
    });
  });

  test('is done to none where one does not allow it, and each of those is named', () => {
    const mock = mockOf();
    act(mock, 'shut-these', { ids: [2, 3] });
    const before = mock.rows;
    const { status, body } = act(mock, 'shut-these', { ids: [1, 2, 3, 4] });
    expect([status, body]).toMatchObject([
      409,
      {
        detail: 'Nothing was done: 2 records do not allow it.',
        errors: [
          { pointer: '/ids/1', message: 'Berth 2: state is "shut"; shut leads from open.' },
          { pointer: '/ids/2', message: 'Berth 3: state is "shut"; shut leads from open.' },
        ],
      },
    ]);
    expect(mock.rows).toEqual(before);
    expect(act(mock, 'raise', { ids: [1, 2], price: 8 }).body).toMatchObject({
      errors: [{ message: 'Berth 2: The condition does not hold: state = open.' }],
    });
    expect(act(mock, 'lose').status).toBe(409);
  });

  test('is refused as a whole by what must be unique', () => {
    const mock = mockOf();
    const before = mock.rows;
    const { status, body } = act(mock, 'label');
    expect([status, (body as { errors: unknown[] }).errors.length]).toEqual([409, 4]);
    expect(mock.rows).toEqual(before);
  });

  test.each([
    [{ ids: [1, 99] }, '/ids/1', 'reference'],
    [{ ids: [6] }, '/ids/0', 'reference'],
    [{ ids: ['x'] }, '/ids/0', 'type'],
    [{ ids: [] }, '/ids', 'length'],
    [{ ids: Array.from({ length: 1_001 }, (_, index) => index + 1) }, '/ids', 'length'],
    [{}, '/ids', 'required'],
    [{ ids: [1], other: 1 }, '/other', 'unknown'],
  ])('%j is invalid', (sent, pointer, code) => {
    const { status, body } = act(mockOf(), 'shut-these', sent);
    expect([status, (body as { errors: unknown }).errors]).toMatchObject([400, [{ pointer, code }]]);
  });

  test('names no state: If-Match is never wanted, and fails', () => {
    const mock = mockOf({ ifMatch: 'required' });
    expect(mock.send('POST', `${BERTHS}/shut-these`, { ids: [1] }, { 'if-match': '"a"' }).status).toBe(412);
    expect(act(mock, 'shut-these', { ids: [1] }).status).toBe(200);
  });

  test('is told how many there are where they are too many', () => {
    const mock = mockOf();
    for (let number = 10; number < 1_010; number++) {
      const sent = { number, price: 1 };
      mock.send('POST', BERTHS, sent);
    }
    const { status, body } = act(mock, 'shut-cheap', {});
    expect([status, (body as { detail: string }).detail]).toEqual([
      409,
      '1003 records meet the condition; at most 1000 are acted on at once.',
    ]);
  });

  test('keeps every rule of the model, whatever is asked for', () => {
    const ids = fc.array(fc.integer({ min: 0, max: 7 }), { maxLength: 6 });
    const step = fc.oneof(
      fc.record({ name: fc.constant('shut-these'), body: fc.record({ ids }) }),
      fc.record({
        name: fc.constant('raise'),
        body: fc.record({ ids, price: fc.integer({ min: -1, max: 9 }) }),
      }),
      fc.record({
        name: fc.constant('shut-cheap'),
        body: fc.record({ below: fc.integer({ min: 0, max: 9 }) }),
      }),
      fc.constantFrom({ name: 'label', body: undefined }, { name: 'lose', body: undefined }),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
        const mock = mockOf();
        for (const { name, body } of steps) {
          const before = JSON.stringify(mock.rows);
          const { status } = act(mock, name, body);
          expect([200, 400, 409]).toContain(status);
          if (status !== 200) expect(JSON.stringify(mock.rows)).toBe(before);
          expect(findViolations(mock.service.model, mock.rows)).toEqual([]);
        }
      }),
      rounds(30),
    );
  });
});

test.each([
  ['a name twice', 'all where price > input price set price from body', /would be called price/],
  ['nothing to set', 'ids set state = shut', /moves by its transitions only/],
])('%s does not fit', (_, line, said) => {
  const model = modelOf(TEXT);
  const { findings } = derive(model, arrangedWith(model, [['Berth', 'x', line]]));
  expect(findings.find(({ id }) => id === 'custom.unfit')?.message).toMatch(said);
});
