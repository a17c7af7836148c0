import type { CustomOperation, FixedFilter, Input, QueryTerms } from '../../arrangement/index.js';
import type { CustomFilter, OrderKey, OwnField, QueryParameter } from '../../contract/index.js';
import { readsOthers, type Entity, type ScalarType } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { attributeMember, referenceMember } from '../names/called.js';
import { memberName } from '../names/members.js';
import { becauseCustom } from './because.js';
import { checkOperand, fieldOf, findMember, scalarOf, Unfit } from './found.js';

/** A query parameter that an operation of one's own compares. */
export type InputParameter = Extract<QueryParameter, { role: 'input' }>;

/** What is looked for, and what a request must say for it. */
export interface FoundTerms {
  readonly filters: readonly CustomFilter[];
  readonly order: readonly OrderKey[];
  readonly asked: readonly InputParameter[];
}

/** What is looked for, in which order, and what a request must say for it. */
export function resolveFound(
  context: DerivationContext,
  entity: Entity,
  operation: CustomOperation,
  { filters, order }: QueryTerms,
): FoundTerms {
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
export function comparable(
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
