export { openApiDocument } from './openapi/document.js';
export type { OpenApiDocument } from './openapi/document.js';
