import type { MigrationView, Mock } from '@isomeros/api';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Decision, Migration } from '@isomeros/core/migration';
import { Repository } from 'typeorm';
import { SnapshotRow } from '../database/tables.js';
import { ApiProblem } from '../http/problem.js';
import type { LargeWriteOptions } from './checkedWrite.js';
import { viewOf, type LoadedMock } from './loadedMock.js';
import { MockRegistry } from './mockRegistry.js';
import { modelColumnsOf } from '../designs/modelColumns.js';
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
    const migrated = await migrationOf(mock, newest, NOTHING_DECIDED, {});
    return { from, to: newest.revision, steps: migrated.open };
  }

  /** Carries out what was decided, after a snapshot, or does nothing and says what is still open. */
  migrate(id: string, decided: ReadonlyMap<string, Decision>, signal: AbortSignal): Promise<Mock> {
    const mock = this.mocks.find(id);
    return this.mocks.queue.run(mock.row.designId, async () => {
      const newest = await this.newest(mock);
      if (newest !== null) await this.carryOut(mock, newest, decided, this.mocks.writeOptions(mock, signal));
      await this.mocks.settle(mock);
      return viewOf(mock);
    });
  }

  private async carryOut(
    mock: LoadedMock,
    newest: NewestModel,
    decided: ReadonlyMap<string, Decision>,
    options: LargeWriteOptions,
  ): Promise<void> {
    await migrateRecords(mock, newest, decided, options, async (migrated) => {
      refuseUnsettled(migrated);
      const model = modelColumnsOf(mock.dataset);
      const rows = [...mock.records.dataset.everything()];
      const snapshots = new SnapshotStore(this.snapshots, mock.row.id);
      await snapshots.take(`before revision ${newest.revision}`, { model, rows }, options.watching);
      return true;
    });
  }

  /** The newest sound model, where another one is served; a mock of releases alone never follows. */
  private async newest(mock: LoadedMock): Promise<NewestModel | null> {
    if (servedArrangements(mock.endpoints).length === 0) return null;
    const newest = await this.mocks.newestFor(mock);
    return newest.revision === mock.dataset.modelRevision ? null : newest;
  }
}

/** Says what does not fit, or is still open. */
function refuseUnsettled({ problems, open }: Migration): void {
  if (problems.length > 0)
    throw new ApiProblem('invalid', 'A value to fill in does not fit.', {
      errors: problems.map((problem) =>
        'pointer' in problem ? { ...problem, pointer: `/decisions${problem.pointer}` } : problem,
      ),
    });
  if (open.length === 0) return;
  const things = open.length === 1 ? '1 thing is' : `${open.length} things are`;
  throw new ApiProblem('conflict', `Nothing was changed: ${things} still open.`, {
    members: { steps: open },
  });
}
