import type { Contract, Member, MemberType, Shape } from '../../contract/index.js';
import { DURATION, TIME, type Json, type ScalarType } from '../../model/index.js';

/** A JSON Schema of dialect 2020-12, as OpenAPI 3.1 embeds it. */
export type JsonSchema = { readonly [keyword: string]: Json };

export const reference = (name: string): JsonSchema => ({ $ref: `#/components/schemas/${name}` });

/** Every shape of a contract under its name, with the structures that all contracts share. */
export function componentSchemas(contract: Contract): Record<string, Json> {
  const shapes = contract.shapes.map((shape) => [shape.name, shapeSchema(shape)] as const);
  return Object.fromEntries([...shapes, ...Object.entries(sharedSchemas(contract))]);
}

/** The schema of a shape. Bodies that are sent are closed; answers may grow. */
function shapeSchema(shape: Shape): JsonSchema {
  const returned =
    shape.purpose === 'item' ||
    shape.purpose === 'member' ||
    shape.purpose === 'page' ||
    shape.purpose === 'entry';
  const required = shape.members.filter((member) => member.required).map((member) => member.name);
  return {
    type: 'object',
    properties: Object.fromEntries(shape.members.map((member) => [member.name, memberSchema(member)])),
    ...(required.length === 0 ? {} : { required }),
    ...(returned ? {} : { additionalProperties: false }),
  };
}

function memberSchema(member: Member): JsonSchema {
  const schema = member.nullable ? nullable(typeSchema(member.type)) : typeSchema(member.type);
  return {
    ...schema,
    ...describe(member),
    ...(member.default === null ? {} : { default: member.default }),
    ...(member.example === null ? {} : { examples: [member.example] }),
  };
}

function describe(member: Member): JsonSchema {
  const notes = [
    member.description,
    member.mode === 'must-equal' ? 'May be sent back with the value it has, and never changes.' : null,
    member.mode === 'moved' ? 'Moves along its life cycle only.' : null,
    member.mode === 'ignored' ? 'May be sent back as it was read; it has no effect.' : null,
    member.type.kind === 'decimal' && member.type.scale !== null
      ? `At most ${member.type.scale} digits after the point.`
      : null,
  ].filter((note) => note !== null);
  return notes.length === 0 ? {} : { description: notes.join(' ') };
}

function nullable(schema: JsonSchema): JsonSchema {
  const { type, enum: options } = schema;
  if (typeof type !== 'string')
    return Object.keys(schema).length === 0 ? {} : { anyOf: [schema, { type: 'null' }] };
  return {
    ...schema,
    type: [type, 'null'],
    ...(Array.isArray(options) ? { enum: [...(options as Json[]), null] } : {}),
  };
}

function typeSchema(type: MemberType): JsonSchema {
  switch (type.kind) {
    case 'json':
      return {};
    case 'shape':
      return reference(type.shape);
    case 'list':
      return {
        type: 'array',
        items: typeSchema(type.of),
        ...bounds('minItems', type.min, 'maxItems', type.max),
      };
    case 'links':
    case 'page':
      return reference(type.kind);
    default:
      return scalarSchema(type);
  }
}

export function scalarSchema(type: ScalarType): JsonSchema {
  switch (type.kind) {
    case 'text': {
      const pattern = type.pattern === null ? {} : { pattern: `^(?:${type.pattern})$` };
      return { type: 'string', ...bounds('minLength', type.min, 'maxLength', type.max), ...pattern };
    }
    case 'integer':
      return { type: 'integer', ...bounds('minimum', type.min, 'maximum', type.max) };
    case 'decimal':
      return { type: 'number', ...bounds('minimum', type.min, 'maximum', type.max) };
    case 'boolean':
      return { type: 'boolean' };
    case 'time':
      return { type: 'string', pattern: TIME.source };
    case 'duration':
      return { type: 'string', pattern: DURATION.source };
    case 'instant':
      return { type: 'string', format: 'date-time' };
    case 'date':
    case 'uuid':
    case 'email':
    case 'uri':
      return { type: 'string', format: type.kind };
    case 'choice':
      return { type: 'string', enum: type.options };
  }
}

function bounds(least: string, min: number | null, most: string, max: number | null): JsonSchema {
  return { ...(min === null ? {} : { [least]: min }), ...(max === null ? {} : { [most]: max }) };
}

const count = { type: 'integer', minimum: 0 };

/** What answers of every contract have in common. */
/** Where a page stands, and how many records there are where the body tells. */
function pageSchema({ names, paging }: Contract): JsonSchema {
  const totals = paging.totals === 'body' ? { [names.totalItems]: count } : {};
  const properties =
    paging.style === 'offset'
      ? { [names.offset]: count, [names.limit]: { ...count, minimum: 1 }, ...totals }
      : {
          [names.number]: { ...count, minimum: 1 },
          [names.size]: { ...count, minimum: 1 },
          ...totals,
          ...(paging.totals === 'body' ? { [names.totalPages]: count } : {}),
        };
  return { type: 'object', properties, required: Object.keys(properties) };
}

const sharedSchemas = (contract: Contract): Readonly<Record<string, JsonSchema>> => ({
  links: {
    type: 'object',
    description: 'From each relation (RFC 8288 §2.1) to where it leads.',
    additionalProperties: {
      type: 'object',
      properties: {
        href: { type: 'string', description: 'A URI reference, or a URI template where templated.' },
        templated: { type: 'boolean', description: 'Whether it is a URI template (RFC 6570).' },
      },
      required: ['href'],
    },
  },
  page: pageSchema(contract),
  problem: {
    type: 'object',
    description: 'Problem details (RFC 9457 §3).',
    properties: {
      type: { type: 'string', format: 'uri-reference' },
      title: { type: 'string' },
      status: { type: 'integer', minimum: 400, maximum: 599 },
      detail: { type: 'string' },
      errors: {
        type: 'array',
        items: {
          type: 'object',
          properties: {
            pointer: { type: 'string', description: 'Into the body (RFC 6901).' },
            parameter: { type: 'string', description: 'The name of a query parameter.' },
            code: { type: 'string' },
            message: { type: 'string' },
          },
          required: ['code', 'message'],
        },
      },
    },
    required: ['type', 'title', 'status', 'detail'],
  },
});
