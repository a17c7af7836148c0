import { Body, Controller, Delete, Get, Header, Headers, HttpCode, Param, Put, Res } from '@nestjs/common';
import {
  arrangementOf,
  readArrangement,
  setting as resolveSetting,
  SETTINGS,
  type ArrangementChoices,
  type SettingLevel,
  type SettingName,
} from '@isomeros/core/arrangement';
import { isJsonObject, type Json } from '@isomeros/core/model';
import type { Response } from 'express';
import { ComputeService } from '../compute/compute.service.js';
import { withETag } from '../http/etag.js';
import { ApiProblem } from '../http/problem.js';
import { ChangesService } from './changes.service.js';
import { orThrow } from './orThrow.js';
import { ArrangementNameDto } from './designs.dto.js';
import { DesignsService } from './designs.service.js';
import type { DesignView } from './views.js';

const pathOf = (id: string, name: string): string =>
  `/api/designs/${id}/arrangements/${encodeURIComponent(name)}`;

interface ArrangementView extends Omit<ArrangementChoices, 'name' | 'settings'> {
  readonly name: string;
  readonly settings: readonly {
    readonly name: string;
    readonly title: string;
    readonly value: unknown;
    readonly level: SettingLevel;
  }[];
}

@Controller('api/designs/:id/arrangements/:name')
export class ContractsController {
  constructor(
    private readonly designs: DesignsService,
    private readonly changes: ChangesService,
    private readonly compute: ComputeService,
  ) {}

  @Get()
  async arrangement(@Param('id') id: string, @Param('name') name: string): Promise<ArrangementView> {
    return this.viewOf(await this.designs.read(id), name);
  }

  private viewOf({ choices }: DesignView, name: string): ArrangementView {
    const { settings: _own, name: _name, ...parts } = this.designs.arrangement(choices, name);
    const arrangement = arrangementOf(name, choices);
    const names = Object.keys(SETTINGS) as SettingName[];
    const settings = names.map((setting) => ({
      name: setting,
      title: SETTINGS[setting].title,
      ...resolveSetting(arrangement, setting),
    }));
    return { name, settings, ...parts };
  }

  /** Puts other decisions in the place of those about an arrangement, or makes one. */
  @Put()
  async saveArrangement(
    @Param('id') id: string,
    @Param('name') name: string,
    @Body() body: Json,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ArrangementView> {
    const own = orThrow(readArrangement(name, partsIn(body), ''));
    const { design, isNew } = await this.changes.saveArrangement(id, own, ifMatch);
    if (isNew) {
      response.status(201);
      response.setHeader('Location', pathOf(id, name));
    }
    return this.viewOf(withETag(design, response), name);
  }

  @Put('name')
  async renameArrangement(
    @Param('id') id: string,
    @Param('name') name: string,
    @Body() { name: wanted }: ArrangementNameDto,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return withETag(await this.changes.renameArrangement(id, name, wanted, ifMatch), response);
  }

  @Delete()
  @HttpCode(200)
  async removeArrangement(
    @Param('id') id: string,
    @Param('name') name: string,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<DesignView> {
    return withETag(await this.changes.removeArrangement(id, name, ifMatch), response);
  }

  @Get('contract')
  @Header('Content-Type', 'application/json')
  async contract(
    @Param('id') id: string,
    @Param('name') name: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const { source } = withETag(await this.designs.source(id, name), response);
    return this.compute.run('contractText', source);
  }

  @Get('openapi.json')
  @Header('Content-Type', 'application/json')
  async openApi(
    @Param('id') id: string,
    @Param('name') name: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const { source } = withETag(await this.designs.source(id, name), response);
    return this.compute.run('openApiJson', source);
  }

  @Get('openapi.yaml')
  @Header('Content-Type', 'application/yaml')
  async openApiYaml(
    @Param('id') id: string,
    @Param('name') name: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const { source } = withETag(await this.designs.source(id, name), response);
    return this.compute.run('openApiYaml', source);
  }
}

/** A body in which settings stand, as they always do where everything else of an arrangement is put in its place. */
function partsIn(body: Json): Readonly<Record<string, Json>> {
  if (!isJsonObject(body)) {
    const message = 'Expected a JSON object.';
    throw new ApiProblem('invalid', message, { errors: [{ pointer: '', code: 'type', message }] });
  }
  return { settings: null, ...body };
}
