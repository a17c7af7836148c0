export { derive } from './derive.js';
export { deriveOutline } from './outline.js';
export { exposureGrid, refusedExposures, type GridRow } from './shapes/index.js';
export { DERIVATION_VERSION } from './version.js';
