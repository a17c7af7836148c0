import { memoize, type EntityStorage, type Json, type Row } from '../../model/index.js';
import type { Dataset, RecordIndex } from '../dataset.js';
import type { OfModel } from '../service.js';
import { fieldValue } from './field.js';
import type { Filter } from './filter.js';
import type { ListQuery } from './listQuery.js';
import { inOrder, positionOrder, type Ranked, type SortBy } from './sort.js';
import { Sorted } from './sorted.js';
import { IndexRange } from './indexRange.js';

/** So many stretches of an order are remembered at once. */
const MOST_STRETCHES = 1_000;

/** The values that all records of a stretch begin with, and a text that differs where they do. */
interface Prefix {
  readonly values: readonly Json[];
  readonly text: string;
}

/** An order that somebody asked for once, kept up to date from then on. */
class OrderedIndex implements RecordIndex {
  private readonly items: Sorted;
  /** The stretches that were looked up since something changed, by their first values. */
  private readonly stretches = new Map<string, IndexRange>();

  constructor(
    private readonly keys: readonly SortBy[],
    private readonly valuesOf: (row: Row) => readonly Json[],
    rows: Iterable<Row>,
  ) {
    const items = [...rows].map((row) => this.ranked(row));
    this.items = new Sorted(inOrder(items, keys), positionOrder(keys));
  }

  add(row: Row): void {
    this.items.add(this.ranked(row));
    this.stretches.clear();
  }

  remove(row: Row): void {
    this.items.remove(this.ranked(row));
    this.stretches.clear();
  }

  /** The records whose first values are these. */
  stretch({ values, text }: Prefix): IndexRange {
    if (values.length === 0) return new IndexRange(this.items);
    const known = this.stretches.get(text);
    if (known !== undefined) return known;
    const keys = this.keys.slice(0, values.length);
    const from = this.bound(keys, values, -Infinity);
    const span = new IndexRange(this.items, from, this.bound(keys, values, Infinity), values.length);
    if (this.stretches.size === MOST_STRETCHES) this.stretches.clear();
    this.stretches.set(text, span);
    return span;
  }

  private ranked(row: Row): Ranked {
    return { row, rid: row.rid, values: this.valuesOf(row) };
  }

  /** Where positions with these first values begin, or end where `rid` lies behind all. */
  private bound(keys: readonly SortBy[], values: readonly Json[], rid: number): number {
    const order = positionOrder(keys);
    return this.items.firstNot((item) => order(item, { values, rid }) < 0);
  }
}

/** What an index answers of a query, and the filters it leaves to be looked at one by one. */
export interface IndexScan {
  readonly span: IndexRange;
  readonly left: readonly Filter[];
}

/** What narrows a list; the same object for as long as the same is asked. */
type Narrowing = Pick<ListQuery, 'filters'>;

/** How a query is answered by an index; the same for as long as somebody asks it. */
interface Plan {
  readonly storage: EntityStorage;
  /** Says everything about the index. */
  readonly name: string;
  readonly keys: readonly SortBy[];
  readonly prefix: Prefix;
  readonly left: readonly Filter[];
}

/** A query of an entity is always decided by the same keys. */
const plansOf = memoize((query: Narrowing) =>
  memoize((storage: EntityStorage, keys: readonly SortBy[]): Plan => {
    const equal = query.filters.filter(isEquality);
    const first = equal.map(({ field, type }): SortBy => ({ field, type, descending: false }));
    const all = [...first, ...keys];
    const values = equal.map(({ value }) => value);
    return {
      storage,
      name: `${storage.entity.id} ${JSON.stringify(all.map(({ field, descending }) => [field, descending]))}`,
      keys: all,
      prefix: { values, text: JSON.stringify(values) },
      left: query.filters.filter((filter) => !isEquality(filter)),
    };
  }),
);

const planOf = (storage: EntityStorage, query: Narrowing, keys: readonly SortBy[]): Plan =>
  plansOf(query)(storage, keys);

/**
 * All records of an entity in an order, narrowed by the filters that ask for equality: these come first in the
 * order of the index, so that what they leave is one stretch of it.
 */
export function indexed(
  service: OfModel,
  dataset: Dataset,
  storage: EntityStorage,
  query: Narrowing,
  sort: readonly SortBy[],
): IndexScan {
  const { name, keys, prefix, left } = planOf(storage, query, sort);
  const index = dataset.index(storage, name, (rows) => {
    const valuesOf = (row: Row): readonly Json[] =>
      keys.map(({ field }) => fieldValue(service, dataset, row, field) ?? null);
    return new OrderedIndex(keys, valuesOf, rows);
  });
  return { span: index.stretch(prefix), left };
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
