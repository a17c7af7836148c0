import { STAGES } from '../../stages/index.js';
import type { StageLink } from './StageNav.js';

/** What each stage is for, while no design is open. */
export const STAGE_DESCRIPTIONS: readonly StageLink[] = STAGES.map(({ name, means }, index) => ({
  number: index + 1,
  name,
  figure: means,
  to: null,
}));
