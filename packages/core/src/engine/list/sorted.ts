import { appendAll } from '../../model/index.js';
import type { Ranked } from './sort.js';

/** So many stand together at most; where there are more they are parted. */
const MOST_TOGETHER = 512;

/** Records in order, as an array gives them, or something that only looks like one. */
export interface Ordered {
  readonly length: number;
  at(index: number): Ranked | undefined;
  slice(from: number, to: number): readonly Ranked[];
}

/** Below zero where the first comes before the second. */
type Compare = (a: Ranked, b: Ranked) => number;

/**
 * Records in order, in short arrays one behind the other, so that one more among a million moves a few hundred of them
 * and not half of all.
 */
export class Sorted implements Ordered {
  private parts: Ranked[][] = [];
  /** How many records come before each part; made again when it is asked for after a change. */
  private starts: readonly number[] | null = null;
  private count: number;

  /** `sorted`: records that are in order already. */
  constructor(
    sorted: readonly Ranked[],
    private readonly compare: Compare,
  ) {
    this.count = sorted.length;
    for (let from = 0; from < sorted.length; from += MOST_TOGETHER / 2)
      this.parts.push(sorted.slice(from, from + MOST_TOGETHER / 2));
  }

  get length(): number {
    return this.count;
  }

  at(index: number): Ranked | undefined {
    const number = this.partAt(index);
    return this.parts[number]?.[index - (this.starting()[number] ?? 0)];
  }

  slice(from: number, to: number): readonly Ranked[] {
    const items: Ranked[] = [];
    const first = this.partAt(from);
    let start = this.starting()[first] ?? 0;
    for (const part of this.parts.slice(first)) {
      if (start >= to) break;
      appendAll(items, part.slice(Math.max(0, from - start), to - start));
      start += part.length;
    }
    return items;
  }

  /** How many records come before the first one of which something does not hold, which holds of all before it. */
  firstNot(holds: (item: Ranked) => boolean): number {
    const { number, index } = this.place(holds);
    return number === this.parts.length ? this.count : (this.starting()[number] ?? 0) + index;
  }

  add(item: Ranked): void {
    const { number, index } = this.place((other) => this.compare(other, item) < 0);
    // What comes behind all goes to the end of the last part.
    const isLast = number === this.parts.length;
    const at = isLast ? number - 1 : number;
    const part = this.parts[at];
    if (part === undefined) this.parts.push([item]);
    else {
      part.splice(isLast ? part.length : index, 0, item);
      if (part.length > MOST_TOGETHER) this.parts.splice(at + 1, 0, part.splice(MOST_TOGETHER / 2));
    }
    this.count++;
    this.starts = null;
  }

  remove(item: Ranked): void {
    const { number, index } = this.place((other) => this.compare(other, item) < 0);
    const part = this.parts[number];
    if (part?.[index]?.rid !== item.rid) return;
    part.splice(index, 1);
    if (part.length === 0) this.parts.splice(number, 1);
    this.count--;
    this.starts = null;
  }

  /** The part, and the place in it, of the first record of which something does not hold. */
  private place(holds: (item: Ranked) => boolean): { readonly number: number; readonly index: number } {
    const { parts } = this;
    const number = firstWhere(parts.length, (at) => !isLastOf(parts[at], holds));
    const part = parts[number] ?? [];
    return { number, index: firstWhere(part.length, (at) => !isOf(part[at], holds)) };
  }

  private starting(): readonly number[] {
    if (this.starts === null) {
      const starts: number[] = [];
      let start = 0;
      for (const part of this.parts) {
        starts.push(start);
        start += part.length;
      }
      this.starts = starts;
    }
    return this.starts;
  }

  /** The part that holds the record with this number. */
  private partAt(index: number): number {
    const starts = this.starting();
    return Math.max(0, firstWhere(starts.length, (at) => (starts[at] ?? 0) > index) - 1);
  }
}

const isOf = (item: Ranked | undefined, holds: (item: Ranked) => boolean): boolean =>
  item !== undefined && holds(item);

/** Whether something holds of the last of a part, and so of all of it. */
const isLastOf = (part: readonly Ranked[] | undefined, holds: (item: Ranked) => boolean): boolean =>
  isOf(part?.at(-1), holds);

/** The first of so many numbers of which something holds, which holds of all behind it; `count` where there is none. */
export function firstWhere(count: number, holds: (number: number) => boolean): number {
  let [low, high] = [0, count];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
