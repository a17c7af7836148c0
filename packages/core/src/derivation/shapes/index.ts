import { shapeIn, type Member, type Shape } from '../../contract/index.js';
import {
  appendAll,
  isSingleton,
  roleOf,
  type Entity,
  type Owns,
  type ValueDefinition,
} from '../../model/index.js';
import { because, entityNamed, type DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import { reachabilityOf, type PlacedResource } from '../place/index.js';
import { customShapes, madeByCustomOperations } from './customOperations.js';
import { expansionsOf, findExpansions } from './expansions.js';
import { inputsOfCreate, moveShape, withInputsOf } from './inputs.js';
import { inlineMembers, inlineShape, isEmbedded, shownReferences } from './inline.js';
import {
  isListedOtherwise,
  linksMembers,
  member,
  memberType,
  returnedMember,
  traitsOf,
  usualPage,
} from './members.js';
import { pairShapes } from './pairs.js';
import { findSparse } from './sparse.js';
import { hasPath, shapeName } from './named.js';
import type { MemberTraits } from './traits.js';
import { changeShape, replaceShape } from './updates.js';

/** The traits of every exposed entity, found once and shared by shapes and operations. */
export type Traits = ReadonlyMap<string, readonly MemberTraits[]>;

export const ENTRY_SHAPE = 'entry';

export function findTraits(context: DerivationContext): Traits {
  const traits = new Map<string, readonly MemberTraits[]>();
  for (const entity of context.index.entities.values()) traits.set(entity.name, traitsOf(context, entity));
  return traits;
}

/** The shapes of everything that has a path, and of the values those use. */
export function deriveShapes(
  context: DerivationContext,
  traits: Traits,
  resources: readonly PlacedResource[],
): readonly Shape[] {
  findExpansions(context, resources);
  findSparse(context, resources);
  const exposed = new Set(resources.flatMap(({ entity }) => entity ?? []));
  const shapes: Shape[] = [entryShape(context)];
  const required = new Map<string, boolean>();
  const made = madeByCustomOperations(context, resources);
  for (const entity of context.index.entities.values()) {
    const own = traits.get(entity.name) ?? [];
    if (!exposed.has(entity.name)) {
      appendAll(shapes, shapesWithoutPath(context, entity, own, traits, required, exposed, made));
      continue;
    }
    shapes.push(itemShape(context, entity, own, 'item'));
    if (isListed(context, entity)) appendAll(shapes, listShapes(context, entity, own));
    shapes.push(createShape(context, entity, own, traits, required));
    shapes.push(replaceShape(context, entity, own), changeShape(context, entity, own));
  }
  for (const { kind, canonical, via } of resources) {
    const pairs = context.index.relationshipById.get(via?.relationship ?? '');
    if (kind !== 'pairing' || !canonical || pairs?.kind !== 'pairs') continue;
    const side = via?.direction === 'paired-back' ? 'far' : 'near';
    appendAll(shapes, pairShapes(context, pairs, traits, side));
  }
  if (context.arrangement.customOperations.length > 0)
    appendAll(
      shapes,
      customShapes(context, resources, traits, (name) => shapes.some((shape) => shape.name === name)),
    );
  appendAll(shapes, moveShapes(context, resources));
  return [...valueShapes(context, shapes), ...shapes];
}

/** What the transitions are sent that have a path. */
const moveShapes = (context: DerivationContext, resources: readonly PlacedResource[]): readonly Shape[] =>
  resources.flatMap((resource) => (resource.transition === null ? [] : (moveShape(context, resource) ?? [])));

/** What has no path may still be made by an operation of one's own and answered by it, be shown inside something, be written with its owner, or only be made with it. */
function shapesWithoutPath(
  context: DerivationContext,
  entity: Entity,
  own: readonly MemberTraits[],
  traits: Traits,
  required: Map<string, boolean>,
  exposed: ReadonlySet<string>,
  made: ReadonlySet<string>,
): readonly Shape[] {
  const shown =
    isEmbedded(context, entity, made) || made.has(entity.name)
      ? [itemShape(context, entity, own, 'item')]
      : [];
  const isInline = reachabilityOf(context).of.get(entity.name) === 'inline';
  if (!isInline && !isMadeWithOwner(context, entity, exposed)) return shown;
  const create = createShape(context, entity, own, traits, required);
  if (!isInline) return [...shown, create];
  const replace = withInputsOf(replaceShape(context, entity, own), create);
  return [...shown, create, replace, inlineShape(context, entity, create, replace)];
}

/** What has no path of its own may still be made in the body of an owner that has one. */
function isMadeWithOwner(context: DerivationContext, entity: Entity, exposed: ReadonlySet<string>): boolean {
  for (
    let owns = context.index.ownerOf.get(entity.name);
    owns?.cardinality === 'one';
    owns = context.index.ownerOf.get(owns.from)
  ) {
    if (exposed.has(owns.from) || reachabilityOf(context).of.get(owns.from) === 'inline') return true;
  }
  return false;
}

/** The values that some shape shows or takes, and those they are made of, in the order of the text. */
function valueShapes(context: DerivationContext, shapes: readonly Shape[]): readonly Shape[] {
  if (context.index.values.size === 0) return [];
  const values = new Map(
    [...context.index.values.values()].map((value) => [value.name, valueShape(context, value)]),
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

/** Every entity with ids is listed; what fills a slot only where a way back lists it. */
const isListed = (context: DerivationContext, entity: Entity): boolean =>
  !isSingleton(context.index, entity.name) ||
  (context.index.refersFrom.get(entity.name) ?? []).some((refers) => refers.back !== null);

function entryShape(context: DerivationContext): Shape {
  const reasons = [because('place.entry')];
  return {
    name: ENTRY_SHAPE,
    purpose: 'entry',
    of: null,
    members: linksMembers(context),
    reasons,
  };
}

function valueShape(context: DerivationContext, value: ValueDefinition): Shape {
  const members = value.attributes.map((attribute): Member => ({
    name: memberName(context, attribute.name),
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
    context.findings.push({
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
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
  purpose: 'item' | 'member',
): Shape {
  const members = traits
    .filter(({ exposed }) => exposed[purpose === 'item' ? 'out' : 'list'] === 'yes')
    .map((trait) => returnedMember(context, entity.name, trait));
  return {
    name: shapeName(entity.name, purpose),
    purpose,
    of: entity.name,
    members: [
      ...members,
      ...inlineMembers(context, entity.name, 'item'),
      ...shownReferences(context, entity.name, traits),
      ...expandedIn(context, entity, traits),
      ...(hasPath(context, entity) ? linksMembers(context) : []),
    ],
    reasons: [because('member.attribute', entity)],
  };
}

/** Related records inside a record; a member of its own that has the same name takes precedence. */
function expandedIn(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
): readonly Member[] {
  const expanded = expansionsOf(context, entity.name);
  if (expanded.length === 0) return expanded;
  const names = new Set(traits.map(({ name }) => name));
  return expanded.filter(({ name }) => !names.has(name));
}

/** A page, and what is in it where lists show less of a record than a read does. */
function listShapes(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
): readonly Shape[] {
  const page = (items: string): Shape =>
    usualPage(context, shapeName(entity.name, 'page'), entity.name, items);
  if (!isListedOtherwise(context, entity, traits)) return [page(entity.name)];
  const listed = itemShape(context, entity, traits, 'member');
  return [listed, page(listed.name)];
}

function createShape(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
  all: Traits,
  required: Map<string, boolean>,
): Shape {
  const members = traits
    .filter(({ exposed }) => exposed.create !== 'no')
    .map((trait) =>
      member(trait, 'accepted', trait.exposed.create === 'must', trait.exposed.create !== 'must'),
    );
  const slots = madeWith(context, entity).map((owns) => slotMember(context, owns, all, required));
  const names = new Set(slots.map((slot) => slot.name));
  const name = shapeName(entity.name, 'create');
  return {
    name,
    purpose: 'create',
    of: entity.name,
    members: [
      ...members,
      ...slots,
      ...inlineMembers(context, entity.name, 'create'),
      ...inputsOfCreate(context, entity, traits).filter(({ name: input }) => !names.has(input)),
    ],
    reasons: [because('operation.create', entity)],
  };
}

const madeWith = (context: DerivationContext, entity: Entity): Owns[] =>
  (context.index.ownedBy.get(entity.name) ?? []).filter((owns) => owns.cardinality === 'one');

function slotMember(
  context: DerivationContext,
  owns: Owns,
  all: Traits,
  required: Map<string, boolean>,
): Member {
  const child = entityNamed(context, owns.to);
  const must = slotMustBeSent(context, child, all, required);
  return {
    name: memberName(context, roleOf(owns)),
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
  context: DerivationContext,
  entity: Entity,
  all: Traits,
  known: Map<string, boolean>,
): boolean {
  const settled = known.get(entity.name);
  if (settled !== undefined) return settled;
  const traits = all.get(entity.name) ?? [];
  const own =
    traits.some(({ exposed }) => exposed.create === 'must') ||
    inputsOfCreate(context, entity, traits).some((input) => input.required);
  const below = (): boolean =>
    madeWith(context, entity).some((owns) =>
      slotMustBeSent(context, entityNamed(context, owns.to), all, known),
    );
  const answer = own || below();
  known.set(entity.name, answer);
  return answer;
}

export { shapeName } from './named.js';
export { ownerWithKey } from './members.js';
export { pairShapeName, type PairSide } from './pairs.js';
export { isScalar, type MemberTraits } from './traits.js';
export { exposureGrid, type GridRow } from './grid.js';
export { refusedExposures } from './refused.js';
export { customAnswer, fixedShapeName, inputShapeName, isSentBy, takesBody } from './customOperations.js';
export { moveShape, withInputsOfPut } from './inputs.js';
export { memberId } from './exposure.js';
export { inlineOwned } from './inline.js';
export { isUncreatable, reportUncreatable } from './uncreatable.js';
export { expansionsOf } from './expansions.js';
