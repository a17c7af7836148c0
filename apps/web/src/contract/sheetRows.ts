import {
  isPublished,
  isDocumented,
  type Contract,
  type Method,
  type Operation,
  type Resource,
} from '@isomeros/core/contract';
import { grouped } from '../app/parts/grouped.js';
import { treeRows } from '../app/parts/treeRows.js';

export const METHOD_COLUMNS: readonly Method[] = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];

/** By what the rows of the sheet stand together. */
export const GROUPINGS = ['path', 'resource', 'tag'] as const;
export type Grouping = (typeof GROUPINGS)[number];

export type SheetRow = SheetGroup | SheetPath;

export interface SheetGroup {
  readonly kind: 'group';
  readonly id: string;
  readonly title: string;
  /** All that stand in it, whether they are shown or not. */
  readonly operations: readonly Operation[];
}

export interface SheetPath {
  readonly kind: 'path';
  /** Unique in the sheet: a path may stand in several groups. */
  readonly id: string;
  readonly resource: Resource;
  readonly operations: readonly Operation[];
  /** The path, or as much of it as the rows above do not say. */
  readonly label: string;
  /** How many steps it stands in. */
  readonly indent: number;
  /** Whether it begins a branch of the path tree. */
  readonly isBranch: boolean;
}

/** The rows of a contract, each group before what stands in it. */
export function sheetRows(contract: Contract, grouping: Grouping): readonly SheetRow[] {
  if (grouping === 'path')
    return treeRows(contract).map(({ resource, operations, level, tail }) => ({
      kind: 'path',
      id: resource.id,
      resource,
      operations,
      label: resource.path === '' ? '/' : tail,
      indent: Math.max(0, level - 1),
      isBranch: level === 1,
    }));
  const groups = grouping === 'tag' ? byTag(contract) : byEntity(contract);
  const resources = new Map(contract.resources.map((resource) => [resource.id, resource]));
  return groups.flatMap(({ id, title, operations }): readonly SheetRow[] => [
    { kind: 'group', id, title, operations },
    ...[...grouped(operations, ({ resource }) => resource)].flatMap(([of, some]): readonly SheetPath[] => {
      const resource = resources.get(of);
      return resource === undefined
        ? []
        : [
            {
              kind: 'path',
              id: `${id} ${of}`,
              resource,
              operations: some,
              label: shortPath(resource.path),
              indent: 0,
              isBranch: false,
            },
          ];
    }),
  ]);
}

type Group = Omit<SheetGroup, 'kind'>;

const byTag = ({ operations, documentation }: Contract): readonly Group[] =>
  documentation.tags.map(({ id, title }) => ({
    id,
    title,
    operations: operations.filter(({ tags }) => tags.includes(id)),
  }));

function byEntity({ operations, resources }: Contract): readonly Group[] {
  const entities = new Map(resources.map(({ id, entity }) => [id, entity ?? 'entry']));
  return [...grouped(operations, ({ resource }) => entities.get(resource) ?? 'entry')].map(
    ([entity, some]) => ({ id: entity, title: entity, operations: some }),
  );
}

const LONGEST_WHOLE = 2;

/** A path without its middle: where it begins and where it ends. */
function shortPath(path: string): string {
  if (path === '') return '/';
  const segments = path.split('/').slice(1);
  if (segments.length <= LONGEST_WHOLE) return path;
  return `/${segments[0] ?? ''}/…/${segments.at(-1) ?? ''}`;
}

interface Narrowing {
  readonly isFound: (operation: Operation) => boolean;
  /** Groups whose rows are not shown. */
  readonly folded: ReadonlySet<string>;
}

/** The rows with an operation that is found, and the groups above them. Paths are whole where rows above may be missing. */
export function narrowRows(rows: readonly SheetRow[], { isFound, folded }: Narrowing): readonly SheetRow[] {
  const kept: SheetRow[] = [];
  let group: SheetGroup | null = null;
  for (const row of rows) {
    if (row.kind === 'group') {
      group = row;
      if (row.operations.some(isFound)) kept.push(row);
    } else if ((group === null || !folded.has(group.id)) && row.operations.some(isFound)) kept.push(row);
  }
  return kept;
}

/** How many operations are documented, and how many there are to document. */
export interface Tally {
  readonly documented: number;
  readonly undocumented: number;
  readonly unpublished: number;
  readonly deprecated: number;
}

export function tallyOf(operations: readonly Operation[]): Tally {
  const published = operations.filter(isPublished);
  const documented = published.filter(({ documentation }) => isDocumented(documentation)).length;
  return {
    documented,
    undocumented: published.length - documented,
    unpublished: operations.length - published.length,
    deprecated: operations.filter(({ documentation }) => documentation?.deprecated != null).length,
  };
}

/** The cell an arrow key leads to: along a row, or to the nearest row above or below, in the same column if it can be. */
export function stepFrom(
  rows: readonly SheetRow[],
  current: number,
  selected: Operation | undefined,
  key: string,
): { readonly row: SheetPath; readonly operation: Operation } | null {
  const at = rows[current];
  const along = at?.kind === 'path' ? ordered(at) : [];
  const column = along.findIndex(({ id }) => id === selected?.id);
  const within = (operation: Operation | undefined): ReturnType<typeof stepFrom> =>
    operation === undefined || at?.kind !== 'path' ? null : { row: at, operation };
  const to = (from: number, step: 1 | -1): ReturnType<typeof stepFrom> => {
    for (let index = from; index >= 0 && index < rows.length; index += step) {
      const row = rows[index];
      if (row?.kind !== 'path') continue;
      const operations = ordered(row);
      const operation = operations.find(({ method }) => method === selected?.method) ?? operations[0];
      if (operation !== undefined) return { row, operation };
    }
    return null;
  };
  switch (key) {
    case 'ArrowRight':
      return within(along[column + 1]);
    case 'ArrowLeft':
      return within(along[column - 1]);
    case 'ArrowDown':
      return to(current + 1, 1);
    case 'ArrowUp':
      return to(current - 1, -1);
    case 'Home':
      return to(0, 1);
    case 'End':
      return to(rows.length - 1, -1);
    default:
      return null;
  }
}

const ordered = ({ operations }: SheetPath): readonly Operation[] =>
  [...operations].sort((a, b) => METHOD_COLUMNS.indexOf(a.method) - METHOD_COLUMNS.indexOf(b.method));
