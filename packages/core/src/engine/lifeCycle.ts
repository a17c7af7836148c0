import {
  comparesTo,
  storageOf,
  type Attribute,
  type Comparison,
  type Condition,
  type Json,
  type Row,
  type ScalarType,
  type Transition,
} from '../model/index.js';
import { noteOn } from '../contract/index.js';
import { printCondition } from '../notation/index.js';
import type { Service } from './service.js';

/** A transition with the attribute it moves, among the attributes its condition may compare. */
export interface FoundTransition {
  readonly attributes: readonly Attribute[];
  readonly attribute: Attribute;
  readonly transition: Transition;
}

/** The transition of a record's entity with this identity. */
export function transitionOf({ model }: Service, record: Row, id: string): FoundTransition | null {
  const attributes = storageOf(model).byId.get(record.entity)?.attributes ?? [];
  for (const attribute of attributes) {
    const transition = attribute.lifeCycle?.find((candidate) => candidate.id === id);
    if (transition !== undefined) return { attributes, attribute, transition };
  }
  return null;
}

/** The names of the transitions that a record allows at a moment, in milliseconds since 1970. */
export function transitionsNow(
  attributes: readonly Attribute[],
  record: Row,
  now: number,
): readonly string[] {
  return attributes.flatMap((attribute) =>
    (attribute.lifeCycle ?? [])
      .filter((transition) => allows({ attributes, attribute, transition }, record, now))
      .map(({ name }) => name),
  );
}

/** Whether the state and the condition of a transition allow it at a moment, in milliseconds since 1970. */
export const allows = (found: FoundTransition, record: Row, now: number): boolean =>
  refusal(found, record, now) === null;

/** Whether a condition holds for a record at a moment; one that asks for nothing always does. */
export function holdsFor({ model }: Service, record: Row, when: Condition, now: number): boolean {
  const attributes = storageOf(model).byId.get(record.entity)?.attributes ?? [];
  return when.length === 0 || holds(attributes, when, record, now);
}

const holds = (attributes: readonly Attribute[], when: Condition, record: Row, now: number): boolean =>
  when.some((all) => all.every((comparison) => compares(attributes, comparison, record, now)));

/** How a refusal is told. */
interface Told {
  /** What clients call the attribute that is moved. */
  readonly named: () => string;
  /** What is said where the condition does not hold, if anything is said. */
  readonly condition: string | undefined;
}

/** A transition as clients are told of it. */
export const refusalWording = (
  { contract }: Pick<Service, 'contract'>,
  { transition }: FoundTransition,
  named: () => string,
): Told => ({ named, condition: noteOn(contract, 'constraint', transition.id)?.message });

/** Why a transition is not allowed now, in a sentence; `null` when it is. */
export function refusal(
  { attributes, attribute, transition }: FoundTransition,
  record: Row,
  now: number,
  told: Told = { named: () => attribute.name, condition: undefined },
): string | null {
  const state = record.values[attribute.id] ?? null;
  if (typeof state !== 'string' || !transition.from.includes(state)) {
    return `${told.named()} is ${state === null ? 'unset' : JSON.stringify(state)}; ${transition.name} leads from ${transition.from.join(' or ')}.`;
  }
  if (transition.when === null) return null;
  return holds(attributes, transition.when, record, now)
    ? null
    : (told.condition ??
        `The condition of ${transition.name} does not hold: ${printCondition(transition.when)}.`);
}

/** The transitions of the same attribute that the record allows now, by name. */
export const allowedNow = (
  { attributes, attribute }: FoundTransition,
  record: Row,
  now: number,
): readonly string[] =>
  (attribute.lifeCycle ?? [])
    .filter((transition) => allows({ attributes, attribute, transition }, record, now))
    .map(({ name }) => name);

/** One comparison of an own attribute. */
function compares(
  attributes: readonly Attribute[],
  { attribute: name, operator, operand }: Comparison,
  record: Row,
  now: number,
): boolean {
  const attribute = attributes.find((candidate) => candidate.name === name);
  if (attribute === undefined) return false;
  const type = attribute.type as ScalarType;
  const value: Json = record.values[attribute.id] ?? null;
  const other = operand.kind === 'now' ? momentAs(type, now) : operand.value;
  return comparesTo(type, value, operator, other);
}

/** A moment as an instant or a date holds it. */
export const momentAs = (type: ScalarType, now: number): string =>
  type.kind === 'date' ? new Date(now).toISOString().slice(0, 10) : new Date(now).toISOString();
