import { AGGREGATES } from '../model/index.js';
import { WORD } from '../notation/index.js';
import {
  CUSTOM_NAME,
  FIXED_OPERATORS,
  LONGEST_TOKEN,
  MOST_ALONG,
  MOST_CUSTOM_OPERATIONS,
  MOST_QUERIED,
  MOST_SCALE,
} from './customOperations.js';
import { closed, comparison, listOf, literal, now, operand, order, step, text } from './schemaParts.js';
import { CUSTOM_ID, VERIFY_FAILURES } from './readCustomOperations.js';

const unset = closed({ kind: { const: 'unset' } });
const chosen = closed({
  kind: { const: 'chosen' },
  input: { type: 'string', pattern: CUSTOM_NAME.source },
  options: listOf(
    closed({
      option: { type: 'string', pattern: WORD.source },
      value: { oneOf: [now, literal, unset] },
    }),
  ),
});
/** What is said of something that is sent and not stored; `given`: what else is said of it. */
const inputRules = (given: Readonly<Record<string, object>>): object => ({
  type: 'object',
  required: [...Object.keys(given), 'type', 'required', 'secret'],
  properties: {
    ...given,
    type: { ...text, description: 'A scalar type as the notation writes it.' },
    required: { type: 'boolean' },
    secret: { type: 'boolean' },
    default: operand,
    equals: text,
  },
  additionalProperties: false,
});
const accepts = listOf(inputRules({ name: { type: 'string', pattern: CUSTOM_NAME.source } }));
/** An effect that may accept more than it says. */
const accepting = (properties: Readonly<Record<string, object>>): object => ({
  type: 'object',
  required: Object.keys(properties),
  properties: { ...properties, accepts },
  additionalProperties: false,
});
const assigned = closed({
  member: text,
  value: {
    oneOf: [now, literal, unset, closed({ kind: { const: 'input' } }), chosen],
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
        accepting({ kind: { const: 'assign' }, when: listOf(comparison), values: listOf(assigned) }),
        inputRules({
          kind: { const: 'accept' },
          transition: { anyOf: [text, { type: 'null' }] },
        }),
        accepting({
          kind: { const: 'create' },
          when: listOf(comparison),
          relationship: text,
          values: listOf(assigned),
        }),
        closed({
          kind: { const: 'aggregate' },
          of: { enum: AGGREGATES },
          along: { ...listOf(step), maxItems: MOST_ALONG },
          member: { anyOf: [text, { type: 'null' }] },
          scale: { anyOf: [{ type: 'integer', minimum: 0, maximum: MOST_SCALE }, { type: 'null' }] },
          filters: listOf(filter),
        }),
        accepting({ kind: { const: 'many' }, over, does }),
        accepting({
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
