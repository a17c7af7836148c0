import type { ImplicitId } from '../model/index.js';
import type { CustomOperation } from './customs.js';
import type { Exposures } from './exposure.js';
import type { Placements } from './placements.js';

/** Every setting derivation reads, with the value it has where nobody chose. */
export interface Settings {
  /** Path before everything else, with leading slash. */
  readonly basePath: string;
  readonly version: string;
  /** Where the version stands: after the base path, in the request header `API-Version`, or nowhere. */
  readonly versionIn: 'path' | 'header' | 'nowhere';
  /** The type of the id of an entity without a key. */
  readonly implicitId: ImplicitId;
  readonly collectionNames: 'plural' | 'singular';
  readonly pathCase: 'kebab' | 'snake' | 'camel' | 'written';
  /** Of path parameters, which hold no hyphens (RFC 6570 §2.3). */
  readonly parameterCase: 'camel' | 'snake';
  /** Of members and query parameters. */
  readonly memberCase: 'camel' | 'snake' | 'kebab' | 'pascal';
  readonly operationNames: 'verbNoun' | 'VerbNoun' | 'verb_noun' | 'verb-noun' | 'nounVerb' | 'noun.verb';
  /** At most this many ids in the path of an item. */
  readonly depth: number;
  /** What answers at a path with a slash at its end: the same, a redirect (308), or nothing. */
  readonly trailingSlash: 'same' | 'redirected' | 'missing';
  /** How filters are written: equality as `name=value` alone, other operators in brackets too, or not at all. */
  readonly filterStyle: 'bracketed' | 'plain' | 'none';
  /** How sort keys are written: `-name`, `name:desc`, or not at all. */
  readonly sortStyle: 'minus' | 'suffix' | 'none';
  /** Equality and other comparisons through a to-one role too: `vessel.name=…`. */
  readonly filterThrough: 'off' | 'on';
  /** Pages by number and size, by offset and limit, by a cursor, or everything at once. */
  readonly pageStyle: 'number' | 'offset' | 'cursor' | 'none';
  /** Where the number of all records is told: in the body, in the header `Total-Count`, or not at all. */
  readonly totals: 'body' | 'header' | 'none';
  /** A page larger than the largest is refused, or as large as that. */
  readonly oversize: 'refused' | 'clamped';
  /** What plain JSON calls the items of a list, where it tells about the page, and the links. */
  readonly itemsMember: string;
  readonly pageMember: string;
  readonly linksMember: string;
  readonly pageParameter: string;
  readonly sizeParameter: string;
  readonly offsetParameter: string;
  readonly limitParameter: string;
  readonly pageSize: number;
  readonly maxPageSize: number;
  readonly cursorParameter: string;
  readonly sortParameter: string;
  /** How a list is sorted where nobody asks: keys as `sort=` takes them in the minus style; by the key where empty. */
  readonly defaultSort: string;
  /** A text that is looked for in several members at once. */
  readonly search: 'off' | 'on';
  readonly searchParameter: string;
  /** Answers with only the members that are asked for. */
  readonly fields: 'off' | 'on';
  readonly fieldsParameter: string;
  /** Related records inside the answer, where they are asked for. */
  readonly expand: 'off' | 'on';
  readonly expandParameter: string;
  /** At most this many steps from the record that was asked for. */
  readonly expandDepth: number;
  /** The media types answers are offered in, the preferred one first. */
  readonly mediaTypes: 'json, hal' | 'hal, json' | 'json' | 'hal';
  /** Where plain JSON has its links. */
  readonly links: 'object' | 'header' | 'none';
  /** Whether a list in plain JSON is an object around its items, or the bare array of them. */
  readonly envelope: 'object' | 'bare';
  readonly invalidStatus: 400 | 422;
  /** What a create answers besides the address of the new record. */
  readonly createAnswers: 'record' | 'nothing';
  /** What a removal answers: nothing (204), or the record as it was (200). */
  readonly removeAnswers: 'nothing' | 'record';
  /** Whether PUT to a key that nothing has makes it, where the client assigns keys (RFC 9110 §9.3.4). */
  readonly putCreates: 'on' | 'off';
  readonly unknownMembers: 'refused' | 'ignored';
  readonly unknownParameters: 'refused' | 'ignored';
  /** An id that cannot be one by its type is not there, or is a mistake of its own. */
  readonly wrongId: 404 | 400;
  /** Whether a write of something that is there must name the state it was made for (RFC 9110 §13.1.1). */
  readonly ifMatch: 'optional' | 'required';
  /** `Prefer: return=minimal` and `return=representation` (RFC 7240). */
  readonly prefer: 'honoured' | 'ignored';
  /** `Idempotency-Key` of a POST. */
  readonly idempotency: 'honoured' | 'required' | 'ignored';
  /** How PATCH reads a body in plain `application/json`. */
  readonly plainPatch: 'merge patch' | 'refused';
  /** Links as paths, or as whole URIs. */
  readonly linkForm: 'path' | 'absolute';
  /** What the URIs of link relations of one's own begin with (RFC 8288 §2.1.2); the mock itself where empty. */
  readonly relationBase: string;
  /** What has no value is answered as null, or left out. */
  readonly unset: 'null' | 'left out';
  /** How clients prove who they are; several of them are alternatives. */
  readonly security:
    'none' | 'basic' | 'bearer' | 'api key' | 'basic, bearer' | 'bearer, api key' | 'basic, bearer, api key';
  /** The request header that holds an API key. */
  readonly keyHeader: string;
  /** Who may: anybody, whoever proves who they are, or whoever has the role. */
  readonly access: 'anonymous' | 'authenticated' | 'role';
  readonly role: string;
  readonly maxBodyBytes: number;
}

