import { randomUUID } from 'node:crypto';
import {
  AccessTokens,
  Dataset,
  IdempotentResponses,
  renumbered,
  type AccessToken,
  type Counters,
} from '@isomeros/core/engine';
import { migrateInSteps, type Decision, type Migration } from '@isomeros/core/migration';
import type { Model, Row } from '@isomeros/core/model';
import type { ValidModel } from '../designs/modelColumns.js';
import type { Derivation } from '../compute/program.js';
import type { ServedRelease } from '../designs/releases.service.js';
import { ApiProblem } from '../http/problem.js';
import { inSlices, type Watching } from '../slices.js';
import type { LargeWriteOptions } from './checkedWrite.js';
import { firstOf, seedPlanOf, serveContracts, type LoadedMock } from './loadedMock.js';
import { modelColumns, modelColumnsOf, modelOf, type ModelColumns } from '../designs/modelColumns.js';
import { freshRecords, numberedAfter } from './freshRecords.js';
import { allDerivations, divideReleases } from './releaseEndpoints.js';
import type { RecordState } from '../designs/recordState.js';

/** What takes the place of all records of a mock. */
interface RecordReplacement {
  readonly model: Model;
  readonly columns: ModelColumns;
  readonly rows: readonly Row[];
  readonly counters: Counters;
  /** What is served from then on; `null`: what was served before. */
  readonly derivations: readonly Derivation[] | null;
  readonly keepsAnswers: boolean;
  /** Whether tokens go on to stand for the records they stood for. */
  readonly keepsTokens: boolean;
}

/** The newest sound model of a design, and what it implies under each arrangement that a mock serves. */
export interface NewestModel extends ValidModel {
  readonly derivations: readonly Derivation[];
}

/**
 * Stores other records in the place of all, and serves them from the moment they are durable: reads go on meanwhile,
 * writes wait. Releases that they cannot be served under get those that were there. Nothing is replaced where `make`
 * comes to `null`.
 */
async function replaceRecords(
  mock: LoadedMock,
  { split, watching }: LargeWriteOptions,
  make: (counters: Counters) => Promise<RecordReplacement | null>,
): Promise<void> {
  for (;;) {
    const apart = await mock.records.exclusively(async (): Promise<readonly ServedRelease[]> => {
      mock.records.checkWritable();
      const { dataset: before, writes } = mock.records;
      const replacement = await make(before.counters);
      if (replacement === null) return [];
      const { model, columns, counters, derivations, keepsAnswers, keepsTokens } = replacement;
      const divided = await inSlices(divideReleases(model, replacement.rows, mock.releases), watching);
      if (divided.apart.length > 0) return divided.apart;
      const rows = divided.shared;
      const tokens = keepsTokens ? tokensOf(before, rows) : [];
      const answers = keepsAnswers ? before.answers : new IdempotentResponses();
      const after = await inSlices(
        Dataset.filled(model, rows, counters, answers, new AccessTokens(tokens)),
        watching,
      );
      const stored = { ...columns, counters: JSON.stringify(counters), sequence: writes + 1 };
      await mock.store.replaceAll(rows, { answers: keepsAnswers, tokens }, stored, watching);
      mock.dataset = { ...mock.dataset, ...columns };
      if (derivations !== null) serveContracts(mock, derivations);
      mock.records.replace(after);
      return [];
    });
    if (apart.length === 0) return;
    await split(apart);
  }
}

/** The tokens that stand for records that are still there. */
function tokensOf({ tokens: issued }: Dataset, rows: readonly Row[]): readonly AccessToken[] {
  const tokens = [...issued.all()];
  if (tokens.length === 0) return tokens;
  const kept = new Set(rows.map(({ rid }) => rid));
  return tokens.filter(({ rid }) => kept.has(rid));
}

/** What a mock serves after a reset: the newest of its arrangements, or, where it has none, its release as ever. */
export function newestOf(
  { releases, dataset }: LoadedMock,
  newest: NewestModel,
): { readonly derivations: readonly Derivation[]; readonly columns: ModelColumns } {
  return newest.derivations.length === 0
    ? { derivations: allDerivations([], releases), columns: modelColumnsOf(dataset) }
    : { derivations: newest.derivations, columns: modelColumns(newest) };
}

