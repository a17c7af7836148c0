import { describe, expect, test } from '@jest/globals';
import type { Arrangement, SettingValues } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { indexContract, successStatus } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { exampleRequest, type EngineRequest } from '@isomeros/core/engine';
import { openApiDocument } from '@isomeros/core/publication';
import fc from 'fast-check';
import { everythingPublished } from '../support/documentation.js';
import { anyArrangement, anySettings, sampleDrawn } from '../support/arrangements.js';
import { NOW, TestMock } from '../support/mock.js';
import { PublishedSchemas } from '../support/schemas.js';
import { rounds } from '../support/rounds.js';

const withSettings = (arrangement: Arrangement, settings: SettingValues): Arrangement => ({
  ...arrangement,
  own: { ...arrangement.own, ...settings },
});

/** Mocks make their credentials from the roles a contract names, so that those of another mock are no good. */
const OF_ONE_MOCK = ['access', 'role'];

/** One or two of the settings of an arrangement. */
const fewSettings = fc
  .tuple(anySettings('arrangement'), fc.nat(), fc.integer({ min: 1, max: 2 }))
  .map(([settings, from, most]): SettingValues => {
    const entries = Object.entries(settings).filter(([name]) => !OF_ONE_MOCK.includes(name));
    const start = entries.length === 0 ? 0 : from % entries.length;
    return Object.fromEntries(entries.slice(start, start + most));
  });

/** A change of the sample that breaks nothing, so that one is compared whatever is drawn. */
const BREAKS_NOTHING: SettingValues = { search: 'on' };

/** The same whatever the tag of the record is: a tag tells the contract too, so that each has its own. */
const atAnyState = (request: EngineRequest | null): EngineRequest | null =>
  request?.headers.has('if-match') === true
    ? { ...request, headers: new Map([...request.headers, ['if-match', '*']]) }
    : request;

describe('comparing any contracts', () => {
  test('finds nothing between a contract and itself', () => {
    fc.assert(
      fc.property(anyArrangement, ({ model, arrangement }) => {
        const contract = derive(model, arrangement);
        expect(compare({ kind: 'draft', contract }, { kind: 'draft', contract }).changes).toEqual([]);
      }),
      rounds(30),
    );
  });

  test('what breaks nothing goes on answering what was released, in the shapes that were released', () => {
    let compared = 0;
    fc.assert(
      fc.property(anyArrangement, fewSettings, ({ model, arrangement }, settings) => {
        const contract = derive(model, arrangement);
        const changed = derive(model, withSettings(arrangement, settings));
        const { changes } = compare({ kind: 'draft', contract }, { kind: 'draft', contract: changed });
        if (changes.length === 0 || changes.some(({ compatibility }) => compatibility === 'breaking')) return;
        compared += 1;
        const mock = new TestMock(model, {}, arrangement);
        const after = new TestMock(model, {}, withSettings(arrangement, settings)).service;
        const released = new PublishedSchemas(openApiDocument(everythingPublished(contract)));
        for (const operation of indexContract(contract).operations.values()) {
          const request = atAnyState(exampleRequest(mock.service, mock.dataset, operation, NOW));
          const was = request === null ? null : mock.wouldAnswer(request);
          if (request === null || was === null || was.status !== successStatus(operation)) continue;
          const is = mock.wouldAnswer(request, after);
          expect([operation.id, is.status]).toEqual([operation.id, was.status]);
          // A body where there was none is read by nobody.
          if (operation.returns !== null) expect(released.problemWith(operation.id, is, true)).toBeNull();
        }
      }),
      {
        ...rounds(60),
        endOnFailure: true,
        examples: [[sampleDrawn(), BREAKS_NOTHING]],
      },
    );
    expect(compared).toBeGreaterThan(3);
  });
});
