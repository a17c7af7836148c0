import { exposureChoice, NOT_CHOSEN } from '../../arrangement/index.js';
import type { Member, MemberMode, MemberType, PageForm, Reason, Shape } from '../../contract/index.js';
import {
  memoize,
  isImplicitId,
  keyOf,
  ownsItself,
  readsOthers,
  recordAttributes,
  type Attribute,
  type AttributeType,
  type Entity,
  type Owns,
  type RefersTo,
} from '../../model/index.js';
import {
  because,
  becausePlaced,
  becauseSet,
  entityNamed,
  placementOf,
  valueOf,
  type DerivationContext,
} from '../context.js';
import {
  attributeMember,
  derivedOwner,
  derivedReference,
  ownerMember,
  referenceMember,
} from '../names/called.js';
import { memberName, structureNames } from '../names/members.js';
import { isPlacedSingle, itemId, keyType, reachabilityOf } from '../place/index.js';
import { exposureOf, exposureReasons, memberId } from './exposure.js';
import { isSparse } from './sparse.js';
import type { AttributeTraits, MemberTraits } from './traits.js';

/** Everything the representations of an entity can carry, in the order they show it. */
export function traitsOf(context: DerivationContext, entity: Entity): readonly MemberTraits[] {
  const candidates = [
    ...shownAttributes(context, entity).map((attribute) => attributeTrait(context, entity, attribute)),
    ...ownerTraits(context, entity),
    ...(context.index.refersFrom.get(entity.name) ?? []).flatMap((refers) =>
      referenceTraits(context, entity, refers),
    ),
  ];
  const names = new Set([structureNames(context).links]);
  const kept = candidates.filter((trait) => {
    if (!names.has(trait.name)) {
      names.add(trait.name);
      return true;
    }
    context.findings.push({
      id: 'member.collide',
      severity: 'error',
      message: `${entity.name} would have two members called ${trait.name}; the second is left out.`,
      about: entity.id,
      reasons: [{ rule: 'finding.collision', because: trait.reasons.flatMap((reason) => reason.because) }],
    });
    return false;
  });
  return kept.map((trait): MemberTraits => {
    const choice = exposureChoice(context.arrangement.exposures, entity.id, memberId(trait));
    if (choice === NOT_CHOSEN) return { ...trait, exposed: exposureOf(trait, choice) };
    const reasons = [...trait.reasons, ...exposureReasons(entity, trait, choice)];
    return { ...trait, exposed: exposureOf(trait, choice), reasons };
  });
}

/** The attributes that records show; where there is one record, nobody needs an id that nobody chose. */
const shownAttributes = (context: DerivationContext, entity: Entity): readonly Attribute[] =>
  recordAttributes(context.index, entity).filter(
    ({ id }) => !isImplicitId(id) || !isPlacedSingle(context, entity),
  );

function attributeTrait(context: DerivationContext, entity: Entity, attribute: Attribute): AttributeTraits {
  const made = attribute.generated || attribute.touched;
  const { computed } = attribute;
  const accepted = !made && !attribute.readOnly && attribute.lifeCycle === null && computed === null;
  const transitions = (attribute.lifeCycle ?? []).filter(
    ({ id }) => placementOf(context, 'transition', id) === 'change',
  );
  return {
    name: attributeMember(context, entity, attribute),
    derived: memberName(context, attribute.name),
    type: memberType(attribute.type),
    source:
      computed === null
        ? { kind: 'attribute', attribute: attribute.id }
        : {
            kind: 'computed',
            attribute: attribute.id,
            reads: readsOthers(attribute, entity.attributes) ? 'others' : 'record',
          },
    description: attribute.description,
    default: attribute.defaultValue,
    example: attribute.example,
    isKey: attribute.key !== null,
    required: attribute.required || attribute.key !== null,
    returned: !attribute.writeOnly,
    onCreate: accepted,
    onReplace: accepted && !attribute.fixed && attribute.key === null,
    // It changes by itself, too: whoever sends back what was read means nothing by it.
    touched: attribute.touched || computed !== null,
    transitions: transitions.map(({ id }) => id),
    supplied: made || attribute.defaultValue !== null || computed !== null,
    reasons: [
      ...attributeReasons(context, attribute),
      ...transitions.map((transition) =>
        becausePlaced(context, 'place.change', 'transition', transition.id, transition),
      ),
    ],
  };
}

