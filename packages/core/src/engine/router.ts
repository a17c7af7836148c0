import { indexContract, type Contract, type Operation, type Resource } from '../contract/index.js';
import { memoize } from '../model/index.js';

/** A node of the path tree as requests walk it: a literal wins over an id, always. */
interface Node {
  readonly literals: Map<string, Node>;
  id: Node | null;
  resource: Resource | null;
}

export interface MatchedRoute {
  readonly resource: Resource;
  /** The text of each id in the path, in order. */
  readonly ids: readonly string[];
  readonly operations: ReadonlyMap<string, Operation>;
}

export interface Router {
  match(segments: readonly string[]): MatchedRoute | null;
}

/** Finds the resource of a path in as many steps as the path has segments. */
export const routerOf = memoize((contract: Contract): Router => {
  const top: Node = { literals: new Map(), id: null, resource: null };
  const { operationsOf } = indexContract(contract);
  const root = contract.root.split('/').filter((text) => text !== '');
  const start = root.reduce(literalChild, top);
  for (const resource of contract.resources) {
    // Where every operation is left out, there is no such path.
    if (!operationsOf.has(resource.id)) continue;
    let node = start;
    for (const segment of resource.segments) {
      node = segment.kind === 'literal' ? literalChild(node, segment.text) : idChild(node);
    }
    node.resource = resource;
  }
  const operations = new Map(
    contract.resources.map(({ id }) => [
      id,
      new Map((operationsOf.get(id) ?? []).map((o) => [o.method as string, o])),
    ]),
  );
  return {
    match(segments) {
      let node: Node | null = top;
      const ids: string[] = [];
      for (const segment of segments) {
        const literal: Node | undefined = node.literals.get(segment);
        if (literal !== undefined) node = literal;
        else if (node.id === null || segment === '') return null;
        else {
          ids.push(segment);
          node = node.id;
        }
      }
      if (node.resource === null) return null;
      return {
        resource: node.resource,
        ids,
        operations: operations.get(node.resource.id) ?? new Map<string, Operation>(),
      };
    },
  };
});

function literalChild(node: Node, text: string): Node {
  let child = node.literals.get(text);
  if (child === undefined) {
    child = { literals: new Map(), id: null, resource: null };
    node.literals.set(text, child);
  }
  return child;
}

function idChild(node: Node): Node {
  node.id ??= { literals: new Map(), id: null, resource: null };
  return node.id;
}
