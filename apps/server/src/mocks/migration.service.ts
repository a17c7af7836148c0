import type { MigrationView, Mock } from '@isomeros/api';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Decision } from '@isomeros/core/migration';
import { Repository } from 'typeorm';
import { SnapshotRow } from '../database/tables.js';
import { ApiProblem } from '../http/problem.js';
import { viewOf, type LoadedMock } from './loadedMock.js';
import { MockRegistry } from './mockRegistry.js';
import { modelColumnsOf } from './createDataset.js';
import { migrationOf, NOTHING_DECIDED, migrateRecords, type NewestModel } from './replaceRecords.js';
import { servedArrangements } from './served.js';
import { SnapshotStore } from './snapshotStore.js';

/** Takes the records of a mock to an edited model, as somebody decides. */
@Injectable()
export class MigrationService {
  constructor(
    @InjectRepository(SnapshotRow) private readonly snapshots: Repository<SnapshotRow>,
    private readonly mocks: MockRegistry,
  ) {}

  async plan(id: string): Promise<MigrationView> {
    const mock = this.mocks.find(id);
    const newest = await this.newest(mock);
    const from = mock.dataset.modelRevision;
    if (newest === null) return { from, to: from, steps: [] };
    const migrated = migrationOf(mock, newest, NOTHING_DECIDED);
    return { from, to: newest.revision, steps: migrated.open };
  }

  /** Carries out what was decided, after a snapshot, or does nothing and says what is still open. */
  migrate(id: string, decided: ReadonlyMap<string, Decision>): Promise<Mock> {
    const mock = this.mocks.find(id);
    return this.mocks.queue.run(mock.row.designId, async () => {
      const newest = await this.newest(mock);
      if (newest !== null) await this.carryOut(mock, newest, decided);
      await this.mocks.settle(mock);
      return viewOf(mock);
    });
  }

  private async carryOut(
    mock: LoadedMock,
    newest: NewestModel,
    decided: ReadonlyMap<string, Decision>,
  ): Promise<void> {
    await mock.records.settled();
    const migrated = migrationOf(mock, newest, decided);
    if (migrated.problems.length > 0)
      throw new ApiProblem('invalid', 'A value to fill in does not fit.', {
        errors: migrated.problems.map((problem) =>
          'pointer' in problem ? { ...problem, pointer: `/decisions${problem.pointer}` } : problem,
        ),
      });
    if (migrated.open.length > 0) {
      const things = migrated.open.length === 1 ? '1 thing is' : `${migrated.open.length} things are`;
      throw new ApiProblem('conflict', `Nothing was changed: ${things} still open.`, {
        members: { steps: migrated.open },
      });
    }
    const model = modelColumnsOf(mock.dataset);
    const rows = [...mock.records.dataset.everything()];
    await new SnapshotStore(this.snapshots, mock.row.id).take(`before revision ${newest.revision}`, {
      model,
      rows,
    });
    await migrateRecords(mock, newest, decided, (releases) => this.mocks.split(mock, releases));
  }

  /** The newest sound model, where another one is served; a mock of releases alone never follows. */
  private async newest(mock: LoadedMock): Promise<NewestModel | null> {
    if (servedArrangements(mock.endpoints).length === 0) return null;
    const newest = await this.mocks.newestFor(mock);
    return newest.revision === mock.dataset.modelRevision ? null : newest;
  }
}
