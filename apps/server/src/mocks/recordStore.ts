import type { Change, Counters } from '@isomeros/core/engine';
import type { Json, Row } from '@isomeros/core/model';
import type { DataSource, EntityManager } from 'typeorm';
import { errorCode } from '../errors.js';
import { DatasetRow, RecordRow } from '../database/tables.js';

const CHUNK = 500;

/** Whether a commit took effect. `unknown`: the answer of the database was lost on the way. */
export type CommitOutcome = 'committed' | 'not-committed' | 'unknown' | 'fenced';

/** Reads and writes the records of one dataset. Only this file knows how they are stored. */
export class RecordStore {
  constructor(
    private readonly database: DataSource,
    readonly datasetId: string,
    /** This process; commits of any other holder fail from the moment it takes over. */
    private readonly holder: string,
  ) {}

  /** Takes the dataset over from whoever held it before, and reads it. */
  async open(): Promise<{ readonly dataset: DatasetRow; readonly rows: readonly Row[] }> {
    const datasets = this.database.getRepository(DatasetRow);
    await datasets.update({ id: this.datasetId }, { holder: this.holder });
    const dataset = await datasets.findOneByOrFail({ id: this.datasetId });
    const records = await this.database
      .getRepository(RecordRow)
      .find({ where: { datasetId: this.datasetId }, order: { rid: 'ASC' } });
    return { dataset, rows: records.map(fromStored) };
  }

  /** Writes one batch in one transaction. It follows the write numbered `sequence`. */
  async commit(changes: readonly Change[], counters: Counters, sequence: number): Promise<CommitOutcome> {
    const runner = this.database.createQueryRunner();
    let committing = false;
    try {
      await runner.connect();
      await runner.startTransaction();
      const counted = await runner.manager.update(
        DatasetRow,
        { id: this.datasetId, holder: this.holder, sequence },
        { sequence: sequence + 1, counters: JSON.stringify(counters) },
      );
      if (counted.affected !== 1) {
        await runner.rollbackTransaction();
        return 'fenced';
      }
      await this.write(runner.manager, changes);
      committing = true;
      await runner.commitTransaction();
      return 'committed';
    } catch (error) {
      if (committing) return 'unknown';
      if (runner.isTransactionActive) await runner.rollbackTransaction().catch(() => undefined);
      if (errorCode(error) !== null) return 'not-committed';
      throw error;
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

  /** Puts other records, and the model they satisfy, in the place of all there are. */
  async replaceAll(
    rows: readonly Row[],
    dataset: Pick<DatasetRow, 'counters' | 'sequence' | 'modelText' | 'modelIdentities' | 'modelRevision'>,
  ): Promise<void> {
    await this.database.transaction(async (manager) => {
      const where = { id: this.datasetId, holder: this.holder, sequence: dataset.sequence - 1 };
      const counted = await manager.update(DatasetRow, where, dataset);
      if (counted.affected !== 1) throw new Error('Another process holds the dataset.');
      await manager.delete(RecordRow, { datasetId: this.datasetId });
      await this.insert(manager, rows);
    });
  }

  private async write(manager: EntityManager, changes: readonly Change[]): Promise<void> {
    const last = new Map<number, Row | null>();
    for (const change of changes) {
      if (change.kind === 'remove') last.set(change.before.rid, null);
      else last.set(change.after.rid, change.after);
    }
    const kept = [...last.values()].filter((row) => row !== null);
    const removed = [...last].flatMap(([rid, row]) => (row === null ? [rid] : []));
    await this.insert(manager, kept);
    for (const rids of chunks(removed)) {
      await manager
        .createQueryBuilder()
        .delete()
        .from(RecordRow)
        .where('datasetId = :id AND rid IN (:...rids)', { id: this.datasetId, rids })
        .execute();
    }
  }

  private async insert(manager: EntityManager, rows: readonly Row[]): Promise<void> {
    for (const part of chunks(rows)) {
      await manager.upsert(
        RecordRow,
        part.map((row) => toStored(this.datasetId, row)),
        ['datasetId', 'rid'],
      );
    }
  }
}

function* chunks<T>(items: readonly T[]): Generator<T[]> {
  for (let from = 0; from < items.length; from += CHUNK) yield items.slice(from, from + CHUNK);
}

export const toStored = (datasetId: string, { rid, entity, revision, values }: Row): RecordRow => ({
  datasetId,
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
