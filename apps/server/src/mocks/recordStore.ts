import { KEEP_ANSWERS_MS, type Change, type Counters, type KeptAnswer } from '@isomeros/core/engine';
import type { Json, Row } from '@isomeros/core/model';
import { LessThan, type DataSource, type EntityManager, type QueryRunner } from 'typeorm';
import { errorCode } from '../errors.js';
import { commitBlock, isRefused, saysCommitted, type Committing } from './commitBlock.js';
import { DatasetRow, KeptAnswerRow, MockRow, RecordRow } from '../database/tables.js';

const CHUNK = 500;

const COUNT = 'UPDATE datasets SET sequence = ?, counters = ? WHERE id = ? AND holder = ? AND sequence = ?';
const INSERT = 'INSERT INTO records (dataset_id, rid, data) VALUES';

/** Whether a commit took effect. `unknown`: the answer of the database was lost on the way. */
export type CommitOutcome = 'committed' | 'not-committed' | 'unknown' | 'fenced';

/** Everything that is stored of a dataset. */
interface Stored {
  readonly dataset: DatasetRow;
  readonly rows: readonly Row[];
  readonly answers: readonly KeptAnswer[];
}

/** A record as it is stored. */
export interface StoredRecord {
  readonly rid: number;
  /** As JSON. */
  readonly data: string;
}

