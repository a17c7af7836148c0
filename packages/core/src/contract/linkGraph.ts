import { entryOf, memoize } from '../model/index.js';
import { indexContract, isHome, isReadable } from './lookup.js';
import { isCarried } from './linkPlaces.js';
import type { Contract, Link, LinkTarget, Resource } from './types.js';

/** A step that a client can take by a link, from one resource to another. */
export interface LinkStep {
  readonly from: string;
  readonly to: string;
  /** What the step is called: the relation of its link, or `item` from a list to its records. */
  readonly relation: string;
  readonly link: Link;
  /** Whether the records in a list carry the link, and not the answer itself. */
  readonly isOfRecords: boolean;
}

/** Where links lead from a resource, by its id. */
export type StepsFrom = ReadonlyMap<string, readonly LinkStep[]>;

/** What of a contract links follow from. */
export interface Linked {
  readonly resources: readonly Pick<Resource, 'id' | 'kind' | 'canonical' | 'entity' | 'links'>[];
  readonly representation: Pick<Contract['representation'], 'memberLinks'>;
}

const LISTING: ReadonlySet<Resource['kind']> = new Set(['collection', 'reverse', 'pairing', 'query']);

/** Every step that links allow, whatever state they depend on. */
export function linkSteps({ resources, representation: { memberLinks } }: Linked): StepsFrom {
  const homes = new Map(
    resources.flatMap((resource) => (isHome(resource) ? [[resource.entity ?? '', resource] as const] : [])),
  );
  const byId = new Map(resources.map((resource) => [resource.id, resource]));
  const steps = new Map<string, LinkStep[]>();
  const add = (step: LinkStep): void => {
    const all = entryOf(steps, step.from, () => []);
    if (step.from !== step.to && byId.has(step.to)) all.push(step);
  };
  for (const { id, kind, entity, links } of resources) {
    for (const link of links) {
      const to = ledTo(link.target);
      if (to !== null) add({ from: id, to, relation: link.relation, link, isOfRecords: false });
    }
    if (!LISTING.has(kind)) continue;
    const home = homes.get(entity ?? '');
    const self = home?.links.find(({ target }) => target.kind === 'self');
    if (home !== undefined && self !== undefined && isCarried(self, 'lists', memberLinks))
      add({ from: id, to: home.id, relation: 'item', link: self, isOfRecords: true });
    const edit = kind === 'pairing' ? byId.get(`${id}/pair`) : undefined;
    for (const link of memberLinks === 'all' ? (edit?.links ?? []) : [])
      add({ from: id, to: `${id}/pair`, relation: link.relation, link, isOfRecords: true });
  }
  return steps;
}

/** The resource that a link leads to; `null` where it stays, or leads elsewhere. */
export function ledTo(target: LinkTarget): string | null {
  switch (target.kind) {
    case 'self':
    case 'pair':
    case 'page':
    case 'description':
    case 'about':
    case 'address':
      return null;
    case 'resource':
    case 'reference':
    case 'read':
    case 'filtered':
    case 'owner':
    case 'action':
    case 'custom':
    case 'template':
    case 'items':
    case 'operation':
    case 'along':
      return target.resource;
  }
}

/** How a resource is reached first: in how many requests, and by which step; the one begun at by none. */
export interface FirstWay {
  readonly requests: number;
  readonly step: LinkStep | null;
}

/** The fewest requests from a resource to all that it leads to, in the order they are met. `mayRead`: from where it goes on. */
export function firstWays(
  steps: StepsFrom,
  begin: string,
  mayRead: (resource: string) => boolean,
): ReadonlyMap<string, FirstWay> {
  const found = new Map<string, FirstWay>([[begin, { requests: 1, step: null }]]);
  for (const [at, { requests }] of found) {
    if (!mayRead(at)) continue;
    for (const step of steps.get(at) ?? [])
      if (!found.has(step.to)) found.set(step.to, { requests: requests + 1, step });
  }
  return found;
}

/** The links of a contract as steps, made once. */
export const stepsOf = memoize((contract: Contract): StepsFrom => linkSteps(contract));

/** The shortest way from one resource to another, step by step; `null` where there is none. */
export function shortestWay(contract: Contract, from: string, to: string): readonly LinkStep[] | null {
  const index = indexContract(contract);
  const found = firstWays(stepsOf(contract), from, (id) => isReadable(index, id));
  const way: LinkStep[] = [];
  for (let at = to; ;) {
    const first = found.get(at);
    if (first === undefined) return null;
    if (first.step === null) return way;
    way.unshift(first.step);
    at = first.step.from;
  }
}
