import { ARRANGE_HELP } from './arrange.js';
import { CONTRACT_HELP } from './contract.js';
import { DESIGNS_HELP } from './designs.js';
import type { HelpEntry } from './entry.js';
import { MOCK_HELP } from './mock.js';
import { MODEL_HELP } from './model.js';
import { REVISIONS_HELP } from './revisions.js';

/** Everything that explains itself, settings apart: those have their help in their rows. */
export const HELP = {
  ...DESIGNS_HELP,
  ...MODEL_HELP,
  ...ARRANGE_HELP,
  ...CONTRACT_HELP,
  ...MOCK_HELP,
  ...REVISIONS_HELP,
};

export type HelpName = keyof typeof HELP;

export const HELP_NAMES = Object.keys(HELP) as readonly HelpName[];

export const helpOf = (name: HelpName): HelpEntry => HELP[name];

/** An entry in one line, for whoever has it read out. */
export function helpText(name: HelpName): string {
  const { help, example, standard } = helpOf(name);
  const more = [
    example === undefined ? null : `Such as: ${example}.`,
    standard === undefined ? null : `${standard}.`,
  ];
  return [help, ...more.filter((part) => part !== null)].join(' ');
}
