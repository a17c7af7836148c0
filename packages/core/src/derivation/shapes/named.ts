import type { Entity } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { reachabilityOf } from '../place/index.js';

export const shapeName = (
  of: string,
  purpose: 'item' | 'member' | 'page' | 'create' | 'replace' | 'change',
): string => (purpose === 'item' ? of : `${of}.${purpose}`);

/** Whether records of the entity have an address of their own, and so links. */
export const hasPath = (context: DerivationContext, entity: Entity): boolean =>
  reachabilityOf(context).of.get(entity.name) === 'exposed';
