import { withDefaults, type Counters, type ProblemDetail } from '../engine/index.js';
import { bareObject, sameJson, type Json, type Model, type Row } from '../model/index.js';
import { openSteps, toldStep, type MigrationStep } from './plan.js';
import { Rewriting, type Tools } from './rewriting.js';

/** What is to be done about a step. */
export type Decision =
  { readonly do: 'fill'; readonly value: Json } | { readonly do: 'convert' } | { readonly do: 'drop' };

export interface Migration {
  /** The records as they are then; with open steps they are not ready to be served. */
  readonly rows: readonly Row[];
  readonly counters: Counters;
  /** What nobody has decided, or what a decision has not settled. Empty when all records satisfy the model. */
  readonly open: readonly MigrationStep[];
  /** Values to fill in that do not fit; `pointer` begins with the id of the step. */
  readonly problems: readonly ProblemDetail[];
}

/** One decision may bring another step up: removed records are pointed at, filled values are taken. */
const MOST_ROUNDS = 8;

/**
 * Takes records from one model to another. What is only added, widened or renamed, and what has a default, goes by
 * itself; everything else follows the decisions, which are kept by the ids of steps. The rows given are not changed.
 */
export function migrate(
  before: Model,
  after: Model,
  rows: Iterable<Row>,
  counters: Counters,
  decisions: ReadonlyMap<string, Decision>,
  tools: Tools,
): Migration {
  const originals = new Map([...rows].map((row) => [row.rid, row]));
  const filled = new Map([...originals].map(([rid, row]) => [rid, withDefaults(after, row)] as const));
  const rewriting = new Rewriting(after, filled, counters, tools);
  let open = openSteps(before, after, rewriting.rows);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const decided = open.filter(({ id, offers }) => {
      const decision = decisions.get(id);
      return decision !== undefined && offers.some((offer) => offer.do === decision.do);
    });
    // What goes is looked at last: a relationship that goes may tell where another one is to lead.
    const inOrder = [
      ...decided.filter(({ about }) => about.kind !== 'lost'),
      ...decided.filter(({ about }) => about.kind === 'lost'),
    ];
    let changed = false;
    for (const step of inOrder) {
      const decision = decisions.get(step.id);
      // A value that does not fit is told once.
      const isWrong = rewriting.problems.some((problem) => isAbout(problem, step.id));
      if (decision !== undefined && !isWrong) changed = rewriting.carryOut(step, decision) || changed;
    }
    if (!changed) break;
    open = openSteps(before, after, rewriting.rows);
  }
  return {
    rows: [...rewriting.rows.values()].map((row) => revised(originals.get(row.rid), row)),
    counters: rewriting.counters,
    open: open.map(toldStep),
    problems: rewriting.problems,
  };
}

const isAbout = (problem: ProblemDetail, step: string): boolean =>
  'pointer' in problem && (problem.pointer === `/${step}` || problem.pointer.startsWith(`/${step}/`));

/** A record that changed counts one revision further, however often it was rewritten. */
function revised(original: Row | undefined, row: Row): Row {
  if (original === undefined) return row;
  if (sameJson(original.values, row.values)) return original;
  const values: Record<string, Json> = Object.assign(bareObject(), row.values);
  return { ...original, values, revision: original.revision + 1 };
}
