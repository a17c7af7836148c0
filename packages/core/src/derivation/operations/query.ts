import type { SettingPlace } from '../../arrangement/index.js';
import type { Field, MemberType, QueryParameter, Reason, Reasons, SortKey } from '../../contract/index.js';
import type { ScalarType } from '../../model/index.js';
import { becauseSetAt, hasOwnSettings, valueOf, type Deriving } from '../context.js';
import { memberName } from '../names/members.js';
import type { Placed } from '../place/index.js';
import type { Trait } from '../shapes/index.js';

type Comparable = Trait & { readonly type: ScalarType };

const isScalar = (type: MemberType): type is ScalarType =>
  type.kind !== 'json' &&
  type.kind !== 'shape' &&
  type.kind !== 'list' &&
  type.kind !== 'links' &&
  type.kind !== 'page';

const isComparable = (trait: Trait): trait is Comparable => trait.returned && isScalar(trait.type);

/** The query parameters of a list: pages, sort keys, and a filter for each returned scalar. */
export function listParameters(
  deriving: Deriving,
  resource: Placed,
  traits: readonly Trait[],
): readonly QueryParameter[] {
  const { keys, filters } = comparableTraits(traits);
  const { page, size, sortName, sortReasons } = pagingOf(deriving, resource);
  const reserved = new Set([page.name, size.name, sortName]);
  return [
    page,
    size,
    { role: 'sort', name: sortName, keys, reasons: sortReasons },
    ...filters
      .filter(({ field }) => !isFixedByPath(resource, field))
      .filter((filter) => !reserved.has(filter.name) || reportReserved(deriving, resource, filter)),
  ];
}

interface Paging {
  readonly page: QueryParameter;
  readonly size: QueryParameter;
  readonly sortName: string;
  readonly sortReasons: Reasons;
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
  const reasons = [becauseSetAt(deriving, 'list.page', ['pageStyle', 'pageSize', 'maxPageSize'], at)];
  return {
    page: { role: 'page', name: memberName(deriving, valueOf(deriving, 'pageParameter', at)), reasons },
    size: {
      role: 'size',
      name: memberName(deriving, valueOf(deriving, 'sizeParameter', at)),
      default: valueOf(deriving, 'pageSize', at),
      max: valueOf(deriving, 'maxPageSize', at),
      reasons,
    },
    sortName: memberName(deriving, valueOf(deriving, 'sortParameter', at)),
    sortReasons: [becauseSetAt(deriving, 'list.sort', ['sortParameter'], at)],
  };
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
      keys: comparable.map((trait) => ({ name: trait.name, field: trait.source, type: trait.type })),
      filters: comparable.map((trait) => ({
        role: 'filter',
        name: trait.name,
        field: trait.source,
        type: trait.type,
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

function reportReserved(deriving: Deriving, resource: Placed, { name, reasons }: Filter): false {
  deriving.findings.push({
    id: 'parameter.reserved',
    severity: 'error',
    message: `${resource.path} cannot be filtered by ${name}: the parameter of that name is the list's own.`,
    about: resource.id,
    reasons,
  });
  return false;
}
