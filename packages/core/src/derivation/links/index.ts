import { exposureChoice } from '../../arrangement/index.js';
import { actsOnRecord, filterTerm, isHome, type DerivedTarget, type RuleId } from '../../contract/index.js';
import { ownsItself, roleOf, type Owns } from '../../model/index.js';
import { because, entityNamed, valueOf, type DerivationContext } from '../context.js';
import { becauseCustom, customOf } from '../customOperations/index.js';
import type { Offers } from '../operations/offers.js';
import { formOf } from '../operations/forms.js';
import { pagingOf } from '../operations/paging.js';
import type { PlacedResource } from '../place/index.js';
import { transitionAt } from '../names/transitions.js';
import { ownerMember } from '../names/called.js';
import { ownerWithKey, type Traits } from '../shapes/index.js';
import { entryLinks } from './entry.js';
import { itemLink } from './items.js';
import { link, SELF, type DerivedLink } from './link.js';

/** The links of every resource, derived once the path tree stands. */
export function deriveLinks(
  context: DerivationContext,
  offers: Offers,
  traits: Traits,
): ReadonlyMap<string, readonly DerivedLink[]> {
  const places = new Places(offers);
  return new Map(
    offers.resources.map((resource) => [
      resource.id,
      linksOf(context, places, traits, resource).filter(({ target }) => places.isOffered(resource, target)),
    ]),
  );
}

/** Where things stand in the finished tree. */
class Places {
  /** Item or singleton, by entity name. */
  readonly canonical = new Map<string, PlacedResource>();
  readonly byId = new Map<string, PlacedResource>();
  readonly below = new Map<string, PlacedResource[]>();

  readonly all: readonly PlacedResource[];

  constructor(private readonly offers: Offers) {
    this.all = offers.resources;
    for (const resource of this.all) {
      this.byId.set(resource.id, resource);
      if (resource.entity !== null && isHome(resource)) {
        this.canonical.set(resource.entity, resource);
      }
      if (resource.parent === null) continue;
      const siblings = this.below.get(resource.parent);
      if (siblings === undefined) this.below.set(resource.parent, [resource]);
      else siblings.push(resource);
    }
  }

  /** Whether what a link of a resource leads to is offered there. */
  isOffered(from: PlacedResource, target: DerivedTarget): boolean {
    switch (target.kind) {
      case 'self':
      case 'page':
        return this.offers.isReadable(from.id);
      case 'pair':
        return this.offers.offered(from.id).length > 0;
      case 'action':
      case 'custom':
        return this.offers.offered(target.resource).length > 0;
      case 'description':
      case 'about':
        return true;
      case 'resource':
        return this.isReadable(target.resource) || this.isActedOn(target.resource);
      case 'reference':
      case 'read':
      case 'filtered':
      case 'owner':
      case 'template':
      case 'items':
        return this.isReadable(target.resource);
    }
  }

  private isActedOn(resource: string): boolean {
    const kind = this.byId.get(resource)?.kind;
    return (kind === 'collection-action' || kind === 'query') && this.offers.offered(resource).length > 0;
  }

  isReadable(resource: string): boolean {
    return this.offers.isReadable(resource);
  }
}

function linksOf(
  context: DerivationContext,
  places: Places,
  traits: Traits,
  resource: PlacedResource,
): readonly DerivedLink[] {
  switch (resource.kind) {
    case 'entry':
      return entryLinks(context, places.all);
    case 'collection':
    case 'reverse':
    case 'pairing':
      return pageLinks(context, places, traits, resource);
    case 'item':
    case 'singleton':
      if (!resource.canonical) return [];
      return recordLinks(context, places, resource);
    case 'pair':
      return [link('edit', { kind: 'pair' }, because('link.edit', { id: resource.via?.relationship ?? '' }))];
    // What these answer are records, which carry the links of their canonical address.
    case 'action':
    case 'collection-action':
    case 'reference':
    case 'aggregate':
    case 'fixed':
      return [];
    case 'query': {
      // What it answers is a record, which carries its own.
      if (customOf(context, resource)?.custom.kind !== 'query') return [];
      const above = places.byId.get(resource.parent ?? '');
      const up =
        above === undefined ? [] : [link('up', { kind: 'resource', resource: above.id }, because('link.up'))];
      return [SELF, ...up, ...itemsOf(context, places, traits, resource)];
    }
  }
}

