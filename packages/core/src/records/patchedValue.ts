import type { Member, Operation } from '../contract/index.js';
import { JSON_PATCH, memberValue } from '../engine/index.js';
import type { Json, Row } from '../model/index.js';
import { bodyTypeOf, type EditContext } from './requestParts.js';
import { isUnsaidByMerging, overBefore, withUnset } from './sentValue.js';

/** What is told of a value that a patch that merges cannot say. */
export const UNSAID = 'A patch that merges removes what is null in an object (RFC 7396).';

/** A value as the patch of an operation says it over what a record has; `null` where it cannot be said. */
export function patchedValue(
  { service, draft }: EditContext,
  operation: Operation,
  member: Member,
  sent: Json,
  row: Row,
): { readonly value: Json } | null {
  const value = withUnset(service, member.type, sent);
  if (bodyTypeOf(operation) === JSON_PATCH) return { value };
  if (isUnsaidByMerging(service, member.type, sent)) return null;
  return { value: overBefore(value, memberValue(service, draft, member, row) ?? null) };
}
