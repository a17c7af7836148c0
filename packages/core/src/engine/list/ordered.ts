import type { EntityStorage, Json, Row } from '../../model/index.js';
import type { Dataset, RecordIndex } from '../dataset.js';
import type { Serving } from '../service.js';
import { fieldValue } from './field.js';
import type { Filter } from './filter.js';
import { comparePositions, type Position, type Ranked, type SortBy } from './sort.js';
import { Stretch, type Span } from './span.js';

/** An order that somebody asked for once, kept up to date from then on. */
class OrderedIndex implements RecordIndex {
  private readonly items: Ranked[];

  constructor(
    private readonly keys: readonly SortBy[],
    private readonly valuesOf: (row: Row) => readonly Json[],
    rows: Iterable<Row>,
  ) {
    this.items = [...rows].map((row) => this.ranked(row));
    this.items.sort((a, b) => comparePositions(keys, a, b));
  }

  add(row: Row): void {
    const item = this.ranked(row);
    this.items.splice(this.firstNotBefore(item), 0, item);
  }

  remove(row: Row): void {
    const index = this.firstNotBefore(this.ranked(row));
    if (this.items[index]?.rid === row.rid) this.items.splice(index, 1);
  }

  /** The records whose first values are these. */
  stretch(prefix: readonly Json[]): Span {
    if (prefix.length === 0) return new Stretch(this.items, 0, this.items.length, 0);
    const keys = this.keys.slice(0, prefix.length);
    const from = this.bound(keys, prefix, -Infinity);
    return new Stretch(this.items, from, this.bound(keys, prefix, Infinity), prefix.length);
  }

  private ranked(row: Row): Ranked {
    return { row, rid: row.rid, values: this.valuesOf(row) };
  }

  private firstNotBefore(position: Position): number {
    return this.search((item) => comparePositions(this.keys, item, position) < 0);
  }

  /** Where positions with these first values begin, or end where `rid` lies behind all. */
  private bound(keys: readonly SortBy[], values: readonly Json[], rid: number): number {
    return this.search((item) => comparePositions(keys, item, { values, rid }) < 0);
  }

  private search(isBefore: (item: Ranked) => boolean): number {
    let [low, high] = [0, this.items.length];
    while (low < high) {
      const middle = (low + high) >>> 1;
      const item = this.items[middle];
      if (item !== undefined && isBefore(item)) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

/** What an index answers of a query, and the filters it leaves to be looked at one by one. */
export interface Narrowed {
  readonly span: Span;
  readonly left: readonly Filter[];
}

/**
 * All records of an entity in an order, narrowed by the filters that ask for equality: these come first in the
 * order of the index, so that what they leave is one stretch of it.
 */
export function indexed(
  service: Serving,
  dataset: Dataset,
  storage: EntityStorage,
  filters: readonly Filter[],
  keys: readonly SortBy[],
): Narrowed {
  const equal = filters.filter(isEquality);
  const left = filters.filter((filter) => !isEquality(filter));
  const first = equal.map(({ field, type }): SortBy => ({ field, type, descending: false }));
  const all = [...first, ...keys];
  const name = `${storage.entity.id} ${JSON.stringify(all.map(({ field, descending }) => [field, descending]))}`;
  const index = dataset.index(storage, name, (rows) => {
    const valuesOf = (row: Row): readonly Json[] =>
      all.map(({ field }) => fieldValue(service, dataset, row, field) ?? null);
    return new OrderedIndex(all, valuesOf, rows);
  });
  return { span: index.stretch(equal.map(({ value }) => value)), left };
}

type Equality = Filter & { readonly operator: 'eq'; readonly field: SortBy['field'] };

/**
 * Equality of something the record itself holds, since what it points at may change without it; and of a type
 * whose equal values stand together, which instants and durations that are written otherwise do not.
 */
const isEquality = (filter: Filter): filter is Equality =>
  filter.operator === 'eq' &&
  filter.field.kind !== 'through' &&
  filter.type.kind !== 'instant' &&
  filter.type.kind !== 'duration';
