import { describe, expect, test } from '@jest/globals';
import { exampleRequest } from '@isomeros/core/engine';
import fc from 'fast-check';
import { anyArrangement } from '../support/arrangements.js';
import { NOW, TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

const reads = (mock: TestMock): string[] =>
  mock.service.contract.operations
    .filter(({ verb }) => verb === 'list' || verb === 'read')
    .flatMap((operation) => exampleRequest(mock.service, mock.dataset, operation, mock.now)?.target ?? []);

/** The same records and contract, as if nothing had ever been read: a contract of its own keeps no texts. */
function untouched(mock: TestMock): TestMock {
  const fresh = new TestMock(mock.service.model);
  Object.assign(fresh, {
    service: { ...mock.service, contract: structuredClone(mock.service.contract) },
    dataset: mock.dataset,
    now: mock.now,
  });
  return fresh;
}

describe('texts that are kept of records', () => {
  test('are those of the records as they are, whatever was read and written before', () => {
    fc.assert(
      fc.property(anyArrangement, fc.array(fc.nat(), { maxLength: 25 }), ({ model, arrangement }, steps) => {
        const mock = new TestMock(model, {}, arrangement);
        const { operations } = mock.service.contract;
        for (const step of steps) {
          for (const target of reads(mock).slice(0, 4)) mock.send('GET', target);
          const operation = operations[step % operations.length];
          const request =
            operation === undefined ? null : exampleRequest(mock.service, mock.dataset, operation, NOW);
          if (request !== null) mock.exchange(request);
        }
        const fresh = untouched(mock);
        for (const target of reads(mock)) {
          const [kept, made] = [mock.send('GET', target), fresh.send('GET', target)];
          expect([target, kept.status, kept.body]).toEqual([target, made.status, made.body]);
          expect(kept.headers).toEqual(made.headers);
        }
      }),
      rounds(25),
    );
  });

  test('tell what is allowed now, though the record stays as it is', () => {
    const mock = TestMock.of(kestrelText);
    interface Sailing {
      readonly departsAt: string;
      readonly links: Readonly<Record<string, { readonly href: string }>>;
    }
    const sailings = (): readonly Sailing[] =>
      (mock.send('GET', '/api/v1/routes/1/sailings?status=planned').body as { items: Sailing[] }).items;
    mock.now = 0;
    const [planned] = sailings();
    const self = planned?.links['self']?.href ?? '';
    const linksNow = (): string[] => Object.keys((mock.send('GET', self).body as Sailing).links);
    expect(linksNow()).toContain('cancel');
    mock.now = Date.parse(planned?.departsAt ?? '') + 1_000;
    expect(linksNow()).not.toContain('cancel');
    expect(Object.keys(sailings()[0]?.links ?? {})).toEqual(linksNow());
  });

  test('have the items of a list at its beginning, in an object and in a bare array', () => {
    const mock = new TestMock(modelOf('entity Port\n  name: text'), { Port: 3 });
    const text = mock.send('GET', '/api/v1/ports').handled.response.body ?? '';
    expect(text.startsWith('{"items":[{"id":1,')).toBe(true);
    expect((JSON.parse(text) as { items: unknown[] }).items).toHaveLength(3);
  });
});
