export { readCommonMark, type TextBlock, type TextSpan } from './commonMark.js';
export {
  isPublicationName,
  OLDER_NAMES,
  PUBLICATION_FORMATS,
  PUBLICATION_NAMES,
  publish,
} from './formats/index.js';
export type { PublicationName } from './formats/index.js';
export type { PublicationFormat } from './formats/format.js';
export { schemaOfShape } from './jsonSchema.js';
export { openApiDocument } from './openapi/document.js';
export type { OpenApiDocument } from './openapi/document.js';
export { responsesOf } from './openapi/operations.js';
export type { HeaderObject, ResponseObject } from './openapi/operations.js';
export { componentSchemas } from './openapi/schemas.js';
export type { JsonSchema } from './openapi/scalarSchema.js';
export { asEcmaPattern } from './patterns.js';
export { REFERENCE_POLICY } from './reference/html.js';
export { escaped } from './reference/markup.js';
export { patternsByPublished } from './scalarTypes.js';
export type {
  CallCredentials,
  PublicationOptions,
  PublicationSource,
  PublishedCall,
  PublishedCalls,
  PublishedExample,
} from './source.js';
