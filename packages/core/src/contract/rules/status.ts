import type { Rule } from './rule.js';

export const STATUS_RULES = {
  'status.condition': {
    title: 'Condition',
    sentence: 'An operation of your own whose condition does not hold answers 409.',
  },
  'status.ok': { title: 'Answered', sentence: 'A request that succeeds with a body answers 200.' },
  'status.created': {
    title: 'Created',
    sentence: 'A create answers 201 with the address of the new record.',
  },
  'status.removed': {
    title: 'Removed',
    sentence: 'A removal answers 204 without a body, or 200 with the record as it was.',
  },
  'status.malformed': {
    title: 'Not readable',
    sentence: 'A body that is not JSON, or names a member twice, answers 400.',
  },
  'status.invalid': {
    title: 'Invalid body',
    sentence: 'A body that does not fit its shape answers with all errors at once.',
  },
  'status.parameter': {
    title: 'Bad parameter',
    sentence: 'A query parameter that is unknown, repeated or of the wrong type answers 400.',
  },
  'status.missing': {
    title: 'Not there',
    sentence: 'What is not there answers 404; so does a child under another owner.',
  },
  'status.not-acceptable': {
    title: 'Not acceptable',
    sentence: 'An Accept that rules out every offered media type answers 406.',
  },
  'status.conflict': { title: 'Taken', sentence: 'A value that must be unique and is taken answers 409.' },
  'status.key-mismatch': {
    title: 'Another key',
    sentence: 'A body whose key contradicts the path answers 409.',
  },
  'status.state': {
    title: 'Not allowed now',
    sentence: 'A transition that the state or its condition does not allow answers 409.',
  },
  'status.attached': { title: 'Paired already', sentence: 'A pair that is there already answers 204.' },
  'status.restricted': {
    title: 'Still needed',
    sentence: 'A record that others need cannot be removed: 409.',
  },
  'status.too-large': { title: 'Too large', sentence: 'A body over the limit answers 413.' },
  'status.media-type': {
    title: 'Media type',
    sentence: 'A body without an accepted Content-Type answers 415.',
  },
  'status.elsewhere': {
    title: 'Its one address',
    sentence: 'Another way to a record answers with its canonical address in Content-Location.',
  },
  'status.minimal': {
    title: 'No body wanted',
    sentence: 'Where Prefer asks for no body (RFC 7240), a write that succeeds answers without one.',
  },
  'status.not-modified': {
    title: 'Not modified',
    sentence: 'What the client has already is not sent again: 304 (RFC 9110 §13).',
  },
  'status.precondition': {
    title: 'Another state',
    sentence: 'A request made for another state than there is changes nothing: 412 (RFC 9110 §13).',
  },
  'status.precondition-missing': {
    title: 'State not named',
    sentence: 'Where a write must name the state it was made for, one without If-Match answers 428.',
  },
  'status.key-missing': {
    title: 'No key',
    sentence: 'Where an Idempotency-Key is required, a POST without one answers 400.',
  },
  'status.key-busy': {
    title: 'Still at it',
    sentence: 'While a POST is being carried out, another with its Idempotency-Key answers 409.',
  },
  'status.key-reused': {
    title: 'Key used before',
    sentence:
      'A POST with an Idempotency-Key is carried out once; sent again it gets the first answer, and another request under the key 422.',
  },
  'status.patch': {
    title: 'Patch does not apply',
    sentence: 'A JSON Patch (RFC 6902) whose test fails, or whose path is not there, changes nothing: 409.',
  },
  'status.wrong-id': {
    title: 'No such id',
    sentence: 'An id that cannot be one by its type is not there, or answers 400 where that is chosen.',
  },
} as const satisfies Record<string, Rule>;
