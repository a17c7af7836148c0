import type { SettingPlace, Settings } from '../../arrangement/index.js';
import { once } from '../../model/index.js';
import type { QueryParameter, Reason } from '../../contract/index.js';
import { becauseSetAt, hasOwnSettings, valueOf, type Deriving } from '../context.js';
import { memberName } from '../names/members.js';
import type { Placed } from '../place/index.js';

export type Search = Extract<QueryParameter, { role: 'search' }>;
export type Filter = Extract<QueryParameter, { role: 'filter' }>;

/** What lists that are paged alike have in common. */
export interface Paging {
  /** Which page, and how large it is. */
  readonly pages: readonly QueryParameter[];
  /** Without its keys; `null` where lists cannot be sorted. */
  readonly sort: Omit<Extract<QueryParameter, { role: 'sort' }>, 'keys'> | null;
  readonly filterStyle: Settings['filterStyle'];
  readonly filterReason: Reason;
  /** Without its fields; `null` where lists cannot be searched. */
  readonly search: Omit<Search, 'fields'> | null;
  readonly through: boolean;
  /** Filters through roles, by the name of the entity they narrow. */
  readonly throughOf: Map<string, readonly Filter[]>;
  /** All that a list can be asked for, and the relationships it can be narrowed by, by the name of its entity. */
  readonly queryOf: Map<string, readonly QueryParameter[]>;
  readonly narrowed: Map<string, ReadonlySet<string>>;
}

/** Lists without settings of their own are paged alike, so what they share is made once. */
const usualPaging = once((deriving: Deriving) => makePaging(deriving));

export function pagingOf(deriving: Deriving, { id }: Placed): Paging {
  const at = { resource: id, verb: 'list' };
  return hasOwnSettings(deriving, at) ? makePaging(deriving, at) : usualPaging(deriving);
}

function makePaging(deriving: Deriving, at?: SettingPlace): Paging {
  const sortStyle = valueOf(deriving, 'sortStyle', at);
  return {
    pages: pageParameters(deriving, at),
    sort:
      sortStyle === 'none'
        ? null
        : {
            role: 'sort',
            style: sortStyle,
            name: ownName(deriving, 'sortParameter', at),
            reasons: [becauseSetAt(deriving, 'list.sort', ['sortParameter', 'sortStyle'], at)],
          },
    filterStyle: valueOf(deriving, 'filterStyle', at),
    filterReason: becauseSetAt(deriving, 'list.filter-style', ['filterStyle'], at),
    search:
      valueOf(deriving, 'search', at) === 'off'
        ? null
        : {
            role: 'search',
            name: ownName(deriving, 'searchParameter', at),
            reasons: [becauseSetAt(deriving, 'list.search', ['search'], at)],
          },
    through: valueOf(deriving, 'filterThrough', at) === 'on',
    throughOf: new Map(),
    queryOf: new Map(),
    narrowed: new Map(),
  };
}

function pageParameters(deriving: Deriving, at?: SettingPlace): readonly QueryParameter[] {
  const style = valueOf(deriving, 'pageStyle');
  if (style === 'none') return [];
  const reasons = [
    becauseSetAt(deriving, 'list.page', ['pageStyle', 'pageSize', 'maxPageSize', 'oversize'], at),
  ];
  const named = (
    parameter: 'pageParameter' | 'sizeParameter' | 'offsetParameter' | 'limitParameter' | 'cursorParameter',
  ): string => memberName(deriving, valueOf(deriving, parameter, at));
  const max = valueOf(deriving, 'maxPageSize', at);
  const size = {
    role: 'size',
    name: named(style === 'number' ? 'sizeParameter' : 'limitParameter'),
    default: Math.min(valueOf(deriving, 'pageSize', at), max),
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
  deriving: Deriving,
  parameter: 'fieldsParameter' | 'expandParameter' | 'searchParameter' | 'sortParameter',
  at?: SettingPlace,
): string => memberName(deriving, valueOf(deriving, parameter, at));
