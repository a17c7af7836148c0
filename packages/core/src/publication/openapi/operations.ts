import {
  answerTypes,
  casesByStatus,
  HAL,
  noteOn,
  parameterSubject,
  responseHeaders,
  responseSubject,
  SEE_OTHER,
  takesEnveloped,
  TEXT_TYPE,
  type Contract,
  type HeaderUse,
  type Operation,
  type QueryParameter,
  type ResponseCase,
} from '../../contract/index.js';
import type { ExternalDocumentation } from '../../contract/index.js';
import { entryOf, memoize, readJson, type Json, type JsonObject } from '../../model/index.js';
import type { PublishedExample } from '../source.js';
import { linksOfOperation, type ExpressedLink } from './links.js';
import { componentName, freeName } from './share.js';
import { headerParameters, headerSchema, headerText, queryParameters } from './parameters.js';
import { envelopedName, isEnveloped } from './envelopes.js';
import { halName, reference } from './schemas.js';
import type { JsonSchema } from './scalarSchema.js';

/** An Operation Object (OAS §4.8.10); its lists and maps are its own. */
export type OperationObject = {
  readonly [field: string]: Json;
  readonly parameters?: Json[];
  readonly responses: Record<string, JsonObject>;
};

/** Writes an operation with everything in its place. */
export function operationObject(
  contract: Contract,
  operation: Operation,
  examples: readonly PublishedExample[],
): OperationObject {
  const parameters = [
    ...operation.query.flatMap((parameter) => noted(contract, operation, parameter)),
    ...headerParameters(contract, operation),
  ];
  return {
    operationId: operation.id,
    summary: operation.summary,
    ...saidOfOperation(operation),
    tags: tagTitles(contract, operation),
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(operation.accepts === null
      ? {}
      : { requestBody: requestBody(contract, operation, operation.accepts, examples) }),
    responses: responsesOf(contract, operation, examples),
    ...securityOf(contract, operation),
  };
}

const tagsById = memoize(
  ({ documentation }: Contract): ReadonlyMap<string, { readonly at: number; readonly title: string }> =>
    new Map(documentation.tags.map(({ id, title }, at) => [id, { at, title }])),
);

/** In the order of the tags of the API. */
const tagTitles = (contract: Contract, { tags }: Operation): readonly string[] =>
  tags
    .flatMap((id) => tagsById(contract).get(id) ?? [])
    .sort((one, other) => one.at - other.at)
    .map(({ title }) => title);

/** A query parameter with what is said of it. */
function noted(contract: Contract, operation: Operation, parameter: QueryParameter): readonly Json[] {
  const note = noteOn(contract, 'parameter', parameterSubject(contract, operation, parameter));
  const objects = queryParameters(parameter);
  return note?.description === undefined
    ? objects
    : objects.map((one) => withNote(one as JsonObject, note.description ?? ''));
}

/** What is said comes first; what was derived says how it is written. */
const withNote = (object: JsonObject, note: string): JsonObject => ({
  ...object,
  description: typeof object['description'] === 'string' ? `${note}\n\n${object['description']}` : note,
});

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
  if (security.schemes.length === 0 || access.kind === 'anonymous') return {};
  const roles = access.kind === 'role' ? [access.role] : [];
  return { security: security.schemes.map((scheme) => ({ [scheme]: roles })) };
}

function requestBody(
  contract: Contract,
  operation: Operation,
  shape: string,
  examples: readonly PublishedExample[],
): Json {
  const sent = examples.filter(({ status, isMasked }) => status < 400 && !isMasked);
  const content = Object.entries(requestContent(contract, operation, shape)).map(
    ([type, media]) => [type, { ...media, ...examplesIn(sent, type, sentIn) }] as const,
  );
  return { required: true, content: Object.fromEntries(content) };
}

const sentIn = ({ requestHeaders, requestBody: text }: PublishedExample): TypedText => ({
  type: requestHeaders.get('content-type') ?? '',
  text,
});

/** What is accepted in each media type (OAS §4.8.14). */
export const requestContent = (
  contract: Contract,
  operation: Operation,
  shape: string,
): Readonly<Record<string, MediaTypeObject>> =>
  Object.fromEntries(
    operation.acceptedTypes.map((type) => [type, { schema: sentSchema(contract, operation, type, shape) }]),
  );

function sentSchema(contract: Contract, operation: Operation, type: string, shape: string): JsonSchema {
  if (type === 'application/json-patch+json') return reference('jsonPatch');
  if (type === HAL) return reference(shape);
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
  readonly content?: Readonly<Record<string, MediaTypeObject>>;
  readonly links?: JsonObject;
};

/** A Media Type Object (OAS §4.8.14). */
export type MediaTypeObject = { readonly schema: JsonSchema; readonly examples?: JsonObject };

