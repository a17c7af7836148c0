import {
  Body,
  Controller,
  Delete,
  Get,
  Headers,
  HttpCode,
  Param,
  Post,
  Put,
  Query,
  Res,
} from '@nestjs/common';
import { MAX_INTAKE_BYTES, readSql } from '@isomeros/core/intake';
import type { Response } from 'express';
import { etagOf } from '../http/etag.js';
import { readLimit } from '../http/pages.js';
import { ApiProblem } from '../http/problem.js';
import { CreateDesignDto, SaveModelDto } from './designs.dto.js';
import { DesignsService } from './designs.service.js';
import type { DesignSummary, DesignView } from './views.js';

@Controller('api/designs')
export class DesignsController {
  constructor(private readonly designs: DesignsService) {}

  @Get()
  async list(
    @Query('limit') limit: string | undefined,
    @Query('cursor') cursor: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<{ items: readonly DesignSummary[] }> {
    const { items, next } = await this.designs.list(readLimit(limit), cursor);
    if (next !== null) response.setHeader('Link', next);
    return { items };
  }

  @Post()
  async create(
    @Body() body: CreateDesignDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    const design = await this.designs.create(body.name, textOf(body));
    response.setHeader('Location', `/api/designs/${design.id}`);
    return tagged(design, response);
  }

  @Get(':id')
  async read(@Param('id') id: string, @Res({ passthrough: true }) response: Response): Promise<DesignView> {
    return tagged(await this.designs.read(id), response);
  }

  @Delete(':id')
  @HttpCode(204)
  async remove(@Param('id') id: string, @Headers('if-match') ifMatch: string | undefined): Promise<void> {
    await this.designs.remove(id, ifMatch);
  }

  @Get(':id/model')
  async readModel(
    @Param('id') id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<{ text: string }> {
    const { text, revision } = await this.designs.read(id);
    response.setHeader('ETag', etagOf(revision));
    return { text };
  }

  @Put(':id/model')
  async saveModel(
    @Param('id') id: string,
    @Body() body: SaveModelDto,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return tagged(await this.designs.saveModel(id, body.text, ifMatch), response);
  }
}

/** The text of the model that a source is, or is read as. */
function textOf({ name, source }: CreateDesignDto): string {
  switch (source.format) {
    case 'notation':
      return source.text;
    case 'sql':
      checkSize(source.text);
      return readSql(source.text, name ?? 'Untitled design').text;
  }
}

function checkSize(text: string): void {
  const bytes = Buffer.byteLength(text);
  if (bytes <= MAX_INTAKE_BYTES) return;
  throw new ApiProblem('too-large', `The source has ${bytes} bytes; the limit is ${MAX_INTAKE_BYTES}.`);
}

function tagged(design: DesignView, response: Response): DesignView {
  response.setHeader('ETag', etagOf(design.revision));
  return design;
}
