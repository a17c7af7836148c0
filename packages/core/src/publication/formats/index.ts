import type { Contract } from '../../contract/index.js';
import type { PublicationFormat } from './format.js';
import { OPENAPI_JSON } from './openApiJson.js';
import { OPENAPI_YAML } from './openApiYaml.js';

/** Every format, by the name of the file a document of it is. */
export const PUBLICATION_FORMATS = {
  'openapi.json': OPENAPI_JSON,
  'openapi.yaml': OPENAPI_YAML,
} as const satisfies Readonly<Record<string, PublicationFormat>>;

export type PublicationName = keyof typeof PUBLICATION_FORMATS;

export const PUBLICATION_NAMES = Object.keys(PUBLICATION_FORMATS) as readonly PublicationName[];

export const isPublicationName = (name: string): name is PublicationName =>
  Object.hasOwn(PUBLICATION_FORMATS, name);

/** The document of a contract in a format. */
export const publish = (contract: Contract, name: PublicationName): string =>
  PUBLICATION_FORMATS[name].write(contract);
