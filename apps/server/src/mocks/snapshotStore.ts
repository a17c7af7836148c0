import type { Snapshot } from '@isomeros/api';
import { mapInSteps, type Row } from '@isomeros/core/model';
import type { Repository } from 'typeorm';
import { packText, unpackJson } from '../database/compressedJson.js';
import type { SnapshotRow } from '../database/tables.js';
import { ApiProblem } from '../http/problem.js';
import { inSlices, type Watching } from '../slices.js';
import type { ModelColumns } from './createDataset.js';

/** More of them a mock does not keep. */
const MOST_SNAPSHOTS = 50;

/** The records of a mock at a moment, and the model they satisfied then. */
export interface SnapshotState {
  readonly model: ModelColumns;
  readonly rows: readonly Row[];
}

/** Keeps snapshots of one mock. */
export class SnapshotStore {
  constructor(
    private readonly rows: Repository<SnapshotRow>,
    private readonly datasetId: string,
  ) {}

  async list(): Promise<readonly Snapshot[]> {
    const rows = await this.rows.find({
      select: { name: true, takenAt: true, records: true },
      where: { datasetId: this.datasetId },
      order: { takenAt: 'DESC', name: 'ASC' },
    });
    return rows.map(viewOf);
  }

  /** Takes one; another of the same name is replaced. Returns whether there was none. The signal ends it before. */
  async take(
    name: string,
    state: SnapshotState,
    watching: Watching,
  ): Promise<{ view: Snapshot; isNew: boolean }> {
    const where = { datasetId: this.datasetId };
    const isNew = !(await this.rows.existsBy({ ...where, name }));
    if (isNew && (await this.rows.countBy(where)) >= MOST_SNAPSHOTS)
      throw new ApiProblem('conflict', `A mock keeps at most ${MOST_SNAPSHOTS} snapshots; remove one first.`);
    const row: SnapshotRow = {
      ...where,
      name,
      takenAt: new Date(),
      records: state.rows.length,
      state: await packed(state, watching),
    };
    watching.signal?.throwIfAborted();
    await this.rows.save(row);
    return { view: viewOf(row), isNew };
  }

  async read(name: string): Promise<SnapshotState> {
    const row = await this.rows.findOneBy({ datasetId: this.datasetId, name });
    if (row === null) throw new ApiProblem('not-found', `The mock has no snapshot ${name}.`);
    return unpackJson<SnapshotState>(row.state);
  }

  async remove(name: string): Promise<void> {
    const gone = await this.rows.delete({ datasetId: this.datasetId, name });
    if (gone.affected !== 1) throw new ApiProblem('not-found', `The mock has no snapshot ${name}.`);
  }
}

/** A state as JSON, compressed; there may be a million records, so others have their turn meanwhile. */
async function packed({ model, rows }: SnapshotState, watching: Watching): Promise<Buffer> {
  const texts = await inSlices(
    mapInSteps('writing', rows, (row) => JSON.stringify(row)),
    watching,
  );
  return packText(`{"model":${JSON.stringify(model)},"rows":[${texts.join()}]}`);
}

const viewOf = ({ name, takenAt, records }: Omit<SnapshotRow, 'state'>): Snapshot => ({
  name,
  takenAt: takenAt.toISOString(),
  records,
});
