import { inputType, type AcceptedInput, type CustomOperation } from '../../arrangement/index.js';
import type { Finding } from '../../contract/index.js';
import { memoize, type Entity } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import { becauseCustom } from './because.js';
import { checkOperand, Unfit } from './found.js';
import type { SentInput } from './sentInput.js';

/** A member of a body that a record stores. */
export interface StoredMember {
  /** The identity of what it holds. */
  readonly of: string;
  readonly name: string;
  /** The kind of its type. */
  readonly kind: string;
  readonly isSecret: boolean;
}

/** What is accepted besides, every name once; throws `Unfit` with what does not fit. `sent`: other inputs. */
export function acceptedInputs(
  context: DerivationContext,
  accepts: readonly AcceptedInput[],
  stored: readonly StoredMember[],
  sent: readonly SentInput[],
): readonly SentInput[] {
  const names = new Set(stored.map(({ name }) => name));
  const all = [...sent, ...accepts.map((one) => acceptedInput(context, one, stored))];
  for (const { name } of all) {
    if (names.has(name)) throw new Unfit(`Two things that are sent would be called ${name}.`);
    names.add(name);
  }
  return all;
}

function acceptedInput(
  context: DerivationContext,
  one: AcceptedInput,
  stored: readonly StoredMember[],
): SentInput {
  const name = memberName(context, one.name);
  const type = inputType(one.type);
  if (type === null) throw new Unfit(`${one.type} is no type of an input.`);
  if (one.default !== undefined) checkOperand(name, type, one.default);
  const other = one.equals === undefined ? null : stored.find(({ of }) => of === one.equals);
  if (other === undefined) throw new Unfit(`What ${name} must equal is not sent beside it.`);
  if (other !== null && other.kind !== type.kind)
    throw new Unfit(`${name} is ${type.kind} and ${other.name} is ${other.kind}: they never equal.`);
  return {
    name,
    type,
    isRequired: one.required && one.default === undefined,
    isSecret: one.secret || other?.isSecret === true,
    default: one.default ?? null,
    equals: other?.name ?? null,
  };
}

/** The identities of operations whose inputs some body carries, or could not. */
const looked = memoize<DerivationContext, Set<string>>(() => new Set());

/** Inputs for what is done nowhere: of a transition that is no action, or of records that nothing makes. */
export const idleInputs = (context: DerivationContext): readonly Finding[] =>
  context.arrangement.customOperations
    .filter(({ id, effect }) => effect.kind === 'accept' && !looked(context).has(id))
    .map((operation) => unfit(operation, new Unfit('No operation here would be sent it.')));

/** What operations of one's own accept where a record is made, or a transition carried out. */
export function acceptedBeside(
  context: DerivationContext,
  entity: Entity,
  transition: string | null,
  stored: readonly StoredMember[],
): readonly SentInput[] {
  let all: readonly SentInput[] = [];
  for (const operation of context.arrangement.customOperations) {
    const { effect, name } = operation;
    if (effect.kind !== 'accept' || operation.entity !== entity.id || effect.transition !== transition)
      continue;
    looked(context).add(operation.id);
    try {
      all = acceptedInputs(context, [{ ...effect, name }], stored, all);
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      context.findings.push(unfit(operation, error));
    }
  }
  return all;
}

/** That an operation is left out, and why. */
export const unfit = (operation: CustomOperation, { message }: Unfit): Finding => ({
  id: 'custom.unfit',
  severity: 'error',
  message: `${operation.name} is left out. ${message}`,
  about: operation.id,
  reasons: [becauseCustom('finding.unfit', operation)],
});
