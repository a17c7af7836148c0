import { openApiDocument } from '../openapi/document.js';
import type { PublicationFormat } from './format.js';

export const OPENAPI_JSON: PublicationFormat = {
  title: 'OpenAPI 3.1',
  mediaType: 'application/json',
  write: (contract) => JSON.stringify(openApiDocument(contract), null, 2),
};
