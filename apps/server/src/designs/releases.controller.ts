import { Body, Controller, Header, Param, Query, Res } from '@nestjs/common';
import { pathOf, type Items, type Publication, type Release } from '@isomeros/api';
import type { ContractChange } from '@isomeros/core/comparison';
import type { PublicationName } from '@isomeros/core/publication';
import type { Response } from 'express';
import { Answered } from '../http/answered.js';
import { Route, TextRoute } from '../http/route.js';
import {
  ChangesQueryDto,
  MakeReleaseDto,
  PublicationQueryDto,
  readSuccessor,
  ReleaseEndDto,
} from './designs.dto.js';
import { documentNamed, formatNamed, listedFormats, sendDocument } from './publishedDocument.js';
import { ReleasesService } from './releases.service.js';

@Controller()
export class ReleasesController {
  constructor(private readonly releases: ReleasesService) {}

  @Route('GET /api/designs/{id}/releases')
  async list(@Param('id') id: string): Promise<Items<Release>> {
    return { items: await this.releases.list(id) };
  }

  @Route('POST /api/designs/{id}/releases')
  async make(
    @Param('id') id: string,
    @Body() { label, arrangement }: MakeReleaseDto,
  ): Promise<Answered<Release>> {
    const made = await this.releases.make(id, label, arrangement);
    return new Answered(made, { location: pathOf('GET /api/designs/{id}/releases/{label}', { id, label }) });
  }

  @Route('GET /api/designs/{id}/releases/{label}')
  read(@Param('id') id: string, @Param('label') label: string): Promise<Release> {
    return this.releases.read(id, label);
  }

  @Route('DELETE /api/designs/{id}/releases/{label}')
  async remove(@Param('id') id: string, @Param('label') label: string): Promise<void> {
    await this.releases.remove(id, label);
  }

  @Route('PUT /api/designs/{id}/releases/{label}/end')
  mark(
    @Param('id') id: string,
    @Param('label') label: string,
    @Body() { deprecatedAt, sunsetAt, successor }: ReleaseEndDto,
  ): Promise<Release> {
    const end = { deprecatedAt, sunsetAt: sunsetAt ?? null, successor: readSuccessor(successor) };
    return this.releases.mark(id, label, end);
  }

  @Route('DELETE /api/designs/{id}/releases/{label}/end')
  unmark(@Param('id') id: string, @Param('label') label: string): Promise<Release> {
    return this.releases.mark(id, label, null);
  }

  @TextRoute('GET /api/designs/{id}/releases/{label}/contract')
  @Header('Content-Type', 'application/json')
  contract(@Param('id') id: string, @Param('label') label: string): Promise<string> {
    return this.releases.contract(id, label);
  }

  @Route('GET /api/designs/{id}/releases/{label}/changes')
  async changes(
    @Param('id') id: string,
    @Param('label') label: string,
    @Query() { arrangement }: ChangesQueryDto,
  ): Promise<Items<ContractChange>> {
    return { items: await this.releases.changes(id, label, arrangement) };
  }

  @Route('GET /api/designs/{id}/releases/{label}/publications')
  async publications(@Param('id') id: string, @Param('label') label: string): Promise<Items<Publication>> {
    const unsaid = await this.releases.publications(id, label);
    const template = 'GET /api/designs/{id}/releases/{label}/publications/{format}';
    return { items: listedFormats(unsaid, (format) => pathOf(template, { id, label, format })) };
  }

  @TextRoute('GET /api/designs/{id}/releases/{label}/publications/{format}')
  async publication(
    @Param('id') id: string,
    @Param('label') label: string,
    @Param('format') format: string,
    @Query() { server }: PublicationQueryDto,
    @Res() response: Response,
  ): Promise<void> {
    await this.send(id, label, formatNamed(format), server === 'mock', response);
  }

  @TextRoute('GET /api/designs/{id}/releases/{label}/{document}')
  async document(
    @Param('id') id: string,
    @Param('label') label: string,
    @Param('document') document: string,
    @Res() response: Response,
  ): Promise<void> {
    await this.send(id, label, documentNamed(document), false, response);
  }

  private async send(
    id: string,
    label: string,
    as: PublicationName,
    namesMock: boolean,
    response: Response,
  ): Promise<void> {
    const text = await this.releases.document(id, label, as, namesMock);
    sendDocument(response, as, text);
  }
}
