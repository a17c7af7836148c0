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
import {
  closedSchema,
  comparisonSchema,
  listSchema,
  literalSchema,
  nowSchema,
  operandSchema,
  orderSchema,
  stepSchema,
  textSchema,
} from './schemaParts.js';
import { CUSTOM_ID, VERIFY_FAILURES } from './readCustomOperations.js';

const unset = closedSchema({ kind: { const: 'unset' } });
const chosen = closedSchema({
  kind: { const: 'chosen' },
  input: { type: 'string', pattern: CUSTOM_NAME.source },
  options: listSchema(
    closedSchema({
      option: { type: 'string', pattern: WORD.source },
      value: { oneOf: [nowSchema, literalSchema, unset] },
    }),
  ),
});
/** What is said of something that is sent and not stored; `given`: what else is said of it. */
const inputRules = (given: Readonly<Record<string, object>>): object => ({
  type: 'object',
  required: [...Object.keys(given), 'type', 'required', 'secret'],
  properties: {
    ...given,
    type: { ...textSchema, description: 'A scalar type as the notation writes it.' },
    required: { type: 'boolean' },
    secret: { type: 'boolean' },
    default: operandSchema,
    equals: textSchema,
  },
  additionalProperties: false,
});
const accepts = listSchema(inputRules({ name: { type: 'string', pattern: CUSTOM_NAME.source } }));
/** An effect that may accept more than it says. */
const accepting = (properties: Readonly<Record<string, object>>): object => ({
  type: 'object',
  required: Object.keys(properties),
  properties: { ...properties, accepts },
  additionalProperties: false,
});
const assigned = closedSchema({
  member: textSchema,
  value: {
    oneOf: [nowSchema, literalSchema, unset, closedSchema({ kind: { const: 'input' } }), chosen],
  },
});
const input = {
  type: 'object',
  required: ['kind', 'name'],
  properties: {
    kind: { const: 'input' },
    name: { type: 'string', pattern: CUSTOM_NAME.source },
    default: operandSchema,
  },
  additionalProperties: false,
};
const filter = closedSchema({
  member: textSchema,
  operator: { enum: FIXED_OPERATORS },
  value: { oneOf: [nowSchema, literalSchema, input] },
});
const over = {
  oneOf: [
    closedSchema({ kind: { const: 'condition' }, filters: listSchema(filter) }),
    closedSchema({ kind: { const: 'ids' } }),
  ],
};
const does = {
  oneOf: [
    closedSchema({
      kind: { const: 'assign' },
      when: listSchema(comparisonSchema),
      values: listSchema(assigned),
    }),
    closedSchema({ kind: { const: 'transition' }, transition: textSchema }),
  ],
};
const tokenRole = {
  oneOf: [
    { type: 'null' },
    closedSchema({ kind: { const: 'fixed' }, role: { type: 'string', pattern: WORD.source } }),
    closedSchema({ kind: { const: 'attribute' }, attribute: textSchema }),
  ],
};
const verifyAnswer = {
  oneOf: [
    closedSchema({ kind: { const: 'record' } }),
    closedSchema({
      kind: { const: 'token' },
      seconds: { type: 'integer', minimum: 1, maximum: LONGEST_TOKEN },
      role: tokenRole,
    }),
  ],
};
const compared = closedSchema({ member: textSchema, input: { type: 'string', pattern: CUSTOM_NAME.source } });
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
  items: closedSchema({
    id: { type: 'string', pattern: CUSTOM_ID.source },
    name: { type: 'string', pattern: CUSTOM_NAME.source },
    entity: { anyOf: [textSchema, { type: 'null' }] },
    effect: {
      oneOf: [
        closedSchema({
          kind: { const: 'query' },
          filters: listSchema(filter),
          order: listSchema(orderSchema),
          limit: { type: 'integer', minimum: 1, maximum: MOST_QUERIED },
        }),
        closedSchema({
          kind: { const: 'find' },
          filters: listSchema(filter),
          order: listSchema(orderSchema),
        }),
        accepting({
          kind: { const: 'assign' },
          when: listSchema(comparisonSchema),
          values: listSchema(assigned),
        }),
        inputRules({
          kind: { const: 'accept' },
          transition: { anyOf: [textSchema, { type: 'null' }] },
        }),
        accepting({
          kind: { const: 'create' },
          when: listSchema(comparisonSchema),
          relationship: textSchema,
          values: listSchema(assigned),
        }),
        closedSchema({
          kind: { const: 'aggregate' },
          of: { enum: AGGREGATES },
          along: { ...listSchema(stepSchema), maxItems: MOST_ALONG },
          member: { anyOf: [textSchema, { type: 'null' }] },
          scale: { anyOf: [{ type: 'integer', minimum: 0, maximum: MOST_SCALE }, { type: 'null' }] },
          filters: listSchema(filter),
        }),
        accepting({ kind: { const: 'many' }, over, does }),
        accepting({
          kind: { const: 'verify' },
          compared: { ...listSchema(compared), minItems: 1 },
          answers: verifyAnswer,
          failure: { enum: VERIFY_FAILURES },
        }),
        closedSchema({ kind: { const: 'revoke' } }),
        closedSchema({ kind: { const: 'caller' } }),
        closedSchema({ kind: { const: 'fixed' }, body: fixed }),
      ],
    },
  }),
};
