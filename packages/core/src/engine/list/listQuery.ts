import type { ExpandTree } from './expand.js';
import type { Filter } from './filter.js';
import type { Search } from './search.js';
import type { Position, SortBy } from './sort.js';

/** Where a page begins or ends: beside a record that need not be there any more. */
export interface Cursor {
  readonly direction: 'after' | 'before';
  readonly position: Position;
}

/** Which records of an ordered list are asked for. */
export type PageRequest =
  | { readonly kind: 'all' }
  /** So many from the beginning, and no other page. */
  | { readonly kind: 'first'; readonly size: number }
  /** The same, where it is told whether there are more. */
  | { readonly kind: 'ceiling'; readonly size: number }
  | { readonly kind: 'offset'; readonly offset: number; readonly size: number }
  | { readonly kind: 'cursor'; readonly cursor: Cursor | null; readonly size: number };

/** How much of each record is wanted. */
export interface Projection {
  /** Names of members; `null` for all of them. */
  readonly fields: ReadonlySet<string> | null;
  readonly expand: ExpandTree;
  /** Whether the record stands inside another one, which shows it for that alone. */
  readonly isInside?: boolean;
}

/** A query, typed and checked. */
export interface ListQuery extends Projection {
  readonly page: PageRequest;
  readonly sort: readonly SortBy[];
  readonly filters: readonly Filter[];
  readonly search: Search | null;
}
