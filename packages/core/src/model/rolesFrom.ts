import { memoize } from './memoize.js';
import { indexModel, ownerRoleOf, roleOf } from './lookup.js';
import type { Model, Relationship } from './types.js';

/** Where a role leads from a record. */
export interface Along {
  readonly relationship: Relationship;
  /** `onwards`: from what the sentence begins with; `back`: the other way. */
  readonly direction: 'onwards' | 'back';
  /** The name of the entity it leads to. */
  readonly to: string;
  /** Whether it may lead to several records. */
  readonly isMany: boolean;
}

/** By the name of an entity, then by that of a role, where roles lead. */
export type Roles = ReadonlyMap<string, ReadonlyMap<string, Along>>;

export function rolesAmong(relationships: readonly Relationship[]): Roles {
  const roles = new Map<string, Map<string, Along>>();
  const add = (entity: string, role: string, along: Along): void => {
    const known = roles.get(entity) ?? new Map<string, Along>();
    if (!known.has(role)) known.set(role, along);
    roles.set(entity, known);
  };
  for (const relationship of relationships) {
    const { from, to, cardinality, back } = relationship;
    const isMany = cardinality === 'many';
    add(from, roleOf(relationship), { relationship, direction: 'onwards', to, isMany });
    const backwards = { relationship, direction: 'back', to: from } as const;
    if (relationship.kind === 'owns') add(to, ownerRoleOf(relationship), { ...backwards, isMany: false });
    else if (back !== null) add(to, back, { ...backwards, isMany: true });
  }
  return roles;
}

/** The role by which a step along a relationship is taken, with where it leads. */
export const roleOfStep = (
  roles: ReadonlyMap<string, Along> | undefined,
  step: { readonly relationship: string; readonly direction: Along['direction'] },
): readonly [role: string, along: Along] | undefined =>
  [...(roles ?? [])].find(
    ([, { relationship, direction }]) =>
      relationship.id === step.relationship && direction === step.direction,
  );

/** The roles of a model. */
export const rolesOfModel = memoize((model: Model): Roles => rolesAmong(indexModel(model).relationships));
