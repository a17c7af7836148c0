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

  constructor(
    items: readonly Ranked[],
    private readonly compare: Compare,
  ) {
    this.count = items.length;
    const sorted = [...items].sort(compare);
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
      items.push(...part.slice(Math.max(0, from - start), to - start));
      start += part.length;
    }
    return items;
  }

  /** How many records come before the first one of which something does not hold, which holds of all before it. */
  firstNot(holds: (item: Ranked) => boolean): number {
    const number = firstWhere(this.parts, (part) => !isLastOf(part, holds));
    const part = this.parts[number];
    return part === undefined
      ? this.count
      : (this.starting()[number] ?? 0) + firstWhere(part, (item) => !holds(item));
  }

  add(item: Ranked): void {
    const isBefore = (other: Ranked): boolean => this.compare(other, item) < 0;
    const found = firstWhere(this.parts, (part) => !isLastOf(part, isBefore));
    const number = Math.min(found, this.parts.length - 1);
    const part = this.parts[number];
    if (part === undefined) this.parts.push([item]);
    else {
      part.splice(
        firstWhere(part, (other) => !isBefore(other)),
        0,
        item,
      );
      if (part.length > MOST_TOGETHER) this.parts.splice(number + 1, 0, part.splice(MOST_TOGETHER / 2));
    }
    this.count++;
    this.starts = null;
  }

  remove(item: Ranked): void {
    const isBefore = (other: Ranked): boolean => this.compare(other, item) < 0;
    const number = firstWhere(this.parts, (part) => !isLastOf(part, isBefore));
    const part = this.parts[number];
    if (part === undefined) return;
    const index = firstWhere(part, (other) => !isBefore(other));
    if (part[index]?.rid !== item.rid) return;
    part.splice(index, 1);
    if (part.length === 0) this.parts.splice(number, 1);
    this.count--;
    this.starts = null;
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
    return Math.max(0, firstWhere(this.starting(), (start) => start > index) - 1);
  }
}

/** Whether something holds of the last of a part, and so of all of it. */
function isLastOf(part: readonly Ranked[], holds: (item: Ranked) => boolean): boolean {
  const last = part.at(-1);
  return last !== undefined && holds(last);
}

/** Where the first is of which something holds, which holds of all behind it; the length where there is none. */
function firstWhere<T>(items: readonly T[], holds: (item: T) => boolean): number {
  let [low, high] = [0, items.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    const item = items[middle];
    if (item !== undefined && !holds(item)) low = middle + 1;
    else high = middle;
  }
  return low;
}
