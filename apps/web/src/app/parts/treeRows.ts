import { indexContract, type Contract, type Operation, type Resource } from '@isomeros/core/contract';

/** A row of the path tree. */
export interface TreeRow {
  readonly resource: Resource;
  readonly operations: readonly Operation[];
  /** How many rows it lies below the entry. */
  readonly level: number;
  /** The part of the path that the row above does not have. */
  readonly tail: string;
}

const cache = new WeakMap<Contract, readonly TreeRow[]>();

/** The path tree as rows, each below what it hangs from. */
export function treeRows(contract: Contract): readonly TreeRow[] {
  const known = cache.get(contract);
  if (known !== undefined) return known;
  const { childrenOf, operationsOf } = indexContract(contract);
  const rows: TreeRow[] = [];
  const add = (resource: Resource, level: number, above: string): void => {
    const tail = resource.path.slice(above.length);
    rows.push({ resource, operations: operationsOf.get(resource.id) ?? [], level, tail });
    for (const child of childrenOf.get(resource.id) ?? []) add(child, level + 1, resource.path);
  };
  for (const resource of contract.resources) if (resource.parent === null) add(resource, 0, '');
  cache.set(contract, rows);
  return rows;
}
