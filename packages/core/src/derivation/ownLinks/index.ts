import type { OwnLink, OwnLinkTarget } from '../../arrangement/index.js';
import { carriesLinks, isHome, type Link, type Operation, type OwnTarget } from '../../contract/index.js';
import { entryOf, type Condition, type Entity } from '../../model/index.js';
import { entityNamed, type DerivationContext } from '../context.js';
import { resolveWhen, Unfit } from '../customOperations/index.js';
import type { PlacedResource } from '../place/index.js';
import type { Traits } from '../shapes/index.js';
import { resolveOperation, type LinkPlaces } from './operation.js';
import { reachedBy, reachMember } from './reach.js';

/** The links of one's own of every resource, by its id; those that do not fit are findings. */
export function ownLinksOf(
  context: DerivationContext,
  placed: readonly PlacedResource[],
  operations: readonly Operation[],
  traits: Traits,
): ReadonlyMap<string, readonly Link[]> {
  const found = new Map<string, Link[]>();
  if (context.arrangement.ownLinks.length === 0) return found;
  const byId = new Map(placed.map((resource) => [resource.id, resource]));
  const places: LinkPlaces = { context, traits, operations, byId };
  for (const own of context.arrangement.ownLinks) {
    try {
      const link = resolveOwnLink(places, own);
      entryOf(found, own.resource, () => []).push(link);
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      reportUnfit(context, own, error);
    }
  }
  return found;
}

const source = ({ id, resource, relation }: OwnLink) =>
  ({ kind: 'own-link', id, resource, relation, level: 'arrangement' }) as const;

function reportUnfit(context: DerivationContext, own: OwnLink, { message }: Unfit): void {
  context.findings.push({
    id: 'link.unfit',
    severity: 'error',
    message: `The link ${own.relation} is not offered. ${message}`,
    about: own.id,
    reasons: [{ rule: 'finding.unfit-link', because: [source(own)] }],
    cause: source(own),
    quickFixes: [{ title: `Remove ${own.relation}`, answer: { kind: 'own-link', id: own.id, link: null } }],
  });
}

function resolveOwnLink(places: LinkPlaces, own: OwnLink): Link {
  const { context, byId } = places;
  const carrier = byId.get(own.resource);
  if (carrier === undefined) throw new Unfit('What offered it is not there any more.');
  const from = offeringEntity(context, carrier);
  if (from === null && own.when.length > 0)
    throw new Unfit('No record offers it, so that it has no condition.');
  const when = from === null ? [] : resolveWhen(context, from, own.when);
  return {
    id: `own/${own.id}`,
    relation: own.relation,
    attributes: null,
    in: null,
    was: null,
    target: resolveTarget(places, carrier, from, own.target, when),
    reasons: [{ rule: 'link.own', because: [source(own)] }],
  };
}

/** The entity whose records carry the links of a resource; `null` where its answers do themselves. */
function offeringEntity(context: DerivationContext, carrier: PlacedResource): Entity | null {
  if (!carriesLinks(carrier))
    throw new Unfit(
      'What it is offered at carries no links of your own; records carry those of their one address.',
    );
  return isHome(carrier) && carrier.entity !== null ? entityNamed(context, carrier.entity) : null;
}

function resolveTarget(
  places: LinkPlaces,
  carrier: PlacedResource,
  from: Entity | null,
  target: OwnLinkTarget,
  when: Condition,
): OwnTarget {
  const { context } = places;
  switch (target.kind) {
    case 'operation':
      return resolveOperation(places, carrier, from, target, when);
    case 'record': {
      if (from === null) throw new Unfit('No record offers it, so that there are no roles to go along.');
      const entity = reachedBy(context, from, target.along);
      const home = [...places.byId.values()].find((one) => isHome(one) && one.entity === entity.name);
      const isRead = places.operations.some(
        ({ resource, method }) => resource === home?.id && method === 'GET',
      );
      if (home === undefined || !isRead) throw new Unfit(`A ${entity.name} cannot be read.`);
      return { kind: 'along', along: target.along, resource: home.id, when };
    }
    case 'address':
      return { kind: 'address', parts: resolveAddress(places, from, target.parts), when };
  }
}

function resolveAddress(
  { context, traits }: LinkPlaces,
  from: Entity | null,
  parts: Extract<OwnLinkTarget, { kind: 'address' }>['parts'],
): Extract<OwnTarget, { kind: 'address' }>['parts'] {
  const [first] = parts;
  const isWhole = first?.kind === 'member' && parts.length === 1;
  if (first?.kind === 'text' ? !startsWithHost(first.text, parts.length === 1) : !isWhole)
    throw new Unfit('Expected http:// or https:// and a host before anything that is filled in.');
  return parts.map((part, at) => {
    if (part.kind === 'text') {
      if (at > 0 && !URI_TEXT.test(part.text)) throw new Unfit(`${part.text} cannot stand in a URI.`);
      return part.text;
    }
    if (from === null) throw new Unfit('No record offers it, so that nothing can be filled in.');
    const { value, type, name } = reachMember(context, traits, from, part);
    if (isWhole && type.kind !== 'uri')
      throw new Unfit(`${name} is ${type.kind}; only a uri can be a whole address.`);
    return value;
  });
}

/** Scheme and host are literal: what is filled in cannot lead to another host. */
const startsWithHost = (text: string, isAll: boolean): boolean =>
  (isAll ? HOST_ALONE : HOST_AND_MORE).test(text);

/** What may stand in a URI as it is (RFC 3986 §2), and in a template (RFC 6570 §2.1). */
const URI_CHARACTERS = String.raw`[A-Za-z0-9\-._~:/?#\[\]@!$&'()*+,;=%]*`;
const URI_TEXT = new RegExp(`^${URI_CHARACTERS}$`);
const HOST = String.raw`^https?:\/\/[A-Za-z0-9.-]{1,253}(?::\d{1,5})?`;
const HOST_AND_MORE = new RegExp(`${HOST}[/?#]${URI_CHARACTERS}$`);
const HOST_ALONE = new RegExp(`${HOST}(?:[/?#]${URI_CHARACTERS})?$`);
