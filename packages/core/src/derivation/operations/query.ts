import {
  filterTerm,
  type Field,
  type FilterParameter,
  type OrderKey,
  type QueryParameter,
  type QuickFix,
  type Reason,
  type SortKey,
} from '../../contract/index.js';
import { entryOf, memoize, type Entity, type ScalarType } from '../../model/index.js';
import { becauseSetAt, hasOwnSettings, valueOf, type DerivationContext } from '../context.js';
import type { SettingPlace } from '../../arrangement/index.js';
import type { PlacedResource } from '../place/index.js';
import { filtersThrough, MOST_THROUGH } from './filtersThrough.js';
import { ownName, pagingOf, type Paging, type SearchParameter } from './paging.js';
import { expansionsOf, isScalar, type MemberTraits, type Traits } from '../shapes/index.js';

type Comparable = MemberTraits & { readonly type: ScalarType };

const isComparable = (trait: MemberTraits): trait is Comparable => isScalar(trait.type);

/** What a list can be asked for, and its order where nobody asks. */
export interface ListPolicy {
  readonly query: readonly QueryParameter[];
  readonly order: readonly OrderKey[];
}

/** Of a list: pages, sort keys, a search, chosen members, and a filter for each member that can be compared. */
export function listPolicy(
  context: DerivationContext,
  resource: PlacedResource,
  entity: Entity,
  all: Traits,
): ListPolicy {
  const traits = all.get(entity.name) ?? [];
  const paging = pagingOf(context, resource);
  const isNarrowed = paging.narrowed.get(entity.name)?.has(resource.via?.relationship ?? '') ?? false;
  const known = isNarrowed ? undefined : paging.queryOf.get(entity.name);
  const query = known ?? listQuery(context, resource, entity, all, paging);
  return { query, order: orderOf(context, resource, traits) };
}

/** Lists of one entity that are paged alike ask for the same, unless their path says some of it or names collide. */
function listQuery(
  context: DerivationContext,
  resource: PlacedResource,
  entity: Entity,
  all: Traits,
  paging: Paging,
): readonly QueryParameter[] {
  const traits = all.get(entity.name) ?? [];
  const { sort, filters, search } = offeredBy(paging, traits);
  const findings = context.findings.length;
  const own = withoutCollisions(context, resource, [
    ...paging.pages,
    ...(sort === null ? [] : [sort, ...(paging.order === null ? [] : [paging.order])]),
    ...(search === null ? [] : [search]),
    ...recordParameters(context, resource, entity, traits),
  ]);
  const taken = new Set(own.map(({ name }) => name));
  const isTaken = (filter: FilterParameter): boolean => {
    const names = new Set(filter.operators.map((operator) => filterTerm(filter, operator).name));
    const isFree = [...names].every((name) => !taken.has(name));
    if (isFree) for (const name of names) taken.add(name);
    return !isFree;
  };
  const through = paging.steps > 0 ? offeredThrough(context, paging, resource, entity, all) : [];
  const offeredFilters = through.length === 0 ? filters : [...filters, ...through];
  const query = [
    ...own,
    ...offeredFilters.filter((filter) => {
      if (isFixedByPath(resource, filter.field)) return false;
      if (!isTaken(filter)) return true;
      reportReserved(context, resource, filter);
      return false;
    }),
  ];
  paging.narrowed.set(entity.name, relationshipsOf(offeredFilters));
  const isWhole = query.length === own.length + offeredFilters.length;
  if (isWhole && context.findings.length === findings) paging.queryOf.set(entity.name, query);
  return query;
}

/** The relationships by which some filter narrows. */
const relationshipsOf = (filters: readonly FilterParameter[]): ReadonlySet<string> =>
  new Set(
    filters.flatMap(({ field }) =>
      field.kind === 'attribute' || field.kind === 'computed' ? [] : [field.relationship],
    ),
  );

