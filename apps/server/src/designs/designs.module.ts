import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ComputeModule } from '../compute/compute.module.js';
import {
  DesignRow,
  InitialRecordsRow,
  InstallationStateRow,
  ReleaseRow,
  RevisionRow,
} from '../database/tables.js';
import { IntakeModule } from '../intake/intake.module.js';
import { BeginningsService } from './beginnings.service.js';
import { ChangesService } from './changes.service.js';
import { ContractsController } from './contracts.controller.js';
import { DesignDependents } from './designDependents.js';
import { DesignsController } from './designs.controller.js';
import { DesignsService } from './designs.service.js';
import { FiguresRefreshService } from './figuresRefresh.service.js';
import { InitialRecordsService } from './initialRecords.service.js';
import { IntakesController } from './intakes.controller.js';
import { IntakesService } from './intakes.service.js';
import { ReleasesController } from './releases.controller.js';
import { ReleasesService } from './releases.service.js';
import { RevisionsController } from './revisions.controller.js';
import { RevisionsService } from './revisions.service.js';
import { SamplesController } from './samples.controller.js';

/** Designs, their revisions and releases, and what they imply. It knows nothing of who serves them. */
@Module({
  imports: [
    TypeOrmModule.forFeature([DesignRow, RevisionRow, ReleaseRow, InitialRecordsRow, InstallationStateRow]),
    ComputeModule,
    IntakeModule,
  ],
  controllers: [
    SamplesController,
    DesignsController,
    IntakesController,
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
    BeginningsService,
    IntakesService,
    FiguresRefreshService,
    InitialRecordsService,
  ],
  exports: [DesignDependents, DesignsService, InitialRecordsService, ReleasesService],
})
export class DesignsModule {}
