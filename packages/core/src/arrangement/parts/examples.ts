import {
  EXAMPLE_HEADERS,
  EXAMPLE_NAME,
  LONGEST_EXAMPLE_BODY,
  LONGEST_EXAMPLE_QUERY,
  LONGEST_EXAMPLE_TEXT,
  MOST_EXAMPLE_IDS,
  MOST_EXAMPLE_RECORDS,
  MOST_EXAMPLES,
  type NamedExample,
} from '../examples.js';
import { CUSTOM_ID } from '../readCustomOperations.js';
import { readExamples } from '../readExamples.js';
import { closedSchema, textSchema } from '../schemaParts.js';
import { withItem, type ArrangementPart } from './part.js';

/** An example in the place of the one of its id, or at the end; `null` takes the one of an id away. */
export interface ExampleEdit {
  readonly id: string;
  readonly example: NamedExample | null;
}

const texts = { type: 'object', additionalProperties: { type: 'string', maxLength: LONGEST_EXAMPLE_TEXT } };
const number = { type: 'integer', minimum: 0 };

/** Requests under names, with the records they need. */
export const EXAMPLES_PART: ArrangementPart<readonly NamedExample[], ExampleEdit> = {
  empty: [],
  read: readExamples,
  schema: {
    type: 'array',
    description: 'Requests under names, each with the records it needs; what they are answered is computed.',
    maxItems: MOST_EXAMPLES,
    items: closedSchema({
      id: { type: 'string', pattern: CUSTOM_ID.source },
      name: { type: 'string', pattern: EXAMPLE_NAME.source },
      operation: textSchema,
      ids: {
        type: 'array',
        maxItems: MOST_EXAMPLE_IDS,
        items: closedSchema({ of: textSchema, value: textSchema }),
      },
      query: { type: 'string', maxLength: LONGEST_EXAMPLE_QUERY },
      headers: { ...texts, propertyNames: { enum: EXAMPLE_HEADERS } },
      body: { type: ['string', 'null'], maxLength: LONGEST_EXAMPLE_BODY },
      members: texts,
      records: {
        type: 'array',
        maxItems: MOST_EXAMPLE_RECORDS,
        items: closedSchema({
          rid: number,
          entity: textSchema,
          values: { type: 'object' },
          revision: number,
        }),
      },
      now: number,
      status: { ...number, maximum: 599 },
    }),
  },
  decided: (examples) =>
    examples.map(({ id, name, operation, body, query }) => [
      `Example ${id}`,
      [`${name} of ${operation}`, query, body ?? ''].filter((text) => text !== '').join(' '),
    ]),
  edit: (known, { id, example }) => withItem(known, id, example),
};