/** What one transaction writes. */
export interface Batch {
  readonly changes: readonly Change[];
  readonly answers: readonly KeptAnswer[];
}

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
    const records = await this.database
      .getRepository(RecordRow)
      .find({ where: { datasetId: this.datasetId }, order: { rid: 'ASC' } });
    const answers = this.database.getRepository(KeptAnswerRow);
    await answers.delete({ datasetId: this.datasetId, at: LessThan(Date.now() - KEEP_ANSWERS_MS) });
    const kept = await answers.find({ where: { datasetId: this.datasetId }, order: { at: 'ASC' } });
    return { dataset, rows: records.map(fromStored), answers: kept.map(answerOf) };
  }

  /** Writes a new mock with its records, in one transaction. */
  async insertAll(
    mock: MockRow,
    dataset: Omit<DatasetRow, 'id' | 'holder'>,
    rows: readonly Row[],
    answers: readonly KeptAnswer[] = [],
    /** What else is done in the same transaction. */
    also: (manager: EntityManager) => Promise<unknown> = () => Promise.resolve(),
  ): Promise<void> {
    await this.database.transaction(async (manager) => {
      await manager.insert(MockRow, mock);
      await manager.insert(DatasetRow, { ...dataset, id: this.datasetId, holder: this.holder });
      await this.insert(manager, rows.map(toStored));
      await this.keep(manager, answers);
      await also(manager);
    });
  }

  /** Writes one batch in one transaction. It follows the write numbered `sequence`. */
  async commit(batch: Batch, counters: Counters, sequence: number): Promise<CommitOutcome> {
    const runner = this.database.createQueryRunner();
    const { datasetId, holder } = this;
    const { kept, removed } = lastOf(batch.changes);
    const { answers } = batch;
    const committing = {
      datasetId,
      holder,
      sequence,
      counters: JSON.stringify(counters),
      kept,
      removed,
      answers,
    };
    let isSent = false;
    try {
      await runner.connect();
      if (!fitsBlock(committing)) return await this.commitInSteps(runner, committing);
      const { sql, values } = commitBlock(committing);
      isSent = true;
      return saysCommitted(await runner.query(sql, values)) ? 'committed' : 'fenced';
    } catch (error) {
      if (errorCode(error) === null) throw error;
      return isSent && !isRefused(error) ? 'unknown' : 'not-committed';
    } finally {
      await runner.release().catch(() => undefined);
    }
  }

  /** The same for a batch that is too large for one statement. */
  private async commitInSteps(runner: QueryRunner, committing: Committing): Promise<CommitOutcome> {
    const { sequence, counters, kept, removed, answers } = committing;
    let isCommitting = false;
    try {
      await runner.startTransaction();
      const counted = (await runner.query(COUNT, [
        sequence + 1,
        counters,
        this.datasetId,
        this.holder,
        sequence,
      ])) as { readonly affectedRows: number };
      if (counted.affectedRows !== 1) {
        await runner.rollbackTransaction();
        return 'fenced';
      }
      await this.insert(runner.manager, kept);
      for (const rids of chunks(removed))
        await runner.query('DELETE FROM records WHERE dataset_id = ? AND rid IN (?)', [this.datasetId, rids]);
      await this.keep(runner.manager, answers);
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

  /** The number of the last committed write, to settle what a lost answer left open. */
  async readSequence(): Promise<number> {
    const { sequence } = await this.database
      .getRepository(DatasetRow)
      .findOneByOrFail({ id: this.datasetId });
    return sequence;
  }

  /**
   * Puts other records, and the model they satisfy, in the place of all there are. Kept answers stay where they
   * are told to: they are of no use to records that begin anew.
   */
  async replaceAll(
    rows: readonly Row[],
    keepsAnswers: boolean,
    dataset: Pick<DatasetRow, 'counters' | 'sequence' | 'modelText' | 'modelIdentities' | 'modelRevision'>,
  ): Promise<void> {
    await this.database.transaction(async (manager) => {
      const where = { id: this.datasetId, holder: this.holder, sequence: dataset.sequence - 1 };
      const counted = await manager.update(DatasetRow, where, dataset);
      if (counted.affected !== 1) throw new Error('Another process holds the dataset.');
      await manager.delete(RecordRow, { datasetId: this.datasetId });
      if (!keepsAnswers) await manager.delete(KeptAnswerRow, { datasetId: this.datasetId });
      await this.insert(manager, rows.map(toStored));
    });
  }

  private async keep(manager: EntityManager, answers: readonly KeptAnswer[]): Promise<void> {
    for (const part of chunks(answers))
      await manager.upsert(
        KeptAnswerRow,
        part.map(({ id, at, fingerprint, response }) => ({
          datasetId: this.datasetId,
          id,
          at,
          data: JSON.stringify({ fingerprint, response }),
        })),
        ['datasetId', 'id'],
      );
  }

  private async insert(manager: EntityManager, rows: readonly StoredRecord[]): Promise<void> {
    for (const part of chunks(rows)) {
      const values = part.flatMap(({ rid, data }) => [this.datasetId, rid, data]);
      const places = part.map(() => '(?, ?, ?)').join(', ');
      await manager.query(`${INSERT} ${places} ON DUPLICATE KEY UPDATE data = VALUES(data)`, values);
    }
  }
}

/** What is left of changes in the end: records as they are stored, and the numbers of those that go. */
function lastOf(changes: readonly Change[]): {
  readonly kept: readonly StoredRecord[];
  readonly removed: readonly number[];
} {
  const last = new Map<number, Row | null>();
  for (const change of changes) {
    if (change.kind === 'remove') last.set(change.before.rid, null);
    else last.set(change.after.rid, change.after);
  }
  const kept: StoredRecord[] = [];
  const removed: number[] = [];
  for (const [rid, row] of last) {
    if (row === null) removed.push(rid);
    else kept.push(toStored(row));
  }
  return { kept, removed };
}

/** Statements longer than this are sent in parts. */
const MOST_CHARACTERS = 4_194_304;

function fitsBlock({ kept, removed, answers }: Committing): boolean {
  const characters = kept.reduce((sum, { data }) => sum + data.length, 0);
  return kept.length + removed.length + answers.length <= CHUNK && characters <= MOST_CHARACTERS;
}

function* chunks<T>(items: readonly T[]): Generator<T[]> {
  for (let from = 0; from < items.length; from += CHUNK) yield items.slice(from, from + CHUNK);
}

const toStored = ({ rid, entity, revision, values }: Row): StoredRecord => ({
  rid,
  data: JSON.stringify({ entity, revision, values }),
});

function fromStored({ rid, data }: RecordRow): Row {
  const { entity, revision, values } = JSON.parse(data) as {
    entity: string;
    revision: number;
    values: Record<string, Json>;
  };
  return { rid, entity, revision, values };
}

function answerOf({ id, at, data }: KeptAnswerRow): KeptAnswer {
  const { fingerprint, response } = JSON.parse(data) as Pick<KeptAnswer, 'fingerprint' | 'response'>;
  return { id, at, fingerprint, response };
}
