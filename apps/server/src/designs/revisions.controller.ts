import { Controller, Get, Headers, HttpCode, Param, Post, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { withETag } from '../http/etag.js';
import { readLimit } from '../http/pagination.js';
import { ChangesService } from './changes.service.js';
import { DesignsService } from './designs.service.js';
import { RevisionsService, type RevisionSummary, type RevisionView } from './revisions.service.js';
import type { DesignView } from './views.js';

@Controller('api/designs/:id/revisions')
export class RevisionsController {
  constructor(
    private readonly designs: DesignsService,
    private readonly revisions: RevisionsService,
    private readonly changes: ChangesService,
  ) {}

  @Get()
  async list(
    @Param('id') id: string,
    @Query('limit') limit: string | undefined,
    @Query('cursor') cursor: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<{ items: readonly RevisionSummary[] }> {
    await this.designs.row(id);
    const { items, next } = await this.revisions.list(id, readLimit(limit), cursor);
    if (next !== null) response.setHeader('Link', next);
    return { items };
  }

  @Get(':number')
  async read(@Param('id') id: string, @Param('number') number: string): Promise<RevisionView> {
    await this.designs.row(id);
    return this.revisions.read(id, Number(number));
  }

  @Post(':number/restore')
  @HttpCode(200)
  async restore(
    @Param('id') id: string,
    @Param('number') number: string,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return withETag(await this.changes.restoreRevision(id, Number(number), ifMatch), response);
  }
}
