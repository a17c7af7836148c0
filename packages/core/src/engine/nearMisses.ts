import { editDistance } from '../model/index.js';
import { indexContract, wholePath, type Contract, type Operation, type Resource } from '../contract/index.js';
import type { EngineRequest } from './message.js';
import { routerOf } from './router.js';
import { readTarget } from './target.js';

/** An operation that a request might have been meant for, and why it was not. */
export interface NearMiss {
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
export function nearMisses(
  contract: Contract,
  { method, target }: Pick<EngineRequest, 'method' | 'target'>,
): readonly NearMiss[] {
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

/** The resource of a path all of whose operations are left out; `null` where there is none. */
export function leftOutAt(contract: Contract, segments: readonly string[]): Resource | null {
  const root = contract.root.split('/').filter((text) => text !== '');
  const { operationsOf } = indexContract(contract);
  return (
    contract.resources.find(
      (resource) =>
        resource.leftOut.length > 0 && !operationsOf.has(resource.id) && fits(root, resource, segments),
    ) ?? null
  );
}

const operationsAt = (contract: Contract, resource: Resource): readonly Operation[] =>
  indexContract(contract).operationsOf.get(resource.id) ?? [];

function candidate(contract: Contract, { id, method, resource }: Operation, why: string): NearMiss {
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

/** The operations of the paths that were most likely meant; the entry where none is like it. */
function nearest(
  contract: Contract,
  root: readonly string[],
  given: readonly string[],
  method: string,
): readonly NearMiss[] {
  const asked = withoutRoot(root, given);
  const ranked = contract.resources
    .flatMap((resource) => {
      const likeness = likenessOf(textsOf([], resource), asked.rest);
      const operations = operationsAt(contract, resource);
      const best = operations.find((operation) => operation.method === method) ?? operations[0];
      if (best === undefined || (asked.rest.length > 0 && !likeness.hasWord)) return [];
      const penalty = best.method === method ? 0 : OTHER_METHOD;
      return [{ resource, operation: best, cost: likeness.cost + penalty }];
    })
    .sort((a, b) => a.cost - b.cost);
  const isPlain = (ranked[0]?.cost ?? 0) <= ALIKE;
  const meant = isPlain ? ranked.filter(({ cost }) => cost <= ALIKE) : ranked;
  const found = meant.slice(0, NEAREST).map(({ resource, operation }) => {
    const rest = difference(resource, asked.rest);
    const why = [...(asked.hasRoot ? [] : [`begins with ${contract.root}`]), ...(rest === '' ? [] : [rest])];
    return candidate(contract, operation, why.join(', '));
  });
  return found.length > 0 ? found : entryOf(contract);
}

function entryOf(contract: Contract): readonly NearMiss[] {
  const entry = contract.resources.find(({ kind }) => kind === 'entry');
  const [read] = entry === undefined ? [] : operationsAt(contract, entry);
  return read === undefined ? [] : [candidate(contract, read, 'everything begins here')];
}

interface Asked {
  readonly rest: readonly string[];
  readonly hasRoot: boolean;
}

/** A path behind the root of the contract, which may be forgotten, wrong, or there in part. */
function withoutRoot(root: readonly string[], given: readonly string[]): Asked {
  const isVersioned = root.some((text) => VERSION.test(text));
  const isRootLike = (text: string): boolean => root.includes(text) || (isVersioned && VERSION.test(text));
  const hasRoot = root.every((text, index) => given[index] === text);
  const first = given.findIndex((text) => !isRootLike(text));
  const skipped = hasRoot ? root.length : first === -1 ? given.length : Math.min(first, root.length);
  return { rest: given.slice(skipped, skipped + MOST_SEGMENTS), hasRoot };
}

const VERSION = /^v?\d+(?:[.-]\d+)*$/i;

/** No path of a contract is longer. */
const MOST_SEGMENTS = 16;

// What makes a path unlike another: a segment too much is a little worse than one that is missing.
const ALIKE = 0.35;
const OTHER_METHOD = 0.2;
const ANY_ID = 0.1;
const OTHER_WORD = 1.2;
const MISSING = 0.9;
const TOO_MUCH = 1;

interface Likeness {
  readonly cost: number;
  /** Whether some word of the path is like one that was given. */
  readonly hasWord: boolean;
}

/** How little has to be changed in what was given to make it fit a path, segment by segment. */
function likenessOf(path: readonly (string | null)[], given: readonly string[]): Likeness {
  let hasWord = false;
  let row = given.map((_, index) => (index + 1) * TOO_MUCH);
  row.unshift(0);
  for (const text of path) {
    const next = [(row[0] ?? 0) + MISSING];
    for (const [index, one] of given.entries()) {
      const unlike = text === null ? ANY_ID : unlikeness(text, one);
      hasWord ||= text !== null && unlike < OTHER_WORD;
      const best = Math.min(
        (row[index] ?? 0) + unlike,
        (row[index + 1] ?? 0) + MISSING,
        (next[index] ?? 0) + TOO_MUCH,
      );
      next.push(best);
    }
    row = next;
  }
  return { cost: row.at(-1) ?? 0, hasWord };
}

/** How unlike two words are: 0 for the same, little for other cases, plurals and slips. */
function unlikeness(word: string, given: string): number {
  if (word === given) return 0;
  const [a, b] = [bareWord(word), bareWord(given)];
  if (a === b) return 0.1;
  const share = editDistance(a, b) / Math.max(a.length, b.length, 1);
  return share <= 0.4 ? 0.1 + share : OTHER_WORD;
}

const bareWord = (word: string): string =>
  word
    .slice(0, 40)
    .toLowerCase()
    .replace(/[-_.~]/g, '');

/** What a target has otherwise than a path, both behind the root; empty where nothing. */
function difference(resource: Resource, given: readonly string[]): string {
  const path = textsOf([], resource);
  const agrees = agreement(path, given);
  const above = path.length - given.length;
  if (above > 0 && path[above] != null && agreement(path.slice(above), given) === given.length)
    return `stands below ${resource.path
      .split('/')
      .slice(0, above + 1)
      .join('/')}`;
  const has = given[agrees];
  if (agrees === path.length) return has === undefined ? '' : `goes on with ${has.slice(0, 60)}`;
  const expected = path[agrees] ?? 'an id';
  return has === undefined || has === ''
    ? `ends without ${expected}`
    : `${has.slice(0, 60)} instead of ${expected}`;
}
