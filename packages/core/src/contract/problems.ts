/** The title of each kind of problem, and the sentence its documentation page shows. */
export const PROBLEMS = {
  'not-found': {
    title: 'Not there',
    about:
      'Nothing answers at this address: no path of the contract matches it, a record with this id does not exist, or a record belongs to another owner than the path says.',
  },
  'bad-target': {
    title: 'Address not readable',
    about: 'The request target holds a percent-encoding that is not UTF-8, or is not a path.',
  },
  'target-too-long': { title: 'Address too long', about: 'The request target is longer than 8 KiB.' },
  'method-not-allowed': {
    title: 'Method not allowed',
    about: 'The path is there, the method is not. The Allow header lists the methods that are.',
  },
  'method-unknown': { title: 'Method unknown', about: 'No resource of the contract knows this method.' },
  'not-acceptable': {
    title: 'Not acceptable',
    about: 'The Accept header rules out every media type that can be answered; the detail lists them.',
  },
  'media-type': {
    title: 'Media type not accepted',
    about:
      'The body has no Content-Type, or one that is not accepted here. The Accept or Accept-Patch header lists those that are.',
  },
  'too-large': { title: 'Body too large', about: 'The body is larger than the limit that the detail names.' },
  malformed: {
    title: 'Body not readable',
    about:
      'The body is not JSON as RFC 8259 defines it, names a member twice, is nested too deep, or holds a number with too many digits. The detail says where.',
  },
  invalid: {
    title: 'Body does not fit',
    about:
      'The body was read but does not fit the shape that is accepted here. Every error is listed with a JSON pointer (RFC 6901) into the body.',
  },
  'bad-parameter': {
    title: 'Bad parameter',
    about:
      'A query parameter is unknown, given twice, or has a value that does not fit. Every error names its parameter.',
  },
  conflict: {
    title: 'Already taken',
    about: 'A value that must be unique belongs to another record. The errors name the attributes.',
  },
  restricted: {
    title: 'Still needed',
    about: 'The record cannot be removed while others need it. The detail says which.',
  },
  state: {
    title: 'Not allowed now',
    about:
      'The state of the record, or the condition of the transition, does not allow it now. The detail names the state and what is allowed.',
  },
  patch: {
    title: 'Patch does not apply',
    about:
      'A JSON Patch (RFC 6902) was read, but a test in it fails or a path in it is not there. Nothing was changed; the detail says which step.',
  },
  unauthenticated: {
    title: 'Who are you',
    about:
      'The operation wants credentials. There are none in the request, or none that are known; WWW-Authenticate says how to send them.',
  },
  forbidden: {
    title: 'Not for you',
    about: 'The credentials are known, but do not have the role that the operation wants.',
  },
  precondition: {
    title: 'Another state',
    about:
      'The request was made for another state than there is: If-Match, If-None-Match or If-Unmodified-Since does not hold (RFC 9110 §13). Read it again, then decide anew.',
  },
  'precondition-missing': {
    title: 'State not named',
    about:
      'The operation changes something only for clients that know its state: send the ETag of what you read in If-Match (RFC 6585 §3).',
  },
  'key-missing': {
    title: 'No Idempotency-Key',
    about:
      'The operation wants an Idempotency-Key, so that a request that is sent again is carried out once.',
  },
  'key-busy': {
    title: 'Still at it',
    about: 'An earlier request with the same Idempotency-Key has not been answered yet. Try again shortly.',
  },
  'key-reused': {
    title: 'Key used before',
    about: 'The same Idempotency-Key was sent with another request. Each request needs a key of its own.',
  },
  'bad-id': {
    title: 'No such id',
    about: 'An id in the path cannot be one by its type. The detail says what was expected.',
  },
  full: {
    title: 'No room',
    about:
      'The mock holds as many records as it may (507, RFC 4918 §11.5). The detail names the number; what is removed makes room.',
  },
  simulated: {
    title: 'Simulated trouble',
    about:
      'The mock was told to fail so for some requests. Nothing was read or changed; the request may be sent again.',
  },
  unavailable: {
    title: 'Not now',
    about:
      'The write could not be stored. Nothing was changed; try again after the time that Retry-After gives.',
  },
  version: {
    title: 'Another version',
    about: 'The request asks for a version that is not served here. The detail names the one that is.',
  },
  'bad-request': { title: 'Message not readable', about: 'The request is not HTTP as RFC 9112 defines it.' },
  'transfer-coding': {
    title: 'Transfer coding unknown',
    about: 'The message is sent in a transfer coding that is not read here (RFC 9112 §6.1); chunked is.',
  },
  expectation: {
    title: 'Expectation not met',
    about: 'The Expect header asks for something else than 100-continue (RFC 9110 §10.1.1).',
  },
  unexpected: {
    title: 'Something went wrong inside',
    about: 'The mock failed in a way it should not. The journal of the mock holds the details.',
  },
} as const satisfies Readonly<Record<string, { readonly title: string; readonly about: string }>>;

export type ProblemCode = keyof typeof PROBLEMS;
