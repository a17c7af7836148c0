import {
  LINK_ATTRIBUTE_NAMES,
  type LinkAttributes,
  type LinkChoice,
  type LinkChoices,
} from '../../arrangement/index.js';
import { REGISTERED_RELATIONS, type Link, type Resource, type Shape } from '../../contract/index.js';
import type { DerivationContext } from '../context.js';

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
  const leftOutLinks: Link[] = [];
  for (const link of derived) {
    const choice = Object.hasOwn(choices, link.id) ? choices[link.id] : undefined;
    if (choice === undefined) links.push(link);
    else if (choice.leftOut === true) leftOutLinks.push(chosen(resource, link, choice));
    else links.push(chosen(resource, link, choice));
  }
  return { links, leftOutLinks };
}

const choicesAt = (choices: LinkChoices, resource: string): LinkChoices[string] | null =>
  Object.hasOwn(choices, resource) ? (choices[resource] ?? null) : null;

function chosen(resource: string, link: Link, choice: LinkChoice): Link {
  return {
    ...link,
    relation: choice.relation ?? link.relation,
    attributes: attributesOf(choice),
    reasons: [
      ...link.reasons,
      {
        rule: 'link.chosen',
        because: [{ kind: 'link', resource, link: link.id, choice: inWords(choice), level: 'arrangement' }],
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

const inWords = ({ leftOut, relation, ...attributes }: LinkChoice): string =>
  [
    ...(leftOut === true ? ['left out'] : []),
    ...(relation === undefined ? [] : [`called ${relation}`]),
    ...Object.entries(attributes).map(([name, value]) => `${name} ${value}`),
  ].join(', ');

/** Relations that were chosen somewhere and are registered with IANA. */
export function registeredAmong({ arrangement }: DerivationContext): readonly string[] {
  const chosenRelations = new Set(
    Object.values(arrangement.links).flatMap((links) =>
      Object.values(links).flatMap(({ relation }) => relation ?? []),
    ),
  );
  return REGISTERED_RELATIONS.filter((relation) => chosenRelations.has(relation));
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
      const relation = source.kind === 'expanded' ? relations.get(source.relationship) : undefined;
      return relation === undefined || source.kind !== 'expanded'
        ? member
        : { ...member, source: { ...source, relation } };
    });
    return { ...shape, members };
  });
}
