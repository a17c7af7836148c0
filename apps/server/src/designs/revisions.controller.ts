import { Controller, Headers, Param, Query } from '@nestjs/common';
import type { Design, Items, Revision, RevisionSummary } from '@isomeros/api';
import { Answered, withETag } from '../http/answered.js';
import { readLimit } from '../http/pagination.js';
import { PageQueryDto } from '../http/query.dto.js';
import { Route } from '../http/route.js';
import { ChangesService } from './changes.service.js';
import { DesignsService } from './designs.service.js';
import { RevisionsService } from './revisions.service.js';

@Controller()
export class RevisionsController {
  constructor(
    private readonly designs: DesignsService,
    private readonly changes: ChangesService,
    private readonly revisions: RevisionsService,
  ) {}

  @Route('GET /api/designs/{id}/revisions')
  async list(
    @Param('id') id: string,
    @Query() { limit, cursor }: PageQueryDto,
  ): Promise<Answered<Items<RevisionSummary>>> {
    await this.designs.row(id);
    const { items, next } = await this.revisions.list(id, readLimit(limit), cursor);
    return new Answered({ items }, { next });
  }

  @Route('GET /api/designs/{id}/revisions/{number}')
  async read(@Param('id') id: string, @Param('number') number: string): Promise<Revision> {
    await this.designs.row(id);
    return this.revisions.read(id, Number(number));
  }

  @Route('POST /api/designs/{id}/revisions/{number}/restore')
  async restore(
    @Param('id') id: string,
    @Param('number') number: string,
    @Headers('if-match') ifMatch: string | undefined,
  ): Promise<Answered<Design>> {
    return withETag(await this.changes.restoreRevision(id, Number(number), ifMatch));
  }
}
