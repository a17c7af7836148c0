import type { AlongStep, ReachedMember } from '../../arrangement/index.js';
import type { ReachedValue } from '../../contract/index.js';
import {
  keyOf,
  ownerRoleOf,
  roleOfStep,
  rolesOfModel,
  type Along,
  type Entity,
  type ScalarType,
} from '../../model/index.js';
import { entityNamed, type DerivationContext } from '../context.js';
import { fieldOf, findMember, scalarOf, Unfit } from '../customOperations/index.js';
import type { Traits } from '../shapes/index.js';

/** The entity that roles lead to, one record at each step. */
export function reachedBy(context: DerivationContext, from: Entity, along: readonly AlongStep[]): Entity {
  const roles = rolesOfModel(context.model);
  return along.reduce((entity, step) => {
    const [role, found] = stepFrom(roles.get(entity.name), entity, step);
    if (found.isMany)
      throw new Unfit(`${role} of ${entity.name} may be several records; a link leads to one.`);
    return entityNamed(context, found.to);
  }, from);
}

function stepFrom(
  roles: ReadonlyMap<string, Along> | undefined,
  entity: Entity,
  step: AlongStep,
): readonly [string, Along] {
  const found = roleOfStep(roles, step);
  if (found === undefined) throw new Unfit(`${entity.name} has no role ${step.relationship} any more.`);
  return found;
}

export interface Reached {
  readonly value: ReachedValue;
  readonly type: ScalarType;
  /** What it is called in a line. */
  readonly name: string;
}

/** What a link shows of a record; only what a read returns may be shown. */
export function reachMember(
  context: DerivationContext,
  traits: Traits,
  from: Entity,
  { along, member }: ReachedMember,
): Reached {
  const entity = reachedBy(context, from, along);
  const { field, type, name } = fieldIn(context, entity, member);
  const isReturned = (traits.get(entity.name) ?? []).some(
    ({ source, exposed }) =>
      exposed.out !== 'no' &&
      (source.kind === 'attribute' || source.kind === 'computed'
        ? source.attribute === member
        : source.relationship === member),
  );
  if (!isReturned) throw new Unfit(`${name} of ${entity.name} is not returned here, so no link may tell it.`);
  return { value: { kind: 'field', along, field }, type, name };
}

/** An attribute, a reference, or the owner of a record. */
function fieldIn(
  context: DerivationContext,
  entity: Entity,
  member: string,
): { readonly field: ReachedValue['field']; readonly type: ScalarType; readonly name: string } {
  const owns = context.index.ownerOf.get(entity.name);
  if (owns?.id === member) {
    const owner = entityNamed(context, owns.from);
    const { type } = keyOf(owner).attribute;
    const name = ownerRoleOf(owns);
    return {
      field: { kind: 'owner', relationship: owns.id, entity: owner.name },
      type: type as ScalarType,
      name,
    };
  }
  const found = findMember(context, entity, member);
  return { field: fieldOf(found), ...scalarOf(found) };
}
