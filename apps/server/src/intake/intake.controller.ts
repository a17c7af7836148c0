import type { LiveSchema } from '@isomeros/api';
import { Body, Controller } from '@nestjs/common';
import { Route } from '../http/route.js';
import { LiveSchemaDto } from './intake.dto.js';
import { readLiveSchema } from './liveSchema.js';

@Controller()
export class IntakeController {
  /** Reads a schema as DDL. Nothing of it is kept, the password least of all. */
  @Route('POST /api/live-schemas')
  read(@Body() { remote = false, ...address }: LiveSchemaDto): Promise<LiveSchema> {
    return readLiveSchema({ ...address, remote });
  }
}
