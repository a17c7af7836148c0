import type { SettingPlace, Settings } from '../../arrangement/index.js';
import type { Field, QueryParameter, Reason, SortKey } from '../../contract/index.js';
import type { ScalarType } from '../../model/index.js';
import { becauseSetAt, hasOwnSettings, valueOf, type Deriving } from '../context.js';
import { memberName } from '../names/members.js';
import type { Placed } from '../place/index.js';
import { isScalar, type Trait } from '../shapes/index.js';

type Comparable = Trait & { readonly type: ScalarType };

const isComparable = (trait: Trait): trait is Comparable => isScalar(trait.type);

/** The query parameters of a list: pages, sort keys, and a filter for each member that can be compared. */
export function listParameters(
  deriving: Deriving,
  resource: Placed,
  traits: readonly Trait[],
): readonly QueryParameter[] {
  const paging = pagingOf(deriving, resource);
  const { sort, filters } = offeredBy(paging, traits);
  const { pages } = paging;
  const isReserved = (name: string): boolean =>
    name === sort?.name || pages.some((parameter) => parameter.name === name);
  return [
    ...pages,
    ...(sort === null ? [] : [sort]),
    ...filters.filter((filter) => {
      if (isFixedByPath(resource, filter.field)) return false;
      if (isReserved(filter.name)) reportReserved(deriving, resource, filter);
      return !isReserved(filter.name);
    }),
  ];
}

interface Offered {
  readonly sort: QueryParameter | null;
  readonly filters: readonly Filter[];
}

/** What lists of one entity that are paged alike offer, made once. */
const offered = new WeakMap<Paging, WeakMap<readonly Trait[], Offered>>();

function offeredBy(paging: Paging, traits: readonly Trait[]): Offered {
  let byTraits = offered.get(paging);
  if (byTraits === undefined) {
    byTraits = new WeakMap();
    offered.set(paging, byTraits);
  }
  let found = byTraits.get(traits);
  if (found === undefined) {
    const { keys, filters } = comparableTraits(traits);
    found = {
      sort: paging.sort === null || keys.length === 0 ? null : { ...paging.sort, keys },
      filters: filters.flatMap((filter) => styled(filter, paging)),
    };
    byTraits.set(traits, found);
  }
  return found;
}

/** A filter as the style writes it; none where it has no operator left. */
function styled(filter: Filter, { filterStyle, filterReason }: Paging): readonly Filter[] {
  if (filterStyle === 'none') return [];
  const operators =
    filterStyle === 'bracketed' ? filter.operators : filter.operators.filter((operator) => operator === 'eq');
  return operators.length === 0 ? [] : [{ ...filter, operators, reasons: [...filter.reasons, filterReason] }];
}

interface Paging {
  /** Which page, and how large it is. */
  readonly pages: readonly QueryParameter[];
  /** Without its keys; `null` where lists cannot be sorted. */
  readonly sort: Omit<Extract<QueryParameter, { role: 'sort' }>, 'keys'> | null;
  readonly filterStyle: Settings['filterStyle'];
  readonly filterReason: Reason;
}

/** Lists without settings of their own are paged alike, so what they share is made once. */
const pagings = new WeakMap<Deriving, Paging>();

function pagingOf(deriving: Deriving, { id }: Placed): Paging {
  const at = { resource: id, verb: 'list' };
  if (hasOwnSettings(deriving, at)) return makePaging(deriving, at);
  let paging = pagings.get(deriving);
  if (paging === undefined) {
    paging = makePaging(deriving);
    pagings.set(deriving, paging);
  }
  return paging;
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
            name: memberName(deriving, valueOf(deriving, 'sortParameter', at)),
            reasons: [becauseSetAt(deriving, 'list.sort', ['sortParameter', 'sortStyle'], at)],
          },
    filterStyle: valueOf(deriving, 'filterStyle', at),
    filterReason: becauseSetAt(deriving, 'list.filter-style', ['filterStyle'], at),
  };
}

function pageParameters(deriving: Deriving, at?: SettingPlace): readonly QueryParameter[] {
  const style = valueOf(deriving, 'pageStyle');
  if (style === 'none') return [];
  const reasons = [
    becauseSetAt(deriving, 'list.page', ['pageStyle', 'pageSize', 'maxPageSize', 'oversize'], at),
  ];
  const named = (
    parameter: 'pageParameter' | 'sizeParameter' | 'offsetParameter' | 'limitParameter',
  ): string => memberName(deriving, valueOf(deriving, parameter, at));
  const max = valueOf(deriving, 'maxPageSize', at);
  const size = {
    role: 'size',
    name: named(style === 'number' ? 'sizeParameter' : 'limitParameter'),
    default: Math.min(valueOf(deriving, 'pageSize', at), max),
    max,
    reasons,
  } as const;
  return style === 'number'
    ? [{ role: 'page', name: named('pageParameter'), reasons }, size]
    : [{ role: 'offset', name: named('offsetParameter'), reasons }, size];
}

type Filter = Extract<QueryParameter, { role: 'filter' }>;

interface ComparableTraits {
  readonly keys: readonly SortKey[];
  readonly filters: readonly Filter[];
}

/** The lists of one entity sort and filter alike, so what they share is made once. */
const known = new WeakMap<readonly Trait[], ComparableTraits>();

function comparableTraits(traits: readonly Trait[]): ComparableTraits {
  let found = known.get(traits);
  if (found === undefined) {
    const comparable = traits.filter(isComparable);
    found = {
      keys: comparable
        .filter(({ exposed }) => exposed.sort === 'yes')
        .map((trait) => ({ name: trait.name, field: trait.source, type: trait.type })),
      filters: comparable
        .filter(({ exposed }) => exposed.filter.length > 0)
        .map((trait) => ({
          role: 'filter',
          name: trait.name,
          field: trait.source,
          type: trait.type,
          operators: trait.exposed.filter,
          reasons: [filterReason(trait)],
        })),
    };
    known.set(traits, found);
  }
  return found;
}

/** The path says already which owner or which target: a filter on it could only contradict. */
const isFixedByPath = (resource: Placed, field: Field): boolean =>
  field.kind !== 'attribute' && resource.via?.relationship === field.relationship;

function filterReason({ reasons }: Trait): Reason {
  for (const { because } of reasons) {
    const statement = because.find(({ kind }) => kind === 'statement');
    if (statement !== undefined) return { rule: 'list.filter', because: [statement] };
  }
  return { rule: 'list.filter', because: [] };
}

function reportReserved(deriving: Deriving, resource: Placed, { name, reasons }: Filter): void {
  deriving.findings.push({
    id: 'parameter.reserved',
    severity: 'error',
    message: `${resource.path} cannot be filtered by ${name}: the parameter of that name is the list's own.`,
    about: resource.id,
    reasons,
  });
}
