import type { DerivedTarget } from '../../contract/index.js';
import { camelCase } from '../../model/index.js';
import { because, becauseSet, entityNamed, valueOf, type DerivationContext } from '../context.js';
import { becauseCustom, customOf, fixedOf } from '../customOperations/index.js';
import { pluralOf } from '../names/words.js';
import type { PlacedResource } from '../place/index.js';
import { link, SELF, type DerivedLink } from './link.js';

/** What the entry leads to. */
export function entryLinks(context: DerivationContext, all: readonly PlacedResource[]): DerivedLink[] {
  const collections = all.filter(
    ({ kind, parent }) => parent === 'entry' && (kind === 'collection' || kind === 'singleton'),
  );
  return [
    SELF,
    ...collections.map((resource) =>
      link(
        camelCase(nameOf(context, resource)),
        { kind: 'resource', resource: resource.id },
        becauseSet(context, 'link.entry', ['collectionNames'], entityNamed(context, resource.entity ?? '')),
      ),
    ),
    ...ownLinks(context, all),
    ...(valueOf(context, 'apiLinks').includes('service-desc')
      ? [link('service-desc', { kind: 'description' }, because('link.description'))]
      : []),
  ];
}

/** What the entry calls a collection, or the one record there is. */
const nameOf = (context: DerivationContext, { kind, entity }: PlacedResource): string =>
  kind === 'singleton' ? (entity ?? '') : pluralOf(context, entityNamed(context, entity ?? ''));

/** What of one's own stands at the root: fixed answers, and what is read for whoever calls. */
function ownLinks(context: DerivationContext, all: readonly PlacedResource[]): readonly DerivedLink[] {
  return all.flatMap((resource) => {
    if (resource.parent !== 'entry' || resource.custom === null) return [];
    const operation = (fixedOf(context, resource) ?? customOf(context, resource))?.operation;
    if (operation === undefined) return [];
    const target: DerivedTarget = { kind: 'resource', resource: resource.id };
    return [link(operation.name, target, becauseCustom('link.custom', operation))];
  });
}
