import type { Operation, ResponseCode } from './operation.js';
import type { Contract } from './types.js';

/** A status that an operation never answers, of those that answers of its kind have elsewhere. */
export interface NeverAnswered {
  readonly status: number;
  readonly code: ResponseCode;
  readonly why: string;
}

type Why = (operation: Operation, contract: Contract) => string;

const noBody: Why = () => 'no body is read';
const NO_STATE = 'its answer has no state that a request could be made for';

/** What a status is told by that is not among the answers of an operation, and why it is not. */
const NEVER: readonly (readonly [code: ResponseCode, status: number, why: Why])[] = [
  [
    'not-modified',
    304,
    ({ method }) => (method === 'GET' ? NO_STATE : 'only what is read can be as the client has it already'),
  ],
  ['malformed', 400, noBody],
  ['bad-id', 400, () => 'no id in its path is refused for its form'],
  [
    'unauthenticated',
    401,
    (_, { security }) =>
      security.schemes.length === 0
        ? 'nobody is asked who they are'
        : 'it takes requests without credentials',
  ],
  [
    'forbidden',
    403,
    ({ access }) => (access.kind === 'anonymous' ? 'anybody may call it' : 'whoever is known may call it'),
  ],
  ['missing', 404, () => 'its path names nothing that could be missing'],
  [
    'conflict',
    409,
    ({ effect }) => (effect === 'safe' ? 'it writes nothing' : 'nothing it writes must be unique'),
  ],
  [
    'state',
    409,
    ({ effect }) =>
      effect === 'safe' ? 'it writes nothing' : 'no state or condition keeps it from being done',
  ],
  [
    'restricted',
    409,
    ({ verb }) => (verb === 'remove' ? 'nothing that needs the record keeps it' : 'it removes nothing'),
  ],
  [
    'precondition',
    412,
    ({ effect }) => (effect === 'safe' ? 'it changes nothing' : 'there is no state yet that it could miss'),
  ],
  ['too-large', 413, noBody],
  ['media-type', 415, noBody],
  ['invalid', 422, noBody],
  [
    'precondition-missing',
    428,
    ({ ifMatch }) =>
      ifMatch === 'required' ? 'there is no state that could be named' : 'no state has to be named for it',
  ],
];

/**
 * What an operation never answers and why, a status once. A status that it answers in another case is not told of; what has
 * another status in this contract is told of with that.
 */
export function neverAnswers(contract: Contract, operation: Operation): readonly NeverAnswered[] {
  const given = new Set(operation.responses.map(({ code }) => code));
  const known = new Set(operation.responses.map(({ status }) => status));
  const never = NEVER.filter(([code]) => !given.has(code)).map(([code, usual, why]) => ({
    status: statusIn(contract, code) ?? usual,
    code,
    why: why(operation, contract),
  }));
  const firsts = new Map<number, NeverAnswered>();
  for (const one of never) if (!known.has(one.status) && !firsts.has(one.status)) firsts.set(one.status, one);
  return [...firsts.values()].sort((a, b) => a.status - b.status);
}

function statusIn({ operations }: Contract, code: ResponseCode): number | null {
  for (const { responses } of operations)
    for (const response of responses) if (response.code === code) return response.status;
  return null;
}
