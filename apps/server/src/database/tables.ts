export * from './tables/datasets.js';
export * from './tables/designs.js';
export * from './tables/installation.js';
export * from './tables/journals.js';
export * from './tables/mocks.js';
