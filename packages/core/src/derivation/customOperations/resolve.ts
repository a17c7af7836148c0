import type {
  AssignedMember,
  CustomOperation,
  FixedFilter,
  Input,
  OwnComparison,
  QueryTerms,
} from '../../arrangement/index.js';
import type {
  Custom,
  CustomFilter,
  CustomValue,
  OrderKey,
  OwnField,
  QueryParameter,
} from '../../contract/index.js';
import {
  readsOthers,
  recordAttributes,
  roleOf,
  type Comparison,
  type Condition,
  type Entity,
  type ScalarType,
} from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { becauseCustom } from './because.js';
import { attributeMember, referenceMember } from '../names/called.js';
import { memberName } from '../names/members.js';
import {
  checkOperand,
  fieldOf,
  findMember,
  isRequired,
  nameOf,
  scalarOf,
  storedIn,
  Unfit,
  type Found,
} from './found.js';
import { resolveCaller, resolveRevoke, resolveVerify } from './credentials.js';
import type { SentInput } from './sentInput.js';
import { isMissingFromCreate } from '../shapes/uncreatable.js';

/** An operation of one's own, checked against the model. */
export interface ResolvedCustom {
  readonly operation: CustomOperation;
  readonly entity: Entity;
  readonly custom: Custom;
  readonly order: readonly OrderKey[];
  /** The identities of the members that a request sends. */
  readonly inputs: readonly string[];
  /** What a query is asked for. */
  readonly asked: readonly InputParameter[];
  /** What a request sends that no record stores. */
  readonly sent: readonly SentInput[];
}

/** A query parameter that an operation of one's own compares. */
export type InputParameter = Extract<QueryParameter, { role: 'input' }>;

/** Resolves an operation of one's own; throws `Unfit` with what the model does not allow. */
export function resolveCustom(context: DerivationContext, operation: CustomOperation): ResolvedCustom {
  const entity = [...context.index.entities.values()].find(({ id }) => id === operation.entity);
  if (entity === undefined) throw new Unfit('The entity it is about is not there any more.');
  const { effect } = operation;
  const plain = { operation, entity, order: [], inputs: [], asked: [], sent: [] };
  switch (effect.kind) {
    case 'query': {
      const { filters, ...found } = resolveFound(context, entity, operation, effect);
      return { ...plain, ...found, custom: { kind: 'query', filters, limit: effect.limit } };
    }
    case 'find': {
      const { filters, ...found } = resolveFound(context, entity, operation, effect);
      return { ...plain, ...found, custom: { kind: 'find', filters } };
    }
    case 'verify':
      return { ...plain, ...resolveVerify(context, entity, effect) };
    case 'revoke':
      return { ...plain, custom: resolveRevoke(context) };
    case 'caller':
      return { ...plain, custom: resolveCaller(context, operation) };
    case 'fixed':
      throw new Unfit('A fixed answer stands at the entry, and is about no entity.');
    case 'assign':
      return {
        ...plain,
        custom: {
          kind: 'assign',
          when: resolveWhen(context, entity, effect.when),
          values: resolveValues(context, entity, effect.values, 'assign'),
        },
        inputs: inputsOf(effect.values),
      };
    case 'create': {
      const { made, isOwned } = madeBy(context, entity, effect.relationship);
      const values = resolveValues(context, made, effect.values, 'create');
      const given = [...effect.values.map(({ member }) => member), effect.relationship];
      checkComplete(context, made, given, isOwned);
      return {
        ...plain,
        custom: {
          kind: 'create',
          when: resolveWhen(context, entity, effect.when),
          entity: made.name,
          relationship: effect.relationship,
          values,
        },
        inputs: inputsOf(effect.values),
      };
    }
  }
}

const inputsOf = (values: readonly AssignedMember[]): readonly string[] =>
  values.filter(({ value }) => value.kind === 'input').map(({ member }) => member);

/** The entity whose records are made, by an ownership of many or a reference to this one. */
function madeBy(
  context: DerivationContext,
  entity: Entity,
  relationship: string,
): { readonly made: Entity; readonly isOwned: boolean } {
  const found = context.index.relationshipById.get(relationship);
  const made =
    found?.kind === 'owns' && found.cardinality === 'many' && found.from === entity.name
      ? found.to
      : found?.kind === 'refers' && found.to === entity.name
        ? found.from
        : null;
  const of = made === null ? undefined : context.index.entities.get(made);
  if (of === undefined)
    throw new Unfit(`There is no relationship ${relationship} that leads to many from a ${entity.name}.`);
  return { made: of, isOwned: found?.kind === 'owns' };
}

