import { FOR_ARRANGEMENT, FOR_OPERATION, options } from './row.js';

export const REQUESTS = {
  putCreates: options({
    default: 'on',
    options: ['on', 'off'],
    title: 'PUT to an unknown key creates',
    help: 'Whether PUT to a key that nothing has makes it, where clients assign keys (RFC 9110 §9.3.4).',
    levels: FOR_OPERATION,
  }),
  unknownMembers: options({
    default: 'refused',
    options: ['refused', 'ignored'],
    title: 'Unknown member',
    help: 'A member of a body that means nothing is a mistake (400), or passed over.',
    levels: FOR_ARRANGEMENT,
  }),
  plainPatch: options({
    default: 'merge patch',
    options: ['merge patch', 'refused'],
    title: 'PATCH in plain JSON',
    help: 'Whether PATCH reads application/json as a merge patch (RFC 7396), or refuses it (415).',
    levels: FOR_ARRANGEMENT,
  }),
  ifMatch: options({
    default: 'optional',
    options: ['optional', 'required'],
    title: 'If-Match',
    help: 'Whether a write must name the state it was made for (RFC 9110 §13.1.1), or gets 428 (RFC 6585 §3).',
    levels: FOR_OPERATION,
  }),
  prefer: options({
    default: 'honoured',
    options: ['honoured', 'ignored'],
    title: 'Prefer',
    help: 'Whether Prefer: return=minimal and return=representation are honoured (RFC 7240 §4.2).',
    levels: FOR_OPERATION,
  }),
  idempotency: options({
    default: 'honoured',
    options: ['honoured', 'required', 'ignored'],
    title: 'Idempotency-Key',
    help: 'Whether a POST with a key that was sent before is answered as it was then, instead of carried out again.',
    levels: FOR_OPERATION,
  }),
};
