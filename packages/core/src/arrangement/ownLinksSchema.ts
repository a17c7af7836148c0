import { MOST_ALONG, MOST_PARTS } from './customOperations.js';
import {
  closedSchema,
  comparisonSchema,
  listSchema,
  operandSchema,
  orderSchema,
  stepSchema,
  textSchema,
} from './schemaParts.js';
import { LINK_RELATION } from './links.js';
import { MOST_OWN_LINKS } from './ownLinks.js';
import { CUSTOM_ID } from './readCustomOperations.js';
import { LINK_OPERATORS, LINK_VERB, LONGEST_ADDRESS_TEXT } from './readOwnLinks.js';

const along = { type: 'array', maxItems: MOST_ALONG, items: stepSchema };
const reached = closedSchema({ kind: { const: 'member' }, along, member: textSchema });
const value = { oneOf: [...operandSchema.oneOf, reached] };

/** The schema of links of one's own (JSON Schema 2020-12). */
export const ownLinksSchema: object = {
  type: 'array',
  description: 'Links that no rule derives; resources, members and roles by their identity.',
  maxItems: MOST_OWN_LINKS,
  items: closedSchema({
    id: { type: 'string', pattern: CUSTOM_ID.source },
    resource: textSchema,
    relation: { type: 'string', pattern: LINK_RELATION.source },
    target: {
      oneOf: [
        closedSchema({
          kind: { const: 'operation' },
          resource: textSchema,
          verb: { type: 'string', pattern: LINK_VERB.source },
          bound: listSchema(closedSchema({ parameter: textSchema, value })),
          filters: listSchema(
            closedSchema({ member: textSchema, operator: { enum: LINK_OPERATORS }, value }),
          ),
          order: listSchema(orderSchema),
          size: { anyOf: [{ type: 'integer', minimum: 1 }, { type: 'null' }] },
        }),
        closedSchema({ kind: { const: 'record' }, along: { ...along, minItems: 1 } }),
        closedSchema({
          kind: { const: 'address' },
          parts: {
            type: 'array',
            minItems: 1,
            maxItems: MOST_PARTS,
            items: {
              oneOf: [
                closedSchema({
                  kind: { const: 'text' },
                  text: { type: 'string', minLength: 1, maxLength: LONGEST_ADDRESS_TEXT },
                }),
                reached,
              ],
            },
          },
        }),
      ],
    },
    when: listSchema(comparisonSchema),
  }),
};
