import type { AssignedMember, OwnComparison } from '../../arrangement/index.js';
import type { CustomValue } from '../../contract/index.js';
import { roleOf, type Comparison, type Condition, type Entity } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import {
  checkOperand,
  findMember,
  isRequired,
  nameOf,
  scalarOf,
  storedIn,
  Unfit,
  type Found,
} from './found.js';

/** The identities of the members that a request sends. */
export const inputsOf = (values: readonly AssignedMember[]): readonly string[] =>
  values.filter(({ value }) => value.kind === 'input').map(({ member }) => member);

export function resolveWhen(
  context: DerivationContext,
  entity: Entity,
  when: readonly OwnComparison[],
): Condition {
  if (when.length === 0) return [];
  const all = when.map(({ member, operator, value }): Comparison => {
    const found = findMember(context, entity, member);
    if (found.kind !== 'attribute')
      throw new Unfit(`${roleOf(found.refers)} is a reference; conditions compare attributes.`);
    if (found.attribute.computed !== null)
      throw new Unfit(`${found.attribute.name} is computed; conditions compare what is stored.`);
    if (found.attribute.writeOnly)
      throw new Unfit(`${found.attribute.name} is never returned, so no condition may tell what it is.`);
    checkOperand(found.attribute.name, scalarOf(found).type, value);
    return { attribute: found.attribute.name, operator, operand: value };
  });
  return [all];
}

export function resolveValues(
  context: DerivationContext,
  entity: Entity,
  values: readonly AssignedMember[],
  effect: 'assign' | 'create',
): readonly CustomValue[] {
  const seen = new Set<string>();
  return values.flatMap(({ member, value }): CustomValue[] => {
    if (seen.has(member)) throw new Unfit(`${member} is given two values.`);
    seen.add(member);
    const found = findMember(context, entity, member);
    checkAssignable(found, effect, value.kind === 'input');
    if (value.kind === 'input') return [];
    if (value.kind === 'unset') {
      if (isRequired(found)) throw new Unfit(`${nameOf(found)} is required and cannot be unset.`);
      return [{ field: storedIn(found), value: null }];
    }
    checkOperand(nameOf(found), scalarOf(found).type, value);
    return [{ field: storedIn(found), value }];
  });
}

/** The model says who sets a member: the server, its life cycle, or once and for all a create. */
function checkAssignable(found: Found, effect: 'assign' | 'create', isSent: boolean): void {
  if (found.kind === 'reference') {
    if (effect === 'assign' && found.refers.fixed) throw new Unfit(`${roleOf(found.refers)} is fixed.`);
    return;
  }
  const { name, key, generated, touched, fixed, lifeCycle, readOnly, computed } = found.attribute;
  if (computed !== null) throw new Unfit(`${name} is computed from others.`);
  if (generated || touched) throw new Unfit(`${name} is made by the server.`);
  if (lifeCycle !== null) throw new Unfit(`${name} moves by its transitions only.`);
  if (effect === 'assign' && (fixed || key !== null)) throw new Unfit(`${name} never changes.`);
  if (isSent && readOnly)
    throw new Unfit(`${name} is read-only: it can be given a value here, but not be sent.`);
}
