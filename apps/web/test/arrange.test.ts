import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement, type Placements } from '@isomeros/core/arrangement';
import type { Outline } from '@isomeros/core/contract';
import { derive, deriveOutline } from '@isomeros/core/derivation';
import type { Model } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import { outlineRows } from '../src/app/parts/outlineRows.js';
import { findingsAt, severitiesOf } from '../src/findings/findingsAt.js';
import { mergedRows, unchanged } from '../src/arrange/mergedRows.js';
import { movesOf } from '../src/arrange/moves.js';
import { placementRows } from '../src/arrange/placementRows.js';
import { shownRows } from '../src/arrange/shownRows.js';

const TEXT = `entity Route

entity Sailing
  state: choice(open, shut), default open
    close: open -> shut

entity Crew

each Route owns many Sailing as sailings, back as route
each Sailing refers to optional Crew as master, back as commands
each Sailing pairs with many Crew as crew, back as duties
`;

const model: Model = parse(TEXT).model;
const OWNS = 'Route>Sailing:sailings';

const arranged = (placements: Placements): ReturnType<typeof arrangementOf> =>
  arrangementOf('main', {
    ...NO_CHOICES,
    arrangements: [{ ...plainArrangement('main'), placements }],
  });
const outlineOf = (placements: Placements): Outline => deriveOutline(model, arranged(placements));

describe('where a branch can go', () => {
  const moves = (path: string, placements: Placements = {}): string[] => {
    const outline = outlineOf(placements);
    const resource = outline.resources.find((one) => one.path === path);
    if (resource === undefined) throw new Error(`There is no ${path}.`);
    return movesOf(resource, outline, model, placements).map(({ place, target }) => `${place} at ${target}`);
  };

  test.each<readonly [path: string, placements: Placements, expected: readonly string[]]>([
    ['', {}, []],
    ['/routes', {}, ['hidden at nowhere']],
    [
      '/routes/{routeId}/sailings',
      {},
      ['flat at entry', 'shallow at entry', 'both at entry', 'hidden at nowhere', 'inline at nowhere'],
    ],
    [
      '/sailings/{sailingId}',
      { [OWNS]: 'flat' },
      ['nested at Route/item', 'shallow at entry', 'both at entry', 'hidden at nowhere', 'inline at nowhere'],
    ],
    ['/routes/{routeId}/sailings/{sailingId}/close', {}, ['change at nowhere', 'hidden at nowhere']],
    ['/crews/{crewId}/commands', {}, ['off at nowhere']],
    [
      '/crews/{crewId}/duties',
      { 'Sailing>Crew:crew': 'far' },
      ['near at Sailing/item', 'both-sides at Crew/item', 'hidden at nowhere'],
    ],
  ])('%s of %j', (path, placements, expected) => {
    expect(moves(path, placements)).toEqual(expected);
  });
});

describe('the list of placements', () => {
  const labels = (placements: Placements): string[] =>
    placementRows(model, placements).map((row) =>
      row.kind === 'group'
        ? `= ${row.label}`
        : `${row.label}: ${row.options.find(({ key }) => key === row.value)?.label ?? '?'} (${row.level})`,
    );

  test('has every statement once, in groups, with its place and where that comes from', () => {
    expect(labels({ [OWNS]: 'both', 'Sailing>Crew:master/back': 'off', Crew: 'hidden' })).toEqual([
      '= owns',
      'Route sailings: both (arrangement)',
      '= refers to',
      'Sailing master: no list (arrangement)',
      '= pairs with',
      'Sailing crew: near side (default)',
      '= life cycles',
      'Sailing close: action (default)',
      '= owned by nothing',
      'Route: root (default)',
      'Crew: not exposed (arrangement)',
    ]);
  });
});

describe('two path trees as one', () => {
  test('what goes stays where it was, what comes stands where it will be', () => {
    const before = outlineRows(outlineOf({}));
    const after = outlineRows(outlineOf({ [OWNS]: 'shallow' }));
    const lines = mergedRows(before, after).map(({ row, change }) => `${change} ${row.resource.path}`);
    expect(lines.slice(0, 10)).toEqual([
      'same ',
      'same /routes',
      'same /routes/{routeId}',
      'same /routes/{routeId}/sailings',
      'goes /routes/{routeId}/sailings/{sailingId}',
      'goes /routes/{routeId}/sailings/{sailingId}/crew',
      'goes /routes/{routeId}/sailings/{sailingId}/crew/{crewId}',
      'goes /routes/{routeId}/sailings/{sailingId}/close',
      'comes /sailings/{sailingId}',
      'comes /sailings/{sailingId}/crew',
    ]);
    expect(mergedRows(before, before)).toEqual(unchanged(before));
  });
});

describe('the rows that are drawn', () => {
  const rows = unchanged(outlineRows(outlineOf({})));

  test('leave out what is folded away, and say how much that is', () => {
    const shown = shownRows(rows, new Set(['Route']), '');
    expect(shown.map(({ row, below, isFolded }) => [row.resource.path, below, isFolded]).slice(1, 3)).toEqual(
      [
        ['/routes', 6, true],
        ['/crews', 3, false],
      ],
    );
  });

  test('with a filter are those whose path or operation holds it, and what is above them', () => {
    const paths = (filter: string): string[] =>
      shownRows(rows, new Set(['Route']), filter).map(({ row }) => row.resource.path);
    expect(paths('DUTIES')).toEqual(['', '/crews', '/crews/{crewId}', '/crews/{crewId}/duties']);
    expect(paths('closesailing').at(-1)).toBe('/routes/{routeId}/sailings/{sailingId}/close');
    expect(paths('nothing of the kind')).toEqual([]);
  });
});

test('findings stand at the path they are about', () => {
  const placements: Placements = { Route: 'hidden' };
  const { findings } = derive(model, arranged(placements));
  expect(findings.map(({ id }) => id)).toEqual(['entity.unreachable']);
  const deep = arrangementOf('main', {
    ...NO_CHOICES,
    arrangements: [{ ...plainArrangement('main'), settings: { depth: 1 } }],
  });
  const found = derive(model, deep).findings;
  const outline = deriveOutline(model, deep);
  const item = outline.resources.find(({ path }) => path === '/sailings/{sailingId}');
  if (item === undefined) throw new Error('The item did not move.');
  expect(findingsAt(found, item).map(({ id }) => id)).toEqual(['depth.moved']);
  expect([...severitiesOf(found, outline)]).toEqual([
    [item.id, 'doubtful'],
    ['Sailing>Crew:crew', 'doubtful'],
  ]);
});
