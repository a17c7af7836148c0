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
import { readChoices, readDesignFile, writeDesignFile } from '@isomeros/core/arrangement';
import type { Json } from '@isomeros/core/model';
import type { Response } from 'express';
import { withETag } from '../http/etag.js';
import { clientAbortSignal } from '../http/clientAbort.js';
import { readLimit } from '../http/pagination.js';
import { ApiProblem } from '../http/problem.js';
import { IntakeService } from '../intake/intake.service.js';
import { ChangesService } from './changes.service.js';
import { orThrow } from './orThrow.js';
import { CreateDesignDto, NameDto, RenameDto, SaveChoicesDto, SaveModelDto } from './designs.dto.js';
import { DesignsService } from './designs.service.js';
import type { DesignSummary, DesignView } from './views.js';

@Controller('api/designs')
export class DesignsController {
  constructor(
    private readonly designs: DesignsService,
    private readonly changes: ChangesService,
    private readonly intake: IntakeService,
  ) {}

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
    return created(await this.begin(body, clientAbortSignal(response)), response);
  }

  private async begin({ name, source }: CreateDesignDto, gone: AbortSignal): Promise<DesignView> {
    switch (source.format) {
      case 'notation':
        return this.changes.create(name, source.text);
      case 'design': {
        const read = readDesignFile(source.text);
        if (read.ok) return this.changes.createFromFile(name, read.design);
        const detail = `The design file does not fit: ${read.problems[0]?.message ?? ''}`;
        throw new ApiProblem('unsound', detail, { errors: read.problems });
      }
      case 'sql':
      case 'json-schema':
      case 'records': {
        const title = name ?? 'Untitled design';
        const { text } = await this.intake.read(source.format, source.text, title, gone);
        return this.changes.create(name, text);
      }
    }
  }

  @Get(':id')
  async read(@Param('id') id: string, @Res({ passthrough: true }) response: Response): Promise<DesignView> {
    return withETag(await this.designs.read(id), response);
  }

  @Delete(':id')
  @HttpCode(204)
  async remove(@Param('id') id: string, @Headers('if-match') ifMatch: string | undefined): Promise<void> {
    await this.changes.remove(id, ifMatch);
  }

  @Post(':id/bring-back')
  @HttpCode(200)
  async bringBack(
    @Param('id') id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return withETag(await this.changes.restore(id), response);
  }

  @Post(':id/copy')
  async copy(
    @Param('id') id: string,
    @Body() { name }: NameDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return created(await this.changes.copy(id, name), response);
  }

  @Put(':id/name')
  async rename(
    @Param('id') id: string,
    @Body() { name }: NameDto,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return withETag(await this.changes.rename(id, name, ifMatch), response);
  }

  @Get(':id/file')
  async file(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const { name, text, validText, identities, choices } = withETag(await this.designs.read(id), response);
    const draft = text === validText ? {} : { draft: text };
    const file = writeDesignFile({ name, model: validText, ...draft, identities, choices });
    response
      .attachment(`${fileName(name)}.isomeros.json`)
      .type('application/json')
      .send(file);
  }

  @Get(':id/model')
  async readModel(
    @Param('id') id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<{ text: string }> {
    const { text } = withETag(await this.designs.read(id), response);
    return { text };
  }

  @Get(':id/model.iso.txt')
  async notation(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const { name, text } = withETag(await this.designs.read(id), response);
    response.attachment(`${fileName(name)}.iso.txt`);
    response.setHeader('Content-Type', 'text/vnd.isomeros.model; charset=utf-8');
    response.send(text);
  }

  @Put(':id/model')
  async saveModel(
    @Param('id') id: string,
    @Body() body: SaveModelDto,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return withETag(await this.changes.saveModel(id, body.text, ifMatch), response);
  }

  @Put(':id/choices')
  async saveChoices(
    @Param('id') id: string,
    @Body() body: SaveChoicesDto,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return withETag(
      await this.changes.saveChoices(id, orThrow(readChoices({ ...body } as unknown as Json, '')), ifMatch),
      response,
    );
  }

  @Post(':id/renames')
  @HttpCode(200)
  async declareRename(
    @Param('id') id: string,
    @Body() { renamed, ...rename }: RenameDto,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    const design = renamed
      ? this.changes.declareRename(id, rename, ifMatch)
      : this.changes.denyRename(id, rename);
    return withETag(await design, response);
  }
}

/** The name of a design as the name of a file. */
const fileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '') || 'design';

function created(design: DesignView, response: Response): DesignView {
  response.setHeader('Location', `/api/designs/${design.id}`);
  return withETag(design, response);
}
