import type { Choices } from './choices.js';
import { withSettingIn, type SettingScope } from './settingIn.js';
import type { Settings } from './settings/table.js';

/** How lists are answered, chosen together in one step. */
export interface ListBundle {
  readonly title: string;
  readonly help: string;
  readonly settings: Pick<Settings, 'pageStyle' | 'totals'> & Partial<Pick<Settings, 'ceiling'>>;
}

export const LIST_BUNDLES: readonly ListBundle[] = [
  {
    title: 'small and whole',
    help: 'Everything at once, for a collection that hardly grows.',
    settings: { pageStyle: 'none', totals: 'none' },
  },
  {
    title: 'numbered',
    help: 'Pages by their number, with how many there are, for people who leaf through them.',
    settings: { pageStyle: 'number', totals: 'body' },
  },
  {
    title: 'endless, by cursor',
    help: 'Each page leads to the next, however much is added meanwhile; nothing is counted.',
    settings: { pageStyle: 'cursor', totals: 'none' },
  },
  {
    title: 'at most 500',
    help: 'The first 500, and whether there are more; the rest is found by filters.',
    settings: { pageStyle: 'ceiling', ceiling: 500, totals: 'none' },
  },
];

/** The choices with the lists of a scope answered so. */
export function withListBundle(
  choices: Choices,
  arrangement: string,
  scope: SettingScope,
  { settings }: ListBundle,
): Choices {
  const { pageStyle, totals, ceiling } = settings;
  let changed = withSettingIn(choices, arrangement, scope, 'pageStyle', () => pageStyle);
  changed = withSettingIn(changed, arrangement, scope, 'totals', () => totals);
  return ceiling === undefined
    ? changed
    : withSettingIn(changed, arrangement, scope, 'ceiling', () => ceiling);
}
