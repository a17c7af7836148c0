import type { Operand } from '../../arrangement/index.js';
import type { CustomValue, OwnField } from '../../contract/index.js';
import {
  checkScalar,
  keyOf,
  recordAttributes,
  roleOf,
  type Attribute,
  type Entity,
  type RefersTo,
  type ScalarType,
} from '../../model/index.js';
import type { DerivationContext } from '../context.js';

/** Something the model does not allow, in a sentence. */
export class Unfit extends Error {}

/** A member by its identity: an attribute, or a reference of the entity. */
export type Found =
  | { readonly kind: 'attribute'; readonly attribute: Attribute }
  | { readonly kind: 'reference'; readonly refers: RefersTo; readonly target: Entity };

export const fieldOf = (found: Found): OwnField =>
  found.kind === 'attribute' && found.attribute.computed !== null
    ? { kind: 'computed', attribute: found.attribute.id, reads: 'record' }
    : storedIn(found);

export const storedIn = (found: Found): CustomValue['field'] =>
  found.kind === 'attribute'
    ? { kind: 'attribute', attribute: found.attribute.id }
    : { kind: 'reference', relationship: found.refers.id, entity: found.target.name };

export function findMember(context: DerivationContext, entity: Entity, id: string): Found {
  const attribute = recordAttributes(context.index, entity).find((one) => one.id === id);
  if (attribute !== undefined) return { kind: 'attribute', attribute };
  const refers = (context.index.refersFrom.get(entity.name) ?? []).find((one) => one.id === id);
  const target = refers === undefined ? undefined : context.index.entities.get(refers.to);
  if (refers === undefined || target === undefined || keyOf(target).attribute.key?.within != null)
    throw new Unfit(`${entity.name} has no attribute or reference ${id} any more.`);
  return { kind: 'reference', refers, target };
}

export function scalarOf(found: Found): { readonly name: string; readonly type: ScalarType } {
  const { name, type } =
    found.kind === 'attribute'
      ? found.attribute
      : { name: roleOf(found.refers), type: keyOf(found.target).attribute.type };
  if (type.kind === 'json' || type.kind === 'value' || type.kind === 'list')
    throw new Unfit(`${name} is ${type.kind}, which cannot be compared or fixed.`);
  return { name, type };
}

export function checkOperand(name: string, type: ScalarType, operand: Operand): void {
  if (operand.kind === 'now') {
    if (type.kind !== 'instant' && type.kind !== 'date')
      throw new Unfit(`${name} is ${type.kind}; only an instant or a date can be now.`);
    return;
  }
  const problem = checkScalar(type, operand.value);
  if (problem !== null)
    throw new Unfit(`${name} cannot be ${JSON.stringify(operand.value)}. ${problem.message}`);
}

export const nameOf = (found: Found): string =>
  found.kind === 'attribute' ? found.attribute.name : roleOf(found.refers);

export const isRequired = (found: Found): boolean =>
  found.kind === 'attribute' ? found.attribute.required : found.refers.cardinality === 'one';
