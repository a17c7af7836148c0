import type { Field, MemberType, QueryParameter, Reason, SortKey } from '../../contract/index.js';
import type { ScalarType } from '../../model/index.js';
import { becauseSet, valueOf, type Deriving } from '../context.js';
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
  const pageName = valueOf(deriving, 'pageParameter');
  const sizeName = valueOf(deriving, 'sizeParameter');
  const sortName = valueOf(deriving, 'sortParameter');
  const comparable = traits.filter(isComparable);
  const reserved = new Set([pageName, sizeName, sortName]);
  const page = becauseSet(deriving, 'list.page', ['pageStyle', 'pageSize', 'maxPageSize']);
  return [
    { role: 'page', name: pageName, reasons: [page] },
    {
      role: 'size',
      name: sizeName,
      default: valueOf(deriving, 'pageSize'),
      max: valueOf(deriving, 'maxPageSize'),
      reasons: [page],
    },
    {
      role: 'sort',
      name: sortName,
      keys: sortKeys(comparable),
      reasons: [becauseSet(deriving, 'list.sort', ['sortParameter'])],
    },
    ...comparable
      .filter((trait) => !isFixedByPath(resource, trait.source))
      .filter((trait) => !reserved.has(trait.name) || reportReserved(deriving, resource, trait))
      .map((trait): QueryParameter => ({
        role: 'filter',
        name: trait.name,
        field: trait.source,
        type: trait.type,
        reasons: [filterReason(trait)],
      })),
  ];
}

const sortKeys = (traits: readonly Comparable[]): SortKey[] =>
  traits.map((trait) => ({ name: trait.name, field: trait.source, type: trait.type }));

/** The path says already which owner or which target: a filter on it could only contradict. */
const isFixedByPath = (resource: Placed, field: Field): boolean =>
  field.kind !== 'attribute' && resource.via?.relationship === field.relationship;

const filterReason = (trait: Trait): Reason => ({
  rule: 'list.filter',
  because: trait.reasons
    .flatMap((reason) => reason.because.filter((source) => source.kind === 'statement'))
    .slice(0, 1),
});

function reportReserved(deriving: Deriving, resource: Placed, trait: Trait): false {
  deriving.findings.push({
    id: 'parameter.reserved',
    severity: 'error',
    message: `${resource.path} cannot be filtered by ${trait.name}: the parameter of that name is the list's own.`,
    about: resource.id,
    reasons: [filterReason(trait)],
  });
  return false;
}