export type SettingName = keyof Settings;

/** From the most general level to the nearest one. */
export const SETTING_LEVELS = ['default', 'design', 'arrangement', 'resource', 'operation'] as const;

/** Where a value was set. */
export type SettingLevel = (typeof SETTING_LEVELS)[number];

export const SETTING_DEFAULTS: Settings = {
  basePath: '/api',
  version: 'v1',
  versionIn: 'path',
  implicitId: 'integer',
  collectionNames: 'plural',
  pathCase: 'kebab',
  parameterCase: 'camel',
  memberCase: 'camel',
  operationNames: 'verbNoun',
  depth: 2,
  trailingSlash: 'same',
  filterStyle: 'bracketed',
  sortStyle: 'minus',
  filterThrough: 'off',
  pageStyle: 'number',
  totals: 'body',
  oversize: 'refused',
  itemsMember: 'items',
  pageMember: 'page',
  linksMember: 'links',
  pageParameter: 'page',
  sizeParameter: 'size',
  offsetParameter: 'offset',
  limitParameter: 'limit',
  pageSize: 20,
  maxPageSize: 100,
  cursorParameter: 'cursor',
  sortParameter: 'sort',
  defaultSort: '',
  search: 'off',
  searchParameter: 'q',
  fields: 'off',
  fieldsParameter: 'fields',
  expand: 'off',
  expandParameter: 'expand',
  expandDepth: 1,
  mediaTypes: 'json, hal',
  links: 'object',
  envelope: 'object',
  invalidStatus: 400,
  createAnswers: 'record',
  removeAnswers: 'nothing',
  putCreates: 'on',
  unknownMembers: 'refused',
  unknownParameters: 'refused',
  wrongId: 404,
  ifMatch: 'optional',
  prefer: 'honoured',
  idempotency: 'honoured',
  plainPatch: 'merge patch',
  linkForm: 'path',
  relationBase: '',
  unset: 'null',
  security: 'none',
  keyHeader: 'X-API-Key',
  access: 'authenticated',
  role: 'admin',
  maxBodyBytes: 1_048_576,
};

