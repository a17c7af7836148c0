import { treeRows, type TreeRow } from './treeRows.js';
import type { Outline, OutlineOperation, OutlineResource } from '@isomeros/core/contract';

export type OutlineRow = TreeRow<OutlineResource, OutlineOperation>;

const cache = new WeakMap<Outline, readonly OutlineRow[]>();

/** The rows of an outline, made once. */
export function outlineRows(outline: Outline): readonly OutlineRow[] {
  let rows = cache.get(outline);
  if (rows === undefined) {
    rows = treeRows(outline);
    cache.set(outline, rows);
  }
  return rows;
}
