import { describe, expect, test } from '@jest/globals';
import type { Mock } from '@isomeros/api';
import { endpointKey, endpointsOf, endpointText, selectedEndpoint } from '../src/mock/endpoints.js';
import { endpointChosen, mockChanged, mockRemoved, mocksReducer } from '../src/mock/mocksSlice.js';

const mockOf = (id: string, arrangements: readonly string[], releases: readonly string[]): Mock => ({
  id,
  design: 'd',
  arrangements,
  baseUrls: Object.fromEntries(arrangements.map((name) => [name, `http://here/${id}/${name}`])),
  releases,
  releaseUrls: Object.fromEntries(releases.map((label) => [label, `http://here/${id}/r/${label}`])),
  port: 4811,
  running: true,
  seed: 42,
  records: 0,
  exchanges: 0,
  servesRevision: 1,
  faults: 0,
  obstacles: [],
  shortfalls: [],
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

  test('what was chosen is kept while mocks come and go', () => {
    const [main] = endpoints;
    const chosen = { endpoint: main === undefined ? '' : endpointKey(main), arrangement: 'main' };
    let state = mocksReducer(undefined, { type: 'begin' });
    for (const mock of MOCKS) state = mocksReducer(state, mockChanged(mock));
    state = mocksReducer(state, endpointChosen(chosen));
    state = mocksReducer(state, mockRemoved('a'));
    expect(Object.keys(state.byId)).toEqual(['b']);
    expect(state.chosen).toEqual(chosen);
  });
});
