import type { LinkPlace } from '../arrangement/index.js';
import {
  indexContract,
  isCarried,
  severalIn,
  type Contract,
  type Link,
  type Method,
  type Resource,
} from '../contract/index.js';
import { bareObject, isJsonObject, memoize, type Json } from '../model/index.js';
import type { RequestContext } from './service.js';

/** What a resource links, by where it is carried. */
type Carried = Readonly<Record<LinkPlace, readonly Link[]>>;

const carriedBy = memoize((resource: Pick<Resource, 'links'>) =>
  memoize(({ representation }: Contract): Carried => {
    const at = (place: LinkPlace): readonly Link[] =>
      resource.links.filter((link) => isCarried(link, place, representation.memberLinks));
    return { items: at('items'), lists: at('lists'), header: at('header') };
  }),
);

const severalOf = memoize(({ links }: Pick<Resource, 'links'>): ReadonlySet<string> => severalIn(links));

/**
 * The links of a resource that are carried at a place, from relation to target, or to an array of them. `found`: where
 * one leads now; `null`: where none is carried.
 */
export function linksOf(
  service: RequestContext,
  resource: Pick<Resource, 'id' | 'links'> | undefined,
  place: LinkPlace,
  found: (link: Link) => Json,
): Record<string, Json> | null {
  if (resource === undefined) return place === 'header' ? null : bareObject();
  const { contract } = service;
  const carried = carriedBy(resource)(contract)[place];
  const isTold = saysMethods(service);
  if (carried.length === 0 && place !== 'items') return null;
  const all = bareObject();
  const several = severalOf(resource);
  for (const link of carried) {
    const how = isTold ? methodsIn(contract)(link, resource) : null;
    const target = withTold(withTold(found(link), how), link.attributes);
    if (several.has(link.relation)) {
      const known = all[link.relation];
      const before = Array.isArray(known) ? (known as readonly Json[]) : [];
      all[link.relation] = [...before, ...targetsIn(target)];
    } else if (target !== null) all[link.relation] = target;
  }
  return all;
}

/** Where a relation leads, one or several. */
export const targetsIn = (target: Json): readonly Json[] => {
  if (target === null) return [];
  return Array.isArray(target) ? (target as readonly Json[]) : [target];
};

/** A target, or each of several, with more members. */
function withTold(target: Json, members: object | null): Json {
  if (members === null || target === null) return target;
  if (Array.isArray(target)) return target.map((one: Json) => withTold(one, members));
  return isJsonObject(target) ? { ...target, ...members } : target;
}

/** Whether links say how they are followed: where plain JSON has them inside, and that was chosen. */
const saysMethods = ({ contract: { representation }, mediaType }: RequestContext): boolean =>
  representation.linkMethods === 'method' &&
  representation.links === 'object' &&
  mediaType === 'application/json';

/** How a link that is no GET is followed: its method, and the media types that are accepted there. */
interface Followed {
  readonly method?: Method;
  readonly accepts?: readonly string[];
}

const methodsIn = memoize((contract: Contract) =>
  memoize(({ target }: Link, from: Pick<Resource, 'id'>): Followed => {
    const to = target.kind === 'pair' ? from.id : 'resource' in target ? target.resource : null;
    if (to === null) return {};
    const { operations, operationsOf } = indexContract(contract);
    const all = operationsOf.get(to) ?? [];
    const followed =
      target.kind === 'operation'
        ? operations.get(target.operation)
        : all.some(({ method }) => method === 'GET')
          ? undefined
          : all[0];
    if (followed === undefined || followed.method === 'GET') return {};
    const { method, acceptedTypes } = followed;
    return acceptedTypes.length === 0 ? { method } : { method, accepts: acceptedTypes };
  }),
);

/** Where a body that is being built holds links that travel in a header besides; no member of a model can be called so. */
export const IN_HEADER = '_linkHeader';

/** The links of an answer in its body, and those that are carried in a header. */
export function withLinks(
  service: RequestContext,
  body: Record<string, Json>,
  resource: Resource | undefined,
  found: (link: Link) => Json,
): void {
  body[service.contract.names.links] = linksOf(service, resource, 'items', found) ?? bareObject();
  const inHeader = linksOf(service, resource, 'header', found);
  if (inHeader !== null) body[IN_HEADER] = inHeader;
}
