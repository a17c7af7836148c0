import {
  casesByStatus,
  filterTerm,
  indexContract,
  responseHeaders,
  requestHeaders,
  type Contract,
  type Operation,
  type QueryParameter,
} from '../../contract/index.js';
import type { JsonObject } from '../../model/index.js';
import { publishedOf } from '../openapi/links.js';
import { requestContent, responsesOf } from '../openapi/operations.js';
import { headerSchema, operandOf, queryParameters } from '../openapi/parameters.js';
import { nameIn } from '../openapi/schemasIn.js';
import { componentSchemas } from '../openapi/schemas.js';
import { scalarSchema, type JsonSchema } from '../openapi/scalarSchema.js';
import { comment, literalType, objectType, propertyName, schemaType, type TypeNameOf } from './schemaType.js';
import { typeNames } from './names.js';

/** Shapes, operations, and a map from path and method to them, as declarations that need nothing else. */
export function declarations(contract: Contract): string {
  const schemas = Object.entries(componentSchemas(contract)) as [string, JsonSchema][];
  const names = typeNames(schemas.map(([name]) => name));
  const nameOf: TypeNameOf = (schema) => names.get(schema) ?? 'unknown';
  const published = contract.resources.map((resource) => ({
    path: resource.path === '' ? '/' : resource.path,
    operations: publishedOf(contract, resource.id),
  }));
  const shapes = schemas.map(([name, schema]) => shapeType(nameOf(name), schema, nameOf));
  const operations = published.flatMap(({ operations: all }) =>
    all.map((operation) => operationType(contract, operation, nameOf)),
  );
  const paths = published
    .filter(({ operations: all }) => all.length > 0)
    .map(({ path, operations: all }) => {
      const methods = all.map(({ id, method }) => `    ${method}: Operations[${literalType(id)}];\n`);
      return `  ${literalType(path)}: {\n${methods.join('')}  };\n`;
    });
  return [
    comment(`${contract.title} ${contract.version}`, ''),
    'export {};\n\n',
    ...shapes,
    refused(nameOf),
    '/** What each operation takes and answers: bodies by media type, answers by status. */\n',
    `export interface Operations {\n${operations.join('')}}\n\n`,
    '/** Every operation by its path, below the root of the API, and its method. */\n',
    `export interface Paths {\n${paths.join('')}}\n`,
  ].join('');
}

/** An answer that is no success. */
const refused = (nameOf: TypeNameOf): string =>
  [
    '/** An answer that is no success: why, as problem details. */',
    'export interface Refused {',
    '  body: {',
    `    'application/problem+json': ${nameOf('problem')};`,
    '  };',
    '}\n\n',
  ].join('\n');

function shapeType(name: string, schema: JsonSchema, nameOf: TypeNameOf): string {
  const said = comment(schema['description'], '');
  const type = schemaType(schema, nameOf);
  return type.startsWith('{') && schema['type'] === 'object'
    ? `${said}export interface ${name} ${type}\n\n`
    : `${said}export type ${name} = ${type};\n\n`;
}

function operationType(contract: Contract, operation: Operation, nameOf: TypeNameOf): string {
  const indent = '    ';
  const { segments = [] } = indexContract(contract).resources.get(operation.resource) ?? {};
  const path = segments.flatMap((segment) =>
    segment.kind === 'id' ? [[segment.parameter, scalarSchema(segment.type), true] as const] : [],
  );
  const query = operation.query.flatMap(queryMembers);
  const headers = requestHeaders(contract, operation).map(
    (use) => [use.name, headerSchema(use), use.isRequired] as const,
  );
  const part = (name: string, members: readonly Given[]): string =>
    `${indent}${name}: ${objectType(objectOf(members), nameOf, indent)};\n`;
  const body =
    operation.accepts === null
      ? 'never'
      : contentType(requestContent(contract, operation, operation.accepts), nameOf, indent);
  return [
    comment(operation.summary, '  '),
    `  ${propertyName(operation.id)}: {\n`,
    path.length === 0 ? '' : part('path', path),
    query.length === 0 ? '' : part('query', query),
    headers.length === 0 ? '' : part('headers', headers),
    `${indent}body: ${body};\n`,
    `${indent}answers: {\n${answers(contract, operation, nameOf)}${indent}};\n`,
    '  };\n',
  ].join('');
}

type Given = readonly [name: string, schema: JsonSchema, isRequired: boolean];

const objectOf = (members: readonly Given[]): JsonSchema => ({
  properties: Object.fromEntries(members.map(([name, schema]) => [name, schema])),
  required: members.flatMap(([name, , isRequired]) => (isRequired ? [name] : [])),
});

/** A parameter as it is named in a URL; a filter has a name for each operator, unless they stand in its value. */
function queryMembers(parameter: QueryParameter): readonly Given[] {
  if (parameter.role === 'filter' && parameter.spelling !== 'in value')
    return parameter.operators.map((operator) => [
      filterTerm(parameter, operator).name,
      operandOf(operator, parameter.type),
      false,
    ]);
  return queryParameters(parameter).map((object) => {
    const { name, schema, required } = object as JsonObject;
    return [nameIn(name), schema as JsonSchema, required === true];
  });
}

const contentType = (
  content: Readonly<Record<string, { readonly schema: JsonSchema }>>,
  nameOf: TypeNameOf,
  indent: string,
): string => {
  const properties = Object.fromEntries(Object.entries(content).map(([type, { schema }]) => [type, schema]));
  return objectType({ properties, required: Object.keys(properties) }, nameOf, indent);
};

function answers(contract: Contract, operation: Operation, nameOf: TypeNameOf): string {
  const indent = '      ';
  const described = responsesOf(contract, operation);
  return casesByStatus(operation.responses)
    .map(([status, cases]) => {
      if (status >= 400) return `${indent}${status}: Refused;\n`;
      const { content = {}, description } = described[String(status)] ?? {};
      const headers = responseHeaders(contract, operation, cases).map(
        (use) => [use.name, headerSchema(use), false] as const,
      );
      const body = Object.keys(content).length === 0 ? 'never' : contentType(content, nameOf, `${indent}  `);
      return [
        comment(description, indent),
        `${indent}${status}: {\n`,
        headers.length === 0
          ? ''
          : `${indent}  headers: ${objectType(objectOf(headers), nameOf, `${indent}  `)};\n`,
        `${indent}  body: ${body};\n`,
        `${indent}};\n`,
      ].join('');
    })
    .join('');
}
