import type { SettingLevel, SettingName } from './settings.js';

/** What may be chosen for a setting. */
export type SettingDomain = { readonly levels: readonly ChoiceLevel[] } & (
  | { readonly kind: 'options'; readonly options: readonly (string | number)[] }
  | { readonly kind: 'integer'; readonly min: number; readonly max: number }
  | { readonly kind: 'text'; readonly pattern: RegExp; readonly expected: string }
);

/** A level at which something can be chosen. */
export type ChoiceLevel = Exclude<SettingLevel, 'default'>;

const FOR_DESIGN: readonly ChoiceLevel[] = ['design'];
const FOR_ARRANGEMENT: readonly ChoiceLevel[] = ['design', 'arrangement'];
const FOR_RESOURCE: readonly ChoiceLevel[] = ['design', 'arrangement', 'resource'];
const FOR_OPERATION: readonly ChoiceLevel[] = ['design', 'arrangement', 'resource', 'operation'];

/** Settings that can be chosen in this version, in the order they are shown, each with its levels. */
export const CHOOSABLE = {
  basePath: {
    kind: 'text',
    pattern: /^(?:\/[A-Za-z0-9._~-]{1,40}){0,4}$/,
    expected: 'a path such as /api, without trailing slash, or nothing',
    levels: FOR_ARRANGEMENT,
  },
  version: {
    kind: 'text',
    pattern: /^[A-Za-z0-9._~-]{1,20}$/,
    expected: 'one path segment, such as v1',
    levels: FOR_ARRANGEMENT,
  },
  versionIn: { kind: 'options', options: ['path', 'header', 'nowhere'], levels: FOR_ARRANGEMENT },
  collectionNames: { kind: 'options', options: ['plural', 'singular'], levels: FOR_ARRANGEMENT },
  pathCase: { kind: 'options', options: ['kebab', 'snake', 'camel', 'written'], levels: FOR_ARRANGEMENT },
  parameterCase: { kind: 'options', options: ['camel', 'snake'], levels: FOR_ARRANGEMENT },
  memberCase: { kind: 'options', options: ['camel', 'snake', 'kebab', 'pascal'], levels: FOR_ARRANGEMENT },
  operationNames: {
    kind: 'options',
    options: ['verbNoun', 'VerbNoun', 'verb_noun', 'verb-noun', 'nounVerb', 'noun.verb'],
    levels: FOR_ARRANGEMENT,
  },
  trailingSlash: {
    kind: 'options',
    options: ['same', 'redirected', 'missing'],
    levels: FOR_ARRANGEMENT,
  },
  depth: { kind: 'integer', min: 1, max: 6, levels: FOR_ARRANGEMENT },
  // It completes the model, which all arrangements of a design share.
  implicitId: { kind: 'options', options: ['integer', 'uuid'], levels: FOR_DESIGN },
  filterStyle: { kind: 'options', options: ['bracketed', 'plain', 'none'], levels: FOR_RESOURCE },
  sortStyle: { kind: 'options', options: ['minus', 'suffix', 'none'], levels: FOR_RESOURCE },
  pageStyle: { kind: 'options', options: ['number', 'offset', 'none'], levels: FOR_ARRANGEMENT },
  totals: { kind: 'options', options: ['body', 'header', 'none'], levels: FOR_ARRANGEMENT },
  oversize: { kind: 'options', options: ['refused', 'clamped'], levels: FOR_ARRANGEMENT },
  maxPageSize: { kind: 'integer', min: 1, max: 10_000, levels: FOR_RESOURCE },
  pageSize: { kind: 'integer', min: 1, max: 10_000, levels: FOR_RESOURCE },
  unknownParameters: { kind: 'options', options: ['refused', 'ignored'], levels: FOR_OPERATION },
  mediaTypes: {
    kind: 'options',
    options: ['json, hal', 'hal, json', 'json', 'hal'],
    levels: FOR_ARRANGEMENT,
  },
  links: { kind: 'options', options: ['object', 'header', 'none'], levels: FOR_ARRANGEMENT },
  envelope: { kind: 'options', options: ['object', 'bare'], levels: FOR_ARRANGEMENT },
  createAnswers: { kind: 'options', options: ['record', 'nothing'], levels: FOR_OPERATION },
  removeAnswers: { kind: 'options', options: ['nothing', 'record'], levels: FOR_OPERATION },
  invalidStatus: { kind: 'options', options: [400, 422], levels: FOR_OPERATION },
} as const satisfies { readonly [Name in SettingName]?: SettingDomain };

export type ChoosableSetting = keyof typeof CHOOSABLE;

export const CHOOSABLE_NAMES = Object.keys(CHOOSABLE) as readonly ChoosableSetting[];

/** Whether a setting can be chosen at a level. */
export function hasLevel(name: ChoosableSetting, level: ChoiceLevel): boolean {
  const { levels }: SettingDomain = CHOOSABLE[name];
  return levels.includes(level);
}
