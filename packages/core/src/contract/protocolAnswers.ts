import type { ResponseCode } from './operation.js';

/** What HTTP itself may answer to every operation much alike; all else is about the operation. */
export const PROTOCOL_ANSWERS: ReadonlySet<ResponseCode> = new Set([
  'malformed',
  'version',
  'not-acceptable',
  'precondition',
  'precondition-missing',
  'too-large',
  'media-type',
  'key-missing',
  'key-busy',
  'key-reused',
]);
