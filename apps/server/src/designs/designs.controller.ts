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
import type { Response } from 'express';
import { etagOf } from '../http/etag.js';
import { readLimit } from '../http/pages.js';
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
    const design = await this.designs.create(body.name, body.source.text);
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

function tagged(design: DesignView, response: Response): DesignView {
  response.setHeader('ETag', etagOf(design.revision));
  return design;
}