function attributeReasons(context: DerivationContext, attribute: Attribute): readonly Reason[] {
  const implicit = isImplicitId(attribute.id);
  const reasons: Reason[] = [
    implicit
      ? becauseSet(context, 'member.implicit-id', ['implicitId'], attribute)
      : becauseSet(context, 'member.attribute', ['memberCase'], attribute),
  ];
  if (implicit) return reasons;
  if (attribute.key !== null) reasons.push(because('member.key', attribute));
  if (attribute.generated) reasons.push(because('member.generated', attribute));
  if (attribute.touched) reasons.push(because('member.touched', attribute));
  if (attribute.computed !== null) reasons.push(because('member.computed', attribute));
  if (attribute.fixed) reasons.push(because('member.fixed', attribute));
  if (attribute.lifeCycle !== null) reasons.push(because('member.life-cycle', attribute));
  if (attribute.readOnly) reasons.push(because('member.read-only', attribute));
  if (attribute.writeOnly) reasons.push(because('member.write-only', attribute));
  if (attribute.required && attribute.defaultValue === null)
    reasons.push(because('member.required', attribute));
  return reasons;
}

/** The wire type of an attribute. Values become objects described by a shape of their own. */
export function memberType(type: AttributeType): MemberType {
  switch (type.kind) {
    case 'value':
      return { kind: 'shape', shape: type.name };
    case 'list':
      return { kind: 'list', of: memberType(type.of), min: type.min, max: type.max };
    default:
      return type;
  }
}

function ownerTraits(context: DerivationContext, entity: Entity): readonly AttributeTraits[] {
  const owns = context.index.ownerOf.get(entity.name);
  // Inside its owner nobody asks whose it is.
  if (owns === undefined || reachabilityOf(context).of.get(entity.name) === 'inline') return [];
  const owner = ownerWithKey(context, owns);
  if (owner === null) return [];
  // What is placed flat is made beside its owner, so that its body must name it.
  const isNamed = reachabilityOf(context).owned.get(owns.id) === 'flat';
  return [
    {
      name: ownerMember(context, owns),
      derived: derivedOwner(context, owns),
      type: keyType(owner),
      source: { kind: 'owner', relationship: owns.id, entity: owner.name },
      description: null,
      default: null,
      example: null,
      isKey: false,
      required: !ownsItself(owns),
      returned: true,
      onCreate: isNamed,
      onReplace: false,
      touched: false,
      transitions: [],
      supplied: !isNamed,
      reasons: [
        isNamed
          ? becausePlaced(context, 'member.owner-named', 'owned', owns.id, owns)
          : because('member.owner', owns),
      ],
    },
  ];
}

/** The owner, when it has an id that a member can hold; a slot has none. */
export function ownerWithKey(context: DerivationContext, owns: Owns): Entity | null {
  const above = context.index.ownerOf.get(owns.from);
  const inSlot = above !== undefined && above.cardinality !== 'many';
  const owner = entityNamed(context, owns.from);
  return inSlot || isPlacedSingle(context, owner) ? null : owner;
}

function referenceTraits(
  context: DerivationContext,
  entity: Entity,
  refers: RefersTo,
): readonly AttributeTraits[] {
  const target = entityNamed(context, refers.to);
  const key = keyOf(target).attribute;
  if (key.key?.within != null) {
    context.findings.push({
      id: 'key.scoped-reference',
      severity: 'error',
      message: `${entity.name} cannot refer to ${target.name}: its key ${key.name} is unique only under its ${key.key.within}.`,
      about: refers.id,
      reasons: [because('place.scoped', key), because('member.reference', refers)],
    });
    return [];
  }
  return [
    {
      name: referenceMember(context, entity, refers),
      derived: derivedReference(context, refers),
      type: keyType(target),
      source: { kind: 'reference', relationship: refers.id, entity: target.name },
      description: refers.description,
      default: null,
      example: null,
      isKey: false,
      required: refers.cardinality === 'one',
      returned: true,
      onCreate: true,
      onReplace: !refers.fixed,
      touched: false,
      transitions: [],
      supplied: false,
      reasons: [
        because('member.reference', refers),
        ...(refers.fixed ? [because('member.fixed', refers)] : []),
      ],
    },
  ];
}