/** What an operation may answer, by status (OAS §4.8.16). */
export function responsesOf(
  contract: Contract,
  operation: Operation,
  examples: readonly PublishedExample[] = [],
): Record<string, ResponseObject> {
  return Object.fromEntries(
    casesByStatus(operation.responses).map(([status, cases]) => [
      String(status),
      withExamples(
        responseObject(contract, operation, status, cases),
        examples.filter((example) => example.status === status),
      ),
    ]),
  );
}

/** Headers by their names, with what is said of each. */
const headerObjects = (
  contract: Contract,
  uses: readonly HeaderUse[],
): Readonly<Record<string, HeaderObject>> =>
  Object.fromEntries(uses.map((use) => [use.name, headerObject(contract, use)]));

/** Made once for what is said of a header; most are the same in most answers. */
function headerObject(contract: Contract, use: HeaderUse): HeaderObject {
  const description = headerText(contract, use);
  return entryOf(madeOnce(contract).headers, `${use.subject}\n${description}`, () => ({
    description,
    schema: headerSchema(use),
  }));
}

interface MadeOnce {
  readonly headers: Map<string, HeaderObject>;
  readonly refusals: Map<string, ResponseObject>;
}

const madeOnce = memoize<Contract, MadeOnce>(() => ({
  headers: new Map(),
  refusals: new Map(),
}));

function responseObject(
  contract: Contract,
  operation: Operation,
  status: number,
  cases: readonly ResponseCase[],
): ResponseObject {
  const description = cases
    .map((one) => noteOn(contract, 'response', responseSubject(operation, one))?.description ?? one.when)
    .join(' ');
  const found = responseHeaders(contract, operation, cases);
  if (status >= 400) return refusal(contract, description, found);
  const headers = found.length === 0 ? {} : { headers: headerObjects(contract, found) };
  const isEmpty = status === 204 || status === SEE_OTHER || status === 304;
  const content = isEmpty ? {} : contentOf(contract, operation);
  return {
    description,
    ...headers,
    ...(Object.keys(content).length === 0 ? {} : { content, ...linksOf(contract, operation) }),
  };
}

/** An answer that is no success, made once for what it says. */
const refusal = (contract: Contract, description: string, uses: readonly HeaderUse[]): ResponseObject =>
  entryOf(
    madeOnce(contract).refusals,
    [description, ...uses.map(({ subject, description: told }) => `${subject} ${told}`)].join('\n'),
    () => ({
      description,
      ...(uses.length === 0 ? {} : { headers: headerObjects(contract, uses) }),
      content: { 'application/problem+json': { schema: reference('problem') } },
    }),
  );

/** Where an answer leads, under the names of its relations (OAS §4.8.20). */
function linksOf(contract: Contract, operation: Operation): { readonly links?: JsonObject } {
  const links = linkObjects(linksOfOperation(contract, operation));
  return Object.keys(links).length === 0 ? {} : { links };
}

const linkObjects = memoize((expressed: readonly ExpressedLink[]): JsonObject => {
  const taken = new Set<string>();
  return Object.fromEntries(
    expressed.flatMap(({ relation, object }) =>
      object === null ? [] : [[freeName([componentName(relation)], taken), object] as const],
    ),
  );
});

/** What was answered, under the names of the examples. */
function withExamples(response: ResponseObject, examples: readonly PublishedExample[]): ResponseObject {
  if (examples.length === 0 || response.content === undefined) return response;
  const content = Object.entries(response.content).map(
    ([type, media]) => [type, { ...media, ...examplesIn(examples, type, answeredIn) }] as const,
  );
  return { ...response, content: Object.fromEntries(content) };
}

const answeredIn = ({ responseHeaders: headers, responseBody: text }: PublishedExample): TypedText => ({
  type: headers.find(([name]) => name === 'Content-Type')?.[1] ?? '',
  text,
});

interface TypedText {
  readonly type: string;
  readonly text: string | null;
}

/** The bodies of one media type (OAS §4.8.19). */
function examplesIn(
  examples: readonly PublishedExample[],
  type: string,
  bodyOf: (example: PublishedExample) => TypedText,
): { readonly examples?: JsonObject } {
  const found = examples.flatMap((example) => {
    const { type: stated, text } = bodyOf(example);
    if (text === null || stated.split(';', 1)[0]?.trim() !== type) return [];
    const read = type === TEXT_TYPE ? { ok: true as const, value: text } : readJson(text);
    if (!read.ok) return [];
    const summary = `${example.method} ${example.target}`;
    return [[example.name, { summary, value: read.value }] as const];
  });
  return found.length === 0 ? {} : { examples: Object.fromEntries(found) };
}
