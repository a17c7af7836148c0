import { describe, expect, test } from '@jest/globals';
import { drawOutcome, operationAt, simulatedFailure, type FaultRule } from '@isomeros/core/engine';
import { Random } from '@isomeros/core/seeding';
import fc from 'fast-check';
import { TestMock } from '../support/mock.js';
import { rounds } from '../support/rounds.js';

const thrown = (
  troubles: readonly FaultRule[],
  count: number,
  seed = 1,
): ReturnType<typeof drawOutcome>[] => {
  const random = new Random(seed);
  return Array.from({ length: count }, () => drawOutcome(troubles, 'listBuoys', () => random.next()));
};

describe('trouble on purpose', () => {
  test('is none where nobody asked for it', () => {
    expect(thrown([], 1)).toEqual([{ delay: 0, pace: null, outcome: { kind: 'answer' } }]);
  });

  test('happens as often as it was told, and again in the same way', () => {
    const troubles: FaultRule[] = [
      {
        failures: [
          { status: 503, rate: 0.2 },
          { status: 429, rate: 0.1 },
        ],
        drop: 0.05,
      },
    ];
    const fates = thrown(troubles, 4_000);
    const share = (wanted: string): number =>
      fates.filter(
        ({ outcome }) => (outcome.kind === 'fail' ? String(outcome.status) : outcome.kind) === wanted,
      ).length / 4_000;
    expect(share('503')).toBeCloseTo(0.2, 1);
    expect(share('429')).toBeCloseTo(0.1, 1);
    expect(share('drop')).toBeCloseTo(0.05, 1);
    expect(thrown(troubles, 4_000)).toEqual(fates);
  });

  test('of an operation holds before that of all', () => {
    const troubles: FaultRule[] = [
      { latency: { kind: 'fixed', ms: 5 } },
      { operation: 'listBuoys', latency: { kind: 'fixed', ms: 9 } },
    ];
    expect(thrown(troubles, 1)[0]?.delay).toBe(9);
    expect(drawOutcome(troubles, 'readBuoy', () => 0.5).delay).toBe(5);
  });

  test('never holds an answer back for less than nothing, or for ever', () => {
    const latency = fc.oneof(
      fc.record({ kind: fc.constant('fixed' as const), ms: fc.integer({ min: 0, max: 1e9 }) }),
      fc.record({
        kind: fc.constant('normal' as const),
        mean: fc.integer({ min: 0, max: 1e5 }),
        deviation: fc.integer({ min: 0, max: 1e5 }),
      }),
      fc.record({
        kind: fc.constant('uniform' as const),
        from: fc.integer({ min: 0, max: 1e5 }),
        to: fc.integer({ min: 0, max: 1e5 }),
      }),
    );
    fc.assert(
      fc.property(latency, fc.integer(), (told, seed) => {
        for (const { delay } of thrown([{ latency: told }], 5, seed)) {
          expect(delay).toBeGreaterThanOrEqual(0);
          expect(delay).toBeLessThanOrEqual(60_000);
        }
      }),
      rounds(100),
    );
  });

  test('says that it is simulated, and when to come again', () => {
    const { contract } = TestMock.of('entity Buoy\n  name: text\n').service;
    const failure = simulatedFailure(contract, 429);
    expect(failure.headers).toContainEqual(['Retry-After', '1']);
    expect(JSON.parse(failure.body ?? '')).toMatchObject({
      type: '/api/v1/-/problems/simulated',
      status: 429,
    });
  });

  test('knows the operation of a request before it is handled', () => {
    const { contract } = TestMock.of('entity Buoy\n  name: text\n').service;
    expect(operationAt(contract, { method: 'HEAD', target: '/api/v1/buoys?x=1' })).toBe('listBuoys');
    expect(operationAt(contract, { method: 'PUT', target: '/api/v1/buoys' })).toBeNull();
    expect(operationAt(contract, { method: 'GET', target: '/%ff' })).toBeNull();
  });
});
