import { bareObject, isJsonObject, sameJson, type Json } from '../model/index.js';

/** One step of a JSON Patch (RFC 6902 §4), its pointers taken apart. */
export type PatchStep =
  | { readonly op: 'add' | 'replace' | 'test'; readonly path: readonly string[]; readonly value: Json }
  | { readonly op: 'remove'; readonly path: readonly string[] }
  | { readonly op: 'move' | 'copy'; readonly path: readonly string[]; readonly from: readonly string[] };

export type PatchRead =
  | { readonly ok: true; readonly steps: readonly PatchStep[] }
  /** What was expected, and where in the patch (RFC 6901). */
  | { readonly ok: false; readonly pointer: string; readonly message: string };

export type PatchResult =
  | { readonly ok: true; readonly value: Json }
  /** Which step does not apply, and why. */
  | { readonly ok: false; readonly step: number; readonly message: string };

const MOST_STEPS = 1_000;

/** Reads a patch document: an array of operations, each with what it needs. */
export function readPatch(body: Json): PatchRead {
  if (!Array.isArray(body)) return wrong('', 'Expected an array of operations (RFC 6902 §3).');
  if (body.length > MOST_STEPS) return wrong('', `Expected at most ${MOST_STEPS} operations.`);
  const steps: PatchStep[] = [];
  for (const [index, given] of (body as readonly Json[]).entries()) {
    const step = readStep(given);
    if (typeof step === 'string') return wrong(`/${index}`, step);
    steps.push(step);
  }
  return { ok: true, steps };
}

const wrong = (pointer: string, message: string): PatchRead => ({ ok: false, pointer, message });

/** A step, or what was expected of it. */
function readStep(given: Json): PatchStep | string {
  if (!isJsonObject(given)) return 'Expected an object with op and path.';
  const path = pointerTokens(given['path']);
  if (path === null) return 'Expected path to be a JSON pointer (RFC 6901), such as /name.';
  const { op } = given;
  switch (op) {
    case 'add':
    case 'replace':
    case 'test':
      return 'value' in given ? { op, path, value: given['value'] ?? null } : `Expected a value to ${op}.`;
    case 'remove':
      return { op, path };
    case 'move':
    case 'copy': {
      const from = pointerTokens(given['from']);
      return from === null ? 'Expected from to be a JSON pointer (RFC 6901).' : { op, path, from };
    }
    default:
      return 'Expected op to be add, remove, replace, move, copy or test.';
  }
}

/** The reference tokens of a JSON pointer (RFC 6901 §4); `null` where it is none. */
export function pointerTokens(pointer: Json | undefined): readonly string[] | null {
  if (typeof pointer !== 'string' || (pointer !== '' && !pointer.startsWith('/'))) return null;
  if (/~(?![01])/.test(pointer)) return null;
  return pointer
    .split('/')
    .slice(1)
    .map((token) => token.replaceAll('~1', '/').replaceAll('~0', '~'));
}

/** Carries out a patch, all of it or nothing. The document is not changed: what comes out shares with it. */
export function applyPatch(document: Json, steps: readonly PatchStep[]): PatchResult {
  let value = document;
  for (const [index, step] of steps.entries()) {
    const next = applyStep(value, step);
    if ('problem' in next) return { ok: false, step: index, message: next.problem };
    ({ value } = next);
  }
  return { ok: true, value };
}

type Applied = { readonly value: Json } | { readonly problem: string };

function applyStep(document: Json, step: PatchStep): Applied {
  switch (step.op) {
    case 'add':
      return put(document, step.path, step.value, 'add');
    case 'replace':
      return put(document, step.path, step.value, 'replace');
    case 'remove':
      return put(document, step.path, null, 'remove');
    case 'test': {
      const found = valueAt(document, step.path);
      if (found === undefined) return { problem: `There is nothing at ${pointerText(step.path)} to test.` };
      return sameJson(found, step.value)
        ? { value: document }
        : { problem: `${pointerText(step.path)} is not what the test expects.` };
    }
    case 'copy':
    case 'move': {
      const found = valueAt(document, step.from);
      if (found === undefined) return { problem: `There is nothing at ${pointerText(step.from)}.` };
      if (step.op === 'copy') return put(document, step.path, found, 'add');
      if (isInside(step.path, step.from))
        return { problem: `${pointerText(step.from)} cannot be moved into itself.` };
      const without = put(document, step.from, null, 'remove');
      return 'problem' in without ? without : put(without.value, step.path, found, 'add');
    }
  }
}

const isInside = (path: readonly string[], from: readonly string[]): boolean =>
  path.length > from.length && from.every((token, index) => path[index] === token);

export const pointerText = (tokens: readonly string[]): string =>
  tokens.length === 0
    ? 'the whole'
    : tokens.map((token) => `/${token.replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

function valueAt(document: Json, path: readonly string[]): Json | undefined {
  let value: Json | undefined = document;
  for (const token of path) {
    if (Array.isArray(value)) value = (value as readonly Json[])[indexOf(token, value.length - 1) ?? -1];
    else if (isJsonObject(value) && Object.hasOwn(value, token)) value = value[token];
    else return undefined;
  }
  return value;
}

/** An array index without leading zeros (RFC 6901 §4), up to `last`; `null` for anything else. */
function indexOf(token: string, last: number): number | null {
  const index = /^(?:0|[1-9]\d{0,9})$/.test(token) ? Number(token) : null;
  return index !== null && index <= last ? index : null;
}

/** A document with the value at a path added, replaced or removed. */
function put(
  document: Json,
  path: readonly string[],
  value: Json,
  how: 'add' | 'replace' | 'remove',
  at: readonly string[] = path,
): Applied {
  const [token, ...rest] = path;
  if (token === undefined) return how === 'remove' ? { problem: 'The whole cannot be removed.' } : { value };
  const nowhere = { problem: `There is nothing at ${pointerText(at)}.` };
  if (Array.isArray(document)) return putInArray(document, token, rest, value, how, at, nowhere);
  if (!isJsonObject(document)) return nowhere;
  const isThere = Object.hasOwn(document, token);
  if (rest.length > 0) {
    const inner = isThere ? put(document[token] ?? null, rest, value, how, at) : nowhere;
    return 'problem' in inner ? inner : { value: withMember(document, token, inner.value) };
  }
  if (how === 'add') return { value: withMember(document, token, value) };
  if (!isThere) return nowhere;
  if (how === 'replace') return { value: withMember(document, token, value) };
  const { [token]: _removed, ...others } = document;
  return { value: Object.assign(bareObject(), others) };
}

const withMember = (document: { readonly [name: string]: Json }, name: string, value: Json): Json =>
  Object.assign(bareObject(), document, { [name]: value });

function putInArray(
  items: readonly Json[],
  token: string,
  rest: readonly string[],
  value: Json,
  how: 'add' | 'replace' | 'remove',
  at: readonly string[],
  nowhere: Applied,
): Applied {
  const isInsert = how === 'add' && rest.length === 0;
  const index = token === '-' && isInsert ? items.length : indexOf(token, items.length - (isInsert ? 0 : 1));
  if (index === null) return nowhere;
  if (rest.length > 0) {
    const inner = put(items[index] ?? null, rest, value, how, at);
    return 'problem' in inner ? inner : { value: items.with(index, inner.value) };
  }
  if (isInsert) return { value: items.toSpliced(index, 0, value) };
  return { value: how === 'replace' ? items.with(index, value) : items.toSpliced(index, 1) };
}
