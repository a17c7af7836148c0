export { derive } from './derive.js';
export { completeLinkLine } from './ownLinks/complete.js';
export { printLinkLine } from './ownLinks/printLine.js';
export { readLinkLine, type LinkLineRead, type LinkSaid } from './ownLinks/readLine.js';
export { deriveOutline } from './outline.js';
export { exposureGrid, refusedExposures, type GridRow } from './shapes/index.js';
export { DERIVATION_VERSION } from './version.js';
