import { describe, expect, test } from '@jest/globals';
import { plainArrangement, readChoices, upgradeChoices } from '@isomeros/core/arrangement';
import type { Json } from '@isomeros/core/model';

describe('choices as an earlier version kept them', () => {
  test.each<readonly [what: string, given: Json, names: readonly string[], arrangements: readonly object[]]>([
    ['nothing decided', { settings: {}, answered: [] }, [], [plainArrangement('main')]],
    [
      'settings by the name of an arrangement',
      { settings: {}, arrangements: { main: { depth: 1 } }, answered: [] },
      ['main', 'mobile'],
      [{ ...plainArrangement('main'), settings: { depth: 1 } }, plainArrangement('mobile')],
    ],
    [
      'an arrangement that lacks what could not be decided then',
      {
        settings: {},
        arrangements: [{ name: 'a', settings: {}, placements: { Route: 'hidden' } }],
        answered: [],
      },
      [],
      [{ ...plainArrangement('a'), placements: { Route: 'hidden' } }],
    ],
  ])('%s', (_what, given, names, arrangements) => {
    const upgraded = upgradeChoices(given, names);
    expect(upgraded).toMatchObject({ arrangements });
    expect(readChoices(upgraded, '').problems).toEqual([]);
    expect(upgradeChoices(upgraded)).toEqual(upgraded);
  });
});
