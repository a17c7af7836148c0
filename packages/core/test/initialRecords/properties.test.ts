import { describe, expect, test } from '@jest/globals';
import { NO_CHOICES } from '@isomeros/core/arrangement';
import { findViolations } from '@isomeros/core/engine';
import { fitRecords, namedRecords, readNamedRecords, recordsUnder } from '@isomeros/core/initialRecords';
import { identitiesOf, runToEnd, type Model, type Row } from '@isomeros/core/model';
import { print } from '@isomeros/core/notation';
import { recordTypesOf } from '@isomeros/core/transfer';
import { seed } from '@isomeros/core/seeding';
import fc from 'fast-check';
import { anyModel } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const NOW = Date.parse('2026-06-14T09:12:00Z');
let made = 0;
const RUNTIME = {
  now: NOW,
  uuid: (): string => `00000000-0000-4000-8000-${(++made).toString(16).padStart(12, '0')}`,
};
const seeded = (model: Model, number: number): readonly Row[] =>
  seed(model, { seed: number, counts: {}, now: NOW }).rows;

describe('initial records', () => {
  test('are the same after a file carried them', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), (model, number) => {
        const rows = seeded(model, number);
        const records = namedRecords(model, rows);
        const identities = Object.fromEntries(identitiesOf(model));
        const file = { model: print(model), identities, choices: NO_CHOICES, records };
        const read = readNamedRecords(file, RUNTIME, 100_000);
        expect(read).toMatchObject({ ok: true });
        expect(read.ok && namedRecords(model, read.rows)).toEqual(records);
      }),
      rounds(40),
    );
  });

  test('stay as they are under their own model, and keep every rule of any other', () => {
    fc.assert(
      fc.property(anyModel, anyModel, fc.nat(), (one, other, number) => {
        const rows = seeded(one, number);
        const same = runToEnd(recordsUnder(one, one, rows, RUNTIME));
        expect(same).toMatchObject({ adjusted: [] });
        expect(same?.rows.map(({ values }) => values)).toEqual(rows.map(({ values }) => values));
        const under = runToEnd(recordsUnder(one, other, rows, RUNTIME));
        expect(findViolations(other, under?.rows ?? [])).toEqual([]);
        for (const { rid, values } of under?.rows ?? []) {
          expect(rid).toBeLessThanOrEqual(under?.counters.rid ?? 0);
          for (const [id, last] of Object.entries(under?.counters.attributes ?? {}))
            if (typeof values[id] === 'number') expect(values[id]).toBeLessThanOrEqual(last);
        }
      }),
      rounds(40),
    );
  });

  test('of whatever a source has, those that fit keep every rule, and the others are told', () => {
    const anyValue = fc.oneof(
      fc.constantFrom(null, 1, 2, '1', 'a', true, '2026-06-14', [], {}),
      fc.jsonValue(),
    );
    fc.assert(
      fc.property(
        anyModel,
        fc.array(fc.tuple(fc.nat(), fc.array(anyValue), fc.array(fc.nat()))),
        (model, drawn) => {
          const types = [...recordTypesOf(model)];
          const given = drawn.map(([of, values, to], index) => {
            const [type, storage] = types[of % types.length] ?? ['Nothing', null];
            const names = storage?.attributes.map(({ name }) => name) ?? [];
            const roles = [storage?.owner, ...(storage?.references ?? [])].flatMap((one) => one?.role ?? []);
            return {
              type,
              line: index + 1,
              endLine: index + 1,
              values: Object.fromEntries(names.map((name, at) => [name, (values[at] ?? null) as null])),
              pointers: new Map(
                roles.map((role, at) => [
                  role,
                  at < to.length ? { to: (to[at] ?? 0) % drawn.length } : { missing: 'x' },
                ]),
              ),
            };
          });
          const { rows, leftOut } = fitRecords(model, given, RUNTIME);
          const violations = findViolations(model, rows).filter(({ cause }) => cause.kind !== 'none');
          expect(violations).toEqual([]);
          expect(leftOut.length).toBeGreaterThanOrEqual(given.length - rows.length);
          for (const { line } of leftOut) expect(line).toBeGreaterThanOrEqual(1);
        },
      ),
      rounds(100),
    );
  });
});
