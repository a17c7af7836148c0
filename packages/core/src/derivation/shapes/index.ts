import type { Member, MemberMode, MemberType, Shape } from '../../contract/index.js';
import { isSingleton, roleOf, type Entity, type Owns, type ValueDefinition } from '../../model/index.js';
import { because, entityNamed, type Deriving } from '../context.js';
import { memberName } from '../names/members.js';
import type { Placed } from '../place/index.js';
import { ignoredLinks, linksMembers, member, memberType, pageOf, traitsOf } from './members.js';
import { pairShapes } from './pairs.js';
import type { Trait } from './traits.js';

/** The traits of every exposed entity, found once and shared by shapes and operations. */
export type Traits = ReadonlyMap<string, readonly Trait[]>;

export const shapeName = (
  of: string,
  purpose: 'item' | 'member' | 'page' | 'create' | 'replace' | 'change',
): string => (purpose === 'item' ? of : `${of}.${purpose}`);

export const ENTRY_SHAPE = 'entry';

export function findTraits(deriving: Deriving): Traits {
  const traits = new Map<string, readonly Trait[]>();
  for (const entity of deriving.index.entities.values()) traits.set(entity.name, traitsOf(deriving, entity));
  return traits;
}

/** The shapes of everything that has a path, and of the values those use. */
export function deriveShapes(
  deriving: Deriving,
  traits: Traits,
  resources: readonly Placed[],
): readonly Shape[] {
  const exposed = new Set(resources.flatMap(({ entity }) => entity ?? []));
  const shapes: Shape[] = [entryShape(deriving)];
  const required = new Map<string, boolean>();
  for (const entity of deriving.index.entities.values()) {
    const own = traits.get(entity.name) ?? [];
    if (!exposed.has(entity.name)) {
      if (isMadeWithOwner(deriving, entity, exposed))
        shapes.push(createShape(deriving, entity, own, traits, required));
      continue;
    }
    shapes.push(itemShape(deriving, entity, own, 'item'));
    if (isListed(deriving, entity)) shapes.push(...listShapes(deriving, entity, own));
    shapes.push(createShape(deriving, entity, own, traits, required));
    shapes.push(replaceShape(deriving, entity, own), changeShape(deriving, entity, own));
  }
  for (const { kind, canonical, via } of resources) {
    const pairs = deriving.index.relationshipById.get(via?.relationship ?? '');
    if (kind !== 'pairing' || !canonical || pairs?.kind !== 'pairs') continue;
    const side = via?.direction === 'paired-back' ? 'far' : 'near';
    shapes.push(...pairShapes(deriving, pairs, traits, side));
  }
  return [...valueShapes(deriving, shapes), ...shapes];
}

/** What has no path of its own may still be made in the body of an owner that has one. */
function isMadeWithOwner(deriving: Deriving, entity: Entity, exposed: ReadonlySet<string>): boolean {
  for (
    let owns = deriving.index.ownerOf.get(entity.name);
    owns?.cardinality === 'one';
    owns = deriving.index.ownerOf.get(owns.from)
  ) {
    if (exposed.has(owns.from)) return true;
  }
  return false;
}

/** The values that some shape shows or takes, and those they are made of, in the order of the text. */
function valueShapes(deriving: Deriving, shapes: readonly Shape[]): readonly Shape[] {
  if (deriving.index.values.size === 0) return [];
  const values = new Map(
    [...deriving.index.values.values()].map((value) => [value.name, valueShape(deriving, value)]),
  );
  const used = new Set<string>();
  const waiting = [...shapes];
  for (let shape = waiting.pop(); shape !== undefined; shape = waiting.pop()) {
    for (const { type } of shape.members) {
      const name = shapeIn(type);
      const value = name === null ? undefined : values.get(name);
      if (value === undefined || used.has(value.name)) continue;
      used.add(value.name);
      waiting.push(value);
    }
  }
  return [...values.values()].filter(({ name }) => used.has(name));
}

function shapeIn(type: MemberType): string | null {
  if (type.kind === 'shape') return type.shape;
  return type.kind === 'list' ? shapeIn(type.of) : null;
}

/** Every entity with ids is listed; what fills a slot only where a way back lists it. */
const isListed = (deriving: Deriving, entity: Entity): boolean =>
  !isSingleton(deriving.index, entity.name) ||
  (deriving.index.refersFrom.get(entity.name) ?? []).some((refers) => refers.back !== null);

function entryShape(deriving: Deriving): Shape {
  const reasons = [because('place.entry')];
  return {
    name: ENTRY_SHAPE,
    purpose: 'entry',
    of: null,
    members: linksMembers(deriving),
    reasons,
  };
}

function valueShape(deriving: Deriving, value: ValueDefinition): Shape {
  const members = value.attributes.map((attribute): Member => ({
    name: memberName(deriving, attribute.name),
    mode: 'accepted',
    required: attribute.required && attribute.defaultValue === null,
    nullable: !attribute.required || attribute.defaultValue !== null,
    type: memberType(attribute.type),
    source: { kind: 'attribute', attribute: attribute.id },
    description: attribute.description,
    default: attribute.defaultValue,
    example: attribute.example,
    reasons: [because('member.attribute', attribute)],
  }));
  const names = new Set<string>();
  const kept = members.filter(({ name, reasons }) => {
    if (!names.has(name)) {
      names.add(name);
      return true;
    }
    deriving.findings.push({
      id: 'member.collide',
      severity: 'error',
      message: `${value.name} would have two members called ${name}; the second is left out.`,
      about: value.id,
      reasons: [{ rule: 'finding.collision', because: reasons.flatMap(({ because: cited }) => cited) }],
    });
    return false;
  });
  return {
    name: value.name,
    purpose: 'value',
    of: value.name,
    members: kept,
    reasons: [because('member.value', value)],
  };
}

