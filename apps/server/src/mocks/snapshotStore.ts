import type { Snapshot } from '@isomeros/api';
import type { Repository } from 'typeorm';
import type { SnapshotRow } from '../database/tables.js';
import { ApiProblem } from '../http/problem.js';
import { packState, unpackState, type RecordState } from '../designs/recordState.js';
import type { Watching } from '../slices.js';

/** More of them a mock does not keep. */
const MOST_SNAPSHOTS = 50;

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
    state: RecordState,
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
      state: await packState(state, watching),
    };
    watching.signal?.throwIfAborted();
    await this.rows.save(row);
    return { view: viewOf(row), isNew };
  }

  async read(name: string): Promise<RecordState> {
    const row = await this.rows.findOneBy({ datasetId: this.datasetId, name });
    if (row === null) throw new ApiProblem('not-found', `The mock has no snapshot ${name}.`);
    return unpackState(row.state);
  }

  async remove(name: string): Promise<void> {
    const gone = await this.rows.delete({ datasetId: this.datasetId, name });
    if (gone.affected !== 1) throw new ApiProblem('not-found', `The mock has no snapshot ${name}.`);
  }
}

const viewOf = ({ name, takenAt, records }: Omit<SnapshotRow, 'state'>): Snapshot => ({
  name,
  takenAt: takenAt.toISOString(),
  records,
});
