import {
  firstWays,
  indexContract,
  isReadable,
  offeredWhen,
  stepsOf,
  type Contract,
  type Effect,
  type FirstWay,
  type LinkStep,
} from '@isomeros/core/contract';
import { greatest, type Model } from '@isomeros/core/model';

/** A resource in the graph of links, where it is drawn. */
export interface LinkedPlace {
  readonly id: string;
  /** The whole path, and what of it the resource above does not say. */
  readonly path: string;
  readonly label: string;
  readonly effects: readonly Effect[];
  /** Requests until it is reached; `null` where nothing leads to it. */
  readonly requests: number | null;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  /** By which it is reached first. */
  readonly above: string | null;
}

/** A step between two resources. */
export interface DrawnStep {
  readonly from: string;
  readonly to: string;
  readonly relation: string;
  /** `null` where it is always offered. */
  readonly when: string | null;
  /** Whether the resource is reached first by it. */
  readonly isFirst: boolean;
}

export interface LinkMap {
  readonly nodes: readonly LinkedPlace[];
  readonly steps: readonly DrawnStep[];
  readonly columns: readonly RequestColumn[];
  readonly width: number;
  readonly height: number;
}

export interface RequestColumn {
  readonly x: number;
  /** `null`: what nothing leads to. */
  readonly requests: number | null;
  readonly resources: number;
}

export const ROW_HEIGHT = 24;
const MARGIN = 24;
const MARK_WIDTH = 14;
/** What a character takes: of a path, and of a relation with its condition. */
const PATH_CHARACTER = 7.3;
const RELATION_CHARACTER = 6.4;
const LONGEST_LABEL = 210;
const AROUND_LABEL = 52;

/** The graph of links from the entry, laid out in columns by requests: what is reached first by one stands behind it. */
export function linkMapOf(contract: Contract, model: Model): LinkMap {
  const index = indexContract(contract);
  const steps = stepsOf(contract);
  const ways = firstWays(steps, 'entry', (id) => isReadable(index, id));
  const drawn = [...steps.values()].flat().map((step) => mapStep(model, ways, step));
  const columns = columnsOf(contract, ways);
  const behind = new Map<string, string[]>();
  for (const [id, { step }] of ways)
    if (step !== null) behind.set(step.from, [...(behind.get(step.from) ?? []), id]);
  const rows = rowsOf(behind, 'entry', columns.at(-1)?.requests === null ? (columns.at(-1)?.ids ?? []) : []);
  const labels = new Map(contract.resources.map(({ id }) => [id, labelOf(contract, id)]));
  const widthOf = (id: string): number => {
    const marks = index.operationsOf.get(id)?.length ?? 0;
    return Math.ceil((labels.get(id) ?? '').length * PATH_CHARACTER + marks * MARK_WIDTH + 22);
  };
  const xs = placed(columns, widthOf, drawn);
  const nodes = columns.flatMap(({ ids, requests }, at) =>
    ids.map((id): LinkedPlace => ({
      id,
      path: contract.root + (index.resources.get(id)?.path ?? ''),
      label: labels.get(id) ?? '',
      effects: (index.operationsOf.get(id) ?? []).map(({ effect }) => effect),
      requests,
      x: xs[at] ?? 0,
      y: MARGIN + (rows.at.get(id) ?? 0) * ROW_HEIGHT,
      width: widthOf(id),
      above: ways.get(id)?.step?.from ?? null,
    })),
  );
  return {
    nodes,
    steps: drawn,
    columns: columns.map(({ requests, ids }, at) => ({ x: xs[at] ?? 0, requests, resources: ids.length })),
    width:
      greatest(
        nodes.map(({ x, width }) => x + width),
        0,
      ) + 180,
    height: rows.count * ROW_HEIGHT + 2 * MARGIN,
  };
}

function mapStep(model: Model, ways: ReadonlyMap<string, FirstWay>, step: LinkStep): DrawnStep {
  return {
    from: step.from,
    to: step.to,
    relation: step.relation,
    when: offeredWhen(model, step.link),
    isFirst: ways.get(step.to)?.step === step,
  };
}

interface Column {
  readonly requests: number | null;
  readonly ids: readonly string[];
}

function columnsOf({ resources }: Contract, ways: ReadonlyMap<string, FirstWay>): readonly Column[] {
  const columns: { requests: number | null; ids: string[] }[] = [];
  for (const [id, { requests }] of ways) {
    const column = columns[requests - 1] ?? { requests, ids: [] };
    columns[requests - 1] = column;
    column.ids.push(id);
  }
  const others = resources.filter(({ id }) => !ways.has(id)).map(({ id }) => id);
  return others.length === 0 ? columns : [...columns, { requests: null, ids: others }];
}

/** A row for each resource: in the middle of those behind it. Those that nothing leads to come below all others. */
function rowsOf(
  behind: ReadonlyMap<string, readonly string[]>,
  begin: string,
  others: readonly string[],
): { readonly at: ReadonlyMap<string, number>; readonly count: number } {
  const at = new Map<string, number>();
  let next = 0;
  const place = (id: string): number => {
    const rows = (behind.get(id) ?? []).map(place);
    const row = rows.length === 0 ? next++ : ((rows[0] ?? 0) + (rows.at(-1) ?? 0)) / 2;
    at.set(id, row);
    return row;
  };
  place(begin);
  for (const id of others) at.set(id, next++);
  return { at, count: next };
}

/** Where each column begins: behind the widest of the one before, and the labels between them. */
function placed(
  columns: readonly Column[],
  widthOf: (id: string) => number,
  steps: readonly DrawnStep[],
): readonly number[] {
  const labels = new Map(steps.filter(({ isFirst }) => isFirst).map((step) => [step.to, labelWidth(step)]));
  let x = MARGIN;
  return columns.map(({ ids }, at) => {
    if (at > 0) {
      const before = columns[at - 1]?.ids ?? [];
      const widest = greatest(before.map(widthOf), 0);
      const longest = greatest(
        ids.map((id) => labels.get(id) ?? 0),
        0,
      );
      x += widest + AROUND_LABEL + longest;
    }
    return x;
  });
}

const labelWidth = ({ relation, when }: DrawnStep): number =>
  Math.min(
    LONGEST_LABEL,
    (relation.length + (when === null ? 0 : shortWhen(when).length + 1)) * RELATION_CHARACTER,
  );

const LONGEST_WHEN = 24;

/** A condition as it stands beside a relation. */
export function shortWhen(when: string): string {
  const short = `if ${when.replace(/^\w+ = (?=[\w, ]+$)/, '').replace(/^it is set$/, 'set')}`;
  return short.length > LONGEST_WHEN ? `${short.slice(0, LONGEST_WHEN - 1)}…` : short;
}

/** What of its path the resource above it in the tree does not say. */
function labelOf(contract: Contract, id: string): string {
  const { resources } = indexContract(contract);
  const resource = resources.get(id);
  if (resource === undefined || resource.parent === null) return contract.root === '' ? '/' : contract.root;
  const above = resources.get(resource.parent)?.path ?? '';
  return resource.path.startsWith(above) ? resource.path.slice(above.length) : resource.path;
}
