import type { PublicationOptions, PublicationSource } from '../source.js';
import { CONTRACT_DOCUMENT } from './contract.js';
import type { PublicationFormat } from './format.js';
import { JSON_SCHEMA } from './jsonSchema.js';
import { OPENAPI_FORMATS } from './openApi.js';
import { REFERENCE_FORMATS } from './reference.js';
import { SHELL } from './shell.js';
import { SQL_FORMATS } from './sql.js';
import { TYPESCRIPT } from './typescript.js';

/** Every format, by the name of the file a document of it is. */
export const PUBLICATION_FORMATS = {
  ...OPENAPI_FORMATS,
  'json-schema.json': JSON_SCHEMA,
  'types.d.ts': TYPESCRIPT,
  ...SQL_FORMATS,
  ...REFERENCE_FORMATS,
  'curl.sh': SHELL,
  'contract.json': CONTRACT_DOCUMENT,
} as const satisfies Readonly<Record<string, PublicationFormat>>;

export type PublicationName = keyof typeof PUBLICATION_FORMATS;

export const PUBLICATION_NAMES = Object.keys(PUBLICATION_FORMATS) as readonly PublicationName[];

export const isPublicationName = (name: string): name is PublicationName =>
  Object.hasOwn(PUBLICATION_FORMATS, name);

/** What documents were called before they named their version. */
export const OLDER_NAMES = {
  'openapi.json': 'openapi-3.1.json',
  'openapi.yaml': 'openapi-3.1.yaml',
} as const satisfies Readonly<Record<string, PublicationName>>;

/** The document of a contract in a format. */
export const publish = (
  source: PublicationSource,
  name: PublicationName,
  options: PublicationOptions,
): string => PUBLICATION_FORMATS[name].write(source, options);
