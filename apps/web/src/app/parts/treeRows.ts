import { grouped } from './grouped.js';
import type { Operation, Resource } from '@isomeros/core/contract';

type PlacedResource = Pick<Resource, 'id' | 'path' | 'parent'>;
type PlacedOperation = Pick<Operation, 'id' | 'resource'>;

/** What a path tree is drawn from: a contract, or its outline. */
export interface TreeSource<R extends PlacedResource, O extends PlacedOperation> {
  readonly resources: readonly R[];
  readonly operations: readonly O[];
}

/** A row of the path tree. */
export interface TreeRow<R extends PlacedResource, O extends PlacedOperation> {
  readonly resource: R;
  readonly operations: readonly O[];
  /** How many rows it lies below the entry. */
  readonly level: number;
  /** The part of the path that the row above does not have. */
  readonly tail: string;
}

/** The path tree as rows, each below what it hangs from. Linear in resources and operations. */
export function treeRows<R extends PlacedResource, O extends PlacedOperation>({
  resources,
  operations,
}: TreeSource<R, O>): readonly TreeRow<R, O>[] {
  const operationsOf = grouped(operations, ({ resource }) => resource);
  const childrenOf = grouped(resources, ({ parent }) => parent);
  const rows: TreeRow<R, O>[] = [];
  const add = (resource: R, level: number, above: string): void => {
    const tail = resource.path.slice(above.length);
    rows.push({ resource, operations: operationsOf.get(resource.id) ?? [], level, tail });
    for (const child of childrenOf.get(resource.id) ?? []) add(child, level + 1, resource.path);
  };
  for (const resource of childrenOf.get(null) ?? []) add(resource, 0, '');
  return rows;
}
