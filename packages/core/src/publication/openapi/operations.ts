import {
  answerTypes,
  HAL,
  isAddressed,
  listFormAt,
  looksThroughList,
  SEE_OTHER,
  takesEnveloped,
  TEXT_TYPE,
  type Contract,
  type Operation,
  type PageForm,
  type ResponseCase,
  type ResponseCode,
} from '../../contract/index.js';
import { hasMoment } from '../../arrangement/index.js';
import type { ExternalDocumentation } from '../../contract/index.js';
import type { Json } from '../../model/index.js';
import { linkHeaders } from './linkHeaders.js';
import { headerParameters, queryParameters } from './parameters.js';
import { envelopedName, isEnveloped } from './envelopes.js';
import { halName, reference, type JsonSchema } from './schemas.js';

/** An Operation Object (OAS §4.8.10). */
export function operationObject(contract: Contract, operation: Operation, tag: string): Json {
  const parameters = [...operation.query.flatMap(queryParameters), ...headerParameters(contract, operation)];
  return {
    operationId: operation.id,
    summary: operation.summary,
    ...saidOfOperation(operation),
    tags: [tag],
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(operation.accepts === null
      ? {}
      : { requestBody: requestBody(contract, operation, operation.accepts) }),
    responses: responsesOf(contract, operation),
    ...securityOf(contract, operation),
  };
}

/** What is said of an operation besides its summary (OAS §4.8.10). */
function saidOfOperation({ documentation }: Operation): Readonly<Record<string, Json>> {
  if (documentation === null) return {};
  const { description, external, deprecated, sunset } = documentation;
  return {
    ...(description === null ? {} : { description }),
    ...(external === null ? {} : { externalDocs: externalObject(external) }),
    ...(deprecated === null && sunset === null ? {} : { deprecated: true }),
  };
}

/** Where more is told (OAS §4.8.11). */
export const externalObject = ({ url, text }: ExternalDocumentation): Json => ({
  url,
  ...(text === null ? {} : { description: text }),
});

/** The schemes an operation takes, any one of them (OAS §4.8.30); none where anybody may. */
function securityOf({ security }: Contract, { access }: Operation): { readonly security?: Json } {
  if (security.schemes.length === 0) return {};
  if (access.kind === 'anonymous') return { security: [] };
  const roles = access.kind === 'role' ? [access.role] : [];
  return { security: security.schemes.map((scheme) => ({ [scheme]: roles })) };
}

function requestBody(contract: Contract, operation: Operation, shape: string): Json {
  const content = Object.fromEntries(
    operation.acceptedTypes.map((type) => [type, { schema: sentSchema(contract, operation, type, shape) }]),
  );
  return { required: true, content };
}

function sentSchema(contract: Contract, operation: Operation, type: string, shape: string): JsonSchema {
  if (type === 'application/json-patch+json') return reference('jsonPatch');
  if (type === HAL) return reference(halName(shape));
  switch (takesEnveloped(contract, operation)) {
    case 'never':
      return reference(shape);
    case 'always':
      return reference(envelopedName(shape));
    case 'also':
      return { anyOf: [reference(shape), reference(envelopedName(shape))] };
  }
}

/** The schema of an answer in plain JSON. */
const answerSchema = (contract: Contract, shape: string): JsonSchema =>
  reference(isEnveloped(contract, shape) ? envelopedName(shape) : shape);

/** What is answered in each media type that is offered; a text has no shape. */
const contentOf = (
  contract: Contract,
  operation: Operation,
): Readonly<Record<string, { readonly schema: JsonSchema }>> =>
  Object.fromEntries(
    answerTypes(contract, operation).flatMap((type) => {
      if (type === TEXT_TYPE) return [[type, { schema: { type: 'string' } }]];
      const shape = operation.returns;
      return shape === null
        ? []
        : [[type, { schema: type === HAL ? reference(halName(shape)) : answerSchema(contract, shape) }]];
    }),
  );

/** A Header Object (OAS §4.8.21). */
export type HeaderObject = { readonly description: string; readonly schema: JsonSchema };

/** A Response Object (OAS §4.8.17). */
export type ResponseObject = {
  readonly description: string;
  readonly headers?: Readonly<Record<string, HeaderObject>>;
  readonly content?: Readonly<Record<string, { readonly schema: JsonSchema }>>;
};

/** What an operation may answer, by status (OAS §4.8.16). */
export function responsesOf(
  contract: Contract,
  operation: Operation,
): Readonly<Record<string, ResponseObject>> {
  const byStatus = new Map<number, ResponseCase[]>();
  for (const response of operation.responses) {
    const cases = byStatus.get(response.status);
    if (cases === undefined) byStatus.set(response.status, [response]);
    else cases.push(response);
  }
  return Object.fromEntries(
    [...byStatus].map(([status, cases]) => [
      String(status),
      responseObject(contract, operation, status, cases),
    ]),
  );
}

const ofText = (description: string, schema: JsonSchema = { type: 'string' }): HeaderObject => ({
  description,
  schema,
});

const URI: JsonSchema = { type: 'string', format: 'uri-reference' };

const hasCode = (cases: readonly ResponseCase[], ...codes: readonly ResponseCode[]): boolean =>
  cases.some(({ code }) => codes.includes(code));

const handsOutToken = ({ custom }: Operation): boolean =>
  custom?.kind === 'verify' && custom.answers.kind === 'token';

