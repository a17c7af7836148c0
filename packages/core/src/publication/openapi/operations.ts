import type { Contract, Operation, QueryParameter, Resource, ResponseCase } from '../../contract/index.js';
import type { FilterOperator } from '../../arrangement/index.js';
import type { Json, ScalarType } from '../../model/index.js';
import { halName, reference, scalarSchema, type JsonSchema } from './schemas.js';

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
    responses: responses(contract, operation),
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
    case 'offset':
      return {
        ...base,
        description: 'How many records come before the page.',
        schema: { type: 'integer', minimum: 0, default: 0 },
      };
    case 'size': {
      const schema = { type: 'integer', minimum: 1, maximum: parameter.max, default: parameter.default };
      return { ...base, description: 'How many records a page holds.', schema };
    }
    case 'sort':
      return {
        ...base,
        description: `Keys to sort by, each ${parameter.style === 'minus' ? 'with - in front' : 'followed by :desc'} for descending. The key of the record breaks ties.`,
        style: 'form',
        explode: false,
        schema: {
          type: 'array',
          items: {
            type: 'string',
            enum: parameter.keys.flatMap(({ name }) => sortTexts(name, parameter.style)),
          },
        },
      };
    case 'filter':
      return filterParameter(parameter, base);
  }
}

/** The same shape in each media type that is offered. */
const contentOf = ({ representation }: Contract, shape: string): Json =>
  Object.fromEntries(
    representation.mediaTypes.map((type) => [
      type,
      { schema: reference(type === 'application/hal+json' ? halName(shape) : shape) },
    ]),
  );

const sortTexts = (name: string, style: 'minus' | 'suffix'): string[] =>
  style === 'minus' ? [name, `-${name}`] : [name, `${name}:asc`, `${name}:desc`];

/** Operators in brackets are the members of a deep object (OAS §4.8.12.4); equality may be written plainly too. */
function filterParameter(parameter: Extract<QueryParameter, { role: 'filter' }>, base: object): Json {
  const { name, type, operators } = parameter;
  if (operators.length === 1 && operators[0] === 'eq')
    return { ...base, description: `Only records whose ${name} is this.`, schema: scalarSchema(type) };
  const properties = Object.fromEntries(
    operators.map((operator) => [operator, operandSchema(operator, type)]),
  );
  return {
    ...base,
    description: `Only records whose ${name} compares so. ${name}=… is the same as ${name}[eq]=….`,
    style: 'deepObject',
    explode: true,
    schema: { type: 'object', properties, additionalProperties: false },
  };
}

function operandSchema(operator: FilterOperator, type: ScalarType): JsonSchema {
  switch (operator) {
    case 'in':
      return { type: 'string', description: 'Values separated by commas.' };
    case 'unset':
      return { type: 'boolean', description: 'Whether it has no value.' };
    case 'contains':
    case 'starts':
      return { type: 'string', minLength: 1 };
    case 'eq':
    case 'ne':
    case 'lt':
    case 'lte':
    case 'gt':
    case 'gte':
      return scalarSchema(type);
  }
}

function responses(contract: Contract, operation: Operation): Json {
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

const totalCount: JsonSchema = {
  description: 'How many records there are.',
  schema: { type: 'integer', minimum: 0 },
};

const elsewhere: JsonSchema = {
  description: 'The one address of the record.',
  schema: { type: 'string', format: 'uri-reference' },
};

const isElsewhere = (cases: readonly ResponseCase[]): boolean =>
  cases.some(({ reasons }) => reasons.some(({ rule }) => rule === 'status.elsewhere'));

function responseObject(
  contract: Contract,
  operation: Operation,
  status: number,
  cases: readonly ResponseCase[],
): Json {
  const description = cases.map(({ when }) => when).join(' ');
  if (status >= 400)
    return { description, content: { 'application/problem+json': { schema: reference('problem') } } };
  const { paging, representation } = contract;
  const isTold =
    paging.totals === 'header' || (paging.totals === 'body' && representation.envelope === 'bare');
  const total = isTold && operation.verb === 'list' && status === 200;
  const location: JsonSchema = {
    description: 'Where the new record is.',
    schema: { type: 'string', format: 'uri-reference' },
  };
  return {
    description,
    ...(status === 201 ? { headers: { Location: location } } : {}),
    ...(total ? { headers: { 'Total-Count': totalCount } } : {}),
    ...(isElsewhere(cases) ? { headers: { 'Content-Location': elsewhere } } : {}),
    ...(operation.returns === null || status === 204
      ? {}
      : { content: contentOf(contract, operation.returns) }),
  };
}
