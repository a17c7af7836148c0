import type { Ranked } from './sort.js';

/** Records in order, or a stretch of them, without a copy. */
export interface Span {
  readonly length: number;
  at(index: number): Ranked | undefined;
  /** From one index up to, not including, another. */
  slice(from: number, to: number): readonly Ranked[];
}

/** A stretch of an array whose positions begin with `prefix` values that are the same all along. */
export class Stretch implements Span {
  constructor(
    private readonly items: readonly Ranked[],
    private readonly from: number,
    private readonly to: number,
    private readonly prefix: number,
  ) {}

  get length(): number {
    return this.to - this.from;
  }

  at(index: number): Ranked | undefined {
    const item = index < 0 || index >= this.length ? undefined : this.items[this.from + index];
    return item === undefined ? undefined : this.plain(item);
  }

  slice(from: number, to: number): readonly Ranked[] {
    const [first, last] = [Math.max(0, from), Math.min(to, this.length)];
    return first >= last
      ? []
      : this.items.slice(this.from + first, this.from + last).map((item) => this.plain(item));
  }

  private plain(item: Ranked): Ranked {
    return this.prefix === 0 ? item : { ...item, values: item.values.slice(this.prefix) };
  }
}