/** Whatever a record must have is given, sent, or made by the server. */
function checkComplete(
  context: DerivationContext,
  made: Entity,
  given: readonly string[],
  isOwned: boolean,
): void {
  const owner = context.index.ownerOf.get(made.name);
  if (owner !== undefined && !isOwned && owner.from !== owner.to)
    throw new Unfit(`A ${made.name} is made below its ${owner.from}, not by what it refers to.`);
  if ((context.index.ownedBy.get(made.name) ?? []).some(({ cardinality }) => cardinality === 'one'))
    throw new Unfit(`A ${made.name} is made together with what it owns, which cannot be told here.`);
  const attributes = recordAttributes(context.index, made).filter(
    ({ required, key, defaultValue, generated, touched }) =>
      (required || key !== null) && defaultValue === null && !generated && !touched,
  );
  const references = (context.index.refersFrom.get(made.name) ?? []).filter(
    ({ cardinality }) => cardinality === 'one',
  );
  if (isMissingFromCreate(context, made))
    throw new Unfit(
      `Something a ${made.name} needs has the name of another member, so that it cannot be sent.`,
    );
  const missing = [
    ...attributes.map(({ id, name }) => ({ id, name })),
    ...references.map((refers) => ({ id: refers.id, name: roleOf(refers) })),
  ].find(({ id }) => !given.includes(id));
  if (missing !== undefined)
    throw new Unfit(`A ${made.name} needs ${missing.name}: give it a value, or have it sent.`);
}

/** What is looked for, in which order, and what a request must say for it. */
function resolveFound(
  context: DerivationContext,
  entity: Entity,
  operation: CustomOperation,
  { filters, order }: QueryTerms,
): Pick<ResolvedCustom, 'order' | 'asked'> & { readonly filters: readonly CustomFilter[] } {
  const asked = new Map<string, InputParameter>();
  return {
    filters: filters.map((filter) => resolveFilter(context, entity, operation, filter, asked)),
    order: order.map(({ member, descending }) => ({ ...comparable(context, entity, member), descending })),
    asked: [...asked.values()],
  };
}

/** An input is of the type of what it is compared with; the same one wherever its name stands. */
function resolveInput(
  context: DerivationContext,
  operation: CustomOperation,
  { name: written, default: usual }: Input,
  met: { readonly name: string; readonly type: ScalarType },
  asked: Map<string, InputParameter>,
): string {
  const name = memberName(context, written);
  if (usual !== undefined) checkOperand(met.name, met.type, usual);
  const input: InputParameter = {
    role: 'input',
    name,
    type: met.type,
    default: usual ?? null,
    reasons: [becauseCustom('list.input', operation)],
  };
  const before = asked.get(name);
  if (before !== undefined && JSON.stringify(before.type) !== JSON.stringify(input.type))
    throw new Unfit(`The input ${written} meets members of two types; ${met.name} is ${met.type.kind}.`);
  if (before !== undefined && JSON.stringify(before.default) !== JSON.stringify(input.default))
    throw new Unfit(`The input ${written} has two defaults.`);
  asked.set(name, input);
  return name;
}

function resolveFilter(
  context: DerivationContext,
  entity: Entity,
  operation: CustomOperation,
  filter: FixedFilter,
  asked: Map<string, InputParameter>,
): CustomFilter {
  const { field, type, name } = comparable(context, entity, filter.member);
  const { operator, value } = filter;
  if (value.kind === 'input' && operator !== 'unset') {
    const input = resolveInput(context, operation, value, { name, type }, asked);
    return { field, type, operator, value: { kind: 'input', name: input } };
  }
  if (operator === 'unset') {
    if (value.kind !== 'literal' || typeof value.value !== 'boolean')
      throw new Unfit(`Whether ${name} is unset is true or false.`);
    return { field, type, operator, value };
  }
  if (value.kind === 'input') throw new Unfit(`Whether ${name} is unset is true or false.`);
  checkOperand(name, type, value);
  return { field, type, operator, value };
}

/** A member that can be compared and is no secret, as a list sorts and filters by it. */
function comparable(
  context: DerivationContext,
  entity: Entity,
  id: string,
): { readonly name: string; readonly field: OwnField; readonly type: ScalarType } {
  const found = findMember(context, entity, id);
  const { name, type } = scalarOf(found);
  if (found.kind === 'attribute' && found.attribute.writeOnly)
    throw new Unfit(`${name} is never returned, so nothing is looked for by it.`);
  if (found.kind === 'attribute' && readsOthers(found.attribute, entity.attributes))
    throw new Unfit(`${name} is computed from other records, so nothing is looked for or sorted by it.`);
  const member =
    found.kind === 'attribute'
      ? attributeMember(context, entity, found.attribute)
      : referenceMember(context, entity, found.refers);
  return { name: member, field: fieldOf(found), type };
}

function resolveWhen(context: DerivationContext, entity: Entity, when: readonly OwnComparison[]): Condition {
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

function resolveValues(
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
