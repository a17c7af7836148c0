import { COMPARE_OPERATORS } from '../model/index.js';
import { MOST_PARTS } from './customOperations.js';

/** What schemas of what is decided in lines are made of (JSON Schema 2020-12). */
export const text = { type: 'string', minLength: 1, maxLength: 500 };

export const closed = (properties: Readonly<Record<string, object>>): object => ({
  type: 'object',
  required: Object.keys(properties),
  properties,
  additionalProperties: false,
});

export const now = closed({ kind: { const: 'now' } });
export const literal = closed({
  kind: { const: 'literal' },
  value: { anyOf: [{ type: 'string' }, { type: 'number' }, { type: 'boolean' }] },
});
export const operand = { oneOf: [now, literal] };

export const listOf = (items: object): object => ({ type: 'array', maxItems: MOST_PARTS, items });

export const comparison = closed({ member: text, operator: { enum: COMPARE_OPERATORS }, value: operand });
export const order = closed({ member: text, descending: { type: 'boolean' } });

export const step = closed({ relationship: text, direction: { enum: ['onwards', 'back'] } });
