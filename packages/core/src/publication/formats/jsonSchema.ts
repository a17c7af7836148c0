import { schemaBundle } from '../jsonSchema.js';
import { unsaidPatterns } from '../scalarTypes.js';
import type { PublicationFormat } from './format.js';

export const JSON_SCHEMA: PublicationFormat = {
  title: 'JSON Schema 2020-12',
  mediaType: 'application/schema+json',
  write: ({ contract }) => `${JSON.stringify(schemaBundle(contract), null, 2)}\n`,
  cannotSay: ({ contract }) => unsaidPatterns(contract),
};
