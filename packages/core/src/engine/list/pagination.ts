import type { PageRequest } from './listQuery.js';
import type { Row } from '../../model/index.js';
import type { Cursor } from './listQuery.js';
import type { IndexRange } from './indexRange.js';
import { positionOrder, type Position, type SortBy } from './sort.js';
import { firstWhere } from './sorted.js';

/** The records of a page, and where its neighbours begin. */
export interface PageRange {
  readonly shown: readonly Row[];
  /** Where the records before and behind the page are; `null` where there are none. */
  readonly before: Position | null;
  readonly behind: Position | null;
}

/** Cuts a page out of an ordered list. */
export function pageRangeOf(keys: readonly SortBy[], all: IndexRange, wanted: PageRequest): PageRange {
  switch (wanted.kind) {
    case 'all':
      return { shown: all.rows(0, all.length), before: null, behind: null };
    case 'first':
    case 'ceiling':
      return { shown: all.rows(0, wanted.size), before: null, behind: null };
    case 'offset':
      return between(all, wanted.offset, wanted.offset + wanted.size);
    case 'cursor':
      return beside(keys, all, wanted.cursor, wanted.size);
  }
}

/** A cursor names a position, not a number, so that records that come and go do not shift the page. */
function beside(keys: readonly SortBy[], all: IndexRange, cursor: Cursor | null, size: number): PageRange {
  if (cursor === null) return between(all, 0, size);
  const isAfter = cursor.direction === 'after';
  const at = firstBeyond(keys, all, cursor.position, isAfter);
  const slice = isAfter ? between(all, at, at + size) : between(all, Math.max(0, at - size), at);
  if (slice.shown.length > 0) return slice;
  if (all.length === 0) return slice;
  // Beyond the end there is still a way back: from just behind where the cursor stands, so that what stands
  // there is not left out.
  const { values, rid } = cursor.position;
  return isAfter
    ? { ...slice, before: { values, rid: rid + 0.5 } }
    : { ...slice, behind: { values, rid: rid - 0.5 } };
}

function between(all: IndexRange, from: number, to: number): PageRange {
  return {
    shown: all.rows(from, to),
    before: from > 0 && from < to ? (all.at(from) ?? null) : null,
    behind: to < all.length && from < to ? (all.at(to - 1) ?? null) : null,
  };
}

/** The number of the first record behind a position, or at it where `past` is false. */
function firstBeyond(keys: readonly SortBy[], all: IndexRange, position: Position, past: boolean): number {
  const order = positionOrder(keys);
  return firstWhere(all.length, (number) => {
    const found = all.at(number);
    const compared = found === undefined ? 0 : order(found, position);
    return compared > 0 || (compared === 0 && !past);
  });
}
