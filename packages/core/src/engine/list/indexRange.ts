import type { Row } from '../../model/index.js';
import type { Ranked } from './sort.js';
import type { Ordered } from './sorted.js';

/** A stretch of records in order, without a copy; their values begin with `prefix` ones that are the same all along. */
export class IndexRange {
  constructor(
    private readonly items: Ordered,
    private readonly from = 0,
    private readonly to = items.length,
    private readonly prefix = 0,
  ) {}

  get length(): number {
    return this.to - this.from;
  }

  /** A record with its place, without the values that are the same all along. */
  at(index: number): Ranked | undefined {
    const item = index < 0 || index >= this.length ? undefined : this.items.at(this.from + index);
    if (item === undefined || this.prefix === 0) return item;
    return { ...item, values: item.values.slice(this.prefix) };
  }

  /** The records from one index up to, not including, another. */
  rows(from: number, to: number): Row[] {
    const [first, last] = [Math.max(0, from), Math.min(to, this.length)];
    if (first >= last) return [];
    return this.items.slice(this.from + first, this.from + last).map(({ row }) => row);
  }

  /** Those records alone for which something holds. */
  filter(holds: (row: Row) => boolean): IndexRange {
    return new IndexRange(
      this.items.slice(this.from, this.to).filter(({ row }) => holds(row)),
      0,
      undefined,
      this.prefix,
    );
  }
}