const PAGES = (['first', 'prev', 'next', 'last'] as const).map((page) =>
  link(page, { kind: 'page', page }, because('link.page')),
);

/** The last page is known only where all records are counted; a cursor leads on from one page to the next. */
function pagesOf(context: DerivationContext, list: PlacedResource): readonly DerivedLink[] {
  const { style, totals } = formOf(context, list);
  if (style === 'none' || style === 'ceiling') return [];
  return style === 'cursor' || totals === 'none'
    ? PAGES.filter(({ relation }) => relation !== 'last')
    : PAGES;
}

function pageLinks(
  context: DerivationContext,
  places: Places,
  traits: Traits,
  resource: PlacedResource,
): DerivedLink[] {
  const above = resource.parent === null ? undefined : places.byId.get(resource.parent);
  const up =
    above === undefined ? [] : [link('up', { kind: 'resource', resource: above.id }, because('link.up'))];
  const items = itemsOf(context, places, traits, resource);
  const links = [SELF, ...up, ...items, ...pagesOf(context, resource)];
  for (const child of places.below.get(resource.id) ?? [])
    addCustom({ context, places, resource }, links, child);
  return links;
}

const itemsOf = (
  context: DerivationContext,
  places: Places,
  traits: Traits,
  resource: PlacedResource,
): readonly DerivedLink[] =>
  itemLink(context, traits, {
    list: resource,
    below: places.below.get(resource.id) ?? [],
    home: places.canonical.get(resource.entity ?? ''),
    isReadable: (id) => places.isReadable(id),
  });

/** The resource whose links are derived. */
interface From {
  readonly context: DerivationContext;
  readonly places: Places;
  readonly resource: PlacedResource;
}

/** Relations with a meaning of their own (IANA link relations); a role of the same name is left out. */
const RESERVED: ReadonlySet<string> = new Set(['self', 'up', 'collection']);

function recordLinks(context: DerivationContext, places: Places, resource: PlacedResource): DerivedLink[] {
  const entity = resource.entity ?? '';
  const at: From = { context, places, resource };
  const links = [SELF, ...ownerLinks(context, places, entity), ...collectionLinks(context, places, resource)];
  for (const refers of context.index.refersFrom.get(entity) ?? []) {
    const target = places.canonical.get(refers.to);
    if (target === undefined) continue;
    const below = places.byId.get(`${refers.id}/read`);
    const read = below !== undefined && places.isReadable(below.id) ? below : undefined;
    addRole(at, links, roleOf(refers), 'link.role', refers, {
      kind: read === undefined ? 'reference' : 'read',
      relationship: refers.id,
      resource: (read ?? target).id,
    });
  }
  for (const owns of context.index.ownedBy.get(entity) ?? []) addFiltered(at, links, owns);
  for (const child of places.below.get(resource.id) ?? []) {
    if (child.custom !== null) {
      addCustom(at, links, child);
      continue;
    }
    if (child.transition !== null) {
      const target = { kind: 'action', resource: child.id, transition: child.transition } as const;
      addRole(at, links, transitionAt(context, child).name, 'link.action', { id: child.transition }, target);
      continue;
    }
    const statement = context.index.relationshipById.get(child.via?.relationship ?? '');
    if (statement === undefined || child.kind === 'reference') continue;
    const back = child.via?.direction === 'referrers' || child.via?.direction === 'paired-back';
    const role = back && statement.back !== null ? statement.back : roleOf(statement);
    addRole(at, links, role, back ? 'link.back' : 'link.role', statement, {
      kind: 'resource',
      resource: child.id,
    });
  }
  return links;
}

/** An operation of one's own is a link named by it. */
function addCustom(at: From, links: DerivedLink[], child: PlacedResource): void {
  const own = customOf(at.context, child);
  if (own === null) return;
  const { operation, custom, entity, asked } = own;
  const target: DerivedTarget = actsOnRecord(custom)
    ? { kind: 'custom', resource: child.id, when: custom.when }
    : {
        kind: 'resource',
        resource: child.id,
        ...(asked.length === 0 || !at.places.isReadable(child.id)
          ? {}
          : { query: asked.map((input) => input.name) }),
      };
  addRole(at, links, operation.name, 'link.custom', entity, target, operation);
}

