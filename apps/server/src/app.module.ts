import { Module, type DynamicModule } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ComputeService } from './compute/compute.service.js';
import type { Config } from './config.js';
import { databaseOptions } from './database/options.js';
import { DescriptionController } from './description/description.controller.js';
import { ChangesService } from './designs/changes.service.js';
import { ContractsController } from './designs/contracts.controller.js';
import { DesignEvents } from './designs/designEvents.js';
import { DesignsController } from './designs/designs.controller.js';
import { DesignsService } from './designs/designs.service.js';
import { ReleasesController } from './designs/releases.controller.js';
import { ReleasesService } from './designs/releases.service.js';
import { RevisionsController } from './designs/revisions.controller.js';
import { RevisionsService } from './designs/revisions.service.js';
import { SamplesController } from './designs/samples.controller.js';
import { IntakeController } from './intake/intake.controller.js';
import { IntakeService } from './intake/intake.service.js';
import { MocksController } from './mocks/mocks.controller.js';
import { MigrationController } from './mocks/migration.controller.js';
import { RecordsController } from './mocks/records.controller.js';
import { MockRegistry } from './mocks/mockRegistry.js';
import { MockLifecycle } from './mocks/mockLifecycle.js';
import { MigrationService } from './mocks/migration.service.js';
import { MocksService } from './mocks/mocks.service.js';
import { SETTINGS } from './settings.js';

@Module({})
export class AppModule {
  static with(config: Config): DynamicModule {
    return {
      module: AppModule,
      imports: [
        TypeOrmModule.forRoot({
          ...databaseOptions(config.databaseUrl),
          retryAttempts: 5,
          retryDelay: 1_000,
        }),
      ],
      controllers: [
        SamplesController,
        DesignsController,
        RevisionsController,
        ReleasesController,
        ContractsController,
        IntakeController,
        MocksController,
        RecordsController,
        MigrationController,
        DescriptionController,
      ],
      providers: [
        DesignEvents,
        DesignsService,
        RevisionsService,
        ReleasesService,
        ChangesService,
        ComputeService,
        IntakeService,
        MockRegistry,
        MockLifecycle,
        MocksService,
        MigrationService,
        { provide: SETTINGS, useValue: config },
      ],
    };
  }
}
