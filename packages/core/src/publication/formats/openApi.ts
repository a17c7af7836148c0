import { stringify } from 'yaml';
import type { JsonObject } from '../../model/index.js';
import { cannotSay } from '../openapi/cannotSay.js';
import { openApiDocument } from '../openapi/document.js';
import { asVersion30 } from '../openapi/version30.js';
import type { PublicationOptions, PublicationSource } from '../source.js';
import type { PublicationFormat } from './format.js';

interface Written {
  readonly document: JsonObject;
  readonly cannotSay: readonly string[];
}

type Version = (source: PublicationSource, options: PublicationOptions) => Written;

const version31: Version = ({ contract, examples }, { mock }) => ({
  document: openApiDocument(contract, { examples: examples(), mock }),
  cannotSay: cannotSay(contract),
});

const version30: Version = (source, options) => {
  const { document, cannotSay: unsaid } = version31(source, options);
  const older = asVersion30(document);
  return { document: older.document, cannotSay: [...older.cannotSay, ...unsaid] };
};

const inJson = (title: string, version: Version): PublicationFormat => ({
  title,
  mediaType: 'application/json',
  write: (source, options) => {
    const { document, cannotSay: unsaid } = version(source, options);
    return { text: `${JSON.stringify(document, null, 2)}\n`, cannotSay: unsaid };
  },
});

const inYaml = (title: string, version: Version): PublicationFormat => ({
  title: `${title}, YAML`,
  mediaType: 'application/yaml',
  write: (source, options) => {
    const { document, cannotSay: unsaid } = version(source, options);
    return { text: stringify(document, { aliasDuplicateObjects: false }), cannotSay: unsaid };
  },
});

export const OPENAPI_FORMATS = {
  'openapi-3.1.json': inJson('OpenAPI 3.1', version31),
  'openapi-3.1.yaml': inYaml('OpenAPI 3.1', version31),
  'openapi-3.0.json': inJson('OpenAPI 3.0', version30),
  'openapi-3.0.yaml': inYaml('OpenAPI 3.0', version30),
} as const;
