export { derive } from './derive.js';
export { deriveOutline } from './outline.js';
export { exposureGrid, refusedExposures, type GridRow } from './shapes/index.js';
export { pluralSubject } from './names/words.js';
export { DERIVATION_VERSION } from './version.js';
