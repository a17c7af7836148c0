import {
  isPublished,
  type ApiDocumentation,
  type Contract,
  type SecurityScheme,
  type ServedAt,
} from '../../contract/index.js';
import type { Json } from '../../model/index.js';
import type { PublishedExample } from '../source.js';
import { publishedOf } from './links.js';
import { externalObject, operationObject } from './operations.js';
import { SharedComponents } from './share.js';
import { withSharedSchemas } from './sharedSchemas.js';
import { shareParameters, shareParts } from './sharedOperation.js';
import { pathParameters } from './parameters.js';
import { componentSchemas } from './schemas.js';

/** An OpenAPI document, version 3.1.1, as plain JSON. */
export type OpenApiDocument = { readonly [name: string]: Json };

/**
 * Writes a contract as an OpenAPI 3.1 document (OAS §4.8.1). Paths are relative to the one server, which is
 * the root of the contract, so the document holds wherever the contract is served.
 */
export function openApiDocument(
  contract: Contract,
  { examples = NO_EXAMPLES, mock = null }: OpenApiOptions = {},
): OpenApiDocument {
  const shared = new SharedComponents();
  const paths = contract.resources.flatMap((resource) => {
    const operations = publishedOf(contract, resource.id);
    if (operations.length === 0) return [];
    const scope = resource.entity ?? resource.kind;
    const parameters = [...pathParameters(contract, resource)];
    shareParameters(shared, scope, parameters);
    const item = {
      ...(parameters.length === 0 ? {} : { parameters }),
      ...Object.fromEntries(
        operations.map((operation) => {
          const object = operationObject(contract, operation, examples.get(operation.id) ?? []);
          shareParts(shared, scope, object);
          return [operation.method.toLowerCase(), object];
        }),
      ),
    };
    return [[resource.path === '' ? '/' : resource.path, item] as const];
  });
  const components = shared.settle();
  return withSharedSchemas({
    openapi: '3.1.1',
    info: {
      title: contract.title,
      version: contract.documentation.version ?? contract.version,
      ...(contract.description === null ? {} : { description: contract.description }),
      ...infoOf(contract.documentation),
    },
    ...(contract.documentation.external === null
      ? {}
      : { externalDocs: externalObject(contract.documentation.external) }),
    servers: [
      { url: contract.root === '' ? '/' : contract.root },
      ...(mock === null ? [] : [{ url: mock, description: 'A mock' }]),
      ...contract.documentation.servers.map(serverObject),
    ],
    tags: publishedTags(contract),
    paths: Object.fromEntries(paths),
    components: {
      schemas: componentSchemas(contract),
      ...components,
      ...securitySchemes(contract),
    },
  });
}

interface OpenApiOptions {
  readonly examples?: ReadonlyMap<string, readonly PublishedExample[]>;
  /** Where a mock serves it. */
  readonly mock?: string | null;
}

const NO_EXAMPLES: ReadonlyMap<string, readonly PublishedExample[]> = new Map();

/** What else is said of the API (OAS §4.8.2). */
function infoOf({ summary, contact, license, terms }: ApiDocumentation): Readonly<Record<string, Json>> {
  const said = (texts: Readonly<Record<string, string | null>>): Json =>
    Object.fromEntries(Object.entries(texts).filter(([, text]) => text !== null));
  return {
    ...(summary === null ? {} : { summary }),
    ...(terms === null ? {} : { termsOfService: terms }),
    ...(contact === null ? {} : { contact: said(contact) }),
    ...(license === null ? {} : { license: said(license) }),
  };
}

/** A Server Object (OAS §4.8.5). */
const serverObject = ({ url, description, name, variables }: ServedAt): Json => ({
  url,
  description: description ?? name,
  ...(Object.keys(variables).length === 0
    ? {}
    : {
        variables: Object.fromEntries(
          Object.entries(variables).map(([variable, values]) => [
            variable,
            { default: values[0] ?? '', ...(values.length > 1 ? { enum: values } : {}) },
          ]),
        ),
      }),
});

/** The tags of what is published, in their order (OAS §4.8.22). */
function publishedTags({ documentation, operations }: Contract): Json {
  const used = new Set(operations.flatMap((operation) => (isPublished(operation) ? operation.tags : [])));
  return documentation.tags
    .filter(({ id }) => used.has(id))
    .map(({ title, description, external }) => ({
      name: title,
      ...(description === null ? {} : { description }),
      ...(external === null ? {} : { externalDocs: externalObject(external) }),
    }));
}

/** How clients prove who they are (OAS §4.8.27). */
function securitySchemes({ security }: Contract): { readonly securitySchemes?: Json } {
  if (security.schemes.length === 0) return {};
  const schemes = security.schemes.map(
    (scheme) => [scheme, schemeObject(scheme, security.keyHeader)] as const,
  );
  return { securitySchemes: Object.fromEntries(schemes) };
}

function schemeObject(scheme: SecurityScheme, keyHeader: string): Json {
  switch (scheme) {
    case 'basic':
      return { type: 'http', scheme: 'basic', description: 'User and password (RFC 7617).' };
    case 'bearer':
      return { type: 'http', scheme: 'bearer', description: 'A token (RFC 6750).' };
    case 'key':
      return { type: 'apiKey', in: 'header', name: keyHeader };
  }
}
