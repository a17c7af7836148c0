import type { InitialRecords } from '@isomeros/api';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository, type EntityManager } from 'typeorm';
import { uncompressRecords, type CompressedRecords } from '../compute/compressedRecords.js';
import type { CarriedRecords, StoredCarriedRecords } from '../compute/designFiles.js';
import { InitialRecordsRow, type DesignRow } from '../database/tables.js';
import { ApiProblem } from '../http/problem.js';
import { modelColumns, storedModel, validModelOf, type ModelColumns } from './modelColumns.js';
import type { RecordState } from './recordState.js';

/** The records that mocks of a design begin with, at the model they fitted. */
@Injectable()
export class InitialRecordsService {
  constructor(@InjectRepository(InitialRecordsRow) private readonly stored: Repository<InitialRecordsRow>) {}

  /** How many there are, by the ids of designs that have some. */
  async counts(designIds: readonly string[]): Promise<ReadonlyMap<string, number>> {
    const rows = await this.stored.find({
      select: { designId: true, records: true },
      where: { designId: In([...designIds]) },
    });
    return new Map(rows.map(({ designId, records }) => [designId, records]));
  }

  async summary(designId: string): Promise<InitialRecords> {
    const row = await this.stored.findOne({
      select: { designId: true, keptAt: true, records: true, types: true },
      where: { designId },
    });
    return row === null
      ? { records: 0, keptAt: null, types: [] }
      : {
          records: row.records,
          keptAt: row.keptAt.toISOString(),
          types: JSON.parse(row.types) as InitialRecords['types'],
        };
  }

  /** `null` where a design has none. */
  async read(designId: string): Promise<RecordState | null> {
    const row = await this.stored.findOneBy({ designId });
    if (row === null) return null;
    const model = JSON.parse(row.model) as ModelColumns;
    return { model, rows: await uncompressRecords(row.rows) };
  }

  /** As a design file is written of them; `null` where a design has none. */
  async carried(designId: string): Promise<StoredCarriedRecords | null> {
    const row = await this.stored.findOneBy({ designId });
    if (row === null) return null;
    const { text: model, identities, choices } = storedModel(JSON.parse(row.model) as ModelColumns);
    return { fits: { model, identities, choices }, compressed: row.rows };
  }

  /** What is stored of records that fit a design as it begins; nothing where there are none. */
  rowFor(design: DesignRow, records: CompressedRecords | null): InitialRecordsRow | null {
    return records === null ? null : this.rowOf(design.id, modelColumns(validModelOf(design)), records);
  }

  /** The same of records that a design file carries. */
  carriedRow(
    designId: string,
    { fits: { model: text, identities, choices }, records }: CarriedRecords,
  ): InitialRecordsRow | null {
    return this.rowOf(designId, modelColumns({ text, identities, choices, revision: 1 }), records);
  }

  private rowOf(
    designId: string,
    model: ModelColumns,
    { records, types, compressed }: CompressedRecords,
  ): InitialRecordsRow | null {
    if (records === 0) return null;
    return {
      designId,
      keptAt: new Date(),
      records,
      types: JSON.stringify(types),
      model: JSON.stringify(model),
      rows: Buffer.from(compressed),
    };
  }

  /** Keeps them in the transaction that begins the design. */
  async keep(manager: EntityManager, row: InitialRecordsRow | null): Promise<void> {
    if (row !== null) await manager.save(InitialRecordsRow, row);
  }

  /** Those of one design, for another one. */
  async copyOf(from: string, to: string): Promise<InitialRecordsRow | null> {
    const row = await this.stored.findOneBy({ designId: from });
    return row === null ? null : { ...row, designId: to };
  }

  async remove(designId: string): Promise<void> {
    const removed = await this.stored.delete({ designId });
    if (removed.affected !== 1) throw new ApiProblem('not-found', 'The design has no initial records.');
  }
}
