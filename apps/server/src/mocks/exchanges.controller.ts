import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { NamedExample } from '@isomeros/core/arrangement';
import { pathOf, type Exchange, type ExchangeSummary, type Items } from '@isomeros/api';
import { Controller, Param, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Answered } from '../http/answered.js';
import { isNumber, nextLink, readLimit, readPageCursor, writePageCursor } from '../http/pagination.js';
import { ApiProblem } from '../http/problem.js';
import { Route, TextRoute } from '../http/route.js';
import { exchangeFilter, ExchangesPageQueryDto, ExchangesQueryDto } from './exchanges.dto.js';
import { ExchangesService } from './exchanges.service.js';

/** The exchanges of a mock, as long as its journal keeps them. */
@Controller()
export class ExchangesController {
  constructor(private readonly exchanges: ExchangesService) {}

  @Route('GET /api/mocks/{id}/exchanges')
  async list(
    @Param('id') id: string,
    @Query() { limit, cursor, ...looked }: ExchangesPageQueryDto,
  ): Promise<Answered<Items<ExchangeSummary>>> {
    const before = cursor === undefined ? Infinity : Number(readPageCursor(cursor, [isNumber])[0]);
    const size = readLimit(limit);
    const items = await this.exchanges.page(id, before, size, exchangeFilter(looked));
    const last = items.at(-1);
    const hasMore = items.length === size && last !== undefined && last.number > 1;
    const path = pathOf('GET /api/mocks/{id}/exchanges', { id });
    const next = hasMore
      ? nextLink(path, { ...looked, limit, cursor: writePageCursor([String(last.number)]) })
      : null;
    return new Answered({ items }, { next });
  }

  @Route('DELETE /api/mocks/{id}/exchanges')
  async clear(@Param('id') id: string): Promise<void> {
    await this.exchanges.clear(id);
  }

  /** Exchanges as an archive that other programs read (HAR 1.2). */
  @TextRoute('GET /api/mocks/{id}/har')
  async archive(
    @Param('id') id: string,
    @Query() looked: ExchangesQueryDto,
    @Res() response: Response,
  ): Promise<void> {
    const parts = this.exchanges.archive(id, exchangeFilter(looked));
    response.status(200).attachment('exchanges.har');
    response.setHeader('Content-Type', 'application/json').setHeader('Cache-Control', 'no-store');
    await pipeline(Readable.from(parts), response);
  }

  @Route('PUT /api/mocks/{id}/exchanges/{number}/pin')
  async pin(@Param('id') id: string, @Param('number') number: string): Promise<void> {
    await this.exchanges.pin(id, exchangeNumber(number));
  }

  @Route('DELETE /api/mocks/{id}/exchanges/{number}/pin')
  async unpin(@Param('id') id: string, @Param('number') number: string): Promise<void> {
    await this.exchanges.unpin(id, exchangeNumber(number));
  }

  @Route('GET /api/mocks/{id}/exchanges/{number}')
  read(@Param('id') id: string, @Param('number') number: string): Promise<Exchange> {
    return this.exchanges.read(id, exchangeNumber(number));
  }

  @Route('GET /api/mocks/{id}/exchanges/{number}/example')
  example(@Param('id') id: string, @Param('number') number: string): NamedExample {
    return this.exchanges.example(id, exchangeNumber(number));
  }
}

function exchangeNumber(number: string): number {
  if (!/^[1-9]\d{0,14}$/.test(number))
    throw new ApiProblem('not-found', `The journal holds no exchange ${number}.`);
  return Number(number);
}
