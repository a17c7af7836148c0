import type { SettingPlace } from '../../arrangement/index.js';
import type { Custom, Method, Operation, Verb } from '../../contract/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import type { ResolvedCustom } from '../customOperations/index.js';

/** What the headers of a request mean to an operation. */
export type Protocol = Pick<Operation, 'ifMatch' | 'prefers' | 'idempotency'>;

/** Writes of something that is there already. */
const CHANGING: ReadonlySet<Verb> = new Set<Verb>(['replace', 'change', 'remove', 'transition', 'custom']);

/** Operations of one's own that change no record. */
const CHANGES_NO_RECORD: ReadonlySet<Custom['kind']> = new Set<Custom['kind']>([
  'query',
  'find',
  'verify',
  'revoke',
]);

/** Whether an operation asks without reading, or does something that no record shows. */
export const changesNoRecord = (verb: Verb, own: ResolvedCustom | null): boolean =>
  verb === 'custom' && own !== null && CHANGES_NO_RECORD.has(own.custom.kind);

/** A state can be asked for where something is changed, a key where repeating would do it twice. */
export function protocolOf(
  context: DerivationContext,
  at: SettingPlace,
  verb: Verb,
  method: Method,
  returns: string | null,
  own: ResolvedCustom | null,
): Protocol {
  const kind = own?.custom.kind;
  // They change no record: there is no state to name, and nothing that doing it twice would do twice.
  if (changesNoRecord(verb, own)) return { ifMatch: 'optional', prefers: false, idempotency: 'ignored' };
  return {
    // Many records have no one state.
    ifMatch: kind !== 'many' && CHANGING.has(verb) ? valueOf(context, 'ifMatch', at) : 'optional',
    prefers:
      method !== 'GET' &&
      kind !== 'many' &&
      verb !== 'attach' &&
      returns !== null &&
      valueOf(context, 'prefer', at) === 'honoured',
    idempotency: method === 'POST' ? valueOf(context, 'idempotency', at) : 'ignored',
  };
}
