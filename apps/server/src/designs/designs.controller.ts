import { Body, Controller, Headers, Param, Query, Res } from '@nestjs/common';
import type { CreatedDesign, Design, DesignSummary, InitialRecords, Items, ModelText } from '@isomeros/api';
import { readChoices } from '@isomeros/core/arrangement';
import type { Json } from '@isomeros/core/model';
import type { Response } from 'express';
import { ComputeService } from '../compute/compute.service.js';
import { Answered, withETag } from '../http/answered.js';
import { clientAbortSignal } from '../http/clientAbort.js';
import { etagOf } from '../http/etag.js';
import { readLimit } from '../http/pagination.js';
import { Route, TextRoute } from '../http/route.js';
import { BeginningsService } from './beginnings.service.js';
import { ChangesService } from './changes.service.js';
import {
  CopyDto,
  CreateDesignDto,
  DesignFileQueryDto,
  NameDto,
  RenameDto,
  SaveChoicesDto,
  SaveModelDto,
  DesignsQueryDto,
} from './designs.dto.js';
import { DesignsService } from './designs.service.js';
import { InitialRecordsService } from './initialRecords.service.js';
import { orThrow } from './orThrow.js';

@Controller()
export class DesignsController {
  constructor(
    private readonly designs: DesignsService,
    private readonly changes: ChangesService,
    private readonly beginnings: BeginningsService,
    private readonly initial: InitialRecordsService,
    private readonly compute: ComputeService,
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
    return created(await this.beginnings.begin(body, clientAbortSignal(response)));
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
  async copy(@Param('id') id: string, @Body() { name, records = true }: CopyDto): Promise<Answered<Design>> {
    return created(await this.changes.copy(id, name, records));
  }

  @Route('GET /api/designs/{id}/initial-records')
  async initialRecords(@Param('id') id: string): Promise<InitialRecords> {
    await this.designs.row(id);
    return this.initial.summary(id);
  }

  @Route('DELETE /api/designs/{id}/initial-records')
  async removeInitialRecords(@Param('id') id: string): Promise<void> {
    await this.designs.row(id);
    await this.initial.remove(id);
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
  async file(
    @Param('id') id: string,
    @Query() { records }: DesignFileQueryDto,
    @Res() response: Response,
  ): Promise<void> {
    const { name, revision, text, validText, identities, choices } = await this.designs.read(id);
    const draft = text === validText ? {} : { draft: text };
    const file = await this.compute.runLong(
      'designFileText',
      {
        design: { name, model: validText, ...draft, identities, choices },
        carried: records === 'false' ? null : await this.initial.carried(id),
      },
      { refusal: 'The design is more than can be written here', gone: clientAbortSignal(response) },
    );
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
