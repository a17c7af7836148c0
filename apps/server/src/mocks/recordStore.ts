import type { StoredRecord } from './storedRecord.js';
import {
  KEEP_RESPONSES_MS,
  type RowChange,
  type Counters,
  type IdempotentResponse,
  type LeftBeside,
  type AccessToken,
} from '@isomeros/core/engine';
import { eachInSteps, type Json, type Row, type Steps } from '@isomeros/core/model';
import { LessThan, type DataSource, type EntityManager, type QueryRunner } from 'typeorm';
import { errorCode } from '../errors.js';
import { inSlices, type Watching } from '../slices.js';
import {
  commitBlock,
  countOn,
  insertAnswers,
  insertRecords,
  insertTokens,
  isRefused,
  saysCommitted,
  writesOf,
  type Committing,
  type SqlStatement,
} from './commitBlock.js';
import {
  DatasetRow,
  EndpointRow,
  IdempotentResponseRow,
  MockRow,
  RecordRow,
  TokenRow,
} from '../database/tables.js';

/** Whether a commit took effect. `unknown`: the answer of the database was lost on the way. */
export type CommitOutcome = 'committed' | 'not-committed' | 'unknown' | 'fenced';

/** Everything that is stored of a dataset. */
export interface Stored {
  readonly dataset: DatasetRow;
  readonly rows: readonly Row[];
  readonly answers: readonly IdempotentResponse[];
  readonly tokens: readonly AccessToken[];
}

/** A record as the database answers it: its numbers may be larger than fit, so it may give them as text. */
interface ReadRecord extends Omit<StoredRecord, 'rid'> {
  readonly rid: number | string;
}

/** What one transaction writes. */
export interface Batch extends LeftBeside {
  readonly changes: readonly RowChange[];
}

/** What else a new dataset begins with. */
export type BegunWith = Pick<Stored, 'answers' | 'tokens'>;

const NOTHING: BegunWith = { answers: [], tokens: [] };

/** Reads and writes the records of one dataset. Only this file knows how they are stored. */
export class RecordStore {
  constructor(
    private readonly database: DataSource,
    readonly datasetId: string,
    /** This process; commits of any other holder fail from the moment it takes over. */
    private readonly holder: string,
  ) {}

  /** Takes the dataset over from whoever held it before, and reads it. */
  async open(): Promise<Stored> {
    const datasets = this.database.getRepository(DatasetRow);
    await datasets.update({ id: this.datasetId }, { holder: this.holder });
    const dataset = await datasets.findOneByOrFail({ id: this.datasetId });
    // There may be a million, so they are not made into entities first.
    const records = await this.database.query<readonly ReadRecord[]>(
      'SELECT rid, data FROM records WHERE dataset_id = ? ORDER BY rid',
      [this.datasetId],
    );
    const answers = this.database.getRepository(IdempotentResponseRow);
    await answers.delete({ datasetId: this.datasetId, at: LessThan(Date.now() - KEEP_RESPONSES_MS) });
    const kept = await answers.find({ where: { datasetId: this.datasetId }, order: { at: 'ASC' } });
    const tokens = this.database.getRepository(TokenRow);
    await tokens.delete({ datasetId: this.datasetId, ends: LessThan(Date.now()) });
    const issued = await tokens.find({ where: { datasetId: this.datasetId }, order: { number: 'ASC' } });
    return {
      dataset,
      rows: records.map(fromStored),
      answers: kept.map(answerOf),
      tokens: issued.map(({ data }) => JSON.parse(data) as AccessToken),
    };
  }

  /** Writes a new mock with its records, in one transaction. */
  async insertAll(
    mock: MockRow,
    endpoints: readonly EndpointRow[],
    dataset: Omit<DatasetRow, 'id' | 'holder'>,
    rows: readonly Row[],
    { answers, tokens }: BegunWith = NOTHING,
    /** What else is done in the same transaction. */
    also: (manager: EntityManager) => Promise<unknown> = () => Promise.resolve(),
  ): Promise<void> {
    await this.database.transaction(async (manager) => {
      await manager.insert(MockRow, mock);
      await manager.insert(EndpointRow, [...endpoints]);
      await manager.insert(DatasetRow, { ...dataset, id: this.datasetId, holder: this.holder });
      await run(manager, recordStatements(this.datasetId, rows));
      await run(manager, insertAnswers(this.datasetId, answers));
      await run(manager, insertTokens(this.datasetId, tokens));
      await also(manager);
    });
  }

  /**
   * Writes one batch in one transaction. It follows the write numbered `sequence`. A signal ends one of many records
   * before it is committed: nothing of it is written, and its reason is thrown.
   */
  async commit(
    batch: Batch,
    counters: Counters,
    sequence: number,
    watching: Watching = {},
  ): Promise<CommitOutcome> {
    const runner = this.database.createQueryRunner();
    const { datasetId, holder } = this;
    const { rows, removed } = await inSlices(lastOf(batch.changes), watching);
    const { answers, tokens } = batch;
    const numbers = JSON.stringify(counters);
    const base = { datasetId, holder, sequence, counters: numbers, removed, answers, tokens };
    let isSent = false;
    try {
      await runner.connect();
      const isLarge = rows.length + removed.length > MOST_AT_ONCE;
      const block = isLarge ? null : commitBlock({ ...base, kept: rows.map(toStored) });
      if (block === null) return await commitInSteps(runner, base, rows, watching);
      isSent = true;
      return saysCommitted(await runner.query(block.sql, [...block.values])) ? 'committed' : 'fenced';
    } catch (error) {
      if (errorCode(error) === null) throw error;
      return isSent && !isRefused(error) ? 'unknown' : 'not-committed';
    } finally {
      await runner.release().catch(() => undefined);
    }
  }

