import type { SettingPlace } from '../../arrangement/index.js';
import type { Method, Operation, Verb } from '../../contract/index.js';
import { valueOf, type Deriving } from '../context.js';

/** What the headers of a request mean to an operation. */
export type Protocol = Pick<Operation, 'ifMatch' | 'prefers' | 'idempotency'>;

/** Writes of something that is there already. */
const CHANGING: ReadonlySet<Verb> = new Set<Verb>(['replace', 'change', 'remove', 'transition', 'custom']);

/** A state can be asked for where something is changed, a key where repeating would do it twice. */
export function protocolOf(
  deriving: Deriving,
  at: SettingPlace,
  verb: Verb,
  method: Method,
  returns: string | null,
): Protocol {
  return {
    ifMatch: CHANGING.has(verb) ? valueOf(deriving, 'ifMatch', at) : 'optional',
    prefers:
      method !== 'GET' &&
      verb !== 'attach' &&
      returns !== null &&
      valueOf(deriving, 'prefer', at) === 'honoured',
    idempotency: method === 'POST' ? valueOf(deriving, 'idempotency', at) : 'ignored',
  };
}