const TELLS_NO_RECORD: ReadonlySet<string | undefined> = new Set(['fixed', 'aggregate']);

const isQuery = ({ custom }: Operation): boolean => custom !== null && looksThroughList(custom);

/** Whether what is answered has a state that can be asked for again. */
const hasState = ({ custom, verb }: Operation): boolean => {
  if (verb === 'custom' && custom !== null && looksThroughList(custom)) return false;
  if (custom?.kind === 'verify' || custom?.kind === 'revoke') return false;
  return custom?.kind !== 'fixed' || !hasMoment(custom.body);
};

/** The form of what is listed; `null` where nothing is. */
const formOf = (contract: Contract, { paging, custom, resource }: Operation): PageForm | null =>
  paging === null && custom?.kind === 'query' ? listFormAt(contract, resource) : paging;

/** What an answer says in its headers. */
function headersOf(
  contract: Contract,
  operation: Operation,
  cases: readonly ResponseCase[],
): Readonly<Record<string, HeaderObject>> {
  const { verb, returns, prefers, responses: all } = operation;
  const { representation, totalHeader, moreHeader } = contract;
  const { paging } = operation;
  const isBare = formOf(contract, operation)?.envelope === 'bare';
  const isTold = paging?.totals === 'header' || (paging?.totals === 'body' && isBare);
  const isRecord = !TELLS_NO_RECORD.has(operation.custom?.kind) && !handsOutToken(operation);
  const isElsewhere =
    (hasCode(cases, 'ok', 'not-modified') &&
      all.some(({ reasons }) => reasons.some(({ rule }) => rule === 'status.elsewhere'))) ||
    ((verb === 'transition' || verb === 'custom') &&
      hasCode(cases, 'ok') &&
      returns !== null &&
      isRecord &&
      operation.custom?.kind !== 'query' &&
      operation.custom?.kind !== 'many' &&
      isAddressed(contract, operation));
  const isSeeOther = cases.some(({ status }) => status === SEE_OTHER);
  const isTagged =
    hasState(operation) && !isSeeOther && hasCode(cases, 'created', 'minimal', 'ok', 'not-modified');
  const isShown = returns !== null && hasCode(cases, 'ok', 'created', 'removed');
  const inHeader =
    isRecord &&
    (representation.links === 'header' || (representation.links === 'object' && isBare)) &&
    representation.mediaTypes.includes('application/json');
  const { link, template } = linkHeaders(contract, operation, inHeader);
  return {
    ...(isAddressed(contract, operation) && hasCode(cases, 'created')
      ? { Location: ofText('Where the new record is.', URI) }
      : isSeeOther
        ? { Location: ofText('Where the record is.', URI) }
        : {}),
    ...(isElsewhere ? { 'Content-Location': ofText('The one address of the record.', URI) } : {}),
    ...(isTagged ? { ETag: ofText('The state of what is answered (RFC 9110 §8.8.3).') } : {}),
    ...(link !== null && isRecord && isShown ? { Link: ofText(link) } : {}),
    ...(template !== null && isRecord && isShown ? { 'Link-Template': ofText(template) } : {}),
    ...(isTold && verb === 'list' && hasCode(cases, 'ok')
      ? { [totalHeader]: ofText('How many records there are.', { type: 'integer', minimum: 0 }) }
      : {}),
    ...(isBare && paging !== null && paging.ceiling !== null && hasCode(cases, 'ok')
      ? { [moreHeader]: ofText('Whether there are more than these: ?1 or ?0 (RFC 9651 §3.3.6).') }
      : {}),
    ...(prefers && hasCode(cases, 'ok', 'created', 'removed', 'minimal')
      ? { 'Preference-Applied': ofText('The preference that was honoured (RFC 7240 §3).') }
      : {}),
    ...(hasCode(cases, 'ok') && !hasState(operation) && !isQuery(operation)
      ? { 'Cache-Control': ofText('It is not to be stored (RFC 9111 §5.2.2.5).') }
      : {}),
    ...(hasCode(cases, 'unauthenticated') || (hasCode(cases, 'unmatched') && cases[0]?.status === 401)
      ? { 'WWW-Authenticate': ofText('The credentials that are wanted (RFC 9110 §11.6.1).') }
      : {}),
  };
}

/** What every answer of an operation that comes to its end says (RFC 9745 §2.1, RFC 8594 §3). */
const endHeaders = ({ documentation }: Operation): Readonly<Record<string, HeaderObject>> => ({
  ...(documentation?.deprecated == null
    ? {}
    : { Deprecation: ofText('From when it is not to be used any more (RFC 9745).') }),
  ...(documentation?.sunset == null ? {} : { Sunset: ofText('When it stops answering (RFC 8594).') }),
});

function responseObject(
  contract: Contract,
  operation: Operation,
  status: number,
  cases: readonly ResponseCase[],
): ResponseObject {
  const description = cases.map(({ when }) => when).join(' ');
  const found = { ...headersOf(contract, operation, cases), ...endHeaders(operation) };
  const headers = Object.keys(found).length === 0 ? {} : { headers: found };
  if (status >= 400)
    return {
      description,
      ...headers,
      content: { 'application/problem+json': { schema: reference('problem') } },
    };
  const isEmpty = status === 204 || status === SEE_OTHER || status === 304;
  const content = isEmpty ? {} : contentOf(contract, operation);
  return { description, ...headers, ...(Object.keys(content).length === 0 ? {} : { content }) };
}
