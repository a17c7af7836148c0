import type {
  AcceptedInput,
  AssignedMember,
  ChosenValue,
  Operand,
  OwnComparison,
} from '../../arrangement/index.js';
import type { CustomValue } from '../../contract/index.js';
import { roleOf, type Comparison, type Condition, type Entity } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { attributeMember, referenceMember } from '../names/called.js';
import { memberName } from '../names/members.js';
import { acceptedInputs, type StoredMember } from './accepted.js';
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
import { sentFor, type SentInput } from './sentInput.js';

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
    if (value.kind === 'chosen')
      return [{ field: storedIn(found), value: resolveChosen(context, found, value) }];
    return [{ field: storedIn(found), value: assignedTo(found, value) }];
  });
}

/** A value that a member can be given; `null` unsets it. */
function assignedTo(found: Found, value: Operand | { readonly kind: 'unset' }): Operand | null {
  if (value.kind !== 'unset') {
    checkOperand(nameOf(found), scalarOf(found).type, value);
    return value;
  }
  if (isRequired(found)) throw new Unfit(`${nameOf(found)} is required and cannot be unset.`);
  return null;
}

const resolveChosen = (
  context: DerivationContext,
  found: Found,
  { input, options }: ChosenValue,
): CustomValue['value'] => ({
  kind: 'chosen',
  input: memberName(context, input),
  options: options.map(({ option, value }) => ({ option, value: assignedTo(found, value) })),
});

/** What a body carries that no record stores: what chooses among values, and what is accepted besides. */
export function bodyInputs(
  context: DerivationContext,
  /** Whose members get values. */
  entity: Entity,
  values: readonly AssignedMember[],
  accepts: readonly AcceptedInput[],
  sent: readonly SentInput[] = [],
): readonly SentInput[] {
  const stored = inputsOf(values).map((member) => storedMember(context, entity, member));
  return acceptedInputs(context, accepts, stored, [...sent, ...choosing(context, values)]);
}

/** Inputs that choose; one that chooses for several members has the same words for each. */
function choosing(context: DerivationContext, values: readonly AssignedMember[]): readonly SentInput[] {
  const inputs = new Map<string, SentInput>();
  for (const { value } of values) {
    if (value.kind !== 'chosen') continue;
    const options = value.options.map(({ option }) => option);
    if (options.length === 0 || new Set(options).size < options.length)
      throw new Unfit(`The words of the input ${value.input} must be there, each once.`);
    const input = sentFor(memberName(context, value.input), { kind: 'choice', options });
    const before = inputs.get(input.name) ?? input;
    if (JSON.stringify(before) !== JSON.stringify(input))
      throw new Unfit(`The input ${value.input} chooses among two lists of words.`);
    inputs.set(input.name, input);
  }
  return [...inputs.values()];
}

function storedMember(context: DerivationContext, entity: Entity, member: string): StoredMember {
  const found = findMember(context, entity, member);
  return found.kind === 'attribute'
    ? {
        of: member,
        name: attributeMember(context, entity, found.attribute),
        kind: found.attribute.type.kind,
        isSecret: found.attribute.writeOnly,
      }
    : {
        of: member,
        name: referenceMember(context, entity, found.refers),
        kind: scalarOf(found).type.kind,
        isSecret: false,
      };
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
