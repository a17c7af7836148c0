import { stringify } from 'yaml';
import { openApiDocument } from '../openapi/document.js';
import type { PublicationFormat } from './format.js';

export const OPENAPI_YAML: PublicationFormat = {
  title: 'OpenAPI 3.1, YAML',
  mediaType: 'application/yaml',
  write: (contract) => stringify(openApiDocument(contract), { aliasDuplicateObjects: false }),
};
