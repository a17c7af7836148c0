import type { Entity } from '../../model/index.js';
import type { Deriving } from '../context.js';
import { standingsOf } from '../place/index.js';

export const shapeName = (
  of: string,
  purpose: 'item' | 'member' | 'page' | 'create' | 'replace' | 'change',
): string => (purpose === 'item' ? of : `${of}.${purpose}`);

/** Whether records of the entity have an address of their own, and so links. */
export const hasPath = (deriving: Deriving, entity: Entity): boolean =>
  standingsOf(deriving).of.get(entity.name) === 'exposed';