const BEGUN_ANEW = { keepsAnswers: false, keepsTokens: false };

/** Puts fresh records in the place of all, under the newest model of the design. */
export async function reset(
  mock: LoadedMock,
  newest: NewestModel,
  /** The initial records of the design, where the mock begins with them. */
  initial: RecordState | null,
  options: LargeWriteOptions,
): Promise<void> {
  const { most, watching } = options;
  const { derivations, columns } = newestOf(mock, newest);
  const { model } = firstOf(derivations);
  const source = { seed: mock.dataset.seed, plan: seedPlanOf(mock), initial };
  // Even writes go on meanwhile; only what is made is put in place at once.
  const made = await freshRecords(model, source, most, watching);
  await replaceRecords(mock, options, async (before) => ({
    model,
    columns,
    ...(await numberedAfter(model, made, before, watching)),
    derivations,
    ...BEGUN_ANEW,
  }));
  mock.shortfalls = made.shortfalls;
  mock.adjustments = made.adjustments;
  mock.waiting = [];
}

/** Serves the newest model, unless records would lose something or contradict it: then it says what waits. */
export const adoptModel = (
  mock: LoadedMock,
  newest: NewestModel,
  options: LargeWriteOptions,
): Promise<void> =>
  migrateRecords(mock, newest, NOTHING_DECIDED, options, ({ open }) => Promise.resolve(open.length === 0));

export const NOTHING_DECIDED: ReadonlyMap<string, Decision> = new Map();

/** What becomes of the records of a mock under the newest model, as things are decided. */
export function migrationOf(
  { records: { dataset } }: LoadedMock,
  { derivations }: NewestModel,
  decisions: ReadonlyMap<string, Decision>,
  watching: Watching,
): Promise<Migration> {
  const { model } = firstOf(derivations);
  const tools = { now: Date.now(), uuid: randomUUID };
  return inSlices(
    migrateInSteps(dataset.model, model, dataset.everything(), dataset.counters, decisions, tools),
    watching,
  );
}

/**
 * Stores the records as they are under the newest model, and serves it, where `isWanted` is true of what becomes of
 * them. What is left open waits.
 */
export async function migrateRecords(
  mock: LoadedMock,
  newest: NewestModel,
  decisions: ReadonlyMap<string, Decision>,
  options: LargeWriteOptions,
  isWanted: (migrated: Migration) => Promise<boolean>,
): Promise<void> {
  let open: Migration['open'] = [];
  await replaceRecords(mock, options, async () => {
    const migrated = await migrationOf(mock, newest, decisions, options.watching);
    open = migrated.open;
    if (!(await isWanted(migrated))) return null;
    const { rows, counters } = migrated;
    const { derivations } = newest;
    const { model } = firstOf(derivations);
    const columns = modelColumns(newest);
    return { model, columns, rows, counters, derivations, keepsAnswers: true, keepsTokens: true };
  });
  mock.waiting = open;
}

/** Puts the records of a snapshot in the place of all, where the model that is served allows them. */
export async function restore(
  mock: LoadedMock,
  state: RecordState,
  options: LargeWriteOptions,
): Promise<void> {
  const { watching } = options;
  const then = modelOf(state.model);
  const tools = { now: Date.now(), uuid: randomUUID };
  const none = { rid: 0, attributes: {} };
  await replaceRecords(mock, options, async (before) => {
    const { model } = mock.records.dataset;
    const steps = migrateInSteps(then, model, state.rows, none, NOTHING_DECIDED, tools);
    const migrated = await inSlices(steps, watching);
    if (migrated.open.length > 0)
      throw new ApiProblem(
        'conflict',
        `The model has changed since: ${migrated.open.map(({ message }) => message).join(' ')}`,
      );
    const { rows, last } = await inSlices(renumbered(model, migrated.rows, before.rid), watching);
    return {
      model,
      columns: modelColumnsOf(mock.dataset),
      rows,
      counters: { ...before, rid: last },
      derivations: null,
      keepsAnswers: true,
      // Their records are others by number, whoever they were then.
      keepsTokens: false,
    };
  });
}
