import { Controller, Get } from '@nestjs/common';
import { DesignsService } from './designs.service.js';
import type { Sample } from './samples.js';

@Controller('api/samples')
export class SamplesController {
  constructor(private readonly designs: DesignsService) {}

  @Get()
  async list(): Promise<{ items: readonly Sample[] }> {
    return { items: await this.designs.listSamples() };
  }
}
