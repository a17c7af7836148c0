import { indexContract, TEXT_TYPE, type Contract } from '../contract/index.js';
import { memoize, readJson, type Json } from '../model/index.js';
import {
  componentSchemas,
  patternsByPublished,
  responsesOf,
  type ResponseObject,
} from '../publication/index.js';
import { mismatches, type Schemas } from './schema.js';

/** An answer as a client received it. */
export interface ReceivedResponse {
  readonly status: number;
  /** Names in lower case. */
  readonly headers: ReadonlyMap<string, string>;
  /** `null` where there was none. */
  readonly body: string | null;
}

/** What in an answer is not as the contract says. */
export type Deviation =
  | { readonly part: 'status'; readonly message: string }
  | { readonly part: 'header'; readonly name: string; readonly message: string }
  /** `pointer`: a JSON Pointer (RFC 6901) into the body. */
  | { readonly part: 'body'; readonly pointer: string; readonly message: string };

/** Where they are described, they are always there (RFC 9110 §10.2.2, §11.6.1). */
const ALWAYS: ReadonlySet<string> = new Set(['Location', 'WWW-Authenticate']);

const schemasOf = memoize((contract: Contract): Schemas => ({
  byName: componentSchemas(contract),
  patterns: patternsByPublished(contract),
}));

/**
 * Judges the answer of an operation by its contract: its status, its headers as far as they are described, its media
 * type and its body. `isHead`: it answered HEAD, and so has no body (RFC 9110 §9.3.2). Throws where the contract has no
 * such operation. Headers and, in answers, members that no contract describes are nobody's business: they may be added.
 */
export function judgeResponse(
  contract: Contract,
  operationId: string,
  response: ReceivedResponse,
  isHead = false,
): readonly Deviation[] {
  const operation = indexContract(contract).operations.get(operationId);
  if (operation === undefined) throw new Error(`There is no operation ${operationId}.`);
  const described = responsesOf(contract, operation)[String(response.status)];
  if (described === undefined) {
    const message = `${operationId} does not describe the status ${response.status}.`;
    return [{ part: 'status', message }];
  }
  return [
    ...headerDeviations(contract, described, response),
    ...(isHead ? [] : bodyDeviations(contract, described, response)),
  ];
}

function headerDeviations(
  contract: Contract,
  { headers = {} }: ResponseObject,
  response: ReceivedResponse,
): readonly Deviation[] {
  return Object.entries(headers).flatMap(([name, { schema }]): Deviation[] => {
    const text = response.headers.get(name.toLowerCase());
    if (text === undefined)
      return ALWAYS.has(name) ? [{ part: 'header', name, message: 'It is missing.' }] : [];
    const value = schema['type'] === 'integer' ? numberIn(text) : text;
    return mismatches(schemasOf(contract), schema, value).map(({ message }) => ({
      part: 'header',
      name,
      message,
    }));
  });
}

const numberIn = (text: string): Json => (/^-?\d+$/.test(text) ? Number(text) : text);

function bodyDeviations(
  contract: Contract,
  { content }: ResponseObject,
  { headers, body }: ReceivedResponse,
): readonly Deviation[] {
  const wrong = (message: string): readonly Deviation[] => [{ part: 'body', pointer: '', message }];
  if (content === undefined) return body === null ? [] : wrong('Expected no body.');
  // Who prefers no body gets none, whatever is described (RFC 7240 §4.2).
  const isMinimal = headers.get('preference-applied') === 'return=minimal';
  if (body === null) return isMinimal ? [] : wrong('Expected a body.');
  const [type = ''] = (headers.get('content-type') ?? '').split(';', 1);
  const described = content[type.trim().toLowerCase()];
  if (described === undefined) {
    const message = `Expected ${Object.keys(content).join(' or ')}.`;
    return [{ part: 'header', name: 'Content-Type', message }];
  }
  const read = type.trim().toLowerCase() === TEXT_TYPE ? { ok: true as const, value: body } : readJson(body);
  if (!read.ok) return wrong(`The body is no JSON: ${read.problem.message}`);
  return mismatches(schemasOf(contract), described.schema, read.value).map((mismatch) => ({
    part: 'body',
    ...mismatch,
  }));
}
