import { Body, Controller, Headers, Param, Query, Res } from '@nestjs/common';
import { pathOf, type ArrangementView, type Design, type Items, type Publication } from '@isomeros/api';
import {
  arrangementOf,
  readArrangement,
  setting as resolveSetting,
  SETTINGS,
  type SettingName,
} from '@isomeros/core/arrangement';
import { isJsonObject, type Json, type JsonObject } from '@isomeros/core/model';
import type { PublicationName } from '@isomeros/core/publication';
import type { Response } from 'express';
import { ComputeService } from '../compute/compute.service.js';
import { Answered, withETag } from '../http/answered.js';
import { etagOf } from '../http/etag.js';
import { ApiProblem } from '../http/problem.js';
import { Route, TextRoute } from '../http/route.js';
import { ChangesService } from './changes.service.js';
import { DesignDependents } from './designDependents.js';
import { ArrangementNameDto, PublicationQueryDto } from './designs.dto.js';
import { DesignsService } from './designs.service.js';
import { documentNamed, formatNamed, listedFormats, sendDocument } from './publishedDocument.js';
import { orThrow } from './orThrow.js';

@Controller()
export class ContractsController {
  constructor(
    private readonly designs: DesignsService,
    private readonly changes: ChangesService,
    private readonly compute: ComputeService,
    private readonly dependents: DesignDependents,
  ) {}

  @Route('GET /api/designs/{id}/arrangements/{name}')
  async arrangement(@Param('id') id: string, @Param('name') name: string): Promise<ArrangementView> {
    return this.viewOf(await this.designs.read(id), name);
  }

  private viewOf({ choices }: Design, name: string): ArrangementView {
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
  @Route('PUT /api/designs/{id}/arrangements/{name}')
  async saveArrangement(
    @Param('id') id: string,
    @Param('name') name: string,
    @Body() body: Json,
    @Headers('if-match') ifMatch: string | undefined,
  ): Promise<Answered<ArrangementView>> {
    const own = orThrow(readArrangement(name, partsIn(body), ''));
    const { design, isNew } = await this.changes.saveArrangement(id, own, ifMatch);
    const location = pathOf('GET /api/designs/{id}/arrangements/{name}', { id, name });
    return new Answered(this.viewOf(design, name), {
      revision: design.revision,
      created: isNew,
      ...(isNew ? { location } : {}),
    });
  }

  @Route('PUT /api/designs/{id}/arrangements/{name}/name')
  async renameArrangement(
    @Param('id') id: string,
    @Param('name') name: string,
    @Body() { name: wanted }: ArrangementNameDto,
    @Headers('if-match') ifMatch: string | undefined,
  ): Promise<Answered<Design>> {
    return withETag(await this.changes.renameArrangement(id, name, wanted, ifMatch));
  }

  @Route('DELETE /api/designs/{id}/arrangements/{name}')
  async removeArrangement(
    @Param('id') id: string,
    @Param('name') name: string,
    @Headers('if-match') ifMatch: string | undefined,
  ): Promise<Answered<Design>> {
    return withETag(await this.changes.removeArrangement(id, name, ifMatch));
  }

  @TextRoute('GET /api/designs/{id}/arrangements/{name}/contract')
  async contract(
    @Param('id') id: string,
    @Param('name') name: string,
    @Res() response: Response,
  ): Promise<void> {
    const { source, revision } = await this.designs.source(id, name);
    const text = await this.compute.run('contractText', source);
    response.setHeader('ETag', etagOf(revision)).setHeader('Content-Type', 'application/json').send(text);
  }

  @Route('GET /api/designs/{id}/arrangements/{name}/publications')
  async publications(@Param('id') id: string, @Param('name') name: string): Promise<Items<Publication>> {
    const { source } = await this.designs.source(id, name);
    const unsaid = await this.compute.run('publications', source);
    const template = 'GET /api/designs/{id}/arrangements/{name}/publications/{format}';
    return { items: listedFormats(unsaid, (format) => pathOf(template, { id, name, format })) };
  }

  @TextRoute('GET /api/designs/{id}/arrangements/{name}/publications/{format}')
  publication(
    @Param('id') id: string,
    @Param('name') name: string,
    @Param('format') format: string,
    @Query() { server }: PublicationQueryDto,
    @Res() response: Response,
  ): Promise<void> {
    const mock = server === undefined ? null : this.dependents.addressOf(id, 'arrangement', name);
    return this.send(id, name, { as: formatNamed(format), mock }, response);
  }

  @TextRoute('GET /api/designs/{id}/arrangements/{name}/{document}')
  document(
    @Param('id') id: string,
    @Param('name') name: string,
    @Param('document') document: string,
    @Res() response: Response,
  ): Promise<void> {
    return this.send(id, name, { as: documentNamed(document), mock: null }, response);
  }

  private async send(
    id: string,
    name: string,
    wanted: { readonly as: PublicationName; readonly mock: string | null },
    response: Response,
  ): Promise<void> {
    const { source, revision } = await this.designs.source(id, name);
    const text = await this.compute.run('document', { ...source, ...wanted });
    sendDocument(response.setHeader('ETag', etagOf(revision)), wanted.as, text);
  }
}

/** A body in which settings stand, as they always do where everything else of an arrangement is put in its place. */
function partsIn(body: Json): JsonObject {
  if (!isJsonObject(body)) {
    const message = 'Expected a JSON object.';
    throw new ApiProblem('invalid', message, { errors: [{ pointer: '', code: 'type', message }] });
  }
  return { settings: null, ...body };
}
