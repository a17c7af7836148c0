import { exposureChoice } from '../../arrangement/index.js';
import { isHome, type Link, type LinkTarget, type Reason, type RuleId } from '../../contract/index.js';
import { camelCase, ownsItself, roleOf, type Owns } from '../../model/index.js';
import { because, becauseSet, entityNamed, valueOf, type Deriving } from '../context.js';
import { becauseCustom, customOf } from '../customOperations/index.js';
import type { Placed } from '../place/index.js';
import { pluralOf } from '../names/words.js';
import { transitionName } from '../names/transitions.js';
import { ownerMember, type Traits } from '../shapes/index.js';
import { itemLink } from './items.js';

/** The links of every resource, derived once the path tree stands. */
export function deriveLinks(
  deriving: Deriving,
  resources: readonly Placed[],
  traits: Traits,
): ReadonlyMap<string, readonly Link[]> {
  const places = new Places(resources);
  return new Map(resources.map((resource) => [resource.id, linksOf(deriving, places, traits, resource)]));
}

/** Where things stand in the finished tree. */
class Places {
  /** Item or singleton, by entity name. */
  readonly canonical = new Map<string, Placed>();
  readonly byId = new Map<string, Placed>();
  readonly below = new Map<string, Placed[]>();

  constructor(readonly all: readonly Placed[]) {
    for (const resource of all) {
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
}

function linksOf(deriving: Deriving, places: Places, traits: Traits, resource: Placed): readonly Link[] {
  switch (resource.kind) {
    case 'entry':
      return entryLinks(deriving, places);
    case 'collection':
    case 'reverse':
    case 'pairing':
      return pageLinks(deriving, places, traits, resource);
    case 'item':
    case 'singleton':
      if (!resource.canonical) return [];
      return recordLinks(deriving, places, resource);
    case 'pair':
      return [link('edit', { kind: 'pair' }, because('link.edit', { id: resource.via?.relationship ?? '' }))];
    // What these answer are records, which carry the links of their canonical address.
    case 'action':
    case 'reference':
      return [];
    case 'query': {
      const above = places.byId.get(resource.parent ?? '');
      const up =
        above === undefined ? [] : [link('up', { kind: 'resource', resource: above.id }, because('link.up'))];
      return [SELF, ...up, ...itemsOf(deriving, places, traits, resource)];
    }
  }
}

const link = (relation: string, target: LinkTarget, ...reasons: readonly Reason[]): Link => ({
  relation,
  target,
  reasons,
});
/** Links that are the same everywhere, made once. */
const SELF = link('self', { kind: 'self' }, because('link.self'));
const PAGES = (['first', 'prev', 'next', 'last'] as const).map((page) =>
  link(page, { kind: 'page', page }, because('link.page')),
);

function entryLinks(deriving: Deriving, places: Places): Link[] {
  const collections = places.all.filter(
    (resource) => resource.kind === 'collection' && resource.parent === 'entry',
  );
  return [
    SELF,
    ...collections.map((resource) =>
      link(
        camelCase(pluralOf(deriving, entityNamed(deriving, resource.entity ?? ''))),
        { kind: 'resource', resource: resource.id },
        becauseSet(deriving, 'link.entry', ['collectionNames'], entityNamed(deriving, resource.entity ?? '')),
      ),
    ),
    link('service-desc', { kind: 'description' }, because('link.description')),
  ];
}

/** The last page is known only where all records are counted; a cursor leads on from one page to the next. */
function pagesOf(deriving: Deriving): readonly Link[] {
  const style = valueOf(deriving, 'pageStyle');
  if (style === 'none') return [];
  return style === 'cursor' || valueOf(deriving, 'totals') === 'none'
    ? PAGES.filter(({ relation }) => relation !== 'last')
    : PAGES;
}

function pageLinks(deriving: Deriving, places: Places, traits: Traits, resource: Placed): Link[] {
  const above = resource.parent === null ? undefined : places.byId.get(resource.parent);
  const up =
    above === undefined ? [] : [link('up', { kind: 'resource', resource: above.id }, because('link.up'))];
  const items = itemsOf(deriving, places, traits, resource);
  const links = [SELF, ...up, ...items, ...pagesOf(deriving)];
  for (const child of places.below.get(resource.id) ?? []) addCustom(deriving, links, child);
  return links;
}

const itemsOf = (deriving: Deriving, places: Places, traits: Traits, resource: Placed): readonly Link[] =>
  itemLink(deriving, traits, {
    list: resource,
    below: places.below.get(resource.id) ?? [],
    home: places.canonical.get(resource.entity ?? ''),
  });

/** Relations with a meaning of their own (IANA link relations); a role of the same name is left out. */
const RESERVED: ReadonlySet<string> = new Set(['self', 'up', 'collection']);

function recordLinks(deriving: Deriving, places: Places, resource: Placed): Link[] {
  const entity = resource.entity ?? '';
  const links = [
    SELF,
    ...ownerLinks(deriving, places, entity),
    ...collectionLinks(deriving, places, resource),
  ];
  for (const refers of deriving.index.refersFrom.get(entity) ?? []) {
    const target = places.canonical.get(refers.to);
    if (target === undefined) continue;
    const read = places.byId.get(`${refers.id}/read`);
    addRole(deriving, links, roleOf(refers), 'link.role', refers, {
      kind: read === undefined ? 'reference' : 'read',
      relationship: refers.id,
      resource: (read ?? target).id,
    });
  }
  for (const owns of deriving.index.ownedBy.get(entity) ?? [])
    addFiltered(deriving, places, links, resource, owns);
  for (const child of places.below.get(resource.id) ?? []) {
    if (child.custom !== null) {
      addCustom(deriving, links, child);
      continue;
    }
    if (child.transition !== null) {
      const target = { kind: 'action', resource: child.id, transition: child.transition } as const;
      addRole(
        deriving,
        links,
        transitionName(deriving, child),
        'link.action',
        { id: child.transition },
        target,
      );
      continue;
    }
    const statement = deriving.index.relationshipById.get(child.via?.relationship ?? '');
    if (statement === undefined || child.kind === 'reference') continue;
    const back = child.via?.direction === 'referrers' || child.via?.direction === 'paired-back';
    const role = back && statement.back !== null ? statement.back : roleOf(statement);
    addRole(deriving, links, role, back ? 'link.back' : 'link.role', statement, {
      kind: 'resource',
      resource: child.id,
    });
  }
  return links;
}

/** An operation of one's own is a link named by it. */
function addCustom(deriving: Deriving, links: Link[], child: Placed): void {
  const own = customOf(deriving, child);
  if (own === null) return;
  const { operation, custom, entity } = own;
  const target: LinkTarget =
    custom.kind === 'query'
      ? { kind: 'resource', resource: child.id }
      : { kind: 'custom', resource: child.id, when: custom.when };
  addRole(deriving, links, operation.name, 'link.custom', entity, target, operation);
}

/** What is owned and stands beside its owner is found from it by a list narrowed to it, where that is offered. */
function addFiltered(deriving: Deriving, places: Places, links: Link[], resource: Placed, owns: Owns): void {
  const list = places.byId.get(owns.id);
  if (list === undefined || list.parent === resource.id || ownsItself(owns)) return;
  const parameter = ownerMember(deriving, owns);
  if (parameter === null) return;
  if (offersOwnerFilter(deriving, list, owns)) {
    const target = { kind: 'filtered', resource: list.id, parameter } as const;
    addRole(deriving, links, roleOf(owns), 'link.filtered', owns, target);
    return;
  }
  deriving.findings.push({
    id: 'children.unlinked',
    severity: 'doubtful',
    message: `Nothing leads from a ${owns.from} to its ${roleOf(owns)}: their list cannot be narrowed to it.`,
    about: owns.id,
    reasons: [because('finding.unlinked', owns)],
    mends: [
      {
        title: 'Place them nested',
        act: { kind: 'placement', of: 'owned', subject: owns.id, place: 'nested' },
      },
    ],
  });
}

function offersOwnerFilter(deriving: Deriving, list: Placed, owns: Owns): boolean {
  if (valueOf(deriving, 'filterStyle', { resource: list.id, verb: 'list' }) === 'none') return false;
  const { exposures } = deriving.arrangement;
  const choice = exposureChoice(exposures, entityNamed(deriving, owns.to).id, owns.id);
  return choice.out !== 'no' && (choice.filter === undefined || choice.filter.includes('eq'));
}

function ownerLinks(deriving: Deriving, places: Places, entity: string): Link[] {
  const owns = deriving.index.ownerOf.get(entity);
  const owner = owns === undefined ? undefined : places.canonical.get(owns.from);
  if (owns === undefined || owner === undefined) return [];
  return [link('up', { kind: 'owner', relationship: owns.id, resource: owner.id }, because('link.up', owns))];
}

/** The collection an item is listed in: the one above it, or, when it moved to the root, its owner's. */
function collectionLinks(deriving: Deriving, places: Places, resource: Placed): Link[] {
  if (resource.kind !== 'item') return [];
  const above = resource.parent === null ? undefined : places.byId.get(resource.parent);
  const owns = deriving.index.ownerOf.get(resource.entity ?? '');
  const moved = owns === undefined || ownsItself(owns) ? undefined : places.byId.get(owns.id);
  const collection = above?.kind === 'collection' ? above : moved;
  if (collection === undefined) return [];
  return [link('collection', { kind: 'resource', resource: collection.id }, because('link.collection'))];
}

function addRole(
  deriving: Deriving,
  links: Link[],
  role: string,
  rule: RuleId,
  statement: { readonly id: string },
  target: LinkTarget,
  own?: { readonly id: string; readonly name: string },
): void {
  if (!RESERVED.has(role) && !links.some((known) => known.relation === role)) {
    const why = own === undefined ? because(rule, statement) : becauseCustom(rule, own, statement);
    links.push(link(role, target, why));
    return;
  }
  deriving.findings.push({
    id: 'member.collide',
    severity: 'error',
    message: `Two links would be called ${role}; the second is left out. Give the relationship another role.`,
    about: statement.id,
    reasons: [because('finding.collision', statement)],
  });
}
