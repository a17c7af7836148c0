import type { Operation, Resource } from '../../contract/index.js';
import type { DerivationContext } from '../context.js';
import { findLinkWays } from '../findings/linkWays.js';
import type { Offers } from '../operations/offers.js';
import { ownLinksOf } from '../ownLinks/index.js';
import type { Traits } from '../shapes/index.js';
import { apiLinks } from './api.js';
import { findIdle, linksAsChosen } from './chosen.js';
import { deriveLinks } from './index.js';

/** The resources with all their links: those that follow, those of the API itself, and those of one's own, as they were chosen. */
export function linkedResources(
  context: DerivationContext,
  offers: Offers,
  traits: Traits,
  operations: readonly Operation[],
): readonly Resource[] {
  const placed = offers.resources;
  const derived = deriveLinks(context, offers, traits);
  const own = ownLinksOf(context, placed, operations, traits);
  const resources = placed.map((resource): Resource => ({
    ...resource,
    ...linksAsChosen(context, resource.id, [
      ...(derived.get(resource.id) ?? []),
      ...apiLinks(context, resource, operations),
      ...(own.get(resource.id) ?? []),
    ]),
    leftOut: offers.leftOut(resource.id),
  }));
  findIdle(context, resources);
  findLinkWays(context, resources, operations);
  return resources;
}
