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
import { stopAll, type Held } from './held.js';
import { HeldMocks } from './heldMocks.js';
import { isOutdated } from './provision.js';
import { adoptModel } from './renewal.js';
import { servedNames, withRenamed } from './served.js';

/** Keeps mocks running across restarts, and lets them follow what happens to their designs. */
@Injectable()
export class MocksLife implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('Mocks');

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly mocks: HeldMocks,
    private readonly designs: DesignsService,
    private readonly designEvents: DesignEvents,
  ) {}

  /** Mocks that were running when the server ended are running again. */
  async onApplicationBootstrap(): Promise<void> {
    const { modelChanged, arrangementRenamed, removing, broughtBack, releaseRemoving, releaseMarked } =
      this.designEvents;
    modelChanged.subscribe((design) => {
      this.mocks.inTurn
        .run(design, () => this.takeOverModel(design))
        .catch((error: unknown) => {
          this.logger.error(error instanceof Error ? error.stack : String(error));
        });
    });
    arrangementRenamed.subscribe((renamed) => {
      this.rename(renamed);
    });
    removing.subscribe(({ id, done }) => {
      for (const held of this.mocks.ofDesign(id)) done.push(this.mocks.letGo(held));
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
      const held = await this.mocks.hold(row);
      if (row.running) await this.mocks.listen(held, true);
      await this.refreshModel(held);
    }
  }

  private rename({ design, from, to }: ArrangementRenamed): void {
    for (const held of this.mocks.ofDesign(design)) {
      held.row = { ...held.row, arrangements: withRenamed(held.row, from, to) };
      for (const face of held.faces)
        if (face.served.kind === 'arrangement' && face.served.name === from)
          face.served = { kind: 'arrangement', name: to };
    }
  }

  private async takeOverModel(design: string): Promise<void> {
    for (const held of this.mocks.ofDesign(design)) await this.refreshModel(held);
  }

  /** Serves the newest model of the design, unless records would lose something or contradict it. Releases stay. */
  private async refreshModel(held: Held): Promise<void> {
    if (servedNames(held.row).length === 0) return;
    const model = await this.designs.soundModel(held.row.designId);
    if (model.revision === held.dataset.modelRevision) return;
    if (isOutdated(held.dataset, model))
      await adoptModel(held, await this.mocks.newestFor(held), (releases) => this.mocks.part(held, releases));
    this.mocks.announce(held);
  }
}
