import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { parse } from '@isomeros/core/notation';
import fc from 'fast-check';
import { labelWidth, mapGraph, namesOnly } from '../src/model/map/graph.js';
import type { PlacedMap, PlacedNode } from '../src/model/map/placed.js';
import {
  begin,
  fit,
  isVisible,
  MAX_SCALE,
  MIN_SCALE,
  neighbour,
  scrollTo,
  zoomAt,
} from '../src/model/map/view.js';
import { rounds } from '../../../packages/core/test/support/rounds.js';

const sample = readFileSync(
  join(import.meta.dirname, '../../../samples/kestrel-sound-ferries.iso.txt'),
  'utf8',
);

describe('the map of a model', () => {
  const graph = mapGraph(parse(sample).model);
  const node = (name: string): unknown => {
    const found = graph.nodes.find((candidate) => candidate.name === name);
    return found === undefined ? null : [found.note, found.standsAlone];
  };

  test('says of each entity what it holds and whether it stands alone', () => {
    expect(node('Harbour')).toEqual(['6 attributes, key code', true]);
    expect(node('Sailing')).toEqual(['7 attributes, life cycle', false]);
    expect(graph.values).toEqual(['Position', 'Vehicle', 'Duty']);
  });

  test('puts owners above what they own, and what is referred to above what refers', () => {
    const edges = graph.edges.map(({ kind, upper, lower, label, carrying }) =>
      [kind, upper, lower, label, carrying ?? ''].join(' ').trim(),
    );
    expect(edges).toContain('owns Route Sailing sailings, many');
    expect(edges).toContain('owns Vessel Certificate certificate, optional');
    expect(edges).toContain('refers Harbour Route origin');
    expect(edges).toContain('refers Harbour Route destination');
    expect(edges).toContain('refers CrewMember CrewMember supervisor');
    expect(edges).toContain('pairs Sailing CrewMember crew Duty');
    expect(edges).toHaveLength(15);
    for (const edge of graph.edges) expect(labelWidth(edge)).toBeGreaterThan(14);
  });
});

test('a map of names has nothing else on it, and takes less room', () => {
  const graph = mapGraph(parse(sample).model);
  const names = namesOnly(graph);
  expect([graph.hasNotes, names.hasNotes]).toEqual([true, false]);
  expect(names.edges).toBe(graph.edges);
  names.nodes.forEach((node, index) => {
    expect(node.width).toBeLessThan(graph.nodes[index]?.width ?? 0);
    expect(node.height).toBeLessThan(graph.nodes[index]?.height ?? 0);
  });
});

const size = fc.record({
  width: fc.integer({ min: 1, max: 4_000 }),
  height: fc.integer({ min: 1, max: 4_000 }),
});

describe('what is seen of it', () => {
  test('all of it fits, and is never larger than life', () => {
    fc.assert(
      fc.property(size, size, (map, window) => {
        const view = fit(map, window);
        expect(view.scale).toBeLessThanOrEqual(1);
        if (view.scale === MIN_SCALE) return;
        expect(map.width * view.scale).toBeLessThanOrEqual(window.width + 1e-6);
        expect(map.height * view.scale).toBeLessThanOrEqual(window.height + 1e-6);
      }),
      rounds(100),
    );
  });

  test('a map too large to be read whole begins at its upper end, in letters that can be read', () => {
    const node = { name: 'A', id: 'A', note: '', standsAlone: true, width: 100, height: 40 };
    const nodes = [
      { ...node, x: 9_000, y: 500 },
      { ...node, x: 4_000, y: 30 },
    ];
    const large = { nodes, edges: [], width: 20_000, height: 3_000 } as unknown as PlacedMap;
    const view = begin(large, { width: 600, height: 450 });
    expect(view).toEqual({ scale: 0.75, x: 4_050 - 400, y: 6 });
    const small = { ...large, width: 500, height: 400 } as PlacedMap;
    expect(begin(small, { width: 600, height: 450 })).toEqual(fit(small, { width: 600, height: 450 }));
  });

  test('zooming keeps the point under the pointer, within its bounds', () => {
    const point = fc.record({ x: fc.integer({ min: 0, max: 900 }), y: fc.integer({ min: 0, max: 900 }) });
    fc.assert(
      fc.property(point, fc.double({ min: 0.2, max: 5, noNaN: true }), (at, factor) => {
        const before = { x: 10, y: -20, scale: 0.5 };
        const after = zoomAt(before, at, factor);
        expect(after.scale).toBeGreaterThanOrEqual(MIN_SCALE);
        expect(after.scale).toBeLessThanOrEqual(MAX_SCALE);
        expect(after.x + at.x / after.scale).toBeCloseTo(before.x + at.x / before.scale, 6);
        expect(after.y + at.y / after.scale).toBeCloseTo(before.y + at.y / before.scale, 6);
      }),
      rounds(100),
    );
  });

  const placed = (name: string, x: number, y: number): PlacedNode => ({
    name,
    id: name,
    note: '',
    standsAlone: true,
    width: 100,
    height: 40,
    x,
    y,
  });

  test('a node out of sight is brought into it with as little movement as possible', () => {
    const window = { width: 400, height: 300 };
    const view = { x: 0, y: 0, scale: 1 };
    const far = placed('Far', 900, 20);
    expect(isVisible(view, window, far)).toBe(false);
    const moved = scrollTo(view, far, window);
    expect(isVisible(moved, window, far)).toBe(true);
    expect(moved.y).toBe(-4);
    expect(scrollTo(view, placed('Near', 100, 100), window)).toEqual(view);
  });

  test('arrow keys lead to the nearest node that way', () => {
    const nodes = [
      placed('Top', 100, 0),
      placed('Left', 0, 200),
      placed('Right', 200, 200),
      placed('Below', 110, 400),
    ];
    const map = { nodes, edges: [], width: 400, height: 500 } as unknown as PlacedMap;
    const go = (from: string, key: string): string | undefined =>
      neighbour(
        map,
        nodes.find(({ name }) => name === from),
        key,
      )?.name;
    expect(go('Top', 'ArrowDown')).toBe('Left');
    expect(go('Left', 'ArrowRight')).toBe('Right');
    expect(go('Below', 'ArrowUp')).toBe('Right');
    expect(go('Top', 'ArrowUp')).toBeUndefined();
    expect(go('Top', 'x')).toBeUndefined();
    expect(neighbour(map, undefined, 'ArrowDown')?.name).toBe('Top');
  });
});
