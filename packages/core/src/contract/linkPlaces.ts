import type { LinkPlace, Settings } from '../arrangement/index.js';
import { indexContract } from './lookup.js';
import type { Operation } from './operation.js';
import type { Contract, Link, Resource } from './types.js';

/** Whether a link is carried at a place: as it was chosen for it, else as it is for all links of the arrangement. */
export function isCarried(link: Link, place: LinkPlace, memberLinks: Settings['memberLinks']): boolean {
  if (link.in !== null) return link.in.includes(place);
  switch (place) {
    case 'items':
      return true;
    case 'lists':
      return memberLinks === 'all' || (memberLinks === 'self' && link.target.kind === 'self');
    case 'header':
      return false;
  }
}

/** The links of what is answered: of a list or the entry their own, of a record those of its canonical address. */
export function linksCarriedWith(contract: Contract, { resource, returns }: Operation): readonly Link[] {
  const { shapes, canonical, resources } = indexContract(contract);
  const shape = shapes.get(returns ?? '');
  const found = resources.get(resource);
  const here = found?.links ?? [];
  if (shape === undefined || shape.purpose !== 'item' || shape.of === null) return here;
  const home = canonical.get(shape.of)?.links ?? [];
  return found?.kind === 'pair' ? [...home, ...here] : home;
}

/** Whether answers of a resource carry links beside those of their pages; records carry those of their canonical address. */
export function carriesLinks({ kind, canonical }: Pick<Resource, 'kind' | 'canonical'>): boolean {
  switch (kind) {
    case 'item':
    case 'singleton':
      return canonical;
    case 'entry':
    case 'collection':
    case 'reverse':
    case 'pairing':
      return true;
    case 'query':
    case 'pair':
    case 'action':
    case 'collection-action':
    case 'reference':
    case 'aggregate':
    case 'fixed':
      return false;
  }
}
