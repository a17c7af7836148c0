import { stringify } from 'yaml';
import { memoize, type JsonObject } from '../../model/index.js';
import { cannotSay } from '../openapi/cannotSay.js';
import { openApiDocument } from '../openapi/document.js';
import { asVersion30 } from '../openapi/version30.js';
import type { PublicationOptions, PublicationSource } from '../source.js';
import type { PublicationFormat } from './format.js';

interface Version {
  readonly title: string;
  readonly document: (source: PublicationSource, options: PublicationOptions) => JsonObject;
  readonly cannotSay: PublicationFormat['cannotSay'];
}

const VERSION_31: Version = {
  title: 'OpenAPI 3.1',
  document: ({ contract, examples }, { mock }) => openApiDocument(contract, { examples: examples(), mock }),
  cannotSay: ({ contract }) => cannotSay(contract),
};

const VERSION_30: Version = {
  title: 'OpenAPI 3.0',
  document: (source, options) => asVersion30(VERSION_31.document(source, options)).document,
  // The same in both languages, and a whole document to find.
  cannotSay: memoize(({ contract }: PublicationSource) => [
    ...asVersion30(openApiDocument(contract)).cannotSay,
    ...cannotSay(contract),
  ]),
};

const inJson = (version: Version): PublicationFormat => ({
  title: version.title,
  mediaType: 'application/json',
  write: (source, options) => `${JSON.stringify(version.document(source, options), null, 2)}\n`,
  cannotSay: version.cannotSay,
});

const inYaml = (version: Version): PublicationFormat => ({
  title: `${version.title}, YAML`,
  mediaType: 'application/yaml',
  write: (source, options) => stringify(version.document(source, options), { aliasDuplicateObjects: false }),
  cannotSay: version.cannotSay,
});

export const OPENAPI_FORMATS = {
  'openapi-3.1.json': inJson(VERSION_31),
  'openapi-3.1.yaml': inYaml(VERSION_31),
  'openapi-3.0.json': inJson(VERSION_30),
  'openapi-3.0.yaml': inYaml(VERSION_30),
} as const;
