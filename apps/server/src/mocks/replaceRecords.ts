import { randomUUID } from 'node:crypto';
import { Dataset, renumbered, AccessTokens, type Counters, type AccessToken } from '@isomeros/core/engine';
import { migrate, type Decision, type Migration } from '@isomeros/core/migration';
import type { Model, Row } from '@isomeros/core/model';
import type { ValidModel } from '../designs/designs.service.js';
import type { Derivation } from '../compute/program.js';
import type { ServedRelease } from '../designs/releases.service.js';
import { ApiProblem } from '../http/problem.js';
import type { CheckedWriteOptions } from './checkedWrite.js';
import { firstOf, seedPlanOf, serveContracts, type LoadedMock } from './loadedMock.js';
import {
  makeRecords,
  numberedAfter,
  modelColumns,
  modelColumnsOf,
  modelOf,
  type ModelColumns,
} from './createDataset.js';
import { allDerivations, sharedRows } from './releaseEndpoints.js';
import type { SnapshotState } from './snapshotStore.js';

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

/** Gives releases records of their own. */
export type Split = (releases: readonly ServedRelease[]) => Promise<void>;

/**
 * Stores other records in the place of all, and serves them from the moment they are durable. Releases that they
 * cannot be served under get those that were there.
 */
function replaceRecords(
  mock: LoadedMock,
  split: Split,
  make: (counters: Counters) => RecordReplacement,
): Promise<void> {
  return mock.records.replace(async (before, sequence) => {
    const replacement = make(before);
    const { model, columns, rows: made, counters, derivations, keepsAnswers } = replacement;
    const against = mock.releases.filter((release) => sharedRows(model, made, release) === null);
    if (against.length > 0) await split(against);
    const rows = mock.releases.reduce((all, release) => sharedRows(model, all, release) ?? all, made);
    const stored = { ...columns, counters: JSON.stringify(counters), sequence };
    const tokens = replacement.keepsTokens ? tokensOf(mock, rows) : [];
    await mock.store.replaceAll(rows, { answers: keepsAnswers, tokens }, stored);
    mock.dataset = { ...mock.dataset, ...columns };
    if (derivations !== null) serveContracts(mock, derivations);
    const answers = keepsAnswers ? mock.records.dataset.answers : undefined;
    return new Dataset(model, rows, counters, answers, new AccessTokens(tokens));
  });
}

/** The tokens that stand for records that are still there. */
function tokensOf({ records: { dataset } }: LoadedMock, rows: readonly Row[]): readonly AccessToken[] {
  const tokens = [...dataset.tokens.all()];
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

/** Puts fresh seed records in the place of all, under the newest model of the design. */
export async function reset(
  mock: LoadedMock,
  newest: NewestModel,
  { most, split, watching }: CheckedWriteOptions,
): Promise<void> {
  const { derivations, columns } = newestOf(mock, newest);
  const derivation = firstOf(derivations);
  const { model } = derivation;
  // Requests go on meanwhile; only what is made is put in place at once.
  const made = await makeRecords(derivation, mock.dataset.seed, seedPlanOf(mock), most, watching);
  await replaceRecords(mock, split, (before) => ({
    model,
    columns,
    ...numberedAfter(model, made, before),
    derivations,
    ...BEGUN_ANEW,
  }));
  mock.shortfalls = made.shortfalls;
  mock.waiting = [];
}

/** Serves the newest model, unless records would lose something or contradict it: then it says what waits. */
export async function adoptModel(mock: LoadedMock, newest: NewestModel, split: Split): Promise<void> {
  await mock.records.settled();
  const migrated = migrationOf(mock, newest, NOTHING_DECIDED);
  mock.waiting = migrated.open;
  if (migrated.open.length === 0) await migrateRecords(mock, newest, NOTHING_DECIDED, split);
}

export const NOTHING_DECIDED: ReadonlyMap<string, Decision> = new Map();

/** What becomes of the records of a mock under the newest model, as things are decided. */
export function migrationOf(
  { records: { dataset } }: LoadedMock,
  { derivations }: NewestModel,
  decisions: ReadonlyMap<string, Decision>,
): Migration {
  const { model } = firstOf(derivations);
  const tools = { now: Date.now(), uuid: randomUUID };
  return migrate(dataset.model, model, dataset.everything(), dataset.counters, decisions, tools);
}

/** Stores the records as they are under the newest model, and serves it. Nothing may be left undecided. */
export async function migrateRecords(
  mock: LoadedMock,
  newest: NewestModel,
  decisions: ReadonlyMap<string, Decision>,
  split: Split,
): Promise<void> {
  await replaceRecords(mock, split, () => {
    const migrated = migrationOf(mock, newest, decisions);
    const [left] = migrated.open;
    if (left !== undefined)
      throw new ApiProblem('conflict', `A record was written meanwhile: ${left.message}`);
    const { rows, counters } = migrated;
    const { derivations } = newest;
    const { model } = firstOf(derivations);
    const columns = modelColumns(newest);
    return { model, columns, rows, counters, derivations, keepsAnswers: true, keepsTokens: true };
  });
  mock.waiting = [];
}

/** Puts the records of a snapshot in the place of all, where the model that is served allows them. */
export async function restore(mock: LoadedMock, state: SnapshotState, split: Split): Promise<void> {
  const then = modelOf(state.model);
  const { model } = mock.records.dataset;
  const tools = { now: Date.now(), uuid: randomUUID };
  const none = { rid: 0, attributes: {} };
  const migrated = migrate(then, model, state.rows, none, NOTHING_DECIDED, tools);
  if (migrated.open.length > 0)
    throw new ApiProblem(
      'conflict',
      `The model has changed since: ${migrated.open.map(({ message }) => message).join(' ')}`,
    );
  await replaceRecords(mock, split, (before) => {
    const { rows, last } = renumbered(model, migrated.rows, before.rid);
    const columns = modelColumnsOf(mock.dataset);
    return {
      model,
      columns,
      rows,
      counters: { ...before, rid: last },
      derivations: null,
      keepsAnswers: true,
      // Their records are others by number, whoever they were then.
      keepsTokens: false,
    };
  });
}
