import { plainAttribute } from './attribute.js';
import { camelCase, plural } from './names.js';
import { memoize } from './memoize.js';
import type {
  Attribute,
  Declaration,
  Entity,
  ImplicitId,
  Model,
  OnRemove,
  Owns,
  PairsWith,
  RefersTo,
  Relationship,
  ValueDefinition,
} from './types.js';

/** Look-ups over one model, built once and kept with it. All maps are keyed by name as written. */
export interface ModelIndex {
  readonly entities: ReadonlyMap<string, Entity>;
  readonly values: ReadonlyMap<string, ValueDefinition>;
  readonly relationships: readonly Relationship[];
  /** By identity. */
  readonly relationshipById: ReadonlyMap<string, Relationship>;
  /** The relationship by which an entity is owned; by entity name. */
  readonly ownerOf: ReadonlyMap<string, Owns>;
  readonly ownedBy: ReadonlyMap<string, readonly Owns[]>;
  readonly refersFrom: ReadonlyMap<string, readonly RefersTo[]>;
  readonly referredBy: ReadonlyMap<string, readonly RefersTo[]>;
  readonly pairsFrom: ReadonlyMap<string, readonly PairsWith[]>;
  readonly pairsTo: ReadonlyMap<string, readonly PairsWith[]>;
}

export const indexModel = memoize((model: Model): ModelIndex => {
  const entities = new Map<string, Entity>();
  const values = new Map<string, ValueDefinition>();
  const relationships: Relationship[] = [];
  const ownerOf = new Map<string, Owns>();
  const ownedBy = new Map<string, Owns[]>();
  const refersFrom = new Map<string, RefersTo[]>();
  const referredBy = new Map<string, RefersTo[]>();
  const pairsFrom = new Map<string, PairsWith[]>();
  const pairsTo = new Map<string, PairsWith[]>();
  for (const declaration of model.declarations) {
    switch (declaration.kind) {
      case 'entity':
        entities.set(declaration.name, declaration);
        break;
      case 'value':
        values.set(declaration.name, declaration);
        break;
      case 'owns':
        relationships.push(declaration);
        ownerOf.set(declaration.to, declaration);
        push(ownedBy, declaration.from, declaration);
        break;
      case 'refers':
        relationships.push(declaration);
        push(refersFrom, declaration.from, declaration);
        push(referredBy, declaration.to, declaration);
        break;
      case 'pairs':
        relationships.push(declaration);
        push(pairsFrom, declaration.from, declaration);
        push(pairsTo, declaration.to, declaration);
        break;
      default:
        declaration satisfies never;
    }
  }
  const relationshipById = new Map(relationships.map((relationship) => [relationship.id, relationship]));
  const index = {
    entities,
    values,
    relationships,
    relationshipById,
    ownerOf,
    ownedBy,
    refersFrom,
    referredBy,
    pairsFrom,
    pairsTo,
  };
  return index;
});

function push<T>(map: Map<string, T[]>, name: string, item: T): void {
  const list = map.get(name);
  if (list === undefined) map.set(name, [item]);
  else list.push(item);
}

/** The role that leads from A to B: as written, else derived from the name of B. */
export function roleOf(relationship: Relationship): string {
  const { role, to, cardinality } = relationship;
  return role ?? derivedRole(to, cardinality);
}

/** The role that leads to an entity, where none is written. */
export const derivedRole = (to: string, cardinality: string | undefined): string =>
  cardinality === 'many' ? plural(camelCase(to)) : camelCase(to);

/** What an owned entity calls its owner: as written after `back as`, else the owner's name. */
export const ownerRoleOf = (owns: Owns): string => owns.back ?? camelCase(owns.from);

/** Whether records must lead to one of what a to-one role leads to. */
export const mustLead = (relationship: Owns | RefersTo): boolean =>
  relationship.kind === 'owns' ? !ownsItself(relationship) : relationship.cardinality === 'one';

const DEFAULT_REMOVAL: Readonly<Record<Relationship['kind'], OnRemove>> = {
  owns: 'cascade',
  refers: 'restrict',
  pairs: 'detach',
};

export function onRemoveOf(relationship: Relationship): OnRemove {
  return relationship.onRemove ?? DEFAULT_REMOVAL[relationship.kind];
}

/** An entity that owns many of itself: its owner is optional and its items live at the root. */
export const ownsItself = (relationship: Relationship): boolean =>
  relationship.kind === 'owns' && relationship.from === relationship.to;

/** Whether the entity fills a slot of its owner (`owns one`, `owns optional`) and has no id of its own. */
export function isSingleton(index: ModelIndex, entity: string): boolean {
  const owner = index.ownerOf.get(entity);
  return owner !== undefined && owner.cardinality !== 'many';
}

export interface Key {
  readonly attribute: Attribute;
  /** True when no attribute was declared as key and the entity has the implicit `id`. */
  readonly implicit: boolean;
}

/** The id of an entity's records: the declared key, else an implicit generated `id`. */
export const keyOf = memoize((entity: Entity): Key => {
  const declared = entity.attributes.find((attribute) => attribute.key !== null);
  return declared === undefined
    ? { attribute: implicitId(entity), implicit: true }
    : { attribute: declared, implicit: false };
});

/** The model with ids of the kind wanted for entities that declare no key. */
export function withImplicitIds(model: Model, kind: ImplicitId): Model {
  const isMeant = (declaration: Declaration): declaration is Entity =>
    declaration.kind === 'entity' && declaration.implicitId !== kind;
  if (!model.declarations.some(isMeant)) return model;
  const declarations = model.declarations.map((declaration) =>
    isMeant(declaration) ? { ...declaration, implicitId: kind } : declaration,
  );
  return { ...model, declarations };
}

/** What the identity of an implicit id adds to that of its entity. */
export const IMPLICIT_ID = '#id';

export const isImplicitId = (id: string): boolean => id.endsWith(IMPLICIT_ID);

function implicitId(entity: Entity): Attribute {
  const type =
    entity.implicitId === 'uuid'
      ? ({ kind: 'uuid' } as const)
      : ({ kind: 'integer', min: 1, max: null } as const);
  return plainAttribute(entity.id + IMPLICIT_ID, 'id', type, {
    required: true,
    unique: true,
    key: { generated: true, within: null },
    generated: true,
    fixed: true,
    readOnly: true,
  });
}

/** The attributes a record of the entity holds, its id first when that is implicit. */
export function recordAttributes(index: ModelIndex, entity: Entity): readonly Attribute[] {
  const key = keyOf(entity);
  return key.implicit && !isSingleton(index, entity.name)
    ? [key.attribute, ...entity.attributes]
    : entity.attributes;
}
