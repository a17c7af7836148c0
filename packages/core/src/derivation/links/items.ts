import type { Reason } from '../../contract/index.js';
import { ownsItself } from '../../model/index.js';
import { becauseSet, entityNamed, valueOf, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';
import type { Traits } from '../shapes/index.js';
import { link, type DerivedLink } from './link.js';

/** A list with what stands below it, and where its records have their one address. */
export interface Listing {
  readonly list: PlacedResource;
  readonly below: readonly PlacedResource[];
  readonly home: PlacedResource | undefined;
  readonly isReadable: (resource: string) => boolean;
}

/**
 * How a list leads to its items. Records mostly carry their own links; where links travel in headers they cannot,
 * and a list beside the one address of its records offers its own way besides.
 */
export function itemLink(
  context: DerivationContext,
  traits: Traits,
  listing: Listing,
): readonly DerivedLink[] {
  const { list, home } = listing;
  if (list.entity === null || home === undefined) return [];
  const isInHeaders = valueOf(context, 'links') === 'header';
  for (const item of itemsOf(listing, isInHeaders)) {
    if (!listing.isReadable(item.id)) continue;
    const variables = variablesOf(context, traits, list, item);
    if (variables === null) continue;
    const target = { kind: 'template', resource: item.id, variables } as const;
    const reason = isInHeaders ? inHeaders(context, list.entity) : ownWay(item);
    return [link('item', target, reason)];
  }
  if (!isInHeaders) return [];
  const target = { kind: 'items', resource: home.id } as const;
  return [link('item', target, inHeaders(context, list.entity))];
}

/** Where an item may be read, the nearest first. */
const itemsOf = ({ list, below, home }: Listing, isInHeaders: boolean): readonly PlacedResource[] => [
  ...below.filter(
    ({ kind, canonical }) =>
      (kind === 'item' && (isInHeaders || !canonical)) || (kind === 'pair' && isInHeaders && list.canonical),
  ),
  ...(isInHeaders && home !== undefined ? [home] : []),
];

const ownWay = ({ reasons }: PlacedResource): Reason => ({
  rule: 'link.template',
  because: reasons[0]?.because ?? [],
});

const inHeaders = (context: DerivationContext, entity: string): Reason =>
  becauseSet(context, 'link.item', ['links'], entityNamed(context, entity));

/** From each path parameter that the list does not give to the member that does; `null` where one has no member. */
function variablesOf(
  context: DerivationContext,
  traits: Traits,
  list: PlacedResource,
  item: PlacedResource,
): Readonly<Record<string, string>> | null {
  const isBelow = item.parent === list.id;
  const variables: Record<string, string> = {};
  for (const [index, segment] of item.segments.entries()) {
    if (segment.kind !== 'id' || (isBelow && index < item.segments.length - 1)) continue;
    const member = memberOf(context, traits, list.entity ?? '', segment.entity);
    if (member === null || Object.values(variables).includes(member)) return null;
    variables[segment.parameter] = member;
  }
  return variables;
}

/** The member of a listed record that holds the key of itself or of its owner, where a template can name it. */
function memberOf(context: DerivationContext, traits: Traits, entity: string, holder: string): string | null {
  const owns = context.index.ownerOf.get(entity);
  const found = (traits.get(entity) ?? []).find(({ isKey, source }) =>
    holder === entity
      ? isKey
      : source.kind === 'owner' &&
        owns?.from === holder &&
        source.relationship === owns.id &&
        !ownsItself(owns),
  );
  return found?.exposed.list === 'yes' && VARIABLE_NAME.test(found.name) ? found.name : null;
}

/** RFC 6570 §2.3, without what would stand there percent-encoded. */
const VARIABLE_NAME = /^[A-Za-z0-9_]+$/;
