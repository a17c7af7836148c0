import type { Settings } from '../../arrangement/index.js';
import { carriesLinks, type Link, type Operation, type OwnTarget } from '../../contract/index.js';
import { memoize } from '../../model/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';
import { link, type DerivedLink } from './link.js';

/** Relations of the API itself that lead to a page of the mock; where they lead, under the root. */
const API_PAGES = {
  describedby: (shape: string): string => `/-/schemas/${shape}.json`,
  profile: (shape: string): string => `/-/profiles/${shape}`,
  'service-doc': (): string => '/-/documentation',
} as const;

/** Relations of the API itself that lead elsewhere, each where the design names it. */
const NAMED = {
  'terms-of-service': 'termsUrl',
  license: 'licenseUrl',
  status: 'statusUrl',
} as const satisfies Readonly<Record<string, keyof Settings>>;

/** The relations of the API itself that are switched on (RFC 8288, RFC 6906, RFC 8631) besides that of its description. */
export function apiRelations(context: DerivationContext): readonly string[] {
  const named = Object.entries(NAMED).flatMap(([relation, setting]) =>
    valueOf(context, setting) === '' ? [] : [relation],
  );
  return [...valueOf(context, 'apiLinks').filter((relation) => relation !== 'service-desc'), ...named];
}

/** What every answer links of the API itself: how it is described, and, at the entry, what holds for all of it. */
export function apiLinks(
  context: DerivationContext,
  resource: PlacedResource,
  operations: readonly Operation[],
): readonly Link[] {
  const on = valueOf(context, 'apiLinks');
  const read = readsOf(operations).get(resource.id);
  const shape = carriesLinks(resource) ? (read?.returns ?? null) : null;
  const links: Link[] = [];
  const add = (relation: keyof typeof API_PAGES, path: string): void => {
    if (on.includes(relation)) links.push(page(context, relation, path));
  };
  if (shape !== null) {
    add('describedby', API_PAGES.describedby(shape));
    add('profile', API_PAGES.profile(shape));
  }
  if (resource.kind !== 'entry') return links;
  add('service-doc', API_PAGES['service-doc']());
  for (const [relation, setting] of Object.entries(NAMED)) {
    const url = valueOf(context, setting);
    if (url !== '') links.push(elsewhere(context, relation, setting, url));
  }
  return links;
}

/** What is read at each resource. */
const readsOf = memoize(
  (operations: readonly Operation[]): ReadonlyMap<string, Operation> =>
    new Map(operations.flatMap((one) => (one.method === 'GET' ? [[one.resource, one] as const] : []))),
);

const page = (context: DerivationContext, relation: string, path: string): DerivedLink => ({
  ...link(relation, { kind: 'about', path }, becauseSet(context, 'link.api', ['apiLinks'])),
  // They tell of the answer, not of the records in it.
  in: ['items'],
});

function elsewhere(context: DerivationContext, relation: string, setting: keyof Settings, url: string): Link {
  const target: OwnTarget = { kind: 'address', parts: [url], when: [] };
  return {
    id: relation,
    relation,
    attributes: null,
    in: null,
    was: null,
    target,
    reasons: [becauseSet(context, 'link.api', [setting])],
  };
}
