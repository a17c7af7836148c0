import type { Operation, Shape } from '../contract/index.js';
import { bareObject, isJsonObject, type Json, type Row } from '../model/index.js';
import type { BodyValidation } from './validateBody.js';
import { applyPatch, pointerText, readPatch, type PatchStep } from './jsonPatch.js';
import { refuse, type WriteOutcome } from './outcome.js';
import { problem } from './problem.js';
import { memberValue } from './represent.js';
import { statusFor, type Service } from './service.js';
import { acceptPatched, HIDDEN, isNeverShown, type Update } from './update.js';

export const JSON_PATCH = 'application/json-patch+json';

/** Why a patch is not carried out: it is none, or it does not apply to what is there. */
export type PatchProblem =
  | { readonly kind: 'malformed'; readonly pointer: string; readonly message: string }
  | { readonly kind: 'failed'; readonly message: string };

/**
 * Reads a JSON Patch (RFC 6902) of a record: it works on the members as plain JSON shows them, without links, and
 * all of it or nothing applies. What is never returned can be added, replaced or removed, but not looked at.
 */
export function acceptPatch(
  validation: BodyValidation,
  shape: Shape,
  body: Json,
  record: Row,
): Update | { readonly patch: PatchProblem } {
  const hidden = new Set(
    shape.members
      .filter((member) => member.mode === 'accepted' && isNeverShown(validation.service, member, record))
      .map(({ name }) => name),
  );
  const document = bareObject();
  for (const member of shape.members) {
    const value = memberValue(validation.service, validation.view, member, record);
    if (value !== undefined && !hidden.has(member.name)) document[member.name] = value;
  }
  const patched = patchDocument(validation.service, document, body, hidden);
  if ('patch' in patched) return patched;
  return acceptPatched(validation, shape, patched.value, record, hidden);
}

/**
 * Applies a patch to an object; where that stands in a member of bodies, to the body around it. Members that are hidden
 * are not in it, and may not be looked at.
 */
export function patchDocument(
  { contract: { representation } }: Service,
  document: Json,
  body: Json,
  hidden: ReadonlySet<string> = new Set(),
): { readonly value: Json } | { readonly patch: PatchProblem } {
  const read = readPatch(body);
  if (!read.ok) return { patch: { kind: 'malformed', pointer: read.pointer, message: read.message } };
  const envelope = representation.record?.of === 'bodies' ? representation.record : null;
  const depth = envelope === null ? 0 : 1;
  for (const [index, step] of read.steps.entries()) {
    const secret = lookedAt(step).find((path) => hidden.has(path[depth] ?? ''));
    if (secret === undefined) continue;
    const message = `${pointerText(secret)} is never returned, so it cannot be looked at by ${step.op}.`;
    return { patch: { kind: 'malformed', pointer: `/${index}`, message } };
  }
  const known = isJsonObject(document) ? Object.assign(bareObject(), document) : bareObject();
  // What is hidden may be there or not; to a patch it is there, and unset.
  for (const name of hidden) known[name] = HIDDEN;
  const around = bareObject();
  if (envelope !== null) {
    around[envelope.member] = known;
    for (const { name, value } of envelope.constants) around[name] = value;
  }
  const result = applyPatch(envelope === null ? known : around, read.steps);
  if (result.ok) return { value: envelope === null ? result.value : memberOf(result.value, envelope.member) };
  return { patch: { kind: 'failed', message: `Step ${result.step + 1}: ${result.message}` } };
}

const memberOf = (body: Json, name: string): Json => (isJsonObject(body) ? (body[name] ?? null) : null);

/** The paths that a step reads. */
function lookedAt(step: PatchStep): readonly (readonly string[])[] {
  switch (step.op) {
    case 'test':
      return [step.path];
    case 'move':
    case 'copy':
      return [step.from, step.path];
    case 'add':
    case 'replace':
    case 'remove':
      return [];
  }
}

export function refusePatch(operation: Operation, found: PatchProblem): WriteOutcome {
  switch (found.kind) {
    case 'malformed': {
      const errors = [{ pointer: found.pointer, code: 'patch', message: found.message }];
      return refuse('body', problem(statusFor(operation, 'malformed'), 'malformed', found.message, errors));
    }
    case 'failed':
      return refuse('store', problem(statusFor(operation, 'patch'), 'patch', found.message));
  }
}
