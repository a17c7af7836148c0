import type { Leavable } from '../arrangement/index.js';
import type { Custom, Effect, Method, Verb } from './operation.js';
import type { Resource } from './types.js';

/** The method of each operation. */
export const METHODS: Readonly<Record<Verb, Method>> = {
  entry: 'GET',
  list: 'GET',
  read: 'GET',
  create: 'POST',
  replace: 'PUT',
  change: 'PATCH',
  remove: 'DELETE',
  attach: 'PUT',
  detach: 'DELETE',
  transition: 'POST',
  custom: 'POST',
};

/** What each method does (RFC 9110 §9.2). */
export const EFFECTS: Readonly<Record<Method, Effect>> = {
  GET: 'safe',
  PUT: 'idempotent',
  DELETE: 'idempotent',
  POST: 'neither',
  PATCH: 'neither',
};

/** Whether an operation of one's own looks through a list, and does nothing to what it finds. */
export const looksThroughList = (custom: Custom): custom is Extract<Custom, { kind: 'query' | 'find' }> =>
  custom.kind === 'query' || custom.kind === 'find';

/** Whether an operation of one's own compares records with what the request says. */
export const looksForRecords = (
  custom: Custom,
): custom is Extract<Custom, { kind: 'query' | 'find' | 'aggregate' }> =>
  looksThroughList(custom) || custom.kind === 'aggregate';

/** Whether an operation of one's own acts on the record that its path leads to. */
export const actsOnRecord = (custom: Custom): custom is Extract<Custom, { kind: 'assign' | 'create' }> =>
  custom.kind === 'assign' || custom.kind === 'create';

/** RFC 9110 §15.4.4 */
export const SEE_OTHER = 303;

/** As what an operation of a resource is left out; `null` for that of the entry, which always is there. */
export function leavableAs({ kind }: Pick<Resource, 'kind'>, verb: Verb): Leavable | null {
  if (verb === 'entry') return null;
  return kind === 'query' ? 'query' : verb;
}
