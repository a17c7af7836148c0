import { isJsonObject, type Json, type JsonObject } from '../../model/index.js';
import type { JsonSchema } from '../openapi/scalarSchema.js';

/** What a definition is called, by the name of its schema. */
export type TypeNameOf = (schema: string) => string;

const REFERENCE = '#/components/schemas/';
const IDENTIFIER = /^[A-Za-z_$][A-Za-z0-9_$]*$/;

/** The type of one value alone; what ends a line in some reader is escaped. */
export const literalType = (value: Json): string =>
  JSON.stringify(value).replace(/[\u2028\u2029]/g, (sign) => `\\u${sign.charCodeAt(0).toString(16)}`);

export const propertyName = (name: string): string => (IDENTIFIER.test(name) ? name : literalType(name));

/** A comment of one line; nothing in it ends it. */
export function comment(text: Json | undefined, indent: string): string {
  if (typeof text !== 'string' || text.trim() === '') return '';
  const said = text
    .replaceAll('*/', '*\\/')
    .replace(/[\s\u2028\u2029]+/g, ' ')
    .trim();
  return `${indent}/** ${said} */\n`;
}

/** The type of values that a schema allows, as far as TypeScript says it. */
export function schemaType(schema: JsonSchema, nameOf: TypeNameOf, indent = ''): string {
  const { $ref, anyOf, allOf, enum: options, type } = schema;
  if (typeof $ref === 'string') return nameOf($ref.slice(REFERENCE.length));
  if (Array.isArray(anyOf))
    return union((anyOf as JsonSchema[]).map((one) => schemaType(one, nameOf, indent)));
  if (Array.isArray(allOf))
    return (allOf as JsonSchema[]).map((one) => `(${schemaType(one, nameOf, indent)})`).join(' & ');
  if (Array.isArray(options)) return union((options as Json[]).map(literalType));
  const types = Array.isArray(type) ? (type as string[]) : typeof type === 'string' ? [type] : [];
  return types.length === 0 ? 'unknown' : union(types.map((one) => ofType(one, schema, nameOf, indent)));
}

const union = (types: readonly string[]): string => {
  const distinct = [...new Set(types)];
  return distinct.includes('unknown') ? 'unknown' : distinct.length === 0 ? 'never' : distinct.join(' | ');
};

function ofType(type: string, schema: JsonSchema, nameOf: TypeNameOf, indent: string): string {
  switch (type) {
    case 'integer':
      return 'number';
    case 'array':
      return `readonly (${isJsonObject(schema['items']) ? schemaType(schema['items'], nameOf, indent) : 'unknown'})[]`;
    case 'object':
      return objectType(schema, nameOf, indent);
    default:
      return type;
  }
}

/** An object type literalType. Other members of what is open are nobody's business. */
export function objectType(schema: JsonSchema, nameOf: TypeNameOf, indent: string): string {
  const deeper = `${indent}  `;
  const required = new Set((schema['required'] ?? []) as readonly string[]);
  const lines = Object.entries((schema['properties'] ?? {}) as JsonObject).map(([name, given]) => {
    const inner = given as JsonSchema;
    const optional = required.has(name) ? '' : '?';
    return `${comment(inner['description'], deeper)}${deeper}${propertyName(name)}${optional}: ${schemaType(inner, nameOf, deeper)};\n`;
  });
  const others = schema['additionalProperties'];
  if (isJsonObject(others) && lines.length === 0)
    lines.push(`${deeper}[name: string]: ${schemaType(others, nameOf, deeper)};\n`);
  if (lines.length === 0) return 'object';
  return `{\n${lines.join('')}${indent}}`;
}
