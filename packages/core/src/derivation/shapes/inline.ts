import type { Expanded, Member, Shape } from '../../contract/index.js';
import { isSingleton, keyOf, roleOf, type Entity, type Owns, type RefersTo } from '../../model/index.js';
import { becausePlaced, entityNamed, placementOf, valueOf, type DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import { reachabilityOf } from '../place/index.js';
import { isSparse } from './sparse.js';
import type { MemberTraits } from './traits.js';
import { isUncreatable } from './uncreatable.js';

/** What an entity owns that stands inside its records. */
export const inlineOwned = (context: DerivationContext, entity: string): readonly Owns[] =>
  (context.index.ownedBy.get(entity) ?? []).filter(
    (owns) =>
      owns.from !== owns.to &&
      reachabilityOf(context).of.get(owns.to) === 'inline' &&
      isPlacedInline(context, owns),
  );

const isPlacedInline = (context: DerivationContext, owns: Owns): boolean =>
  owns.cardinality === 'many'
    ? reachabilityOf(context).owned.get(owns.id) === 'inline'
    : placementOf(context, 'slot', owns.id) === 'inline';

/** The references of an entity that show what they point at. */
export const inlineReferences = (context: DerivationContext, entity: string): readonly RefersTo[] =>
  (context.index.refersFrom.get(entity) ?? []).filter(
    ({ id, to }) =>
      placementOf(context, 'reference', id) === 'inline' &&
      keyOf(entityNamed(context, to)).attribute.key?.within == null,
  );

/**
 * Whether the records of an entity are shown somewhere without a path of their own: inside what has one, or inside what
 * is only shown inside something itself, or only made by an operation of one's own. `made`: names of those; `seen`: of
 * entities that are being asked about.
 */
export function isEmbedded(
  context: DerivationContext,
  { name }: Entity,
  made: ReadonlySet<string>,
  seen: ReadonlySet<string> = new Set(),
): boolean {
  if (reachabilityOf(context).of.get(name) === 'inline') return true;
  const asked = new Set([...seen, name]);
  return (context.index.referredBy.get(name) ?? []).some(
    ({ id, from }) =>
      placementOf(context, 'reference', id) === 'inline' &&
      (reachabilityOf(context).of.get(from) !== 'hidden' ||
        made.has(from) ||
        (!asked.has(from) && isEmbedded(context, entityNamed(context, from), made, asked))),
  );
}

/** How a body takes what stands inside a record. */
type Taking = 'item' | 'create' | 'replace' | 'change';

/** Members for what stands inside a record, as one of its shapes has them. */
export const inlineMembers = (
  context: DerivationContext,
  entity: string,
  taking: Taking,
): readonly Member[] =>
  inlineOwned(context, entity)
    // What must exist from the start is made in any create, inline or not.
    .filter(({ cardinality }) => !(taking === 'create' && cardinality === 'one'))
    .filter((owns) => !(taking === 'create' && !takesNew(context, owns)))
    .map((owns) => inlineMember(context, owns, taking));

/** Whether records can be made inside their owner: whatever they need can be sent. */
const takesNew = (context: DerivationContext, owns: Owns): boolean =>
  !isUncreatable(context, entityNamed(context, owns.to));

function inlineMember(context: DerivationContext, owns: Owns, taking: Taking): Member {
  const isMany = owns.cardinality === 'many';
  const name = taking === 'item' ? owns.to : taking === 'create' ? `${owns.to}.create` : `${owns.to}.inline`;
  const one = { kind: 'shape', shape: name } as const;
  const printsNull = valueOf(context, 'unset') === 'null';
  const isAlways = isMany || owns.cardinality === 'one';
  const isShown = !isSparse(context, owns.from) && (isAlways || printsNull);
  return {
    name: memberName(context, roleOf(owns)),
    mode: taking === 'item' ? 'returned' : 'accepted',
    required: taking === 'item' ? isShown : taking === 'replace' && isAlways,
    nullable: !isAlways && (taking !== 'item' || printsNull),
    type: isMany ? { kind: 'list', of: one, min: null, max: null } : one,
    source: {
      kind: 'inline',
      relationship: owns.id,
      entity: owns.to,
      isMany,
      takesNew: takesNew(context, owns),
    },
    description: owns.description,
    default: null,
    example: null,
    reasons: [becausePlaced(context, 'place.inline', isMany ? 'owned' : 'slot', owns.id, owns)],
  };
}

/** What a record of an entity is when its owner is written: known by its id, or new without one. */
export function inlineShape(
  context: DerivationContext,
  entity: Entity,
  create: Shape,
  replace: Shape,
): Shape {
  const key = isSingleton(context.index, entity.name) ? null : keyOf(entity).attribute;
  const inCreate = new Map(create.members.map((member) => [member.name, member]));
  const members = replace.members.map((member): Member => {
    const made = inCreate.get(member.name);
    const isKey = member.source.kind === 'attribute' && member.source.attribute === key?.id;
    const mode = isKey || made !== undefined ? 'accepted' : member.mode;
    const required = (made?.required ?? false) && member.required;
    return {
      ...member,
      mode,
      required,
      nullable: !required && (member.nullable || made !== undefined || isKey),
    };
  });
  const known = new Set(members.map(({ name }) => name));
  return {
    name: `${entity.name}.inline`,
    purpose: 'inline',
    of: entity.name,
    members: [...members, ...create.members.filter(({ name }) => !known.has(name)).map(asOptional)],
    reasons: replace.reasons,
  };
}

const asOptional = (member: Member): Member => ({ ...member, required: false, nullable: true });

/** What references show beside their keys, whatever is asked for. */
export const shownReferences = (
  context: DerivationContext,
  entity: string,
  traits: readonly MemberTraits[],
): readonly Member[] => {
  const names = new Set(traits.map(({ name }) => name));
  return inlineReferences(context, entity)
    .map((refers): Member => {
      const source: Expanded = {
        kind: 'expanded',
        relationship: refers.id,
        way: 'referred',
        entity: refers.to,
        relation: roleOf(refers),
        limit: null,
        isAlways: true,
      };
      return {
        name: memberName(context, roleOf(refers)),
        mode: 'returned',
        // Not inside what is inside: there nobody is shown a second time.
        required: false,
        nullable: refers.cardinality === 'optional',
        type: { kind: 'shape', shape: refers.to },
        source,
        description: null,
        default: null,
        example: null,
        reasons: [becausePlaced(context, 'place.inline-reference', 'reference', refers.id, refers)],
      };
    })
    .filter(({ name }) => !names.has(name));
};
