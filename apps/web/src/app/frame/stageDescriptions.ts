import type { Stage } from './StageNav.js';

/** What each stage is for, while no design is open. */
export const STAGE_DESCRIPTIONS: readonly Stage[] = [
  { number: 1, name: 'Model', figure: 'what there is, and what owns what', to: null },
  { number: 2, name: 'Arrange', figure: 'how it is laid out as resources', to: null },
  { number: 3, name: 'Contract', figure: 'what follows, each part with why', to: null },
  { number: 4, name: 'Mock', figure: 'run it, with records that last', to: null },
];
