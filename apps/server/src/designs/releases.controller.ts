import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  Post,
  Put,
  Query,
  Res,
} from '@nestjs/common';
import type { ContractChange } from '@isomeros/core/comparison';
import type { Response } from 'express';
import { MakeReleaseDto, readSuccessor, ReleaseEndDto } from './designs.dto.js';
import { ReleasesService, type ReleaseView } from './releases.service.js';

@Controller('api/designs/:id/releases')
export class ReleasesController {
  constructor(private readonly releases: ReleasesService) {}

  @Get()
  async list(@Param('id') id: string): Promise<{ items: readonly ReleaseView[] }> {
    return { items: await this.releases.list(id) };
  }

  @Post()
  async make(
    @Param('id') id: string,
    @Body() { label, arrangement }: MakeReleaseDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ReleaseView> {
    const made = await this.releases.make(id, label, arrangement);
    response.setHeader('Location', `/api/designs/${id}/releases/${encodeURIComponent(label)}`);
    return made;
  }

  @Get(':label')
  read(@Param('id') id: string, @Param('label') label: string): Promise<ReleaseView> {
    return this.releases.read(id, label);
  }

  @Delete(':label')
  @HttpCode(204)
  async remove(@Param('id') id: string, @Param('label') label: string): Promise<void> {
    await this.releases.remove(id, label);
  }

  /** Says from when a release is not to be used any more, when it stops, and what comes after it. */
  @Put(':label/end')
  mark(
    @Param('id') id: string,
    @Param('label') label: string,
    @Body() { deprecatedAt, sunsetAt, successor }: ReleaseEndDto,
  ): Promise<ReleaseView> {
    const end = { deprecatedAt, sunsetAt: sunsetAt ?? null, successor: readSuccessor(successor) };
    return this.releases.mark(id, label, end);
  }

  /** It may be used again. */
  @Delete(':label/end')
  unmark(@Param('id') id: string, @Param('label') label: string): Promise<ReleaseView> {
    return this.releases.mark(id, label, null);
  }

  @Get(':label/contract')
  @Header('Content-Type', 'application/json')
  contract(@Param('id') id: string, @Param('label') label: string): Promise<string> {
    return this.releases.contract(id, label);
  }

  @Get(':label/openapi.json')
  @Header('Content-Type', 'application/json')
  openApiJson(@Param('id') id: string, @Param('label') label: string): Promise<string> {
    return this.releases.openApi(id, label, 'json');
  }

  @Get(':label/openapi.yaml')
  @Header('Content-Type', 'application/yaml')
  openApiYaml(@Param('id') id: string, @Param('label') label: string): Promise<string> {
    return this.releases.openApi(id, label, 'yaml');
  }

  @Get(':label/changes')
  async changes(
    @Param('id') id: string,
    @Param('label') label: string,
    @Query('arrangement') arrangement: string | undefined,
  ): Promise<{ items: readonly ContractChange[] }> {
    return { items: await this.releases.changes(id, label, arrangement) };
  }
}
