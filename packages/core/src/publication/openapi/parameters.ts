import { FILTER_OPERATORS, type FilterOperator } from '../../arrangement/index.js';
import {
  DIRECTIONS,
  filterTerm,
  noteOn,
  pathSubject,
  requestHeaders,
  sentTerm,
  type Contract,
  type FilterParameter,
  type HeaderUse,
  type Operation,
  type QueryParameter,
  type Resource,
  type SortSpelling,
} from '../../contract/index.js';
import { entryOf, memoize, type Json, type JsonObject, type ScalarType } from '../../model/index.js';
import { scalarSchema, type JsonSchema } from './scalarSchema.js';

/** The parameters that the path of a resource holds. */
export function pathParameters(contract: Contract, resource: Resource): readonly Json[] {
  return resource.segments.flatMap((segment) =>
    segment.kind === 'literal'
      ? []
      : [
          {
            name: segment.parameter,
            in: 'path',
            required: true,
            description:
              noteOn(contract, 'parameter', pathSubject(contract, segment))?.description ??
              `The key of the ${segment.entity}.`,
            schema: scalarSchema(segment.type),
          },
        ],
  );
}

/** Headers that a request of an operation may carry (OAS §4.8.12). */
export const headerParameters = (contract: Contract, operation: Operation): readonly Json[] =>
  requestHeaders(contract, operation).map((use) =>
    entryOf(headersMade(contract), `${use.subject} ${use.isRequired}`, () => ({
      name: use.name,
      in: 'header',
      description: headerText(contract, use),
      ...(use.isRequired ? { required: true } : {}),
      schema: headerSchema(use),
    })),
  );

/** Made once for what is asked for; most are the same in most requests. */
const headersMade = memoize<Contract, Map<string, JsonObject>>(() => new Map());

/** What is said of a header, else what it is for. */
export const headerText = (contract: Contract, { subject, description }: HeaderUse): string =>
  noteOn(contract, 'header', subject)?.description ?? description;

export function headerSchema({ type }: HeaderUse): JsonSchema {
  switch (type) {
    case 'text':
      return { type: 'string' };
    case 'uri':
      return { type: 'string', format: 'uri-reference' };
    case 'count':
      return { type: 'integer', minimum: 0 };
    case 'preference':
      return { type: 'string', examples: ['return=minimal', 'return=representation'] };
    default:
      return { type: 'string', enum: type.options };
  }
}

/** A query parameter of an operation (OAS §4.8.12); a filter whose operators stand in its name is one for each. */
export const queryParameters = memoize((parameter: QueryParameter): readonly Json[] =>
  parameter.role === 'filter' ? filterParameters(parameter) : [queryParameter(parameter)],
);

function queryParameter(parameter: Exclude<QueryParameter, FilterParameter>): Json {
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
      return { ...base, ...sortKeys(parameter) };
    case 'order':
      return {
        ...base,
        description: 'The direction of each key to sort by; all ascending without it.',
        explode: false,
        schema: { type: 'array', items: { type: 'string', enum: ['asc', 'desc'] } },
      };
    case 'cursor':
      return {
        ...base,
        description: 'Where the page begins, as a page of the same list told it. The first page without it.',
        schema: { type: 'string' },
      };
    case 'input':
      return { ...base, ...ofInput(parameter) };
    case 'search':
      return {
        ...base,
        description: 'Only records that hold this text, in whatever case.',
        schema: { type: 'string', minLength: 1 },
      };
    case 'fields':
      return namesParameter(base, 'The members that are answered; all without it.', {
        type: 'string',
        enum: parameter.names,
      });
    case 'expand':
      return expandParameter(parameter, base);
  }
}

/** Steps joined by dots; only the first can be listed. */
function expandParameter({ names, depth }: Extract<QueryParameter, { role: 'expand' }>, base: object): Json {
  const items: JsonSchema =
    depth === 1
      ? { type: 'string', enum: names }
      : { type: 'string', pattern: `^(?:${names.join('|')})(?:\\.[^.,]+){0,${depth - 1}}$` };
  const steps = depth === 1 ? '1 step' : `${depth} steps`;
  return namesParameter(
    base,
    `Related records to answer inside, at most ${steps} away, the steps joined by dots.`,
    items,
  );
}

/** Names separated by commas. */
const namesParameter = (base: object, description: string, items: JsonSchema): Json => ({
  ...base,
  description,
  explode: false,
  schema: { type: 'array', minItems: 1, items },
});

