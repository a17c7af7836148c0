import {
  LINK_ATTRIBUTE_NAMES,
  type LinkAttributes,
  type LinkChoice,
  type LinkChoices,
} from '../../arrangement/index.js';
import {
  isCarried,
  isHome,
  REGISTERED_RELATIONS,
  type Expanded,
  type Link,
  type Resource,
  type Shape,
} from '../../contract/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import { apiRelations } from './api.js';

/** The links of a resource as they were decided. */
interface Decided {
  readonly links: readonly Link[];
  readonly leftOutLinks: readonly Link[];
}

/** The derived links of a resource, with what was decided about each; what is about none has no effect. */
export function linksAsChosen(
  context: DerivationContext,
  resource: string,
  derived: readonly Link[],
): Decided {
  const choices = choicesAt(context.arrangement.links, resource);
  if (choices === null) return { links: derived, leftOutLinks: [] };
  const links: Link[] = [];
  const positioned: (readonly [position: number, link: Link])[] = [];
  const leftOutLinks: Link[] = [];
  for (const link of derived) {
    const choice = Object.hasOwn(choices, link.id) ? choices[link.id] : undefined;
    if (choice === undefined) links.push(link);
    else if (choice.leftOut === true) leftOutLinks.push(chosen(resource, link, choice));
    else if (choice.position !== undefined)
      positioned.push([choice.position, chosen(resource, link, choice)]);
    else links.push(chosen(resource, link, choice));
  }
  for (const [position, link] of positioned.sort(([a], [b]) => a - b)) links.splice(position - 1, 0, link);
  return { links, leftOutLinks };
}

const choicesAt = (choices: LinkChoices, resource: string): LinkChoices[string] | null =>
  Object.hasOwn(choices, resource) ? (choices[resource] ?? null) : null;

function chosen(resource: string, link: Link, choice: LinkChoice): Link {
  return {
    ...link,
    relation: choice.relation ?? link.relation,
    attributes: attributesOf(choice),
    in: choice.in ?? link.in,
    was: choice.relation === undefined || choice.relation === link.relation ? null : link.relation,
    reasons: [
      ...link.reasons,
      {
        rule: 'link.chosen',
        because: [decided(resource, link.id, choice)],
      },
    ],
  };
}

function attributesOf(choice: LinkChoice): LinkAttributes | null {
  const told = LINK_ATTRIBUTE_NAMES.flatMap((name) => {
    const value = choice[name];
    return value === undefined ? [] : [[name, value] as const];
  });
  return told.length === 0 ? null : Object.fromEntries(told);
}

const inWords = ({ leftOut, relation, in: places, position, ...attributes }: LinkChoice): string =>
  [
    ...(leftOut === true ? ['left out'] : []),
    ...(relation === undefined ? [] : [`called ${relation}`]),
    ...(places === undefined ? [] : [`carried in ${places.join(' and ')}`]),
    ...(position === undefined ? [] : [`in place ${position}`]),
    ...Object.entries(attributes).map(([name, value]) => `${name} ${value}`),
  ].join(', ');

/** Reports what was decided about links that are not derived any more, and has no effect. */
export function findIdle(
  context: DerivationContext,
  resources: readonly Pick<Resource, 'id' | 'path' | 'links' | 'leftOutLinks'>[],
): void {
  const byId = new Map(resources.map((resource) => [resource.id, resource]));
  for (const [id, choices] of Object.entries(context.arrangement.links)) {
    const resource = byId.get(id);
    const derived = new Set(
      [...(resource?.links ?? []), ...(resource?.leftOutLinks ?? [])].map((link) => link.id),
    );
    for (const [link, choice] of Object.entries(choices)) {
      if (derived.has(link)) continue;
      const source = decided(id, link, choice);
      context.findings.push({
        id: 'link.idle',
        severity: 'doubtful',
        message: `A link of ${resource?.path ?? 'a path that is gone'} was ${inWords(choice)}, but there is none any more.`,
        about: `${id} ${link}`,
        reasons: [{ rule: 'finding.idle-link', because: [source] }],
        cause: source,
        quickFixes: [{ title: 'Forget it', answer: { kind: 'link', resource: id, link, choice: null } }],
      });
    }
  }
}

const decided = (resource: string, link: string, choice: LinkChoice) =>
  ({ kind: 'link', resource, link, choice: inWords(choice), level: 'arrangement' }) as const;

/** Relations that were chosen somewhere and are registered with IANA. */
export function registeredAmong(context: DerivationContext): readonly string[] {
  const { arrangement } = context;
  const chosenRelations = new Set([
    ...apiRelations(context),
    ...arrangement.ownLinks.map(({ relation }) => relation),
    ...Object.values(arrangement.links).flatMap((links) =>
      Object.values(links).flatMap(({ relation }) => relation ?? []),
    ),
  ]);
  return REGISTERED_RELATIONS.filter((relation) => chosenRelations.has(relation));
}

/** Shapes of listed records without the member of links where lists carry none. */
export function withCarriedLinks(
  context: DerivationContext,
  shapes: readonly Shape[],
  resources: readonly Pick<Resource, 'canonical' | 'kind' | 'entity' | 'links'>[],
): readonly Shape[] {
  const memberLinks = valueOf(context, 'memberLinks');
  const carrying = new Set(
    resources.flatMap((resource) =>
      isHome(resource) && resource.links.some((link) => isCarried(link, 'lists', memberLinks))
        ? (resource.entity ?? [])
        : [],
    ),
  );
  return shapes.map((shape) => {
    if (shape.purpose !== 'member' || carrying.has(shape.of ?? '')) return shape;
    // That of a pair is carried with all others.
    if (memberLinks === 'all' && shape.members.some(({ source }) => source.kind === 'carried')) return shape;
    return { ...shape, members: shape.members.filter(({ source }) => source.kind !== 'links') };
  });
}

/** The id of the link to what is embedded; both ways along a relationship may lead from one entity. */
function linkOf({ way, relationship }: Expanded): string | null {
  switch (way) {
    // It is embedded by its role, whatever the link up is called.
    case 'owner':
      return null;
    case 'referrers':
    case 'paired-back':
      return `${relationship}/back`;
    case 'referred':
    case 'owned':
    case 'paired':
      return relationship;
  }
}

/** Shapes whose records are embedded under the relations that their links have now (draft-kelly-json-hal §4.1.2). */
export function withRelations(
  shapes: readonly Shape[],
  resources: readonly Pick<Resource, 'canonical' | 'kind' | 'entity' | 'links' | 'leftOutLinks'>[],
): readonly Shape[] {
  const renamed = new Map<string, ReadonlyMap<string, string>>();
  for (const { canonical, kind, entity, links, leftOutLinks } of resources) {
    if (!canonical || entity === null || (kind !== 'item' && kind !== 'singleton')) continue;
    const all = [...links, ...leftOutLinks].flatMap(({ id, relation, reasons }) =>
      reasons.some(({ rule }) => rule === 'link.chosen') ? [[id, relation] as const] : [],
    );
    if (all.length > 0) renamed.set(entity, new Map(all));
  }
  if (renamed.size === 0) return shapes;
  return shapes.map((shape) => {
    const relations = renamed.get(shape.of ?? '');
    if (relations === undefined) return shape;
    const members = shape.members.map((member) => {
      const { source } = member;
      const relation = source.kind === 'expanded' ? relations.get(linkOf(source) ?? '') : undefined;
      return relation === undefined || source.kind !== 'expanded'
        ? member
        : { ...member, source: { ...source, relation } };
    });
    return { ...shape, members };
  });
}
