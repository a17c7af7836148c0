import { Body, Controller, Get, Header, Headers, Param, Put, Res } from '@nestjs/common';
import {
  arrangementOf,
  setting as resolveSetting,
  SETTING_DEFAULTS,
  SETTING_TITLES,
  type SettingLevel,
  type SettingName,
} from '@isomeros/core/arrangement';
import type { Contract } from '@isomeros/core/contract';
import type { Response } from 'express';
import { etagOf, tagged } from '../http/etag.js';
import { ChangesService } from './changes.service.js';
import { readLevel } from './designs.controller.js';
import { SaveArrangementDto } from './designs.dto.js';
import { DesignsService } from './designs.service.js';

interface ArrangementView {
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
  ) {}

  @Get()
  async arrangement(@Param('id') id: string, @Param('name') name: string): Promise<ArrangementView> {
    await this.designs.derivation(id, name);
    const { choices } = await this.designs.read(id);
    const arrangement = arrangementOf(name, choices);
    const names = Object.keys(SETTING_DEFAULTS) as SettingName[];
    const settings = names.map((setting) => ({
      name: setting,
      title: SETTING_TITLES[setting],
      ...resolveSetting(arrangement, setting),
    }));
    return { name, settings };
  }

  /** Puts other settings in the place of those the arrangement has of its own. */
  @Put()
  async saveArrangement(
    @Param('id') id: string,
    @Param('name') name: string,
    @Body() { settings }: SaveArrangementDto,
    @Headers('if-match') ifMatch: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ArrangementView> {
    const own = readLevel(settings, '/settings', 'arrangement');
    await this.designs.derivation(id, name);
    tagged(await this.changes.saveArrangement(id, name, own, ifMatch), response);
    return this.arrangement(id, name);
  }

  @Get('contract')
  async contract(
    @Param('id') id: string,
    @Param('name') name: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Contract> {
    const { contract, revision } = await this.designs.derivation(id, name);
    response.setHeader('ETag', etagOf(revision));
    return contract;
  }

  @Get('openapi.json')
  @Header('Content-Type', 'application/json')
  async openApi(
    @Param('id') id: string,
    @Param('name') name: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const { description, revision } = await this.designs.derivation(id, name);
    response.setHeader('ETag', etagOf(revision));
    return description();
  }
}