function sortKeys({ keys, style }: Extract<QueryParameter, { role: 'sort' }>): JsonSchema {
  return {
    description: `Keys to sort by${DIRECTIONS[style]}. The key of the record breaks ties.`,
    ...(style === 'repeated' ? {} : { explode: false }),
    schema: {
      type: 'array',
      items: { type: 'string', enum: keys.flatMap(({ name }) => sortTexts(name, style)) },
    },
  };
}

function sortTexts(name: string, style: SortSpelling): string[] {
  switch (style) {
    case 'minus':
      return [name, `-${name}`];
    case 'suffix':
      return [name, `${name}:asc`, `${name}:desc`];
    case 'repeated':
      return [name, `${name},asc`, `${name},desc`];
    case 'beside':
      return [name];
  }
}

/** What an operation of one's own compares with. */
function ofInput({ type, default: usual }: Extract<QueryParameter, { role: 'input' }>): JsonSchema {
  const schema = scalarSchema(type);
  return {
    required: usual === null,
    description: `What the records are compared with.${usual?.kind === 'now' ? ' The moment of the request without it.' : ''}`,
    schema: usual?.kind === 'literal' ? { ...schema, default: usual.value } : schema,
  };
}

function filterParameters(parameter: FilterParameter): readonly Json[] {
  const { name, type, operators, spelling } = parameter;
  const base = { name, in: 'query' };
  const isPlain = operators.length === 1 && operators[0] === 'eq';
  switch (spelling) {
    case 'bracketed':
      return isPlain
        ? [{ ...base, description: `Only records whose ${name} is this.`, schema: scalarSchema(type) }]
        : [{ ...base, ...inBrackets(parameter) }];
    case 'suffixed':
    case 'family':
      return operators.map((operator) => ({
        ...base,
        name: filterTerm(parameter, operator).name,
        description: `Only records whose ${name} ${COMPARED[operator]}.`,
        schema: operandOf(operator, type),
      }));
    case 'in value':
      return [{ ...base, ...inValue(parameter) }];
  }
}

const COMPARED: Readonly<Record<FilterOperator, string>> = {
  eq: 'is this',
  ne: 'is not this',
  lt: 'is less than this',
  lte: 'is at most this',
  gt: 'is greater than this',
  gte: 'is at least this',
  in: 'is one of these',
  contains: 'contains this',
  icontains: 'contains this, in whatever case',
  starts: 'begins with this',
  unset: 'has no value, or has one',
};

/** How a filter is written: plainly for equality, and with each other operator in the place of the first. */
function comparesSo(filter: FilterParameter): string {
  const [first, ...others] = filter.operators.filter((operator) => operator !== 'eq');
  const ways = [
    ...(filter.operators.includes('eq') ? [`${sentTerm(filter, 'eq')}…`] : []),
    ...(first === undefined ? [] : [`${sentTerm(filter, first)}…`]),
  ];
  const likewise = others.length === 0 ? '' : `, and so on`;
  return `Only records whose ${filter.name} compares so: ${ways.join(', ')}${likewise}.`;
}

/** Operators in brackets are the members of a deep object (OAS §4.8.12.4); equality may be written plainly too. */
function inBrackets(parameter: FilterParameter): JsonSchema {
  const { type, operators } = parameter;
  const properties = Object.fromEntries(operators.map((operator) => [operator, operandOf(operator, type)]));
  return {
    description: comparesSo(parameter),
    style: 'deepObject',
    explode: true,
    schema: { type: 'object', properties, additionalProperties: false },
  };
}

/** Texts, each with an operator in front or compared for equality; all must hold. */
function inValue(parameter: FilterParameter): JsonSchema {
  const known = parameter.operators.join('|');
  const pattern = `^(?:(?:${known}):|(?!(?:${FILTER_OPERATORS.join('|')}):))`;
  return {
    description: `${comparesSo(parameter)} It may stand several times; all must hold. A text that begins so itself is written eq:….`,
    schema: { type: 'array', items: { type: 'string', pattern } },
  };
}

/** What stands behind an operator. */
export function operandOf(operator: FilterOperator, type: ScalarType): JsonSchema {
  switch (operator) {
    case 'in':
      return { type: 'string', description: 'Values separated by commas.' };
    case 'unset':
      return { type: 'boolean', description: 'Whether it has no value.' };
    case 'contains':
    case 'icontains':
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