/** What a read, or a list, answers: every returned member is there, unset ones as null. */
function itemShape(
  deriving: Deriving,
  entity: Entity,
  traits: readonly Trait[],
  purpose: 'item' | 'member',
): Shape {
  const members = traits
    .filter(({ exposed }) => exposed[purpose === 'item' ? 'out' : 'list'] === 'yes')
    .map((trait) => member(trait, 'returned', true, !trait.required));
  return {
    name: shapeName(entity.name, purpose),
    purpose,
    of: entity.name,
    members: [...members, ...linksMembers(deriving)],
    reasons: [because('member.attribute', entity)],
  };
}

/** A page, and what is in it where lists show less of a record than a read does. */
function listShapes(deriving: Deriving, entity: Entity, traits: readonly Trait[]): readonly Shape[] {
  const page = (items: string): Shape => pageOf(deriving, shapeName(entity.name, 'page'), entity.name, items);
  if (traits.every(({ exposed }) => exposed.list === exposed.out)) return [page(entity.name)];
  const listed = itemShape(deriving, entity, traits, 'member');
  return [listed, page(listed.name)];
}

function createShape(
  deriving: Deriving,
  entity: Entity,
  traits: readonly Trait[],
  all: Traits,
  required: Map<string, boolean>,
): Shape {
  const members = traits
    .filter(({ exposed }) => exposed.create !== 'no')
    .map((trait) =>
      member(trait, 'accepted', trait.exposed.create === 'must', trait.exposed.create !== 'must'),
    );
  const slots = madeWith(deriving, entity).map((owns) => slotMember(deriving, owns, all, required));
  const name = shapeName(entity.name, 'create');
  return {
    name,
    purpose: 'create',
    of: entity.name,
    members: [...members, ...slots],
    reasons: [because('operation.create', entity)],
  };
}

const mustBeSent = (trait: Trait): boolean => trait.required && !trait.supplied;

const madeWith = (deriving: Deriving, entity: Entity): Owns[] =>
  (deriving.index.ownedBy.get(entity.name) ?? []).filter((owns) => owns.cardinality === 'one');

function slotMember(deriving: Deriving, owns: Owns, all: Traits, required: Map<string, boolean>): Member {
  const child = entityNamed(deriving, owns.to);
  const must = slotMustBeSent(deriving, child, all, required);
  return {
    name: memberName(deriving, roleOf(owns)),
    mode: 'accepted',
    required: must,
    nullable: !must,
    type: { kind: 'shape', shape: shapeName(child.name, 'create') },
    source: { kind: 'slot', relationship: owns.id, entity: child.name },
    description: owns.description,
    default: null,
    example: null,
    reasons: [because('member.slot', owns)],
  };
}

/** Whether the body that makes a slot needs anything; settled once an entity. */
function slotMustBeSent(
  deriving: Deriving,
  entity: Entity,
  all: Traits,
  known: Map<string, boolean>,
): boolean {
  const settled = known.get(entity.name);
  if (settled !== undefined) return settled;
  const own = (all.get(entity.name) ?? []).some(({ exposed }) => exposed.create === 'must');
  const below = (): boolean =>
    madeWith(deriving, entity).some((owns) =>
      slotMustBeSent(deriving, entityNamed(deriving, owns.to), all, known),
    );
  const answer = own || below();
  known.set(entity.name, answer);
  return answer;
}

/** PUT: a whole new value. What a client got from a read may be sent back. */
function replaceShape(deriving: Deriving, entity: Entity, traits: readonly Trait[]): Shape {
  const members = traits
    .filter((trait) => isWritable(trait, 'replace'))
    .map((trait) => {
      const mode = writeMode(trait, 'replace');
      const required = mode === 'accepted' && trait.exposed.replace === 'must';
      return member(trait, mode, required, !required && (mode === 'accepted' || !trait.required));
    });
  return {
    name: shapeName(entity.name, 'replace'),
    purpose: 'replace',
    of: entity.name,
    members: [...members, ...ignoredLinks(deriving)],
    reasons: [because('operation.replace', entity)],
  };
}

/** PATCH as a merge patch (RFC 7396): absent keeps, null unsets. */
function changeShape(deriving: Deriving, entity: Entity, traits: readonly Trait[]): Shape {
  const members = traits
    .filter((trait) => isWritable(trait, 'change'))
    .map((trait) => member(trait, writeMode(trait, 'change'), false, !mustBeSent(trait)));
  return {
    name: shapeName(entity.name, 'change'),
    purpose: 'change',
    of: entity.name,
    members: [...members, ...ignoredLinks(deriving)],
    reasons: [because('operation.change', entity)],
  };
}

/** What is returned may be sent back, also where it is not accepted. */
const isWritable = ({ exposed }: Trait, verb: 'replace' | 'change'): boolean =>
  exposed.out === 'yes' || exposed[verb] !== 'no';

function writeMode(trait: Trait, verb: 'replace' | 'change'): MemberMode {
  if (trait.transitions.length > 0) return 'moved';
  if (trait.exposed[verb] !== 'no') return 'accepted';
  return trait.touched ? 'ignored' : 'must-equal';
}

export { ownerMember } from './members.js';
export { pairShapeName, type PairSide } from './pairs.js';
export { isScalar, type Trait } from './traits.js';
export { exposureGrid, type GridRow } from './grid.js';
export { memberId } from './exposure.js';
