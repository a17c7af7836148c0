import type { Row } from '@isomeros/core/model';
import type { DataSource } from 'typeorm';
import { packJson, unpackJson } from '../database/compressedJson.js';
import { SnapshotRow } from '../database/tables.js';
import { ApiProblem } from '../http/problem.js';
import type { ModelColumns } from './createDataset.js';

/** More of them a mock does not keep. */
const MOST_SNAPSHOTS = 50;

export interface SnapshotView {
  readonly name: string;
  readonly takenAt: string;
  readonly records: number;
}

/** The records of a mock at a moment, and the model they satisfied then. */
export interface SnapshotState {
  readonly model: ModelColumns;
  readonly rows: readonly Row[];
}

/** Keeps snapshots of one mock. */
export class Snapshots {
  constructor(
    private readonly database: DataSource,
    private readonly datasetId: string,
  ) {}

  async list(): Promise<readonly SnapshotView[]> {
    const rows = await this.database.getRepository(SnapshotRow).find({
      select: { name: true, takenAt: true, records: true },
      where: { datasetId: this.datasetId },
      order: { takenAt: 'DESC', name: 'ASC' },
    });
    return rows.map(viewOf);
  }

  /** Takes one; another of the same name is replaced. Returns whether there was none. */
  async take(name: string, state: SnapshotState): Promise<{ view: SnapshotView; isNew: boolean }> {
    const kept = this.database.getRepository(SnapshotRow);
    const where = { datasetId: this.datasetId };
    const isNew = !(await kept.existsBy({ ...where, name }));
    if (isNew && (await kept.countBy(where)) >= MOST_SNAPSHOTS)
      throw new ApiProblem('conflict', `A mock keeps at most ${MOST_SNAPSHOTS} snapshots; remove one first.`);
    const row: SnapshotRow = {
      ...where,
      name,
      takenAt: new Date(),
      records: state.rows.length,
      state: await packJson(state),
    };
    await kept.save(row);
    return { view: viewOf(row), isNew };
  }

  async read(name: string): Promise<SnapshotState> {
    const row = await this.database.getRepository(SnapshotRow).findOneBy({ datasetId: this.datasetId, name });
    if (row === null) throw new ApiProblem('not-found', `The mock has no snapshot ${name}.`);
    return unpackJson<SnapshotState>(row.state);
  }

  async remove(name: string): Promise<void> {
    const gone = await this.database.getRepository(SnapshotRow).delete({ datasetId: this.datasetId, name });
    if (gone.affected !== 1) throw new ApiProblem('not-found', `The mock has no snapshot ${name}.`);
  }
}

const viewOf = ({ name, takenAt, records }: Omit<SnapshotRow, 'state'>): SnapshotView => ({
  name,
  takenAt: takenAt.toISOString(),
  records,
});
