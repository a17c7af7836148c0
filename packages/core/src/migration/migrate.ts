import type { Decision } from './decision.js';
import { withDefaults, withStored, type Counters, type ProblemDetail } from '../engine/index.js';
import {
  bareObject,
  eachInSteps,
  mapInSteps,
  runToEnd,
  sameJson,
  type Json,
  type Model,
  type Row,
  type Steps,
} from '../model/index.js';
import { openSteps, describeStep, type MigrationStep, type OpenStep } from './plan.js';
import { RecordMigrator, type MigrationRuntime } from './recordMigrator.js';

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
const MOST_ROUNDS = 12;

/**
 * Takes records from one model to another. What is only added, widened or renamed, what has a default, and what was
 * computed and is stored from now on, goes by itself; everything else follows the decisions, which are kept by the ids of steps. The rows given are not changed.
 */
export const migrate = (...of: Parameters<typeof migrateInSteps>): Migration =>
  runToEnd(migrateInSteps(...of));

/** The same in steps. */
export const migrateInSteps = (
  before: Model,
  after: Model,
  rows: Iterable<Row>,
  counters: Counters,
  decisions: ReadonlyMap<string, Decision>,
  tools: MigrationRuntime,
): Steps<Migration> => migrateBy(before, after, rows, counters, ({ id }) => decisions.get(id), tools);

/** Decides about a step that is open, with the records as they are by then; `undefined` leaves it open. */
export type Decide = (step: OpenStep, rows: ReadonlyMap<number, Row>) => Decision | undefined;

/** The same where whoever migrates is asked about each step. */
export function* migrateBy(
  before: Model,
  after: Model,
  rows: Iterable<Row>,
  counters: Counters,
  decide: Decide,
  tools: MigrationRuntime,
): Steps<Migration> {
  const originals = new Map([...rows].map((row) => [row.rid, row]));
  const filled = new Map<number, Row>();
  yield* eachInSteps('comparing', yield* withStored(before, after, [...originals.values()]), (row) => {
    filled.set(row.rid, withDefaults(after, row));
  });
  const rewriting = new RecordMigrator(after, filled, counters, tools);
  let open = yield* openSteps(before, after, rewriting.rows);
  const tried = new Set<string>();
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const decided = open.flatMap((step): [OpenStep, Decision][] => {
      const decision = decisionAbout(step, decide(step, rewriting.rows), tried.has(step.id));
      return decision === null ? [] : [[step, decision]];
    });
    // What goes is looked at last: a relationship that goes may tell where another one is to lead.
    const isLoss = ([{ about }]: [OpenStep, Decision]): boolean => about.kind === 'lost';
    let goesOn = false;
    for (const [step, decision] of [...decided.filter((one) => !isLoss(one)), ...decided.filter(isLoss)]) {
      // A value that does not fit is told once.
      if (rewriting.problems.some((problem) => isAbout(problem, step.id))) continue;
      const changed = rewriting.carryOut(step, decision);
      // Where nothing is left to convert, the rest is looked at once more.
      goesOn ||= changed || decision.do === 'convert';
      if (!changed && decision.do === 'convert') tried.add(step.id);
    }
    if (!goesOn) break;
    open = yield* openSteps(before, after, rewriting.rows);
  }
  return {
    rows: yield* mapInSteps('comparing', rewriting.rows.values(), (row) =>
      revised(originals.get(row.rid), row),
    ),
    counters: rewriting.counters,
    open: open.map(describeStep),
    problems: rewriting.problems,
  };
}

/** What is to be done about a step now: of what was converted as far as it could be, the rest. */
function decisionAbout(
  { resolutions }: OpenStep,
  decision: Decision | undefined,
  isTried: boolean,
): Decision | null {
  const meant = decision?.do === 'convert' && isTried ? decision.otherwise : decision;
  return meant !== undefined && resolutions.some((offer) => offer.do === meant.do) ? meant : null;
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
