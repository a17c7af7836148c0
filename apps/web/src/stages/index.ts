import { ARRANGE } from './arrange.js';
import { CONTRACT } from './contract.js';
import { MOCK } from './mock.js';
import { MODEL } from './model.js';
import type { Stage } from './stage.js';

/** Every stage, in the order of the work. */
export const STAGES: readonly Stage[] = [MODEL, ARRANGE, CONTRACT, MOCK];

export const stageAddress = ({ path }: Stage, design: string): string => `/designs/${design}/${path}`;
