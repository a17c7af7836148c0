import { Module } from '@nestjs/common';
import { ComputeModule } from '../compute/compute.module.js';
import { IntakeController } from './intake.controller.js';
import { IntakeService } from './intake.service.js';

/** Reads models from other sources. */
@Module({
  imports: [ComputeModule],
  controllers: [IntakeController],
  providers: [IntakeService],
  exports: [IntakeService],
})
export class IntakeModule {}
