export { openApiDocument } from './openapi/document.js';
export type { OpenApiDocument } from './openapi/document.js';
export { isPublicationName, publish, PUBLICATION_FORMATS, PUBLICATION_NAMES } from './formats/index.js';
export type { PublicationName } from './formats/index.js';
export type { PublicationFormat } from './formats/format.js';
