import { exposureChoice, NOT_CHOSEN } from '../../arrangement/index.js';
import type { Member, MemberMode, MemberType, Reason, Shape } from '../../contract/index.js';
import {
  once,
  isImplicitId,
  keyOf,
  ownerRoleOf,
  ownsItself,
  pascalCase,
  recordAttributes,
  roleOf,
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
  placed,
  valueOf,
  type Deriving,
} from '../context.js';
import { memberName, structureNames } from '../names/members.js';
import { keyType, standingsOf } from '../place/index.js';
import { exposureOf, exposureReasons, memberId } from './exposure.js';
import type { BareTrait, Trait } from './traits.js';

/** Everything the representations of an entity can carry, in the order they show it. */
export function traitsOf(deriving: Deriving, entity: Entity): readonly Trait[] {
  const candidates = [
    ...recordAttributes(deriving.index, entity).map((attribute) => attributeTrait(deriving, attribute)),
    ...ownerTraits(deriving, entity),
    ...(deriving.index.refersFrom.get(entity.name) ?? []).flatMap((refers) =>
      referenceTraits(deriving, entity, refers),
    ),
  ];
  const names = new Set([structureNames(deriving).links]);
  const kept = candidates.filter((trait) => {
    if (!names.has(trait.name)) {
      names.add(trait.name);
      return true;
    }
    deriving.findings.push({
      id: 'member.collide',
      severity: 'error',
      message: `${entity.name} would have two members called ${trait.name}; the second is left out.`,
      about: entity.id,
      reasons: [{ rule: 'finding.collision', because: trait.reasons.flatMap((reason) => reason.because) }],
    });
    return false;
  });
  return kept.map((trait): Trait => {
    const choice = exposureChoice(deriving.arrangement.exposures, entity.id, memberId(trait));
    if (choice === NOT_CHOSEN) return { ...trait, exposed: exposureOf(trait, choice) };
    const reasons = [...trait.reasons, ...exposureReasons(entity, trait, choice)];
    return { ...trait, exposed: exposureOf(trait, choice), reasons };
  });
}

function attributeTrait(deriving: Deriving, attribute: Attribute): BareTrait {
  const made = attribute.generated || attribute.touched;
  const accepted = !made && !attribute.readOnly && attribute.lifeCycle === null;
  const transitions = (attribute.lifeCycle ?? []).filter(
    ({ id }) => placed(deriving, 'transition', id) === 'change',
  );
  return {
    name: memberName(deriving, attribute.name),
    type: memberType(attribute.type),
    source: { kind: 'attribute', attribute: attribute.id },
    description: attribute.description,
    default: attribute.defaultValue,
    example: attribute.example,
    isKey: attribute.key !== null,
    required: attribute.required || attribute.key !== null,
    returned: !attribute.writeOnly,
    onCreate: accepted,
    onReplace: accepted && !attribute.fixed && attribute.key === null,
    touched: attribute.touched,
    transitions: transitions.map(({ id }) => id),
    supplied: made || attribute.defaultValue !== null,
    reasons: [
      ...attributeReasons(deriving, attribute),
      ...transitions.map((transition) =>
        becausePlaced(deriving, 'place.change', 'transition', transition.id, transition),
      ),
    ],
  };
}

function attributeReasons(deriving: Deriving, attribute: Attribute): readonly Reason[] {
  const implicit = isImplicitId(attribute.id);
  const reasons: Reason[] = [
    implicit
      ? becauseSet(deriving, 'member.implicit-id', ['implicitId'], attribute)
      : becauseSet(deriving, 'member.attribute', ['memberCase'], attribute),
  ];
  if (implicit) return reasons;
  if (attribute.key !== null) reasons.push(because('member.key', attribute));
  if (attribute.generated) reasons.push(because('member.generated', attribute));
  if (attribute.touched) reasons.push(because('member.touched', attribute));
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

function ownerTraits(deriving: Deriving, entity: Entity): readonly BareTrait[] {
  const owns = deriving.index.ownerOf.get(entity.name);
  // Inside its owner nobody asks whose it is.
  if (owns === undefined || standingsOf(deriving).of.get(entity.name) === 'inline') return [];
  const owner = ownerWithKey(deriving, owns);
  const name = ownerMember(deriving, owns);
  if (owner === null || name === null) return [];
  // What is placed flat is made beside its owner, so that its body must name it.
  const isNamed = standingsOf(deriving).owned.get(owns.id) === 'flat';
  return [
    {
      name,
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
          ? becausePlaced(deriving, 'member.owner-named', 'owned', owns.id, owns)
          : because('member.owner', owns),
      ],
    },
  ];
}

