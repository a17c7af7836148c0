export { derive } from './derive.js';
export { deriveOutline } from './outline.js';
export { exposureGrid, type GridRow } from './shapes/index.js';
