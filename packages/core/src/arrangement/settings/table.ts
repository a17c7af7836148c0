import { holdsWords } from '../../model/index.js';
import { ANSWERS } from './answers.js';
import { CREDENTIALS } from './credentials.js';
import { LISTS } from './lists.js';
import { NAMES } from './names.js';
import { OPERATIONS } from './operations.js';
import { PAGES } from './pages.js';
import { PATHS } from './paths.js';
import { RELATED } from './related.js';
import { REPRESENTATION } from './representation.js';
import { REQUESTS } from './requests.js';
import type { ChoiceLevel, ChoosableRow, FixedRow } from './row.js';

const CHOOSABLE = {
  ...PATHS,
  ...NAMES,
  ...OPERATIONS,
  ...PAGES,
  ...LISTS,
  ...RELATED,
  ...REPRESENTATION,
  ...ANSWERS,
  ...REQUESTS,
  ...CREDENTIALS,
};

const FIXED: Readonly<Record<'maxBodyBytes', FixedRow>> = {
  maxBodyBytes: { kind: 'fixed', default: 1_048_576, title: 'Largest body in bytes' },
};

/** Every setting: what it decides, what may be chosen for it, where, and what holds where nobody chose. */
export const SETTINGS = { ...CHOOSABLE, ...FIXED };

export type SettingName = keyof typeof SETTINGS;
export type ChoosableSetting = keyof typeof CHOOSABLE;

/** The value of every setting that derivation reads. */
export type Settings = { readonly [Name in SettingName]: (typeof SETTINGS)[Name]['default'] };

/** Settings that can be chosen, in the order they are shown. */
export const CHOOSABLE_NAMES = Object.keys(CHOOSABLE) as readonly ChoosableSetting[];

/** What may be chosen for a setting. */
export const rowOf = (name: ChoosableSetting): ChoosableRow => CHOOSABLE[name];

export const isChoosable = (name: string): name is ChoosableSetting => Object.hasOwn(CHOOSABLE, name);

/** Whether a setting can be chosen at a level. */
export const hasLevel = (name: ChoosableSetting, level: ChoiceLevel): boolean =>
  rowOf(name).levels.includes(level);

/** Settings that are about one thing, in the order they are shown. */
export const SETTING_GROUPS: readonly {
  readonly title: string;
  readonly names: readonly ChoosableSetting[];
}[] = Object.entries({
  Paths: PATHS,
  Names: NAMES,
  Operations: OPERATIONS,
  Pages: PAGES,
  'Filters and order': LISTS,
  'Related records': RELATED,
  Representation: REPRESENTATION,
  Answers: ANSWERS,
  Requests: REQUESTS,
  Credentials: CREDENTIALS,
}).map(([title, rows]) => ({ title, names: Object.keys(rows) as ChoosableSetting[] }));

/** What a house decides first. */
export const BASIC_SETTINGS: readonly ChoosableSetting[] = [
  'basePath',
  'version',
  'collectionNames',
  'pathCase',
  'memberCase',
  'pageStyle',
  'pageSize',
  'invalidStatus',
];

/** The settings that hold every word that was typed, in their title, their help or their name. */
export function findSettings(typed: string): ReadonlySet<ChoosableSetting> {
  const holds = holdsWords(typed);
  return new Set(CHOOSABLE_NAMES.filter((name) => holds(`${rowOf(name).title} ${rowOf(name).help} ${name}`)));
}
