import { describe, expect, test } from '@jest/globals';
import { exampleRequest, findViolations, inverseOf, renumbered } from '@isomeros/core/engine';
import { runToEnd, type Row } from '@isomeros/core/model';
import fc from 'fast-check';
import { anyArrangement } from '../support/arrangements.js';
import { NOW, TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

/** Records without what tells when they were written. */
const contents = (rows: readonly Row[]): unknown =>
  [...rows]
    .sort((a, b) => a.rid - b.rid)
    .map(({ rid, entity, values }) => ({ rid, entity, values: { ...values } }));

describe('undo', () => {
  test('takes any write back, and no revision is used again', () => {
    fc.assert(
      fc.property(
        anyArrangement,
        fc.array(fc.nat(), { minLength: 5, maxLength: 25 }),
        ({ model, arrangement }, picks) => {
          const mock = new TestMock(model, {}, arrangement);
          const { operations } = mock.service.contract;
          const highest = new Map<number, number>();
          const note = (): void => {
            for (const { rid, revision } of mock.rows)
              highest.set(rid, Math.max(highest.get(rid) ?? 0, revision));
          };
          for (const pick of picks) {
            const operation = operations[pick % operations.length];
            const request =
              operation === undefined ? null : exampleRequest(mock.service, mock.dataset, operation, NOW);
            if (request === null) continue;
            const before = contents(mock.rows);
            note();
            const { changes } = mock.exchange(request).handled;
            const done = mock.rows;
            const back = inverseOf(changes, mock.dataset);
            for (const change of back)
              if (change.kind !== 'remove') {
                const { rid, revision } = change.after;
                expect(revision).toBeGreaterThan(
                  done.find((row) => row.rid === rid)?.revision ?? highest.get(rid) ?? 0,
                );
              }
            mock.dataset.apply(back, mock.dataset.counters);
            expect(contents(mock.rows)).toEqual(before);
            expect(findViolations(model, mock.rows)).toEqual([]);
          }
        },
      ),
      rounds(25),
    );
  });
});

describe('records under new numbers', () => {
  test('are the same records, joined as before', () => {
    const model = modelOf(kestrelText);
    const { rows } = new TestMock(model);
    const { rows: renewed, last } = runToEnd(renumbered(model, rows, 1_000));
    expect(last).toBe(1_000 + rows.length);
    expect(renewed.map(({ rid }) => rid)).toEqual(rows.map((_, index) => 1_001 + index));
    expect(findViolations(model, renewed)).toEqual([]);
    expect(renewed.map(({ entity }) => entity)).toEqual(rows.map(({ entity }) => entity));
  });
});
