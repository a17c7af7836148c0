import type { Items, Sample } from '@isomeros/api';
import { Controller } from '@nestjs/common';
import { Route } from '../http/route.js';
import { DesignsService } from './designs.service.js';

@Controller()
export class SamplesController {
  constructor(private readonly designs: DesignsService) {}

  @Route('GET /api/samples')
  async list(): Promise<Items<Sample>> {
    return { items: await this.designs.listSamples() };
  }
}
