import { Module } from '@nestjs/common';
import { ComputeService } from './compute.service.js';

/** Threads in which models are read and derived from. */
@Module({ providers: [ComputeService], exports: [ComputeService] })
export class ComputeModule {}
