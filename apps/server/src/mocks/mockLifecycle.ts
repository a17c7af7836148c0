import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import type { DataSource } from 'typeorm';
import { MockRow } from '../database/tables.js';
import { DesignEvents, type ArrangementRenamed } from '../designs/designEvents.js';
import { DesignsService } from '../designs/designs.service.js';
import { stopAll, type LoadedMock } from './loadedMock.js';
import { MockRegistry } from './mockRegistry.js';
import { isOutdated } from './createDataset.js';
import { adoptModel } from './replaceRecords.js';
import { servedNames, withRenamed } from './served.js';

/** Keeps mocks running across restarts, and lets them follow what happens to their designs. */
@Injectable()
export class MockLifecycle implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('Mocks');

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly mocks: MockRegistry,
    private readonly designs: DesignsService,
    private readonly designEvents: DesignEvents,
  ) {}

  /** Mocks that were running when the server ended are running again. */
  async onApplicationBootstrap(): Promise<void> {
    const { modelChanged, arrangementRenamed, removing, broughtBack, releaseRemoving, releaseMarked } =
      this.designEvents;
    modelChanged.subscribe((design) => {
      this.mocks.queue
        .run(design, () => this.takeOverModel(design))
        .catch((error: unknown) => {
          this.logger.error(error instanceof Error ? error.stack : String(error));
        });
    });
    arrangementRenamed.subscribe((renamed) => {
      this.rename(renamed);
    });
    removing.subscribe(({ id, done }) => {
      for (const mock of this.mocks.ofDesign(id)) done.push(this.mocks.unload(mock));
    });
    broughtBack.subscribe(({ id, done }) => {
      done.push(this.holdAll({ designId: id }));
    });
    releaseRemoving.subscribe(({ design, label, objections }) => {
      const serving = this.mocks
        .ofDesign(design)
        .some(({ releases }) => releases.some((release) => release.label === label));
      if (serving) objections.push(`A mock serves the release ${label}; remove the mock first.`);
    });
    releaseMarked.subscribe(({ design, label, end }) => {
      this.mocks.mark(design, label, end);
    });
    await this.holdAll({});
  }

  async beforeApplicationShutdown(): Promise<void> {
    await Promise.all(this.mocks.all().map(stopAll));
    this.mocks.events.complete();
  }

  /** Reads the mocks of designs that are not removed; those that were running are running again. */
  private async holdAll(wanted: { readonly designId?: string }): Promise<void> {
    const rows = await this.database
      .getRepository(MockRow)
      .find({ where: wanted, order: { createdAt: 'ASC' } });
    for (const row of rows) {
      if (!(await this.designs.isThere(row.designId))) continue;
      const mock = await this.mocks.load(row);
      if (row.running) await this.mocks.listen(mock, true);
      await this.refreshModel(mock);
    }
  }

  private rename({ design, from, to }: ArrangementRenamed): void {
    for (const mock of this.mocks.ofDesign(design)) {
      mock.row = { ...mock.row, arrangements: withRenamed(mock.row, from, to) };
      for (const endpoint of mock.endpoints)
        if (endpoint.served.kind === 'arrangement' && endpoint.served.name === from)
          endpoint.served = { kind: 'arrangement', name: to };
    }
  }

  private async takeOverModel(design: string): Promise<void> {
    for (const mock of this.mocks.ofDesign(design)) await this.refreshModel(mock);
  }

  /** Serves the newest model of the design, unless records would lose something or contradict it. Releases stay. */
  private async refreshModel(mock: LoadedMock): Promise<void> {
    if (servedNames(mock.row).length === 0) return;
    const model = await this.designs.validModel(mock.row.designId);
    if (model.revision === mock.dataset.modelRevision) return;
    if (isOutdated(mock.dataset, model))
      await adoptModel(mock, await this.mocks.newestFor(mock), (releases) =>
        this.mocks.split(mock, releases),
      );
    this.mocks.announce(mock);
  }
}
