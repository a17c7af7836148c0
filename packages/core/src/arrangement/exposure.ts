/** How a filter compares: with one value, with several, or with whether there is one. */
export const FILTER_OPERATORS = [
  'eq',
  'ne',
  'in',
  'lt',
  'lte',
  'gt',
  'gte',
  'contains',
  'icontains',
  'starts',
  'unset',
] as const;
export type FilterOperator = (typeof FILTER_OPERATORS)[number];

/** The operators of a member for which none were chosen: all it can have, but to look for a text in whatever case. */
export const usualOperators = (all: readonly FilterOperator[]): readonly FilterOperator[] =>
  all.includes('icontains') ? all.filter((operator) => operator !== 'icontains') : all;

export type Visibility = 'yes' | 'no';
export type Acceptance = 'must' | 'may' | 'no';

/** What goes in and what comes out of one member: a column each of the exposure grid. */
export interface Exposure {
  /** Returned by a read. */
  readonly out: Visibility;
  /** Returned in lists. */
  readonly list: Visibility;
  readonly create: Acceptance;
  readonly replace: Acceptance;
  readonly change: 'may' | 'no';
  /** The operators it can be filtered by. */
  readonly filter: readonly FilterOperator[];
  readonly sort: Visibility;
  /** Looked at by a search. */
  readonly search: Visibility;
}

export type Aspect = keyof Exposure;

export const ASPECTS: readonly Aspect[] = [
  'out',
  'list',
  'create',
  'replace',
  'change',
  'filter',
  'sort',
  'search',
];

/** What can be chosen for a member besides the cells of its row: what it is called. */
export type MemberAspect = Aspect | 'name';

/** A name of a member (RFC 8259 §4 takes any text) that filters, links and templates can hold as it is. */
export const MEMBER_NAME = /^[A-Za-z_][A-Za-z0-9_-]{0,59}$/;

/** Aspects that somebody chose for one member, and its name where it is called otherwise than in the model. */
export type ExposureChoice = Partial<Exposure> & { readonly name?: string };

/** By the identity of an entity, then by that of an attribute, a reference or the ownership. */
export type Exposures = { readonly [name: string]: { readonly [name: string]: ExposureChoice } };

/** What may be chosen at all; the model allows less of it for most members. */
export const ASPECT_VALUES: {
  readonly [A in Exclude<Aspect, 'filter'>]: readonly Exposure[A][];
} = {
  out: ['yes', 'no'],
  list: ['yes', 'no'],
  create: ['must', 'may', 'no'],
  replace: ['must', 'may', 'no'],
  change: ['may', 'no'],
  sort: ['yes', 'no'],
  search: ['yes', 'no'],
};

/** Nothing was chosen. */
export const NOT_CHOSEN: ExposureChoice = {};

/** What was chosen for a member. */
export function exposureChoice(exposures: Exposures, entity: string, member: string): ExposureChoice {
  const ofEntity = Object.hasOwn(exposures, entity) ? exposures[entity] : undefined;
  return ofEntity !== undefined && Object.hasOwn(ofEntity, member)
    ? (ofEntity[member] ?? NOT_CHOSEN)
    : NOT_CHOSEN;
}
