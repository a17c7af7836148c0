import type { Row } from '../../model/index.js';
import type { Ranked } from './sort.js';

/** A stretch of records in order, without a copy; their values begin with `prefix` ones that are the same all along. */
export class Span {
  constructor(
    private readonly items: readonly Ranked[],
    private readonly from = 0,
    private readonly to = items.length,
    private readonly prefix = 0,
  ) {}

  get length(): number {
    return this.to - this.from;
  }

  /** A record with its place, without the values that are the same all along. */
  at(index: number): Ranked | undefined {
    const item = index < 0 || index >= this.length ? undefined : this.items[this.from + index];
    if (item === undefined || this.prefix === 0) return item;
    return { ...item, values: item.values.slice(this.prefix) };
  }

  /** The records from one index up to, not including, another. */
  rows(from: number, to: number): Row[] {
    const rows: Row[] = [];
    const end = this.from + Math.min(to, this.length);
    for (let index = this.from + Math.max(0, from); index < end; index++) {
      const item = this.items[index];
      if (item !== undefined) rows.push(item.row);
    }
    return rows;
  }

  /** Those records alone for which something holds. */
  filter(holds: (row: Row) => boolean): Span {
    return new Span(
      this.items.slice(this.from, this.to).filter(({ row }) => holds(row)),
      0,
      undefined,
      this.prefix,
    );
  }
}
