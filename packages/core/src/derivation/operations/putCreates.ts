import { keyOf, type Entity } from '../../model/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';
import type { Offers } from './offers.js';

/** The collections in which records of an entity are made. */
export type Creating = ReadonlySet<string>;

const placeOf = (resource: string | null, entity: string | null): string =>
  `${resource ?? ''} ${entity ?? ''}`;

export const creatingAmong = (offers: Offers): Creating =>
  new Set(
    offers.resources.flatMap(({ id, entity }) =>
      offers.offered(id).includes('create') ? [placeOf(id, entity)] : [],
    ),
  );

/**
 * Whether PUT to a key that nothing has makes the item (RFC 9110 §9.3.4): the client assigns keys, and records are
 * made in the collection that the item is in.
 */
export function putCreates(
  context: DerivationContext,
  { id, kind, canonical, parent, entity: name }: PlacedResource,
  entity: Entity | null,
  creating: Creating,
): boolean {
  if (kind !== 'item' || !canonical || entity === null) return false;
  const { key, generated } = keyOf(entity).attribute;
  return (
    key !== null &&
    !generated &&
    creating.has(placeOf(parent, name)) &&
    valueOf(context, 'putCreates', { resource: id, verb: 'replace' }) === 'on'
  );
}
