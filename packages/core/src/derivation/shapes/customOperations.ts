import type { Member, Shape } from '../../contract/index.js';
import { becauseCustom, customOf, type ResolvedCustom } from '../customOperations/index.js';
import type { DerivationContext } from '../context.js';
import { structureNames } from '../names/members.js';
import type { PlacedResource } from '../place/index.js';
import { memberId } from './exposure.js';
import { linksMembers, member } from './members.js';
import type { MemberTraits } from './traits.js';

/** What an operation of one's own is sent, or lists: apart, since one of each kind may have the same name. */
export const customShapeName = ({ operation, entity, custom }: ResolvedCustom): string =>
  `${entity.name}.${operation.name}.${custom.kind === 'query' ? 'page' : 'input'}`;

/** What an operation of one's own answers: what it found, the record it changed, or the one it made. */
export function customAnswer(own: ResolvedCustom): string {
  switch (own.custom.kind) {
    case 'query':
      return customShapeName(own);
    case 'find':
    case 'assign':
      return own.entity.name;
    case 'create':
      return own.custom.entity;
  }
}

/** Names of the entities whose records operations of one's own make, and answer. */
export const madeByCustomOperations = (
  context: DerivationContext,
  resources: readonly PlacedResource[],
): ReadonlySet<string> =>
  new Set(
    resources.flatMap((resource) => {
      const custom = customOf(context, resource)?.custom;
      return custom?.kind === 'create' ? [custom.entity] : [];
    }),
  );

/** The shapes of the operations of one's own that have a path. */
export function customShapes(
  context: DerivationContext,
  resources: readonly PlacedResource[],
  traits: ReadonlyMap<string, readonly MemberTraits[]>,
  hasShape: (name: string) => boolean,
): readonly Shape[] {
  return resources.flatMap((resource): Shape[] => {
    const own = customOf(context, resource);
    if (own === null) return [];
    if (own.custom.kind === 'query') return [foundShape(context, own, hasShape)];
    return own.inputs.length === 0 ? [] : [inputShape(own, traits)];
  });
}

function foundShape(
  context: DerivationContext,
  own: ResolvedCustom,
  hasShape: (name: string) => boolean,
): Shape {
  const { name } = own.entity;
  const listed = hasShape(`${name}.member`) ? `${name}.member` : name;
  const items: Member = {
    name: structureNames(context).items,
    mode: 'returned',
    required: true,
    nullable: false,
    type: { kind: 'list', of: { kind: 'shape', shape: listed }, min: null, max: null },
    source: { kind: 'items' },
    description: null,
    default: null,
    example: null,
    reasons: [becauseCustom('list.query', own.operation, own.entity)],
  };
  return {
    name: customShapeName(own),
    purpose: 'page',
    of: name,
    members: [items, ...linksMembers(context)],
    reasons: [becauseCustom('list.query', own.operation, own.entity)],
  };
}

/** What is sent, by the rules of the entity whose record gets it. */
function inputShape(own: ResolvedCustom, traits: ReadonlyMap<string, readonly MemberTraits[]>): Shape {
  const of = own.custom.kind === 'create' ? own.custom.entity : own.entity.name;
  const sent = (traits.get(of) ?? []).filter((trait) => own.inputs.includes(memberId(trait)));
  return {
    name: customShapeName(own),
    purpose: 'input',
    of,
    members: sent.map((trait) => {
      const must = trait.required && !trait.supplied;
      return member(trait, 'accepted', must, !must);
    }),
    reasons: [becauseCustom('operation.custom', own.operation, own.entity)],
  };
}
