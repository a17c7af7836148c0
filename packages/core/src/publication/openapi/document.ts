import { indexContract, type Contract, type Resource, type SecurityScheme } from '../../contract/index.js';
import { capital, phrase, plural, type Json } from '../../model/index.js';
import { operationObject } from './operations.js';
import { pathParameters } from './parameters.js';
import { componentSchemas } from './schemas.js';

/** An OpenAPI document, version 3.1.1, as plain JSON. */
export type OpenApiDocument = { readonly [name: string]: Json };

/**
 * Writes a contract as an OpenAPI 3.1 document (OAS §4.8.1). Paths are relative to the one server, which is
 * the root of the contract, so the document holds wherever the contract is served.
 */
export function openApiDocument(contract: Contract): OpenApiDocument {
  const { operationsOf } = indexContract(contract);
  const paths = contract.resources.flatMap((resource) => {
    const operations = operationsOf.get(resource.id) ?? [];
    if (operations.length === 0) return [];
    const parameters = pathParameters(resource);
    const item = {
      ...(parameters.length === 0 ? {} : { parameters }),
      ...Object.fromEntries(
        operations.map((operation) => [
          operation.method.toLowerCase(),
          operationObject(contract, operation, tagOf(resource)),
        ]),
      ),
    };
    return [[resource.path === '' ? '/' : resource.path, item] as const];
  });
  return {
    openapi: '3.1.1',
    info: {
      title: contract.title,
      version: contract.version,
      ...(contract.description === null ? {} : { description: contract.description }),
    },
    servers: [{ url: contract.root === '' ? '/' : contract.root }],
    tags: tagsOf(contract).map((name) => ({ name })),
    paths: Object.fromEntries(paths),
    components: { schemas: componentSchemas(contract), ...securitySchemes(contract) },
  };
}

/** Operations are grouped by the entity whose records they show. */
function tagOf(resource: Resource): string {
  if (resource.entity === null) return 'Entry';
  return capital(phrase(plural(resource.entity)));
}

const tagsOf = (contract: Contract): string[] => [
  ...new Set(contract.resources.filter(({ id }) => indexContract(contract).operationsOf.has(id)).map(tagOf)),
];

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
