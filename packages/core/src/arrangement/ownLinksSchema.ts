import { MOST_ALONG, MOST_PARTS } from './customOperations.js';
import { closed, comparison, listOf, operand, order, step, text } from './schemaParts.js';
import { LINK_RELATION } from './links.js';
import { MOST_OWN_LINKS } from './ownLinks.js';
import { CUSTOM_ID } from './readCustomOperations.js';
import { LINK_OPERATORS, LINK_VERB, LONGEST_ADDRESS_TEXT } from './readOwnLinks.js';

const along = { type: 'array', maxItems: MOST_ALONG, items: step };
const reached = closed({ kind: { const: 'member' }, along, member: text });
const value = { oneOf: [...operand.oneOf, reached] };

/** The schema of links of one's own (JSON Schema 2020-12). */
export const ownLinksSchema: object = {
  type: 'array',
  description: 'Links that no rule derives; resources, members and roles by their identity.',
  maxItems: MOST_OWN_LINKS,
  items: closed({
    id: { type: 'string', pattern: CUSTOM_ID.source },
    resource: text,
    relation: { type: 'string', pattern: LINK_RELATION.source },
    target: {
      oneOf: [
        closed({
          kind: { const: 'operation' },
          resource: text,
          verb: { type: 'string', pattern: LINK_VERB.source },
          bound: listOf(closed({ parameter: text, value })),
          filters: listOf(closed({ member: text, operator: { enum: LINK_OPERATORS }, value })),
          order: listOf(order),
          size: { anyOf: [{ type: 'integer', minimum: 1 }, { type: 'null' }] },
        }),
        closed({ kind: { const: 'record' }, along: { ...along, minItems: 1 } }),
        closed({
          kind: { const: 'address' },
          parts: {
            type: 'array',
            minItems: 1,
            maxItems: MOST_PARTS,
            items: {
              oneOf: [
                closed({
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
    when: listOf(comparison),
  }),
};
