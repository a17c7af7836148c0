import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { ReleaseEnd } from '@isomeros/api';
import { In, Repository, type EntityManager } from 'typeorm';
import { EndpointRow, MockRow } from '../database/tables.js';
import { DesignDependents, type DesignDependent } from '../designs/designDependents.js';
import { DesignsService } from '../designs/designs.service.js';
import { addressOf, stopAll, type LoadedMock } from './loadedMock.js';
import { MockRegistry } from './mockRegistry.js';
import { isOutdated } from '../designs/modelColumns.js';
import { adoptModel } from './replaceRecords.js';
import { servedArrangements, type Served } from './served.js';

const mocksOf = async (manager: EntityManager, designId: string): Promise<string[]> =>
  (await manager.findBy(MockRow, { designId })).map(({ id }) => id);

/** Keeps mocks running across restarts, and lets them follow what happens to their designs. */
@Injectable()
export class MockLifecycle implements DesignDependent, OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('Mocks');

  constructor(
    @InjectRepository(MockRow) private readonly rows: Repository<MockRow>,
    private readonly mocks: MockRegistry,
    private readonly designs: DesignsService,
    dependents: DesignDependents,
  ) {
    dependents.register(this);
  }

  /** Mocks that were running when the server ended are running again. */
  async onApplicationBootstrap(): Promise<void> {
    await this.loadAll({});
  }

  modelChanged(design: string): void {
    this.mocks.queue
      .run(design, () => this.takeOverModel(design))
      .catch((error: unknown) => {
        this.logger.error(error instanceof Error ? error.stack : String(error));
      });
  }

  async arrangementRenaming(manager: EntityManager, design: string, from: string, to: string): Promise<void> {
    const mockId = In(await mocksOf(manager, design));
    await manager.update(EndpointRow, { mockId, kind: 'arrangement', name: from }, { name: to });
  }

  arrangementRenamed(design: string, from: string, to: string): void {
    for (const { endpoints } of this.mocks.ofDesign(design))
      for (const endpoint of endpoints)
        if (endpoint.served.kind === 'arrangement' && endpoint.served.name === from)
          endpoint.served = { kind: 'arrangement', name: to };
  }

  /** What a mock serves stays there. */
  async objectionToArrangements(
    manager: EntityManager,
    design: string,
    left: readonly string[],
  ): Promise<string | null> {
    const mockId = In(await mocksOf(manager, design));
    const served = await manager.findBy(EndpointRow, { mockId, kind: 'arrangement' });
    const removed = served.find(({ name }) => !left.includes(name));
    return removed === undefined
      ? null
      : `The mock on port ${removed.port} serves the arrangement ${removed.name}; remove the mock first.`;
  }

  addressOf(design: string, kind: Served['kind'], called: string): string | null {
    for (const mock of this.mocks.ofDesign(design)) {
      const address = addressOf(mock, kind, called);
      if (address !== null) return address;
    }
    return null;
  }

  async designRemoved(design: string): Promise<void> {
    await Promise.all(this.mocks.ofDesign(design).map((mock) => this.mocks.unload(mock)));
  }

  designRestored(design: string): Promise<void> {
    return this.loadAll({ designId: design });
  }

  objectionToRemovingRelease(design: string, label: string): string | null {
    const isServed = this.mocks
      .ofDesign(design)
      .some(({ releases }) => releases.some((release) => release.label === label));
    return isServed ? `A mock serves the release ${label}; remove the mock first.` : null;
  }

  releaseMarked(design: string, label: string, end: ReleaseEnd | null): void {
    this.mocks.mark(design, label, end);
  }

  async beforeApplicationShutdown(): Promise<void> {
    await Promise.all(this.mocks.all().map(stopAll));
    await Promise.all(this.mocks.all().map(({ journal }) => journal.close()));
    this.mocks.events.complete();
  }

  /** Reads the mocks of designs that are not removed; those that were running are running again. */
  private async loadAll(wanted: { readonly designId?: string }): Promise<void> {
    const rows = await this.rows.find({ where: wanted, order: { createdAt: 'ASC' } });
    for (const row of rows) {
      if (!(await this.designs.isThere(row.designId))) continue;
      const mock = await this.mocks.load(row);
      if (row.running) await this.mocks.listen(mock, true);
      await this.refreshModel(mock);
    }
  }

  private async takeOverModel(design: string): Promise<void> {
    for (const mock of this.mocks.ofDesign(design)) await this.refreshModel(mock);
  }

  /** Serves the newest model of the design, unless records would lose something or contradict it. Releases stay. */
  private async refreshModel(mock: LoadedMock): Promise<void> {
    if (servedArrangements(mock.endpoints).length === 0) return;
    const model = await this.designs.validModel(mock.row.designId);
    if (model.revision === mock.dataset.modelRevision) return;
    if (isOutdated(mock.dataset, model))
      await adoptModel(mock, await this.mocks.newestFor(mock), this.mocks.writeOptions(mock));
    await this.mocks.settle(mock);
  }
}
