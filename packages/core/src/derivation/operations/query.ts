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
  const { keys, filters } = comparableTraits(traits);
  const { pages, sort, filterStyle, filterReason } = pagingOf(deriving, resource);
  const reserved = new Set([...pages.map(({ name }) => name), ...(sort === null ? [] : [sort.name])]);
  return [
    ...pages,
    ...(sort === null || keys.length === 0 ? [] : [{ ...sort, keys }]),
    ...filters.flatMap((filter): Filter[] => {
      const operators = filter.operators.filter(
        (operator) => filterStyle === 'bracketed' || operator === 'eq',
      );
      if (filterStyle === 'none' || operators.length === 0 || isFixedByPath(resource, filter.field))
        return [];
      const offered = { ...filter, operators, reasons: [...filter.reasons, filterReason] };
      return reserved.has(filter.name) ? reportReserved(deriving, resource, offered) : [offered];
    }),
  ];
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

function reportReserved(deriving: Deriving, resource: Placed, { name, reasons }: Filter): never[] {
  deriving.findings.push({
    id: 'parameter.reserved',
    severity: 'error',
    message: `${resource.path} cannot be filtered by ${name}: the parameter of that name is the list's own.`,
    about: resource.id,
    reasons,
  });
  return [];
}
