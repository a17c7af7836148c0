import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ComputeModule } from '../compute/compute.module.js';
import { DesignRow, InstallationStateRow, ReleaseRow, RevisionRow } from '../database/tables.js';
import { IntakeModule } from '../intake/intake.module.js';
import { ChangesService } from './changes.service.js';
import { ContractsController } from './contracts.controller.js';
import { DesignDependents } from './designDependents.js';
import { DesignsController } from './designs.controller.js';
import { DesignsService } from './designs.service.js';
import { FiguresRefreshService } from './figuresRefresh.service.js';
import { ReleasesController } from './releases.controller.js';
import { ReleasesService } from './releases.service.js';
import { RevisionsController } from './revisions.controller.js';
import { RevisionsService } from './revisions.service.js';
import { SamplesController } from './samples.controller.js';

/** Designs, their revisions and releases, and what they imply. It knows nothing of who serves them. */
@Module({
  imports: [
    TypeOrmModule.forFeature([DesignRow, RevisionRow, ReleaseRow, InstallationStateRow]),
    ComputeModule,
    IntakeModule,
  ],
  controllers: [
    SamplesController,
    DesignsController,
    RevisionsController,
    ReleasesController,
    ContractsController,
  ],
  providers: [
    DesignDependents,
    DesignsService,
    RevisionsService,
    ReleasesService,
    ChangesService,
    FiguresRefreshService,
  ],
  exports: [DesignDependents, DesignsService, ReleasesService],
})
export class DesignsModule {}