/** Of two parameters that were given one name the second is left out, and reported. */
export function withoutCollisions(
  context: DerivationContext,
  resource: Pick<PlacedResource, 'id' | 'path'>,
  parameters: readonly QueryParameter[],
): readonly QueryParameter[] {
  // How large a page is decides more than which one it is.
  const size = parameters.find(({ role }) => role === 'size');
  const names = new Set(size === undefined ? [] : [size.name]);
  return parameters.filter((parameter) => {
    const isFirst = parameter === size || !names.has(parameter.name);
    names.add(parameter.name);
    if (!isFirst) reportReserved(context, resource, parameter);
    return isFirst;
  });
}

/** What an answer with records can be asked for: only some of its members, and related records inside. */
export function recordParameters(
  context: DerivationContext,
  { id }: Pick<PlacedResource, 'id'>,
  entity: Entity,
  traits: readonly MemberTraits[],
): readonly QueryParameter[] {
  const at = { resource: id };
  return hasOwnSettings(context, at)
    ? makeRecordParameters(context, entity, traits, at)
    : usualRecordParameters(traits, context, entity);
}

const usualRecordParameters = memoize(
  (traits: readonly MemberTraits[], context: DerivationContext, entity: Entity): readonly QueryParameter[] =>
    makeRecordParameters(context, entity, traits),
);

function makeRecordParameters(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
  at?: SettingPlace,
): readonly QueryParameter[] {
  const parameters: QueryParameter[] = [];
  if (valueOf(context, 'fields', at) === 'on') {
    const names = traits.filter(({ exposed }) => exposed.out === 'yes').map(({ name }) => name);
    const reasons = [becauseSetAt(context, 'list.fields', ['fields'], at, entity)];
    if (names.length > 0)
      parameters.push({ role: 'fields', name: ownName(context, 'fieldsParameter'), names, reasons });
  }
  if (valueOf(context, 'expand', at) === 'off') return parameters;
  const taken = new Set(traits.map(({ name }) => name));
  const names = expansionsOf(context, entity.name)
    .map(({ name }) => name)
    .filter((name) => !taken.has(name));
  if (names.length > 0)
    parameters.push({
      role: 'expand',
      name: ownName(context, 'expandParameter'),
      names,
      depth: valueOf(context, 'expandDepth', at),
      reasons: [becauseSetAt(context, 'member.expanded', ['expand', 'expandDepth'], at, entity)],
    });
  return parameters;
}

/** The order that was chosen; keys that the list does not show are reported and left out. */
function orderOf(
  context: DerivationContext,
  { id, path }: PlacedResource,
  traits: readonly MemberTraits[],
): readonly OrderKey[] {
  const at = { resource: id, verb: 'list' };
  const chosen = valueOf(context, 'defaultSort', at);
  if (chosen.length === 0) return [];
  const { keys } = comparableTraits(traits);
  return chosen.flatMap((written) => {
    const name = written.replace(/^-/, '');
    // The choice stays when what it names is called otherwise afterwards.
    const called = traits.find(({ derived }) => derived === name)?.name;
    const key =
      keys.find((candidate) => candidate.name === name) ??
      keys.find((candidate) => candidate.name === called);
    if (key !== undefined) return [{ ...key, descending: written.startsWith('-') }];
    context.findings.push({
      id: 'list.order',
      severity: 'error',
      message: `${path} cannot be sorted by ${name}: there are ${keys.map((one) => one.name).join(', ')}.`,
      about: id,
      reasons: [becauseSetAt(context, 'finding.order', ['defaultSort'], at)],
    });
    return [];
  });
}

/** Filters through roles, found once for the lists of an entity that are paged alike. */
function offeredThrough(
  context: DerivationContext,
  paging: Paging,
  { id, path }: PlacedResource,
  entity: Entity,
  all: Traits,
): readonly FilterParameter[] {
  const found = entryOf(paging.throughOf, entity.name, () =>
    filtersThrough(context, paging, entity, (name) => comparableTraits(all.get(name) ?? []).filters).flatMap(
      (filter) => styled(filter, paging),
    ),
  );
  if (found.length <= MOST_THROUGH) return found;
  const steps = Math.max(1, paging.steps - 1);
  context.findings.push({
    id: 'list.filters',
    severity: 'doubtful',
    message: `${path} has more than ${MOST_THROUGH} filters through roles; the nearest ${MOST_THROUGH} are offered.`,
    about: id,
    reasons: [becauseSetAt(context, 'list.through', ['filterThrough', 'filterSteps'], paging.at)],
    quickFixes: [
      {
        title: `Filter by ${steps === 1 ? 'one role' : `${steps} roles`} at most`,
        answer: { kind: 'setting', name: 'filterSteps', value: steps, resource: id },
      },
    ],
  });
  return found.slice(0, MOST_THROUGH);
}

