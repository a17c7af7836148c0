import type { SettingLevel, SettingName } from './settings.js';

/** What may be chosen for a setting. */
export type SettingDomain = { readonly levels: readonly ChoiceLevel[] } & (
  | { readonly kind: 'options'; readonly options: readonly (string | number)[] }
  | { readonly kind: 'integer'; readonly min: number; readonly max: number }
  | {
      readonly kind: 'text';
      readonly pattern: RegExp;
      readonly expected: string;
      /** What an empty text means, where it may be empty. */
      readonly empty?: string;
    }
);

/** A level at which something can be chosen. */
export type ChoiceLevel = Exclude<SettingLevel, 'default'>;

const FOR_DESIGN: readonly ChoiceLevel[] = ['design'];
const FOR_ARRANGEMENT: readonly ChoiceLevel[] = ['design', 'arrangement'];
const FOR_RESOURCE: readonly ChoiceLevel[] = ['design', 'arrangement', 'resource'];
const FOR_ONE_RESOURCE: readonly ChoiceLevel[] = ['resource'];
const FOR_OPERATION: readonly ChoiceLevel[] = ['design', 'arrangement', 'resource', 'operation'];

/** A name in camelCase, which members and parameters then have in their own case. */
const NAME = {
  kind: 'text',
  pattern: /^[a-z][A-Za-z0-9]{0,39}$/,
  expected: 'a name in camelCase, such as items',
  levels: FOR_ARRANGEMENT,
} as const;

/** Settings that can be chosen in this version, in the order they are shown, each with its levels. */
export const CHOOSABLE = {
  basePath: {
    kind: 'text',
    pattern: /^(?:\/[A-Za-z0-9._~-]{1,40}){0,4}$/,
    expected: 'a path such as /api, without trailing slash, or nothing',
    empty: 'none',
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
  filterThrough: { kind: 'options', options: ['off', 'on'], levels: FOR_RESOURCE },
  defaultSort: {
    kind: 'text',
    pattern: /^(?:-?[A-Za-z][\w-]{0,60}(?:,-?[A-Za-z][\w-]{0,60}){0,4})?$/,
    empty: 'the key',
    expected: 'up to five members separated by commas, each with - in front for descending, or nothing',
    levels: FOR_ONE_RESOURCE,
  },
  search: { kind: 'options', options: ['off', 'on'], levels: FOR_RESOURCE },
  fields: { kind: 'options', options: ['off', 'on'], levels: FOR_ARRANGEMENT },
  expand: { kind: 'options', options: ['off', 'on'], levels: FOR_ARRANGEMENT },
  expandDepth: { kind: 'integer', min: 1, max: 3, levels: FOR_ARRANGEMENT },
  pageStyle: { kind: 'options', options: ['number', 'offset', 'cursor', 'none'], levels: FOR_ARRANGEMENT },
  totals: { kind: 'options', options: ['body', 'header', 'none'], levels: FOR_ARRANGEMENT },
  oversize: { kind: 'options', options: ['refused', 'clamped'], levels: FOR_ARRANGEMENT },
  maxPageSize: { kind: 'integer', min: 1, max: 10_000, levels: FOR_RESOURCE },
  pageSize: { kind: 'integer', min: 1, max: 10_000, levels: FOR_RESOURCE },
  itemsMember: NAME,
  pageMember: NAME,
  linksMember: NAME,
  pageParameter: NAME,
  sizeParameter: NAME,
  offsetParameter: NAME,
  limitParameter: NAME,
  cursorParameter: NAME,
  sortParameter: NAME,
  searchParameter: NAME,
  fieldsParameter: NAME,
  expandParameter: NAME,
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
  putCreates: { kind: 'options', options: ['on', 'off'], levels: FOR_OPERATION },
  invalidStatus: { kind: 'options', options: [400, 422], levels: FOR_OPERATION },
  unknownMembers: { kind: 'options', options: ['refused', 'ignored'], levels: FOR_ARRANGEMENT },
  wrongId: { kind: 'options', options: [404, 400], levels: FOR_ARRANGEMENT },
  ifMatch: { kind: 'options', options: ['optional', 'required'], levels: FOR_OPERATION },
  prefer: { kind: 'options', options: ['honoured', 'ignored'], levels: FOR_OPERATION },
  idempotency: { kind: 'options', options: ['honoured', 'required', 'ignored'], levels: FOR_OPERATION },
  plainPatch: { kind: 'options', options: ['merge patch', 'refused'], levels: FOR_ARRANGEMENT },
  linkForm: { kind: 'options', options: ['path', 'absolute'], levels: FOR_ARRANGEMENT },
  relationBase: {
    kind: 'text',
    pattern: /^(?:https?:\/\/[A-Za-z0-9.-]{1,100}(?::\d{1,5})?(?:\/[A-Za-z0-9._~-]{1,60}){0,8}\/)?$/,
    expected: 'an absolute URL with a slash at its end, such as https://api.example/relations/, or nothing',
    empty: 'the mock itself',
    levels: FOR_ARRANGEMENT,
  },
  unset: { kind: 'options', options: ['null', 'left out'], levels: FOR_ARRANGEMENT },
  security: {
    kind: 'options',
    options: [
      'none',
      'basic',
      'bearer',
      'api key',
      'basic, bearer',
      'bearer, api key',
      'basic, bearer, api key',
    ],
    levels: FOR_ARRANGEMENT,
  },
  keyHeader: {
    kind: 'text',
    pattern: /^(?!(?:Authorization|Host|Cookie|Content-.*|If-.*|Accept.*)$)[A-Za-z][A-Za-z0-9-]{0,59}$/i,
    expected: 'the name of a header of your own, such as X-API-Key',
    levels: FOR_ARRANGEMENT,
  },
  access: { kind: 'options', options: ['anonymous', 'authenticated', 'role'], levels: FOR_OPERATION },
  role: {
    kind: 'text',
    pattern: /^[A-Za-z][A-Za-z0-9_-]{0,39}$/,
    expected: 'a word of letters, digits, hyphens and underscores',
    levels: FOR_OPERATION,
  },
} as const satisfies { readonly [Name in SettingName]?: SettingDomain };

export type ChoosableSetting = keyof typeof CHOOSABLE;

export const CHOOSABLE_NAMES = Object.keys(CHOOSABLE) as readonly ChoosableSetting[];

/** Whether a setting can be chosen at a level. */
export function hasLevel(name: ChoosableSetting, level: ChoiceLevel): boolean {
  const { levels }: SettingDomain = CHOOSABLE[name];
  return levels.includes(level);
}