/** One view of a trait. */
export function member(trait: MemberTraits, mode: MemberMode, required: boolean, nullable: boolean): Member {
  const { name, type, source, description, default: fallback, example, transitions, reasons } = trait;
  const bare = {
    name,
    mode,
    required,
    nullable,
    type,
    source,
    description,
    default: fallback,
    example,
    reasons,
  };
  return mode === 'moved' ? { ...bare, transitions } : bare;
}

/** A trait in an answer: there, unless only some members were asked for, or it has no value and is left out. */
export function returnedMember(context: DerivationContext, entity: string, trait: MemberTraits): Member {
  const printsNull = valueOf(context, 'unset') === 'null';
  const isThere = !isSparse(context, entity) && (printsNull || trait.required);
  return member(trait, 'returned', isThere, printsNull && !trait.required);
}

function structural(
  name: string,
  type: Member['type'],
  source: Member['source'],
  reason: Reason,
  mode: MemberMode,
): Member {
  const bare = { description: null, default: null, example: null, nullable: false };
  return { name, mode, required: mode === 'returned', type, source, reasons: [reason], ...bare };
}

interface LinkMembers {
  readonly returned: readonly Member[];
  readonly ignored: readonly Member[];
}

/** The same in every shape, so made once. */
const linkMembersOf = memoize((context: DerivationContext): LinkMembers => {
  const returned =
    valueOf(context, 'links') === 'object'
      ? [
          linksMember(
            structureNames(context).links,
            becauseSet(context, 'member.links', ['links']),
            'returned',
          ),
        ]
      : [];
  const hal = valueOf(context, 'mediaTypes').includes('hal')
    ? [linksMember('_links', becauseSet(context, 'member.hal-links', ['mediaTypes']), 'ignored')]
    : [];
  const ignored = returned.map((own): Member => ({ ...own, mode: 'ignored', required: false }));
  return { returned, ignored: [...ignored, ...hal] };
});

/** Whether lists show a record of an entity otherwise than a read does: less of it, or other links. */
export const isListedOtherwise = (
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
): boolean =>
  valueOf(context, 'memberLinks') !== 'all' ||
  traits.some(({ exposed }) => exposed.list !== exposed.out) ||
  Object.values(context.arrangement.links[itemId(entity)] ?? {}).some((choice) => choice.in !== undefined);

/** The links of an answer; none where plain JSON has them elsewhere. */
export const linksMembers = (context: DerivationContext): readonly Member[] =>
  linkMembersOf(context).returned;

/** The links that may be sent back as they were read, in whatever form that was. */
export const ignoredLinks = (context: DerivationContext): readonly Member[] => linkMembersOf(context).ignored;

const linksMember = (name: string, reason: Reason, mode: MemberMode): Member =>
  structural(name, { kind: 'links' }, { kind: 'links' }, reason, mode);

/** A page of a list whose members have the shape `items`. */
export function usualPage(context: DerivationContext, name: string, of: string, items: string): Shape {
  const reason = becauseSet(context, 'list.page', ['pageStyle']);
  const list = { kind: 'list', of: { kind: 'shape', shape: items }, min: null, max: null } as const;
  const members = [structural(structureNames(context).items, list, { kind: 'items' }, reason, 'returned')];
  return pageOf(
    context,
    { name, purpose: 'page', of, members, reasons: [reason] },
    { style: valueOf(context, 'pageStyle'), variant: '' },
  );
}

/** The page with where it stands told in a form, and its links. */
export function pageOf(
  context: DerivationContext,
  page: Shape,
  { style, variant }: Pick<PageForm, 'style' | 'variant'>,
): Shape {
  const { reasons } = page;
  const [reason = becauseSet(context, 'list.page', ['pageStyle'])] = reasons;
  const type = { kind: 'page', variant } as const;
  return {
    ...page,
    members: [
      ...page.members.filter(({ source }) => source.kind === 'items'),
      ...(style === 'none'
        ? []
        : [structural(structureNames(context).page, type, { kind: 'page' }, reason, 'returned')]),
      ...linksMembers(context),
    ],
  };
}
