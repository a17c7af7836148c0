import { CHOICES_FORMAT } from './format.js';
import { PART_NAMES, partNamed } from './parts/index.js';
import { settingsSchema } from './parts/settings.js';
import { ARRANGEMENT_NAME } from './readChoices.js';

export const DESIGN_FILE_FORMAT = 'isomeros-design';
/** The version of a file is the format of its choices. */
export const DESIGN_FILE_VERSION = CHOICES_FORMAT.newest;

export const NAME_LENGTH = 120;

const name = { type: 'string', minLength: 1, maxLength: NAME_LENGTH } as const;

/** The schema of what was decided about one arrangement. */
const arrangementSchema: object = {
  type: 'object',
  required: ['name'],
  properties: {
    name: { type: 'string', pattern: ARRANGEMENT_NAME.source },
    ...Object.fromEntries(PART_NAMES.map((part) => [part, partNamed(part).schema])),
  },
  additionalProperties: false,
};

const modelSchemas = {
  model: { type: 'string', description: 'The text of the model (text/vnd.isomeros.model).' },
  identities: {
    type: 'object',
    description: 'From the address of an element in the model to its identity, which outlives its name.',
    additionalProperties: { type: 'string', minLength: 1 },
  },
  choices: {
    type: 'object',
    properties: {
      settings: settingsSchema('design'),
      arrangements: { type: 'array', minItems: 1, items: arrangementSchema },
      answered: { type: 'array', items: { type: 'string' } },
    },
    additionalProperties: false,
  },
} as const;

const ref = (name: keyof typeof modelSchemas): { readonly $ref: string } => ({ $ref: `#/$defs/${name}` });

/** The published schema (JSON Schema 2020-12) of design files. */
export const DESIGN_FILE_SCHEMA = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  $id: `urn:isomeros:design-file:${DESIGN_FILE_VERSION}`,
  title: 'Isomeros design file',
  description: 'A model in its notation, with the identities of its elements and what was decided about it.',
  type: 'object',
  required: ['format', 'version', 'name', 'model'],
  properties: {
    $schema: { type: 'string' },
    format: { const: DESIGN_FILE_FORMAT },
    version: { const: DESIGN_FILE_VERSION },
    name,
    model: ref('model'),
    draft: { type: 'string', description: 'The text as it was left, where that has errors.' },
    identities: ref('identities'),
    choices: ref('choices'),
    initialRecords: {
      type: 'object',
      description:
        'The records that mocks begin with, and the model they fit: that of the file where it is left out.',
      required: ['records'],
      properties: {
        model: ref('model'),
        identities: ref('identities'),
        choices: ref('choices'),
        records: {
          type: 'object',
          description: 'From the name of each record type to its records, by the names of the model.',
          additionalProperties: { type: 'array', items: { type: 'object' } },
        },
      },
      additionalProperties: false,
    },
  },
  additionalProperties: false,
  $defs: modelSchemas,
} as const;
