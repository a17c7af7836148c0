import { describe, expect, test } from '@jest/globals';
import type { ExchangeSummary, Mock } from '@isomeros/api';
import { endpointKey, endpointsOf, endpointText, selectedEndpoint } from '../src/mock/endpoints.js';
import { openDesign } from '../src/design/documentSlice.js';
import { arrangementChosen, endpointChosen, viewReducer } from '../src/design/viewSlice.js';
import { withExchanges, withMock, type Followed } from '../src/mock/followMock.js';

const mockOf = (id: string, arrangements: readonly string[], releases: readonly string[]): Mock => ({
  id,
  design: 'd',
  arrangements,
  baseUrls: Object.fromEntries(arrangements.map((name) => [name, `http://here/${id}/${name}`])),
  releases,
  releaseUrls: Object.fromEntries(releases.map((label) => [label, `http://here/${id}/r/${label}`])),
  port: 4811,
  unversioned: null,
  running: true,
  seed: 42,
  records: 0,
  exchanges: 0,
  journal: { from: 1, bytes: 0, dropped: 0 },
  servesRevision: 1,
  faults: 0,
  obstacles: [],
  shortfalls: [],
  initialRecords: false,
  adjustments: [],
});

const MOCKS = [mockOf('a', [], ['1.0']), mockOf('b', ['main', 'flat'], ['2.0'])];
const endpoints = endpointsOf(MOCKS);

describe('what the mocks of a design serve', () => {
  test('arrangements stand before releases, whichever mock they belong to', () => {
    expect(endpoints.map(endpointText)).toEqual(['main', 'flat', 'release 1.0', 'release 2.0']);
    expect(endpoints.map(({ url }) => url)).toEqual([
      'http://here/b/main',
      'http://here/b/flat',
      'http://here/a/r/1.0',
      'http://here/b/r/2.0',
    ]);
    expect(new Set(endpoints.map(endpointKey)).size).toBe(4);
  });

  test.each([
    ['the one that was chosen', 'a release 1.0', 'main', 'release 1.0'],
    ['that of the arrangement that is looked at', null, 'flat', 'flat'],
    ['the first one where the arrangement is not served', null, 'nobody', 'main'],
    ['the arrangement where what was chosen is gone', 'c release 9', 'flat', 'flat'],
  ])('shows %s', (_name, chosen, arrangement, shown) => {
    const endpoint = selectedEndpoint(endpoints, chosen, arrangement);
    expect(endpoint === null ? null : endpointText(endpoint)).toBe(shown);
  });

  test('nothing where nothing is served', () => {
    expect(selectedEndpoint(endpointsOf([]), null, 'main')).toBeNull();
  });

  test('of what is chosen the arrangement that was looked at then is remembered, until another design is opened', () => {
    const chosen = { endpoint: 'b arrangement main', arrangement: 'main' };
    const state = viewReducer(undefined, endpointChosen(chosen));
    expect(viewReducer(state, arrangementChosen('flat')).endpoint).toEqual(chosen);
    expect(viewReducer(state, openDesign.pending('request', 'other')).endpoint).toBeNull();
  });
});

describe('what is told of a mock as it happens', () => {
  const exchange = (number: number): ExchangeSummary => ({
    number,
    at: '2026-06-14T09:12:00.000Z',
    client: 'curl',
    pinned: false,
    arrangement: 'main',
    method: 'GET',
    target: '/',
    operation: null,
    status: 200,
    milliseconds: 1,
  });
  const numbers = ({ exchanges }: Followed): readonly number[] => exchanges.map(({ number }) => number);
  const told = (...all: readonly number[]): Followed => ({
    exchanges: all.map(exchange),
    progress: null,
    sampled: null,
  });

  test.each([
    ['what is newer comes last', told(1, 2), [3], [1, 2, 3]],
    ['what is told again stands once', told(1, 2), [2, 3], [1, 2, 3]],
    ['what was missed is put in its place', told(1, 4), [2, 3], [1, 2, 3, 4]],
  ])('exchanges: %s', (_name, known, arrived, all) => {
    expect(numbers(withExchanges(known, arrived.map(exchange)))).toEqual(all);
  });

  test('exchanges: the newest two thousand are kept', () => {
    const all = Array.from({ length: 2_500 }, (_, index) => exchange(index + 1));
    const kept = numbers(withExchanges(told(), all));
    expect([kept.length, kept[0], kept.at(-1)]).toEqual([2_000, 501, 2_500]);
  });

  test('a journal that begins anew leaves nothing of the one before', () => {
    const [mock] = MOCKS;
    if (mock === undefined) throw new Error('No mock.');
    expect(numbers(withMock(told(7, 8), { ...mock, exchanges: 8 }))).toEqual([7, 8]);
    expect(numbers(withMock(told(7, 8), { ...mock, exchanges: 0 }))).toEqual([]);
  });
});
