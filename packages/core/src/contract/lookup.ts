import type { Operation, PageForm, ResponseCode } from './operation.js';
import { memoize } from '../model/index.js';
import type { MemberType, Shape } from './shape.js';
import type { Contract, Resource } from './types.js';

/** Look-ups over one contract, built once and kept with it. */
export interface ContractIndex {
  readonly resources: ReadonlyMap<string, Resource>;
  readonly shapes: ReadonlyMap<string, Shape>;
  readonly operations: ReadonlyMap<string, Operation>;
  readonly operationsOf: ReadonlyMap<string, readonly Operation[]>;
  /** The one resource at which records of an entity have their canonical address; by entity name. */
  readonly canonical: ReadonlyMap<string, Resource>;
  readonly childrenOf: ReadonlyMap<string, readonly Resource[]>;
}

/** Whether records have their canonical address at a resource. */
export const isHome = ({ kind, canonical }: Pick<Resource, 'kind' | 'canonical'>): boolean =>
  canonical && (kind === 'item' || kind === 'singleton');

export const indexContract = memoize((contract: Contract): ContractIndex => {
  const operationsOf = new Map<string, Operation[]>();
  for (const operation of contract.operations) {
    const list = operationsOf.get(operation.resource);
    if (list === undefined) operationsOf.set(operation.resource, [operation]);
    else list.push(operation);
  }
  const canonical = new Map<string, Resource>();
  const childrenOf = new Map<string, Resource[]>();
  for (const resource of contract.resources) {
    if (resource.entity !== null && isHome(resource)) {
      canonical.set(resource.entity, resource);
    }
    if (resource.parent === null) continue;
    const siblings = childrenOf.get(resource.parent);
    if (siblings === undefined) childrenOf.set(resource.parent, [resource]);
    else siblings.push(resource);
  }
  return {
    resources: new Map(contract.resources.map((resource) => [resource.id, resource])),
    shapes: new Map(contract.shapes.map((shape) => [shape.name, shape])),
    operations: new Map(contract.operations.map((operation) => [operation.id, operation])),
    operationsOf,
    canonical,
    childrenOf,
  };
});

/** The name of the shape that values of a type have, or the items of a list of them. */
export function shapeIn(type: MemberType): string | null {
  if (type.kind === 'shape') return type.shape;
  return type.kind === 'list' ? shapeIn(type.of) : null;
}

/** The path of a resource with the root, as a template: `/api/v1/routes`. */
export function wholePath(contract: Contract, resource: string): string {
  const path = contract.root + (indexContract(contract).resources.get(resource)?.path ?? '');
  return path === '' ? '/' : path;
}

/** Whether a resource can be read or listed. */
export const isReadable = ({ operationsOf }: ContractIndex, resource: string): boolean =>
  operationsOf.get(resource)?.some(({ method }) => method === 'GET') === true;

/** Whether what an operation writes or makes has an address that can be read, so that an answer can name it. */
export function isAddressed(contract: Contract, { verb, resource, custom }: Operation): boolean {
  const index = indexContract(contract);
  if (verb === 'attach') return isReadable(index, resource);
  const entity = custom?.kind === 'create' ? custom.entity : (index.resources.get(resource)?.entity ?? '');
  const home = index.canonical.get(entity);
  return home !== undefined && isReadable(index, home.id);
}

const SUCCEEDED: ReadonlySet<ResponseCode> = new Set<ResponseCode>(['ok', 'created', 'removed', 'attached']);

/** The status of an operation when it succeeds in the ordinary way. */
/** The form in which the list of a resource is answered; a query that is sent in a body has that of its path, too. */
export const listFormAt = (contract: Contract, resource: string): PageForm =>
  indexContract(contract)
    .operationsOf.get(resource)
    ?.find(({ verb }) => verb === 'list')?.paging ?? contract.paging;

export function successStatus(operation: Operation): number {
  return operation.responses.find(({ code }) => SUCCEEDED.has(code))?.status ?? 200;
}
