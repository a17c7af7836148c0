import { describe, expect, test } from '@jest/globals';
import { findViolations } from '@isomeros/core/engine';
import { storageOf } from '@isomeros/core/model';
import { printPlan, readPlan, seed, type SeedPlan } from '@isomeros/core/seeding';
import fc from 'fast-check';
import { NOW } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

const kestrel = modelOf(kestrelText);
const MOST = 1_000;

const read = (text: string): SeedPlan => {
  const result = readPlan(text, kestrel, MOST);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.plan;
};

/** The records an entity has when a plan is followed, and how many belong to each owner. */
function seeded(text: string, entity: string, owner?: string): { all: string[]; perOwner: number[] } {
  const { rows } = seed(kestrel, { seed: 42, now: NOW, ...read(text) });
  expect(findViolations(kestrel, rows)).toEqual([]);
  const own = rows.filter((row) => row.entity === entity);
  const owners = rows.filter((row) => row.entity === owner).map(({ rid }) => rid);
  const by = storageOf(kestrel).byName.get(entity)?.owner?.id ?? '';
  const perOwner = owners.map((rid) => own.filter(({ values }) => values[by] === rid).length);
  return { all: own.map(({ values }) => JSON.stringify(values)), perOwner };
}

describe('a plan of seed records', () => {
  test('gives each owner between the least and the most', () => {
    const { perOwner } = seeded('Vessel: 60\nCabin: 2..5 each', 'Cabin', 'Vessel');
    expect(perOwner).toHaveLength(60);
    expect(new Set(perOwner)).toEqual(new Set([2, 3, 4, 5]));
  });

  test('gives most owners few where few have many', () => {
    const { perOwner } = seeded('Vessel: 200\nCabin: 0..20 each, few have many', 'Cabin', 'Vessel');
    const few = perOwner.filter((count) => count <= 4).length;
    expect(few).toBeGreaterThan(120);
    expect(Math.max(...perOwner)).toBeGreaterThan(12);
  });

  test('gives every owner the same', () => {
    expect(seeded('Vessel: 4\nCabin: 3 each', 'Cabin', 'Vessel').perOwner).toEqual([3, 3, 3, 3]);
  });

  test('spreads a life cycle by its shares, and leaves out what has none', () => {
    const { all } = seeded('Sailing: 400\nSailing.status: planned 3, departed 1, cancelled 0', 'Sailing');
    const share = (state: string): number =>
      all.filter((row) => row.includes(`"${state}"`)).length / all.length;
    expect(share('planned')).toBeGreaterThan(0.68);
    expect(share('planned')).toBeLessThan(0.82);
    expect(share('planned') + share('departed')).toBe(1);
  });

  test('follows the same plan in the same way', () => {
    const options = {
      seed: 7,
      now: NOW,
      ...read('Booking: 0..9 each, few have many\nBooking.state: held 1'),
    };
    expect(seed(kestrel, options)).toEqual(seed(kestrel, options));
  });

  const WRONG: readonly (readonly [text: string, line: number, message: RegExp])[] = [
    ['Harbour', 1, /Expected a name, and a colon/],
    [': 3', 1, /Expected a name, and a colon/],
    ['Harbour: many', 1, /Expected a number of records such as 30/],
    ['\nHarbor: 3', 2, /There is no entity Harbor. The nearest is Harbour/],
    ['Harbour: 3\nHarbour: 4', 2, /Harbour is told about twice/],
    ['Harbour: 1001', 1, /Expected a whole number from 0 to 1000/],
    ['Harbour: 600\nRoute: 600', 1, /at most 1000 records; these counts add up to 1200/],
    ['Harbour: 2 each', 1, /Harbour is not owned by another entity that has many/],
    ['Certificate: 2 each', 1, /Certificate is not owned by another entity that has many/],
    ['Cabin: 5..2 each', 1, /the smaller one first/],
    ['Cabin: 10001 each', 1, /from 0 to 10000/],
    ['Sailing.berth: A 1', 1, /Sailing.berth is no choice of an entity/],
    ['Sailing.status: lost 1', 1, /Expected one of planned, boarding, departed, cancelled/],
    ['Sailing.status: planned 0', 1, /at least one share above 0/],
    ['Sailing.status: planned 1, planned 2', 1, /Expected a number of records/],
    ['Harbour.services: "shore power 1', 1, /Expected a number of records/],
    ['__proto__: 3', 1, /There is no entity __proto__/],
  ];

  test.each(WRONG)('says what is expected where: %j', (text, line, message) => {
    const result = readPlan(text, kestrel, MOST);
    expect(result.ok ? [] : result.problems).toEqual([
      { line, message: expect.stringMatching(message) as unknown },
    ]);
  });

  const count = fc.integer({ min: 0, max: 90 });
  const plans = fc.record({
    counts: fc.dictionary(fc.constantFrom('Harbour', 'Route', 'Vessel', 'Notice'), count),
    children: fc.dictionary(
      fc.constantFrom('Cabin', 'Sailing', 'Booking', 'Passenger'),
      fc
        .tuple(count, count, fc.constantFrom('even' as const, 'tail' as const))
        .map(([a, b, shape]) => ({ least: Math.min(a, b), most: Math.max(a, b), shape })),
    ),
    shares: fc.dictionary(
      fc.constantFrom('Sailing.status', 'Booking.state'),
      fc.dictionary(
        fc.constantFrom('cancelled'),
        fc.integer({ min: 1, max: 50 }).map((n) => n / 4),
        {
          minKeys: 1,
        },
      ),
    ),
  });

  test('is read back as it was printed', () => {
    fc.assert(
      fc.property(plans, (plan) => {
        expect(readPlan(printPlan(plan), kestrel, MOST)).toEqual({ ok: true, plan });
      }),
      rounds(100),
    );
  });

  test('quotes options that are more than a word', () => {
    const model = modelOf('entity Port\n  power: choice("shore power", none)\n');
    const result = readPlan('Port.power: "shore power" 2, none 1', model, MOST);
    expect(result).toMatchObject({ plan: { shares: { 'Port.power': { 'shore power': 2, none: 1 } } } });
    if (result.ok) expect(printPlan(result.plan)).toBe('Port.power: "shore power" 2, none 1');
  });
});
