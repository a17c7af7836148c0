import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { LiveSchemaDto } from './intake.dto.js';
import { readLiveSchema, type LiveSchema } from './liveSchema.js';

@Controller('api/live-schemas')
export class IntakeController {
  /** Reads a schema as DDL. Nothing of it is kept, the password least of all. */
  @Post()
  @HttpCode(200)
  read(@Body() { remote = false, ...address }: LiveSchemaDto): Promise<LiveSchema> {
    return readLiveSchema({ ...address, remote });
  }
}
