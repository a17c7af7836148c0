import { COMPARE_OPERATORS } from '../model/index.js';
import { MOST_PARTS } from './customOperations.js';

/** What schemas of what is decided in lines are made of (JSON Schema 2020-12). */
export const textSchema = { type: 'string', minLength: 1, maxLength: 500 };

export const closedSchema = (properties: Readonly<Record<string, object>>): object => ({
  type: 'object',
  required: Object.keys(properties),
  properties,
  additionalProperties: false,
});

export const nowSchema = closedSchema({ kind: { const: 'now' } });
export const literalSchema = closedSchema({
  kind: { const: 'literal' },
  value: { anyOf: [{ type: 'string' }, { type: 'number' }, { type: 'boolean' }] },
});
export const operandSchema = { oneOf: [nowSchema, literalSchema] };

export const listSchema = (items: object): object => ({ type: 'array', maxItems: MOST_PARTS, items });

export const comparisonSchema = closedSchema({
  member: textSchema,
  operator: { enum: COMPARE_OPERATORS },
  value: operandSchema,
});
export const orderSchema = closedSchema({ member: textSchema, descending: { type: 'boolean' } });

export const stepSchema = closedSchema({
  relationship: textSchema,
  direction: { enum: ['onwards', 'back'] },
});
