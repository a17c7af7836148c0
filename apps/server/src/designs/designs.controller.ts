import { Body, Controller, Headers, Param, Query, Res } from '@nestjs/common';
import type { CreatedDesign, Design, DesignSummary, Items, ModelText, SourceFormat } from '@isomeros/api';
import { readChoices, readDesignFile, writeDesignFile } from '@isomeros/core/arrangement';
import type { IntakeFormat } from '@isomeros/core/intake';
import type { Json } from '@isomeros/core/model';
import type { Response } from 'express';
import { Answered, withETag } from '../http/answered.js';
import { clientAbortSignal } from '../http/clientAbort.js';
import { etagOf } from '../http/etag.js';
import { readLimit } from '../http/pagination.js';
import { ApiProblem } from '../http/problem.js';
import { Route, TextRoute } from '../http/route.js';
import { reportOf } from '../intake/intakeReport.js';
import { IntakeService } from '../intake/intake.service.js';
import { ChangesService } from './changes.service.js';
import {
  CreateDesignDto,
  NameDto,
  RenameDto,
  SaveChoicesDto,
  SaveModelDto,
  DesignsQueryDto,
} from './designs.dto.js';
import { DesignsService } from './designs.service.js';
import { orThrow } from './orThrow.js';

@Controller()
export class DesignsController {
  constructor(
    private readonly designs: DesignsService,
    private readonly changes: ChangesService,
    private readonly intake: IntakeService,
  ) {}

  @Route('GET /api/designs')
  async list(@Query() { limit, cursor, name }: DesignsQueryDto): Promise<Answered<Items<DesignSummary>>> {
    const { items, next } = await this.designs.list(readLimit(limit), cursor, name ?? '');
    return new Answered({ items }, { next });
  }

  @Route('POST /api/designs')
  async create(
    @Body() body: CreateDesignDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Answered<CreatedDesign>> {
    return created(await this.begin(body, clientAbortSignal(response)));
  }

  private async begin({ name, source }: CreateDesignDto, aborted: AbortSignal): Promise<CreatedDesign> {
    switch (source.format) {
      case 'sql':
      case 'json-schema':
      case 'records': {
        const title = name ?? 'Untitled design';
        const intake = await this.intake.read(source.format, source.text, title, aborted);
        return { ...(await this.changes.create(name, intake.text)), report: reportOf(intake) };
      }
      default:
        return { ...(await this.beginWith(name, source.format, source.text)), report: null };
    }
  }

  /** A design from what says everything about it. */
  private async beginWith(
    name: string | undefined,
    format: Exclude<SourceFormat, IntakeFormat>,
    text: string,
  ): Promise<Design> {
    switch (format) {
      case 'notation':
        return this.changes.create(name, text);
      case 'design': {
        const read = readDesignFile(text);
        if (read.ok) return this.changes.createFromFile(name, read.design);
        const detail = `The design file does not fit: ${read.problems[0]?.message ?? ''}`;
        throw new ApiProblem('unsound', detail, { errors: read.problems });
      }
      case 'sample':
        return this.changes.createFromSample(name, text);
    }
  }

  @Route('GET /api/designs/{id}')
  async read(@Param('id') id: string): Promise<Answered<Design>> {
    return withETag(await this.designs.read(id));
  }

  @Route('DELETE /api/designs/{id}')
  async remove(@Param('id') id: string, @Headers('if-match') ifMatch: string | undefined): Promise<void> {
    await this.changes.remove(id, ifMatch);
  }

  @Route('POST /api/designs/{id}/restore')
  async restore(@Param('id') id: string): Promise<Answered<Design>> {
    return withETag(await this.changes.restore(id));
  }

  @Route('POST /api/designs/{id}/copy')
  async copy(@Param('id') id: string, @Body() { name }: NameDto): Promise<Answered<Design>> {
    return created(await this.changes.copy(id, name));
  }

  @Route('PUT /api/designs/{id}/name')
  async rename(
    @Param('id') id: string,
    @Body() { name }: NameDto,
    @Headers('if-match') ifMatch: string | undefined,
  ): Promise<Answered<Design>> {
    return withETag(await this.changes.rename(id, name, ifMatch));
  }

  @TextRoute('GET /api/designs/{id}/file')
  async file(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const { name, revision, text, validText, identities, choices } = await this.designs.read(id);
    const draft = text === validText ? {} : { draft: text };
    const file = writeDesignFile({ name, model: validText, ...draft, identities, choices });
    response
      .attachment(`${fileName(name)}.isomeros.json`)
      .type('application/json')
      .setHeader('ETag', etagOf(revision))
      .send(file);
  }

  @Route('GET /api/designs/{id}/model')
  async readModel(@Param('id') id: string): Promise<Answered<ModelText>> {
    const { text, revision } = await this.designs.read(id);
    return new Answered({ text }, { revision });
  }

  @TextRoute('GET /api/designs/{id}/model.iso.txt')
  async notation(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const { name, text, revision } = await this.designs.read(id);
    response.attachment(`${fileName(name)}.iso.txt`).setHeader('ETag', etagOf(revision));
    response.setHeader('Content-Type', 'text/vnd.isomeros.model; charset=utf-8');
    response.send(text);
  }

  @Route('PUT /api/designs/{id}/model')
  async saveModel(
    @Param('id') id: string,
    @Body() { text }: SaveModelDto,
    @Headers('if-match') ifMatch: string | undefined,
  ): Promise<Answered<Design>> {
    return withETag(await this.changes.saveModel(id, text, ifMatch));
  }

  @Route('PUT /api/designs/{id}/choices')
  async saveChoices(
    @Param('id') id: string,
    @Body() body: SaveChoicesDto,
    @Headers('if-match') ifMatch: string | undefined,
  ): Promise<Answered<Design>> {
    const choices = orThrow(readChoices({ ...body } as unknown as Json, ''));
    return withETag(await this.changes.saveChoices(id, choices, ifMatch));
  }

  @Route('POST /api/designs/{id}/renames')
  async declareRename(
    @Param('id') id: string,
    @Body() { renamed, ...rename }: RenameDto,
    @Headers('if-match') ifMatch: string | undefined,
  ): Promise<Answered<Design>> {
    const design = renamed
      ? this.changes.declareRename(id, rename, ifMatch)
      : this.changes.denyRename(id, rename);
    return withETag(await design);
  }
}

/** The name of a design as the name of a file. */
const fileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '') || 'design';

const created = <Made extends Design>(design: Made): Answered<Made> =>
  withETag(design, { location: `/api/designs/${design.id}` });
