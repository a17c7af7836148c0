import {
  setting,
  type Arrangement,
  type ChoosableSetting,
  type SettingPlace,
} from '@isomeros/core/arrangement';

/** Settings that are about one thing. */
const GROUPS = [
  'Paths',
  'Names',
  'Pages',
  'Filters and order',
  'Related records',
  'Representation',
  'Answers',
  'Requests',
  'Credentials',
] as const;
type Group = (typeof GROUPS)[number];

const GROUP_OF: Readonly<Record<ChoosableSetting, Group>> = {
  basePath: 'Paths',
  version: 'Paths',
  versionIn: 'Paths',
  pathCase: 'Paths',
  collectionNames: 'Paths',
  parameterCase: 'Paths',
  depth: 'Paths',
  trailingSlash: 'Paths',
  memberCase: 'Names',
  operationNames: 'Names',
  implicitId: 'Names',
  pageStyle: 'Pages',
  pageSize: 'Pages',
  maxPageSize: 'Pages',
  oversize: 'Pages',
  totals: 'Pages',
  filterStyle: 'Filters and order',
  filterThrough: 'Filters and order',
  sortStyle: 'Filters and order',
  defaultSort: 'Filters and order',
  search: 'Filters and order',
  unknownParameters: 'Filters and order',
  fields: 'Related records',
  expand: 'Related records',
  expandDepth: 'Related records',
  itemsMember: 'Representation',
  pageMember: 'Representation',
  linksMember: 'Representation',
  pageParameter: 'Pages',
  sizeParameter: 'Pages',
  offsetParameter: 'Pages',
  limitParameter: 'Pages',
  cursorParameter: 'Pages',
  sortParameter: 'Filters and order',
  searchParameter: 'Filters and order',
  fieldsParameter: 'Related records',
  expandParameter: 'Related records',
  mediaTypes: 'Representation',
  links: 'Representation',
  linkForm: 'Representation',
  relationBase: 'Representation',
  envelope: 'Representation',
  unset: 'Representation',
  createAnswers: 'Answers',
  removeAnswers: 'Answers',
  putCreates: 'Requests',
  invalidStatus: 'Answers',
  wrongId: 'Answers',
  unknownMembers: 'Requests',
  plainPatch: 'Requests',
  ifMatch: 'Requests',
  prefer: 'Requests',
  idempotency: 'Requests',
  security: 'Credentials',
  keyHeader: 'Credentials',
  access: 'Credentials',
  role: 'Credentials',
};

export interface SettingGroup {
  readonly title: Group;
  readonly names: readonly ChoosableSetting[];
}

/** Names in their groups; groups without any are left out. */
export const grouped = (names: readonly ChoosableSetting[]): readonly SettingGroup[] =>
  GROUPS.map((title) => ({ title, names: names.filter((name) => GROUP_OF[name] === title) })).filter(
    (group) => group.names.length > 0,
  );

/** Whether a setting has an effect, by what others are set to. */
export function hasEffect(arrangement: Arrangement, name: ChoosableSetting, at?: SettingPlace): boolean {
  const style = setting(arrangement, 'pageStyle', at).value;
  const security = setting(arrangement, 'security', at).value;
  switch (name) {
    case 'pageSize':
    case 'maxPageSize':
    case 'oversize':
      return style !== 'none';
    case 'pageParameter':
    case 'sizeParameter':
      return style === 'number';
    case 'offsetParameter':
      return style === 'offset';
    case 'cursorParameter':
      return style === 'cursor';
    case 'limitParameter':
      return style === 'offset' || style === 'cursor';
    case 'pageMember':
      return style !== 'none' && hasEnvelope(arrangement, at);
    case 'itemsMember':
      return hasEnvelope(arrangement, at);
    case 'linksMember':
      return setting(arrangement, 'links', at).value === 'object';
    case 'fieldsParameter':
      return setting(arrangement, 'fields', at).value === 'on';
    case 'expandParameter':
      return setting(arrangement, 'expand', at).value === 'on';
    case 'sortParameter':
      return setting(arrangement, 'sortStyle', at).value !== 'none';
    case 'searchParameter':
      return setting(arrangement, 'search', at).value === 'on';
    case 'filterThrough':
      return setting(arrangement, 'filterStyle', at).value !== 'none';
    case 'expandDepth':
      return setting(arrangement, 'expand', at).value === 'on';
    case 'keyHeader':
      return security.includes('api key');
    case 'access':
      return security !== 'none';
    case 'role':
      return security !== 'none' && setting(arrangement, 'access', at).value === 'role';
    case 'version':
      return setting(arrangement, 'versionIn', at).value !== 'nowhere';
    case 'links':
    case 'envelope':
      return setting(arrangement, 'mediaTypes', at).value.includes('json');
    default:
      return true;
  }
}

const hasEnvelope = (arrangement: Arrangement, at: SettingPlace | undefined): boolean =>
  setting(arrangement, 'envelope', at).value === 'object';
