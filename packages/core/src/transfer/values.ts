import {
  bareObject,
  checkScalar,
  indexModel,
  isJsonObject,
  nearest,
  type AttributeType,
  type EntityStorage,
  type Json,
  type Model,
} from '../model/index.js';
import { normalKey, pointerTo, type ProblemDetail } from '../engine/index.js';

/** Takes what is wrong with a value. */
export type ProblemReporter = (problem: ProblemDetail) => void;

/** A value by the names of the model as it is stored; `undefined` after something wrong was reported. */
export function toStored(
  model: Model,
  type: AttributeType,
  given: Json,
  pointer: string,
  report: ProblemReporter,
): Json | undefined {
  switch (type.kind) {
    case 'json':
      return given;
    case 'list':
      if (Array.isArray(given))
        return (given as readonly Json[]).map(
          (item, index) => toStored(model, type.of, item, pointerTo(pointer, index), report) ?? null,
        );
      report({ pointer, code: 'type', message: 'Expected an array.' });
      return undefined;
    case 'value':
      return structure(model, type.name, given, pointer, report);
    default: {
      const problem = checkScalar(type, given);
      if (problem === null) return normalKey(type.kind, given);
      report({ pointer, ...problem });
      return undefined;
    }
  }
}

function structure(
  model: Model,
  name: string,
  given: Json,
  pointer: string,
  report: ProblemReporter,
): Json | undefined {
  const parts = indexModel(model).values.get(name)?.attributes ?? [];
  if (!isJsonObject(given)) {
    report({ pointer, code: 'type', message: `Expected an object: a ${name}.` });
    return undefined;
  }
  const stored = bareObject();
  for (const [member, value] of Object.entries(given)) {
    const part = parts.find((attribute) => attribute.name === member);
    const at = pointerTo(pointer, member);
    if (part === undefined)
      report({
        pointer: at,
        ...unknownMember(
          member,
          parts.map((p) => p.name),
        ),
      });
    else if (value !== null) {
      const inner = toStored(model, part.type, value, at, report);
      if (inner !== undefined) stored[part.id] = inner;
    }
  }
  return stored;
}

/** Attributes of a record by their names, as they are stored; `null` after something wrong was reported. */
export function readAttributes(
  model: Model,
  { attributes }: EntityStorage,
  given: Json,
  pointer: string,
  report: ProblemReporter,
): Record<string, Json> | null {
  if (!isJsonObject(given)) {
    report({ pointer, code: 'type', message: 'Expected an object: attributes by their names.' });
    return null;
  }
  const values = bareObject();
  let fits = true;
  for (const [name, member] of Object.entries(given)) {
    const attribute = attributes.find((candidate) => candidate.name === name);
    const at = pointerTo(pointer, name);
    const known = attributes.map((candidate) => candidate.name);
    if (member === null && attribute !== undefined) continue;
    if (attribute === undefined) report({ pointer: at, ...unknownMember(name, known) });
    const stored = attribute === undefined ? undefined : toStored(model, attribute.type, member, at, report);
    if (attribute !== undefined && stored !== undefined) values[attribute.id] = stored;
    else fits = false;
  }
  return fits ? values : null;
}

/** A value as it is to be stored, with the write-only parts that it leaves out and the value before it has. */
export function withHiddenParts(model: Model, type: AttributeType, value: Json, before: Json): Json {
  if (type.kind !== 'value' || !isJsonObject(value) || !isJsonObject(before)) return value;
  const hidden = (indexModel(model).values.get(type.name)?.attributes ?? []).filter(
    ({ id, writeOnly }) => writeOnly && value[id] === undefined && before[id] !== undefined,
  );
  if (hidden.length === 0) return value;
  const whole: Record<string, Json> = Object.assign(bareObject(), value);
  for (const { id } of hidden) whole[id] = before[id] ?? null;
  return whole;
}

/** What is said of a member that nothing in the model is called. */
export function unknownMember(
  name: string,
  known: readonly string[],
): { readonly code: string; readonly message: string } {
  const near = nearest(name, new Set(known));
  const hint = near === null ? `Expected one of ${known.join(', ')}.` : `The nearest is ${near}.`;
  return { code: 'unknown', message: `There is nothing called ${name} here. ${hint}` };
}
