import { describe, expect, test } from '@jest/globals';
import { Subject } from 'rxjs';
import { LoadMeter, MOST_SECONDS } from '../src/mocks/load.js';
import type { MockEvent } from '../src/mocks/mockEvent.js';
import { sampled } from '../src/mocks/sampledEvents.js';
import { eventually } from './support/server.js';

const AT = Date.UTC(2026, 5, 14, 9, 12, 0);

const meter = (): LoadMeter => new LoadMeter({ memory: () => 1_000, records: () => 7 });

describe('the load of a mock', () => {
  test('is counted second by second, by the class of the status', () => {
    const load = meter();
    for (const status of [200, 204, 404, 500, 0]) load.count(AT + 10, status, 1);
    load.count(AT + 2_500, 301, 1);
    expect(load.latest(AT + 2_999, 60).map(({ at, answered }) => [at, answered])).toEqual([
      ['2026-06-14T09:12:00.000Z', [1, 0, 2, 0, 1, 1]],
      ['2026-06-14T09:12:02.000Z', [0, 0, 0, 1, 0, 0]],
    ]);
    expect(load.latest(AT + 2_999, 1)).toHaveLength(1);
    expect(load.latest(AT, 60)[0]).toMatchObject({ memory: 1_000, records: 7 });
  });

  test.each([
    ['p50', 50],
    ['p95', 95],
    ['p99', 99],
  ] as const)('tells within how long %s of a hundred were answered, to a fifth', (name, expected) => {
    const load = meter();
    for (let milliseconds = 1; milliseconds <= 100; milliseconds++) load.count(AT, 200, milliseconds);
    const told = load.latest(AT, 1)[0]?.[name] ?? 0;
    expect(told).toBeGreaterThanOrEqual(expected);
    expect(told).toBeLessThanOrEqual(expected * 1.2);
  });

  test('forgets what is longer ago than it keeps', () => {
    const load = meter();
    load.count(AT, 200, 1);
    const later = AT + MOST_SECONDS * 1_000;
    expect(load.latest(later, MOST_SECONDS)).toEqual([]);
    load.count(later, 404, 1);
    expect(load.latest(later, MOST_SECONDS).map(({ answered }) => answered)).toEqual([[0, 0, 0, 0, 1, 0]]);
  });
});

describe('events for who looks on', () => {
  const exchange = (number: number): MockEvent => ({
    kind: 'exchange',
    mock: 'm',
    exchange: {
      number,
      at: new Date(AT).toISOString(),
      arrangement: 'main',
      client: 'curl',
      method: 'GET',
      target: '/',
      operation: null,
      status: 200,
      milliseconds: 1,
      pinned: false,
    },
  });

  test('are no more than somebody can follow, and the others are counted; other events are told all', async () => {
    const events = new Subject<MockEvent>();
    const seen: MockEvent[] = [];
    const subscription = sampled(events).subscribe((event) => seen.push(event));
    for (let number = 1; number <= 200; number++) events.next(exchange(number));
    events.next({ kind: 'removed', mock: 'm' });
    expect(seen.map(({ kind }) => kind)).toEqual([
      ...Array.from({ length: 25 }, () => 'exchange'),
      'removed',
    ]);
    await eventually(() => Promise.resolve(seen.find(({ kind }) => kind === 'sampled') ?? null), 'a count');
    expect(seen.at(-1)).toEqual({ kind: 'sampled', mock: 'm', told: 25, of: 200, last: 200 });
    events.next(exchange(201));
    expect(seen.at(-1)).toEqual(exchange(201));
    subscription.unsubscribe();
    expect(events.observed).toBe(false);
  });
});
