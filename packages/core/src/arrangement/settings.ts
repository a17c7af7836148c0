import type { ImplicitId } from '../model/index.js';

/** Every setting derivation reads, with the value it has where nobody chose. */
export interface Settings {
  /** Path before everything else, with leading slash. */
  readonly basePath: string;
  /** The version segment that follows the base path. */
  readonly version: string;
  /** The type of the id of an entity without a key. */
  readonly implicitId: ImplicitId;
  readonly collectionNames: 'plural' | 'singular';
  readonly pathCase: 'kebab' | 'snake' | 'camel';
  readonly memberCase: 'camel';
  /** At most this many ids in the path of an item. */
  readonly depth: number;
  readonly trailingSlash: 'same';
  readonly pageStyle: 'number';
  readonly pageParameter: string;
  readonly sizeParameter: string;
  readonly pageSize: number;
  readonly maxPageSize: number;
  readonly sortParameter: string;
  readonly links: 'object';
  readonly invalidStatus: 400 | 422;
  readonly unknownMembers: 'refused';
  readonly unknownParameters: 'refused';
  readonly maxBodyBytes: number;
}

export type SettingName = keyof Settings;

/** Where a value was set. */
export type SettingLevel = 'default' | 'design' | 'arrangement';

export const SETTING_DEFAULTS: Settings = {
  basePath: '/api',
  version: 'v1',
  implicitId: 'integer',
  collectionNames: 'plural',
  pathCase: 'kebab',
  memberCase: 'camel',
  depth: 2,
  trailingSlash: 'same',
  pageStyle: 'number',
  pageParameter: 'page',
  sizeParameter: 'size',
  pageSize: 20,
  maxPageSize: 100,
  sortParameter: 'sort',
  links: 'object',
  invalidStatus: 400,
  unknownMembers: 'refused',
  unknownParameters: 'refused',
  maxBodyBytes: 1_048_576,
};

/** What each setting decides, in a few plain words. */
export const SETTING_TITLES: Readonly<Record<SettingName, string>> = {
  basePath: 'Base path',
  version: 'Version in the path',
  implicitId: 'Ids without a key',
  collectionNames: 'Names of collections',
  pathCase: 'Words in paths',
  memberCase: 'Members and parameters',
  depth: 'Ids in the path of an item',
  trailingSlash: 'Trailing slash',
  pageStyle: 'Pages',
  pageParameter: 'Page parameter',
  sizeParameter: 'Size parameter',
  pageSize: 'Records in a page',
  maxPageSize: 'Records in a page at most',
  sortParameter: 'Sort parameter',
  links: 'Links in plain JSON',
  invalidStatus: 'Status of an invalid body',
  unknownMembers: 'Unknown members',
  unknownParameters: 'Unknown query parameters',
  maxBodyBytes: 'Largest body in bytes',
};

/** Settings that somebody chose; the others keep the value they inherit. */
export type SettingValues = { readonly [Name in SettingName]?: Settings[Name] };

/** One way of laying a model out as resources. */
export interface Arrangement {
  readonly name: string;
  /** What was chosen for the whole design. */
  readonly design: SettingValues;
  /** What was chosen for this arrangement, and holds before that. */
  readonly own: SettingValues;
}

export interface ResolvedSetting<Name extends SettingName> {
  readonly value: Settings[Name];
  readonly level: SettingLevel;
}

/** The value of a setting in an arrangement, and the level it comes from: the nearest at which it was chosen. */
export function setting<Name extends SettingName>(
  { design, own }: Arrangement,
  name: Name,
): ResolvedSetting<Name> {
  const chosen = own[name];
  if (chosen !== undefined) return { value: chosen, level: 'arrangement' };
  const above = design[name];
  return above === undefined
    ? { value: SETTING_DEFAULTS[name], level: 'default' }
    : { value: above, level: 'design' };
}