  /** The number of the last committed write, to settle what a lost answer left open. */
  async readSequence(): Promise<number> {
    const { sequence } = await this.database
      .getRepository(DatasetRow)
      .findOneByOrFail({ id: this.datasetId });
    return sequence;
  }

  /**
   * Puts other records, and the model they satisfy, in the place of all there are. Kept answers stay where they
   * are told to: they are of no use to records that begin anew. So do tokens, which stand for records.
   */
  async replaceAll(
    rows: readonly Row[],
    kept: { readonly answers: boolean; readonly tokens: readonly AccessToken[] },
    dataset: Pick<DatasetRow, 'counters' | 'sequence' | 'modelText' | 'modelIdentities' | 'modelRevision'>,
    watching: Watching,
  ): Promise<void> {
    await this.database.transaction(async (manager) => {
      const where = { id: this.datasetId, holder: this.holder, sequence: dataset.sequence - 1 };
      const counted = await manager.update(DatasetRow, where, dataset);
      if (counted.affected !== 1) throw new Error('Another process holds the dataset.');
      await manager.delete(RecordRow, { datasetId: this.datasetId });
      if (!kept.answers) await manager.delete(IdempotentResponseRow, { datasetId: this.datasetId });
      await manager.delete(TokenRow, { datasetId: this.datasetId });
      await run(manager, insertTokens(this.datasetId, kept.tokens));
      await run(manager, recordStatements(this.datasetId, rows), watching);
    });
  }
}

/** So many records are made into text at once. */
const MOST_AT_ONCE = 2_000;

/** What writes records, made a part at a time: while the database takes one, others go on. */
function* recordStatements(datasetId: string, rows: readonly Row[]): Iterable<SqlStatement> {
  for (let from = 0; from < rows.length; from += MOST_AT_ONCE)
    yield* insertRecords(datasetId, rows.slice(from, from + MOST_AT_ONCE).map(toStored));
}

async function run(
  manager: Pick<EntityManager, 'query'>,
  statements: Iterable<SqlStatement>,
  { onProgress, signal }: Watching = {},
): Promise<void> {
  let count = 0;
  for (const { sql, values, records } of statements) {
    signal?.throwIfAborted();
    await manager.query(sql, [...values]);
    count += records;
    onProgress?.({ doing: 'writing', count });
  }
}

/** Commits a batch that is too long for one statement. */
async function commitInSteps(
  runner: QueryRunner,
  base: Omit<Committing, 'kept'>,
  rows: readonly Row[],
  watching: Watching,
): Promise<CommitOutcome> {
  let isCommitting = false;
  try {
    await runner.startTransaction();
    const { sql, values } = countOn(base);
    const counted = (await runner.query(sql, [...values])) as { readonly affectedRows: number };
    if (counted.affectedRows !== 1) {
      await runner.rollbackTransaction();
      return 'fenced';
    }
    const statements = [recordStatements(base.datasetId, rows), writesOf({ ...base, kept: [] })];
    for (const some of statements) await run(runner.manager, some, watching);
    isCommitting = true;
    await runner.commitTransaction();
    return 'committed';
  } catch (error) {
    if (isCommitting) return 'unknown';
    if (runner.isTransactionActive) await runner.rollbackTransaction().catch(() => undefined);
    if (errorCode(error) !== null) return 'not-committed';
    throw error;
  }
}

/** What is left of changes in the end: records, and the numbers of those that go. */
function* lastOf(changes: readonly RowChange[]): Steps<{
  readonly rows: readonly Row[];
  readonly removed: readonly number[];
}> {
  const last = new Map<number, Row | null>();
  yield* eachInSteps('writing', changes, (change) => {
    if (change.kind === 'remove') last.set(change.before.rid, null);
    else last.set(change.after.rid, change.after);
  });
  const rows: Row[] = [];
  const removed: number[] = [];
  yield* eachInSteps('writing', last, ([rid, row]) => {
    if (row === null) removed.push(rid);
    else rows.push(row);
  });
  return { rows, removed };
}

const toStored = ({ rid, entity, revision, values }: Row): StoredRecord => ({
  rid,
  data: JSON.stringify({ entity, revision, values }),
});

function fromStored({ rid, data }: ReadRecord): Row {
  const { entity, revision, values } = JSON.parse(data) as {
    entity: string;
    revision: number;
    values: Record<string, Json>;
  };
  return { rid: Number(rid), entity, revision, values };
}

function answerOf({ id, at, data }: IdempotentResponseRow): IdempotentResponse {
  const { fingerprint, response } = JSON.parse(data) as Pick<IdempotentResponse, 'fingerprint' | 'response'>;
  return { id, at, fingerprint, response };
}
