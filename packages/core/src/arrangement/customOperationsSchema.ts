import { COMPARE_OPERATORS } from '../model/index.js';
import { WORD } from '../notation/index.js';
import {
  FIXED_OPERATORS,
  LONGEST_TOKEN,
  MOST_CUSTOM_OPERATIONS,
  MOST_PARTS,
  MOST_QUERIED,
} from './customOperations.js';
import { CUSTOM_ID, CUSTOM_NAME, VERIFY_FAILURES } from './readCustomOperations.js';

const text = { type: 'string', minLength: 1, maxLength: 500 };

const closed = (properties: Readonly<Record<string, object>>): object => ({
  type: 'object',
  required: Object.keys(properties),
  properties,
  additionalProperties: false,
});

const now = closed({ kind: { const: 'now' } });
const literal = closed({
  kind: { const: 'literal' },
  value: { anyOf: [{ type: 'string' }, { type: 'number' }, { type: 'boolean' }] },
});
const operand = { oneOf: [now, literal] };

const listOf = (items: object): object => ({ type: 'array', maxItems: MOST_PARTS, items });

const comparison = closed({ member: text, operator: { enum: COMPARE_OPERATORS }, value: operand });
const assigned = closed({
  member: text,
  value: {
    oneOf: [now, literal, closed({ kind: { const: 'unset' } }), closed({ kind: { const: 'input' } })],
  },
});
const input = {
  type: 'object',
  required: ['kind', 'name'],
  properties: {
    kind: { const: 'input' },
    name: { type: 'string', pattern: CUSTOM_NAME.source },
    default: operand,
  },
  additionalProperties: false,
};
const filter = closed({
  member: text,
  operator: { enum: FIXED_OPERATORS },
  value: { oneOf: [now, literal, input] },
});
const order = closed({ member: text, descending: { type: 'boolean' } });

const over = {
  oneOf: [
    closed({ kind: { const: 'condition' }, filters: listOf(filter) }),
    closed({ kind: { const: 'ids' } }),
  ],
};
const does = {
  oneOf: [
    closed({ kind: { const: 'assign' }, when: listOf(comparison), values: listOf(assigned) }),
    closed({ kind: { const: 'transition' }, transition: text }),
  ],
};
const tokenRole = {
  oneOf: [
    { type: 'null' },
    closed({ kind: { const: 'fixed' }, role: { type: 'string', pattern: WORD.source } }),
    closed({ kind: { const: 'attribute' }, attribute: text }),
  ],
};
const verifyAnswer = {
  oneOf: [
    closed({ kind: { const: 'record' } }),
    closed({
      kind: { const: 'token' },
      seconds: { type: 'integer', minimum: 1, maximum: LONGEST_TOKEN },
      role: tokenRole,
    }),
  ],
};
const compared = closed({ member: text, input: { type: 'string', pattern: CUSTOM_NAME.source } });
/** Its parts are read by the product; the schema of a file tells that there is one of these kinds. */
const fixed = {
  type: 'object',
  required: ['kind'],
  properties: { kind: { enum: ['literal', 'now', 'version', 'list', 'object'] } },
};

/** The schema of operations of one's own (JSON Schema 2020-12). */
export const customOperationsSchema: object = {
  type: 'array',
  description: 'Operations that no rule derives; members and entities by their identity.',
  maxItems: MOST_CUSTOM_OPERATIONS,
  items: closed({
    id: { type: 'string', pattern: CUSTOM_ID.source },
    name: { type: 'string', pattern: CUSTOM_NAME.source },
    entity: { anyOf: [text, { type: 'null' }] },
    effect: {
      oneOf: [
        closed({
          kind: { const: 'query' },
          filters: listOf(filter),
          order: listOf(order),
          limit: { type: 'integer', minimum: 1, maximum: MOST_QUERIED },
        }),
        closed({ kind: { const: 'find' }, filters: listOf(filter), order: listOf(order) }),
        closed({ kind: { const: 'assign' }, when: listOf(comparison), values: listOf(assigned) }),
        closed({
          kind: { const: 'create' },
          when: listOf(comparison),
          relationship: text,
          values: listOf(assigned),
        }),
        closed({ kind: { const: 'many' }, over, does }),
        closed({
          kind: { const: 'verify' },
          compared: { ...listOf(compared), minItems: 1 },
          answers: verifyAnswer,
          failure: { enum: VERIFY_FAILURES },
        }),
        closed({ kind: { const: 'revoke' } }),
        closed({ kind: { const: 'caller' } }),
        closed({ kind: { const: 'fixed' }, body: fixed }),
      ],
    },
  }),
};
