import { severalIn, type Link, type Resource } from '../contract/index.js';
import { bareObject, isJsonObject, memoize, type Json } from '../model/index.js';

const severalOf = memoize(({ links }: Pick<Resource, 'links'>): ReadonlySet<string> => severalIn(links));

/** The links of a resource from relation to target, or to an array of them. `found`: where one leads now. */
export function linksOf(
  resource: Pick<Resource, 'links'> | undefined,
  found: (link: Link) => Json,
): Record<string, Json> {
  const all = bareObject();
  if (resource === undefined) return all;
  const several = severalOf(resource);
  for (const link of resource.links) {
    const target = withAttributes(found(link), link);
    if (several.has(link.relation)) {
      const known = all[link.relation];
      const before = Array.isArray(known) ? (known as readonly Json[]) : [];
      all[link.relation] = [...before, ...targetsIn(target)];
    } else if (target !== null) all[link.relation] = target;
  }
  return all;
}

const targetsIn = (target: Json): readonly Json[] => {
  if (target === null) return [];
  return Array.isArray(target) ? (target as readonly Json[]) : [target];
};

function withAttributes(target: Json, { attributes }: Link): Json {
  if (attributes === null || target === null) return target;
  if (Array.isArray(target)) return target.map((one: Json) => told(one, attributes));
  return told(target, attributes);
}

const told = (target: Json, attributes: NonNullable<Link['attributes']>): Json =>
  isJsonObject(target) ? { ...target, ...attributes } : target;
