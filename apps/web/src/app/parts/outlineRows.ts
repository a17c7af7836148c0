import type { Outline, OutlineOperation, OutlineResource } from '@isomeros/core/contract';
import { memoize } from '@isomeros/core/model';
import { treeRows, type TreeRow } from './treeRows.js';

export type OutlineRow = TreeRow<OutlineResource, OutlineOperation>;

/** The rows of an outline. */
export const outlineRows = memoize((outline: Outline): readonly OutlineRow[] => treeRows(outline));
