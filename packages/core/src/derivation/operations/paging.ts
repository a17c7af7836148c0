import type { SettingPlace, Settings } from '../../arrangement/index.js';
import { memoize } from '../../model/index.js';
import type { FilterParameter, QueryParameter, Reason } from '../../contract/index.js';
import { becauseSetAt, hasOwnSettings, valueOf, type DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import type { PlacedResource } from '../place/index.js';

export type SearchParameter = Extract<QueryParameter, { role: 'search' }>;

/** What lists that are paged alike have in common. */
export interface Paging {
  /** Which page, and how large it is. */
  readonly pages: readonly QueryParameter[];
  /** Without its keys; `null` where lists cannot be sorted. */
  readonly sort: Omit<Extract<QueryParameter, { role: 'sort' }>, 'keys'> | null;
  /** The directions of keys, where they are told beside them. */
  readonly order: Extract<QueryParameter, { role: 'order' }> | null;
  readonly filterStyle: Settings['filterStyle'];
  /** What the names of filters begin with where they are a family. */
  readonly family: string;
  readonly filterReason: Reason;
  /** Without its fields; `null` where lists cannot be searched. */
  readonly search: Omit<SearchParameter, 'fields'> | null;
  /** The resource that has settings of its own; `undefined` for all that have none. */
  readonly at: SettingPlace | undefined;
  /** By so many roles, one after another, lists can be filtered. */
  readonly steps: number;
  /** Filters through roles, by the name of the entity they narrow. */
  readonly throughOf: Map<string, readonly FilterParameter[]>;
  /** All that a list can be asked for, and the relationships it can be narrowed by, by the name of its entity. */
  readonly queryOf: Map<string, readonly QueryParameter[]>;
  readonly narrowed: Map<string, ReadonlySet<string>>;
}

/** Lists without settings of their own are paged alike, so what they share is made once. */
const usualPaging = memoize((context: DerivationContext) => makePaging(context));

export function pagingOf(context: DerivationContext, { id }: PlacedResource): Paging {
  const at = { resource: id, verb: 'list' };
  return hasOwnSettings(context, at) ? makePaging(context, at) : usualPaging(context);
}

function makePaging(context: DerivationContext, at?: SettingPlace): Paging {
  const sortStyle = valueOf(context, 'sortStyle', at);
  return {
    pages: pageParameters(context, at),
    sort:
      sortStyle === 'none'
        ? null
        : {
            role: 'sort',
            style: sortStyle,
            name: ownName(context, 'sortParameter', at),
            reasons: [becauseSetAt(context, 'list.sort', ['sortParameter', 'sortStyle'], at)],
          },
    order:
      sortStyle === 'beside'
        ? {
            role: 'order',
            name: ownName(context, 'orderParameter', at),
            reasons: [becauseSetAt(context, 'list.sort', ['orderParameter', 'sortStyle'], at)],
          }
        : null,
    filterStyle: valueOf(context, 'filterStyle', at),
    family: memberName(context, valueOf(context, 'filterParameter', at)),
    filterReason: becauseSetAt(context, 'list.filter-style', ['filterStyle'], at),
    search:
      valueOf(context, 'search', at) === 'off'
        ? null
        : {
            role: 'search',
            name: ownName(context, 'searchParameter', at),
            reasons: [becauseSetAt(context, 'list.search', ['search'], at)],
          },
    at,
    steps: valueOf(context, 'filterThrough', at) === 'on' ? valueOf(context, 'filterSteps', at) : 0,
    throughOf: new Map(),
    queryOf: new Map(),
    narrowed: new Map(),
  };
}

function pageParameters(context: DerivationContext, at?: SettingPlace): readonly QueryParameter[] {
  const style = valueOf(context, 'pageStyle', at);
  if (style === 'none' || style === 'ceiling') return [];
  const reasons = [
    becauseSetAt(context, 'list.page', ['pageStyle', 'pageSize', 'maxPageSize', 'oversize'], at),
  ];
  const named = (
    parameter: 'pageParameter' | 'sizeParameter' | 'offsetParameter' | 'limitParameter' | 'cursorParameter',
  ): string => memberName(context, valueOf(context, parameter, at));
  const max = valueOf(context, 'maxPageSize', at);
  const size = {
    role: 'size',
    name: named(style === 'number' ? 'sizeParameter' : 'limitParameter'),
    default: Math.min(valueOf(context, 'pageSize', at), max),
    max,
    reasons,
  } as const;
  switch (style) {
    case 'number':
      return [{ role: 'page', name: named('pageParameter'), reasons }, size];
    case 'offset':
      return [{ role: 'offset', name: named('offsetParameter'), reasons }, size];
    case 'cursor':
      return [{ role: 'cursor', name: named('cursorParameter'), reasons }, size];
  }
}

export const ownName = (
  context: DerivationContext,
  parameter: 'fieldsParameter' | 'expandParameter' | 'searchParameter' | 'sortParameter' | 'orderParameter',
  at?: SettingPlace,
): string => memberName(context, valueOf(context, parameter, at));
