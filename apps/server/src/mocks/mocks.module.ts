import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DatasetRow, EndpointRow, MockRow, SnapshotRow } from '../database/tables.js';
import { DesignsModule } from '../designs/designs.module.js';
import { ExchangesController } from './exchanges.controller.js';
import { ExchangesService } from './exchanges.service.js';
import { MigrationController } from './migration.controller.js';
import { MigrationService } from './migration.service.js';
import { MockLifecycle } from './mockLifecycle.js';
import { MockRegistry } from './mockRegistry.js';
import { MocksController } from './mocks.controller.js';
import { MocksService } from './mocks.service.js';
import { RecordsController } from './records.controller.js';

/** Mock servers of designs. */
@Module({
  imports: [TypeOrmModule.forFeature([MockRow, EndpointRow, DatasetRow, SnapshotRow]), DesignsModule],
  controllers: [MocksController, ExchangesController, RecordsController, MigrationController],
  providers: [MockRegistry, MockLifecycle, MocksService, ExchangesService, MigrationService],
})
export class MocksModule {}