/** What each setting decides, in a few plain words. */
export const SETTING_TITLES: Readonly<Record<SettingName, string>> = {
  basePath: 'Base path',
  version: 'Version',
  versionIn: 'Version stands in',
  implicitId: 'Ids without a key',
  collectionNames: 'Collections',
  pathCase: 'Path words',
  parameterCase: 'Path parameters',
  memberCase: 'Members',
  operationNames: 'Operations',
  depth: 'Ids in a path',
  trailingSlash: 'Trailing slash',
  filterStyle: 'Filters',
  sortStyle: 'Sort keys',
  filterThrough: 'Filters through roles',
  pageStyle: 'Pages',
  totals: 'Totals',
  oversize: 'Too large a page',
  itemsMember: 'Items are called',
  pageMember: 'The page is called',
  linksMember: 'Links are called',
  pageParameter: 'Page parameter',
  sizeParameter: 'Size parameter',
  offsetParameter: 'Offset parameter',
  limitParameter: 'Limit parameter',
  pageSize: 'Page size',
  maxPageSize: 'Largest page size',
  cursorParameter: 'Cursor parameter',
  sortParameter: 'Sort parameter',
  defaultSort: 'Sorted by',
  search: 'Search',
  searchParameter: 'Search parameter',
  fields: 'Chosen members',
  fieldsParameter: 'Members parameter',
  expand: 'Related records inside',
  expandParameter: 'Expand parameter',
  expandDepth: 'Steps inside',
  mediaTypes: 'Media types',
  links: 'Links in JSON',
  envelope: 'Lists in JSON',
  invalidStatus: 'Does not fit',
  createAnswers: 'Create answers',
  removeAnswers: 'Remove answers',
  putCreates: 'PUT to an unknown key creates',
  unknownMembers: 'Unknown member',
  unknownParameters: 'Unknown parameter',
  wrongId: 'Id of another type',
  ifMatch: 'If-Match',
  prefer: 'Prefer',
  idempotency: 'Idempotency-Key',
  plainPatch: 'PATCH in plain JSON',
  linkForm: 'Links are',
  relationBase: 'Link relations begin with',
  unset: 'Without a value',
  security: 'Credentials',
  keyHeader: 'API key in header',
  access: 'Who may',
  role: 'Role',
  maxBodyBytes: 'Largest body in bytes',
};

/** Settings that somebody chose; the others keep the value they inherit. */
export type SettingValues = { readonly [Name in SettingName]?: Settings[Name] };

/** Settings of single resources or operations, by their id. */
export type SettingsById = Readonly<Record<string, SettingValues>>;

/** One way of laying a model out as resources. */
export interface Arrangement {
  readonly name: string;
  /** What was chosen for the whole design. */
  readonly design: SettingValues;
  /** What was chosen for this arrangement, and holds before that. */
  readonly own: SettingValues;
  /** By the id of a resource of the contract. */
  readonly resources: SettingsById;
  /** By `operationKey`. */
  readonly operations: SettingsById;
  readonly placements: Placements;
  /** Path words that were chosen in the place of derived ones, by the id of what they name. */
  readonly words: Readonly<Record<string, string>>;
  readonly exposures: Exposures;
  readonly customs: readonly CustomOperation[];
}

/** What a setting may be asked for: a resource, or an operation of one. */
export interface SettingPlace {
  readonly resource: string;
  readonly verb?: string;
}

/** How the settings of an operation are filed: by its resource and its verb, which outlive its name. */
export const operationKey = (resource: string, verb: string): string => `${resource}:${verb}`;

export interface ResolvedSetting<Name extends SettingName> {
  readonly value: Settings[Name];
  readonly level: SettingLevel;
}

/** The value of a setting in an arrangement, and the level it comes from: the nearest at which it was chosen. */
export function setting<Name extends SettingName>(
  arrangement: Arrangement,
  name: Name,
  at?: SettingPlace,
): ResolvedSetting<Name> {
  if (at !== undefined) {
    const near = nearest(arrangement, name, at);
    if (near !== null) return near;
  }
  const chosen = arrangement.own[name];
  if (chosen !== undefined) return { value: chosen, level: 'arrangement' };
  const above = arrangement.design[name];
  return above === undefined
    ? { value: SETTING_DEFAULTS[name], level: 'default' }
    : { value: above, level: 'design' };
}

function nearest<Name extends SettingName>(
  { resources, operations }: Arrangement,
  name: Name,
  { resource, verb }: SettingPlace,
): ResolvedSetting<Name> | null {
  const ofOperation =
    verb === undefined ? undefined : chosenAt(operations, operationKey(resource, verb), name);
  if (ofOperation !== undefined) return { value: ofOperation, level: 'operation' };
  const ofResource = chosenAt(resources, resource, name);
  return ofResource === undefined ? null : { value: ofResource, level: 'resource' };
}

const chosenAt = <Name extends SettingName>(
  byId: SettingsById,
  id: string,
  name: Name,
): Settings[Name] | undefined => (Object.hasOwn(byId, id) ? byId[id]?.[name] : undefined);