interface Offered {
  readonly sort: QueryParameter | null;
  readonly filters: readonly FilterParameter[];
  readonly search: QueryParameter | null;
}

/** What lists of one entity that are paged alike offer. */
const offeredWith = memoize((paging: Paging) =>
  memoize((traits: readonly MemberTraits[]): Offered => {
    const { keys, filters } = comparableTraits(traits);
    return {
      sort: paging.sort === null || keys.length === 0 ? null : { ...paging.sort, keys },
      filters: filters.flatMap((filter) => styled(filter, paging)),
      search: paging.search === null ? null : searchOf(paging.search, traits),
    };
  }),
);

const offeredBy = (paging: Paging, traits: readonly MemberTraits[]): Offered => offeredWith(paging)(traits);

/** Looks at every text that answers show; none where there is none. */
function searchOf(
  search: Omit<SearchParameter, 'fields'>,
  traits: readonly MemberTraits[],
): SearchParameter | null {
  const fields = traits.filter(({ exposed }) => exposed.search === 'yes').map(({ source }) => source);
  return fields.length === 0 ? null : { ...search, fields };
}

/** A filter as the style writes it; none where it has no operator left. */
function styled(filter: FilterParameter, paging: Paging): readonly FilterParameter[] {
  const { filterStyle: style, filterReason } = paging;
  if (style === 'none') return [];
  const isPlain = style === 'plain';
  const operators = isPlain ? filter.operators.filter((operator) => operator === 'eq') : filter.operators;
  if (operators.length === 0) return [];
  const spelling = isPlain ? 'bracketed' : style;
  const family = style === 'family' ? paging.family : '';
  return [{ ...filter, operators, spelling, family, reasons: [...filter.reasons, filterReason] }];
}

interface ComparableTraits {
  readonly keys: readonly SortKey[];
  readonly filters: readonly FilterParameter[];
}

/** The lists of one entity sort and filter alike, so what they share is made once. */
const comparableTraits = memoize((traits: readonly MemberTraits[]): ComparableTraits => {
  const comparable = traits.filter(isComparable);
  return {
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
        spelling: 'bracketed',
        family: '',
        reasons: [filterReason(trait)],
      })),
  };
});

/** The path says already which owner or which target: a filter on it could only contradict. */
const isFixedByPath = (resource: PlacedResource, field: Field): boolean =>
  'relationship' in field && resource.via?.relationship === field.relationship;

function filterReason({ reasons }: MemberTraits): Reason {
  for (const { because } of reasons) {
    const statement = because.find(({ kind }) => kind === 'statement');
    if (statement !== undefined) return { rule: 'list.filter', because: [statement] };
  }
  return { rule: 'list.filter', because: [] };
}

function reportReserved(
  context: DerivationContext,
  resource: Pick<PlacedResource, 'id' | 'path'>,
  parameter: QueryParameter,
): void {
  const { name, reasons } = parameter;
  const isSpelled = parameter.role === 'filter' && parameter.spelling !== 'family';
  context.findings.push({
    id: 'parameter.reserved',
    severity: 'error',
    message: `${resource.path} has another parameter called ${name}; the second is left out.`,
    about: resource.id,
    reasons,
    ...(isSpelled ? { quickFixes: [asFamily(resource)] } : {}),
  });
}

/** In a family no filter can be called as another parameter is. */
const asFamily = ({ id, path }: Pick<PlacedResource, 'id' | 'path'>): QuickFix => ({
  title: `Write the filters of ${path} as a family`,
  answer: { kind: 'setting', name: 'filterStyle', value: 'family', resource: id },
});
