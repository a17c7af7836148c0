import type { Contract, Operation, QueryParameter, Resource, ResponseCase } from '../../contract/index.js';
import type { Json } from '../../model/index.js';
import { reference, scalarSchema, type JsonSchema } from './schemas.js';

/** The parameters that the path of a resource holds. */
export function pathParameters(resource: Resource): readonly Json[] {
  return resource.segments.flatMap((segment) =>
    segment.kind === 'literal'
      ? []
      : [
          {
            name: segment.parameter,
            in: 'path',
            required: true,
            description: `The key of the ${segment.entity}.`,
            schema: scalarSchema(segment.type),
          },
        ],
  );
}

/** An Operation Object (OAS §4.8.10). */
export function operationObject(contract: Contract, operation: Operation, tag: string): Json {
  const parameters = [...operation.query.map(queryParameter), ...versionParameter(contract)];
  return {
    operationId: operation.id,
    summary: operation.summary,
    tags: [tag],
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(operation.accepts === null ? {} : { requestBody: requestBody(operation, operation.accepts) }),
    responses: responses(operation),
  };
}

/** The header that may name the version. */
const versionParameter = ({ version, versionHeader }: Contract): readonly Json[] =>
  versionHeader === null
    ? []
    : [
        {
          name: versionHeader,
          in: 'header',
          description: 'The version that is meant; the one there is, where it is left out.',
          schema: { type: 'string', enum: [version] },
        },
      ];

function requestBody(operation: Operation, shape: string): Json {
  const content = Object.fromEntries(
    operation.acceptedTypes.map((type) => [type, { schema: reference(shape) }]),
  );
  return { required: true, content };
}

function queryParameter(parameter: QueryParameter): Json {
  const base = { name: parameter.name, in: 'query' };
  switch (parameter.role) {
    case 'page':
      return {
        ...base,
        description: 'The number of the page, from 1.',
        schema: { type: 'integer', minimum: 1, default: 1 },
      };
    case 'size': {
      const schema = { type: 'integer', minimum: 1, maximum: parameter.max, default: parameter.default };
      return { ...base, description: 'How many records a page holds.', schema };
    }
    case 'sort':
      return {
        ...base,
        description:
          'Keys to sort by, each with - in front for descending. The key of the record breaks ties.',
        style: 'form',
        explode: false,
        schema: {
          type: 'array',
          items: { type: 'string', enum: parameter.keys.flatMap(({ name }) => [name, `-${name}`]) },
        },
      };
    case 'filter':
      return {
        ...base,
        description: `Only records whose ${parameter.name} is this.`,
        schema: scalarSchema(parameter.type),
      };
  }
}

function responses(operation: Operation): Json {
  const byStatus = new Map<number, ResponseCase[]>();
  for (const response of operation.responses) {
    const cases = byStatus.get(response.status);
    if (cases === undefined) byStatus.set(response.status, [response]);
    else cases.push(response);
  }
  return Object.fromEntries(
    [...byStatus].map(([status, cases]) => [String(status), responseObject(operation, status, cases)]),
  );
}

const elsewhere: JsonSchema = {
  description: 'The one address of the record.',
  schema: { type: 'string', format: 'uri-reference' },
};

const isElsewhere = (cases: readonly ResponseCase[]): boolean =>
  cases.some(({ reasons }) => reasons.some(({ rule }) => rule === 'status.elsewhere'));

function responseObject(operation: Operation, status: number, cases: readonly ResponseCase[]): Json {
  const description = cases.map(({ when }) => when).join(' ');
  if (status >= 400)
    return { description, content: { 'application/problem+json': { schema: reference('problem') } } };
  const location: JsonSchema = {
    description: 'Where the new record is.',
    schema: { type: 'string', format: 'uri-reference' },
  };
  return {
    description,
    ...(status === 201 ? { headers: { Location: location } } : {}),
    ...(isElsewhere(cases) ? { headers: { 'Content-Location': elsewhere } } : {}),
    ...(operation.returns === null || status === 204
      ? {}
      : { content: { 'application/json': { schema: reference(operation.returns) } } }),
  };
}