/** What is owned and stands beside its owner is found from it by a list narrowed to it, where that is offered. */
function addFiltered(at: From, links: DerivedLink[], owns: Owns): void {
  const { context, places, resource } = at;
  const list = places.byId.get(owns.id);
  if (list === undefined || !places.isReadable(list.id) || list.parent === resource.id || ownsItself(owns))
    return;
  if (ownerWithKey(context, owns) === null) return;
  const parameter = ownerMember(context, owns);
  if (offersOwnerFilter(context, list, owns)) {
    const target = {
      kind: 'filtered',
      resource: list.id,
      parameter: equalityOf(context, list, parameter),
    } as const;
    addRole(at, links, roleOf(owns), 'link.filtered', owns, target);
    return;
  }
  context.findings.push({
    id: 'children.unlinked',
    severity: 'doubtful',
    message: `Nothing leads from a ${owns.from} to its ${roleOf(owns)}: their list cannot be narrowed to it.`,
    about: owns.id,
    reasons: [because('finding.unlinked', owns)],
    quickFixes: [
      {
        title: 'Place them nested',
        answer: { kind: 'placement', of: 'owned', subject: owns.id, place: 'nested' },
      },
    ],
  });
}

/** The name by which a list is narrowed to what equals a value. */
function equalityOf(context: DerivationContext, list: PlacedResource, name: string): string {
  const { filterStyle, family } = pagingOf(context, list);
  const spelling = filterStyle === 'none' || filterStyle === 'plain' ? 'bracketed' : filterStyle;
  return filterTerm({ name, spelling, family }, 'eq').name;
}

function offersOwnerFilter(context: DerivationContext, list: PlacedResource, owns: Owns): boolean {
  if (valueOf(context, 'filterStyle', { resource: list.id, verb: 'list' }) === 'none') return false;
  const { exposures } = context.arrangement;
  const choice = exposureChoice(exposures, entityNamed(context, owns.to).id, owns.id);
  return choice.out !== 'no' && (choice.filter === undefined || choice.filter.includes('eq'));
}

function ownerLinks(context: DerivationContext, places: Places, entity: string): DerivedLink[] {
  const owns = context.index.ownerOf.get(entity);
  const owner = owns === undefined ? undefined : places.canonical.get(owns.from);
  if (owns === undefined || owner === undefined) return [];
  return [link('up', { kind: 'owner', relationship: owns.id, resource: owner.id }, because('link.up', owns))];
}

/** The collection an item is listed in: the one above it, or, when it moved to the root, its owner's. */
function collectionLinks(
  context: DerivationContext,
  places: Places,
  resource: PlacedResource,
): DerivedLink[] {
  if (resource.kind !== 'item') return [];
  const above = resource.parent === null ? undefined : places.byId.get(resource.parent);
  const owns = context.index.ownerOf.get(resource.entity ?? '');
  const moved = owns === undefined || ownsItself(owns) ? undefined : places.byId.get(owns.id);
  const collection = above?.kind === 'collection' ? above : moved;
  if (collection === undefined) return [];
  return [link('collection', { kind: 'resource', resource: collection.id }, because('link.collection'))];
}

function addRole(
  { context, places, resource }: From,
  links: DerivedLink[],
  role: string,
  rule: RuleId,
  statement: { readonly id: string },
  target: DerivedTarget,
  own?: { readonly id: string; readonly name: string },
): void {
  if (!places.isOffered(resource, target)) return;
  if (!RESERVED.has(role) && !links.some((known) => known.relation === role)) {
    const why = own === undefined ? because(rule, statement) : becauseCustom(rule, own, statement);
    links.push(link(role, target, why));
    return;
  }
  context.findings.push({
    id: 'member.collide',
    severity: 'error',
    message: `Two links would be called ${role}; the second is left out. Give the relationship another role.`,
    about: statement.id,
    reasons: [because('finding.collision', statement)],
  });
}