/** The member that holds the key of the owner; `null` where the owner has none. */
export function ownerMember(deriving: Deriving, owns: Owns): string | null {
  const owner = ownerWithKey(deriving, owns);
  return owner === null
    ? null
    : memberName(deriving, ownerRoleOf(owns) + pascalCase(keyOf(owner).attribute.name));
}

/** The owner, when it has an id that a member can hold; a slot has none. */
function ownerWithKey(deriving: Deriving, owns: Owns): Entity | null {
  const above = deriving.index.ownerOf.get(owns.from);
  const inSlot = above !== undefined && above.cardinality !== 'many';
  return inSlot ? null : entityNamed(deriving, owns.from);
}

function referenceTraits(deriving: Deriving, entity: Entity, refers: RefersTo): readonly BareTrait[] {
  const target = entityNamed(deriving, refers.to);
  const key = keyOf(target).attribute;
  if (key.key?.within != null) {
    deriving.findings.push({
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
      name: memberName(deriving, roleOf(refers) + pascalCase(key.name)),
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
export function member(trait: Trait, mode: MemberMode, required: boolean, nullable: boolean): Member {
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
export function shownMember(deriving: Deriving, trait: Trait): Member {
  const printsNull = valueOf(deriving, 'unset') === 'null';
  const isThere = valueOf(deriving, 'fields') === 'off' && (printsNull || trait.required);
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
const linkMembersOf = once((deriving: Deriving): LinkMembers => {
  const returned =
    valueOf(deriving, 'links') === 'object'
      ? [
          linksMember(
            structureNames(deriving).links,
            becauseSet(deriving, 'member.links', ['links']),
            'returned',
          ),
        ]
      : [];
  const hal = valueOf(deriving, 'mediaTypes').includes('hal')
    ? [linksMember('_links', becauseSet(deriving, 'member.hal-links', ['mediaTypes']), 'ignored')]
    : [];
  const ignored = returned.map((own): Member => ({ ...own, mode: 'ignored', required: false }));
  return { returned, ignored: [...ignored, ...hal] };
});

/** The links of an answer; none where plain JSON has them elsewhere. */
export const linksMembers = (deriving: Deriving): readonly Member[] => linkMembersOf(deriving).returned;

/** The links that may be sent back as they were read, in whatever form that was. */
export const ignoredLinks = (deriving: Deriving): readonly Member[] => linkMembersOf(deriving).ignored;

const linksMember = (name: string, reason: Reason, mode: MemberMode): Member =>
  structural(name, { kind: 'links' }, { kind: 'links' }, reason, mode);

/** A page of a list whose members have the shape `items`. */
export function pageOf(deriving: Deriving, name: string, of: string, items: string): Shape {
  const reason = becauseSet(deriving, 'list.page', ['pageStyle']);
  const list = { kind: 'list', of: { kind: 'shape', shape: items }, min: null, max: null } as const;
  return {
    name,
    purpose: 'page',
    of,
    members: [
      structural(structureNames(deriving).items, list, { kind: 'items' }, reason, 'returned'),
      ...(valueOf(deriving, 'pageStyle') === 'none'
        ? []
        : [
            structural(structureNames(deriving).page, { kind: 'page' }, { kind: 'page' }, reason, 'returned'),
          ]),
      ...linksMembers(deriving),
    ],
    reasons: [reason],
  };
}
