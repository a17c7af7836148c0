import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { DERIVATION_VERSION } from '@isomeros/core/derivation';
import { IsNull, Not, Repository } from 'typeorm';
import { DesignRow } from '../database/tables.js';
import { DesignsService } from './designs.service.js';

/** After an upgrade, what designs amount to is worked out anew, aside and one after the other. */
@Injectable()
export class FiguresRefreshService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('Designs');
  private isStopping = false;
  private running: Promise<void> = Promise.resolve();

  constructor(
    @InjectRepository(DesignRow) private readonly rows: Repository<DesignRow>,
    private readonly designs: DesignsService,
  ) {}

  onApplicationBootstrap(): void {
    this.running = this.refreshAll().catch((error: unknown) => {
      this.logger.error(error instanceof Error ? error.stack : String(error));
    });
  }

  async beforeApplicationShutdown(): Promise<void> {
    this.isStopping = true;
    await this.running;
  }

  /** Settles when no design is left whose figures are of another version. */
  settled(): Promise<void> {
    return this.running;
  }

  private async refreshAll(): Promise<void> {
    const outdated = await this.rows.find({
      select: { id: true },
      where: { figuresVersion: Not(DERIVATION_VERSION), removedAt: IsNull() },
      order: { changedAt: 'DESC' },
    });
    for (const { id } of outdated) {
      if (this.isStopping) return;
      await this.refresh(id);
    }
  }

  private async refresh(id: string): Promise<void> {
    const row = await this.rows.findOneBy({ id });
    if (row === null || row.figuresVersion === DERIVATION_VERSION) return;
    try {
      const { figures, figuresVersion } = await this.designs.withFigures(row);
      // A change that was saved meanwhile has figures of its own.
      await this.rows.update({ id, revision: row.revision }, { figures, figuresVersion });
    } catch (error) {
      this.logger.warn(`The figures of ${row.name} cannot be worked out: ${String(error)}`);
    }
  }
}
