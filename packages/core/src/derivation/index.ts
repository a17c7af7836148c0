export { derive } from './derive.js';
export { deriveOutline } from './outline.js';
