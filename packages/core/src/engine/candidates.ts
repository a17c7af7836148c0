import { indexContract, wholePath, type Contract, type Operation, type Resource } from '../contract/index.js';
import type { EngineRequest } from './message.js';
import { routerOf } from './router.js';
import { readTarget } from './target.js';

/** An operation that a request might have been meant for, and why it was not. */
export interface Candidate {
  readonly operation: string;
  /** `GET /api/v1/routes/{routeId}` */
  readonly address: string;
  readonly why: string;
}

/** So many of the nearest paths are named where none matches. */
const NEAREST = 3;

/**
 * The operations that lost when a request was matched: those of other methods at the same path, those at a path
 * whose id a literal segment wins over, and, where no path matches, those of the nearest ones.
 */
export function losingCandidates(
  contract: Contract,
  { method, target }: Pick<EngineRequest, 'method' | 'target'>,
): readonly Candidate[] {
  const read = readTarget(target);
  if (!read.ok) return [];
  const { segments } = read.target;
  const asked = method === 'HEAD' ? 'GET' : method;
  const route = routerOf(contract).match(segments);
  const root = contract.root.split('/').filter((text) => text !== '');
  if (route === null) return nearest(contract, root, segments, asked);
  const here = operationsAt(contract, route.resource)
    .filter((operation) => operation.method !== asked)
    .map((operation) => candidate(contract, operation, `it is for ${operation.method}`));
  const shadowed = contract.resources
    .filter((resource) => resource !== route.resource && fits(root, resource, segments))
    .flatMap((resource) => operationsAt(contract, resource))
    .filter((operation) => operation.method === asked)
    .map((operation) => candidate(contract, operation, 'a literal segment wins over an id'));
  return [...shadowed, ...here];
}

const operationsAt = (contract: Contract, resource: Resource): readonly Operation[] =>
  indexContract(contract).operationsOf.get(resource.id) ?? [];

function candidate(contract: Contract, { id, method, resource }: Operation, why: string): Candidate {
  return { operation: id, address: `${method} ${wholePath(contract, resource)}`, why };
}

/** The texts of a whole path; `null` stands for an id. */
const textsOf = (root: readonly string[], { segments }: Resource): readonly (string | null)[] => [
  ...root,
  ...segments.map((segment) => (segment.kind === 'id' ? null : segment.text)),
];

function fits(root: readonly string[], resource: Resource, given: readonly string[]): boolean {
  const path = textsOf(root, resource);
  return path.length === given.length && agreement(path, given) === path.length;
}

/** How many segments agree from the beginning. */
function agreement(path: readonly (string | null)[], given: readonly string[]): number {
  const at = path.findIndex((text, index) => {
    const one = given[index];
    return one === undefined || one === '' || (text !== null && text !== one);
  });
  return at === -1 ? path.length : at;
}

/** The operations of the nearest paths: first those that agree longest, then those that are as long. */
function nearest(
  contract: Contract,
  root: readonly string[],
  given: readonly string[],
  method: string,
): readonly Candidate[] {
  const ranked = contract.resources
    .map((resource) => {
      const path = textsOf(root, resource);
      return { resource, path, agrees: agreement(path, given) };
    })
    .sort(
      (a, b) =>
        b.agrees - a.agrees ||
        Math.abs(a.path.length - given.length) - Math.abs(b.path.length - given.length),
    );
  return ranked.slice(0, NEAREST).flatMap(({ resource, path, agrees }) => {
    const operations = operationsAt(contract, resource);
    const best = operations.find((operation) => operation.method === method) ?? operations[0];
    return best === undefined ? [] : [candidate(contract, best, difference(path, given, agrees))];
  });
}

/** What a target has otherwise than a path. */
function difference(path: readonly (string | null)[], given: readonly string[], agrees: number): string {
  const wanted = path[agrees];
  if (agrees === path.length) return `goes on with ${given[agrees] ?? ''}`;
  const has = given[agrees];
  const expected = wanted === null ? 'an id' : (wanted ?? '');
  return has === undefined || has === ''
    ? `ends without ${expected}`
    : `${has.slice(0, 60)} instead of ${expected}`;
}
