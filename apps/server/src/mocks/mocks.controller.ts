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
  Sse,
  type MessageEvent,
} from '@nestjs/common';
import type { Response } from 'express';
import { filter, from, map, merge, type Observable } from 'rxjs';
import { isNumber, nextLink, readPageCursor, readLimit, writePageCursor } from '../http/pagination.js';
import { ApiProblem } from '../http/problem.js';
import type { Exchange, ExchangeSummary } from './journal.js';
import { CreateMockDto, SeedPlanDto, SendMessageDto, servedIn, SnapshotDto } from './mocks.dto.js';
import { MockRegistry } from './mockRegistry.js';
import { MocksService } from './mocks.service.js';
import { recordTypesIn, type RecordTypeView } from './recordExport.js';
import type { SnapshotView } from './snapshots.js';
import { FaultsDto } from './faults.dto.js';
import { toFaults, type Faults } from './faults.js';
import type { MockEvent, MockView, SeedSettings } from './views.js';

/** How many missed exchanges a client that comes back is told of. */
const MOST_MISSED = 1_000;

@Controller('api/mocks')
export class MocksController {
  constructor(
    private readonly mocks: MocksService,
    private readonly mock: MockRegistry,
  ) {}

  @Get()
  list(@Query('design') design: string | undefined): { items: readonly MockView[] } {
    return { items: this.mocks.list(design) };
  }

  @Post()
  async create(
    @Body() body: CreateMockDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<MockView> {
    const mock = await this.mocks.create(body);
    response.setHeader('Location', `/api/mocks/${mock.id}`);
    return mock;
  }

  @Get(':id')
  read(@Param('id') id: string): MockView {
    return this.mocks.read(id);
  }

  @Delete(':id')
  @HttpCode(204)
  async remove(@Param('id') id: string): Promise<void> {
    await this.mocks.remove(id);
  }

  @Post(':id/start')
  @HttpCode(200)
  start(@Param('id') id: string): Promise<MockView> {
    return this.mocks.start(id);
  }

  @Post(':id/stop')
  @HttpCode(200)
  stop(@Param('id') id: string): Promise<MockView> {
    return this.mocks.stop(id);
  }

  @Post(':id/reset')
  @HttpCode(200)
  reset(@Param('id') id: string): Promise<MockView> {
    return this.mocks.reset(id);
  }

  @Get(':id/kinds')
  kinds(@Param('id') id: string): { items: readonly RecordTypeView[] } {
    return { items: recordTypesIn(this.mock.find(id)) };
  }

  @Get(':id/seeding')
  seeding(@Param('id') id: string): SeedSettings {
    return this.mocks.seedSettings(id);
  }

  /** What is wanted of seed records from the next reset on. */
  @Put(':id/seeding')
  tellSeeding(@Param('id') id: string, @Body() body: SeedPlanDto): Promise<SeedSettings> {
    return this.mocks.saveSeedSettings(id, body);
  }

  @Get(':id/trouble')
  trouble(@Param('id') id: string): Faults {
    return this.mocks.faults(id);
  }

  /** Puts other rules in the place of those there were; draws begin anew. */
  @Put(':id/trouble')
  tellTrouble(@Param('id') id: string, @Body() body: FaultsDto): Promise<Faults> {
    return this.mocks.saveFaults(id, toFaults(body));
  }

  /** Takes the latest write back, as a write of its own. */
  @Post(':id/undo')
  @HttpCode(200)
  undo(@Param('id') id: string): Promise<MockView> {
    return this.mocks.undo(id);
  }

  @Get(':id/snapshots')
  async snapshots(@Param('id') id: string): Promise<{ items: readonly SnapshotView[] }> {
    return { items: await this.mocks.snapshots(id) };
  }

  /** Keeps the records as they are under a name, in the place of an earlier snapshot of that name. */
  @Post(':id/snapshots')
  async takeSnapshot(
    @Param('id') id: string,
    @Body() { name }: SnapshotDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SnapshotView> {
    const { view, isNew } = await this.mocks.takeSnapshot(id, name);
    response.status(isNew ? 201 : 200);
    response.setHeader('Location', `/api/mocks/${id}/snapshots/${encodeURIComponent(name)}`);
    return view;
  }

  @Post(':id/snapshots/:name/restore')
  @HttpCode(200)
  restoreSnapshot(@Param('id') id: string, @Param('name') name: string): Promise<MockView> {
    return this.mocks.restoreSnapshot(id, name);
  }

  @Delete(':id/snapshots/:name')
  @HttpCode(204)
  async removeSnapshot(@Param('id') id: string, @Param('name') name: string): Promise<void> {
    await this.mocks.removeSnapshot(id, name);
  }

  /** Sends a message to the mock. It shows up in the journal like any other client's. */
  @Post(':id/messages')
  @HttpCode(202)
  async send(@Param('id') id: string, @Body() body: SendMessageDto): Promise<{ lastExchange: number }> {
    await this.mocks.send(id, body.message, servedIn(body));
    return { lastExchange: this.mocks.lastExchange(id) };
  }

  @Get(':id/exchanges')
  exchanges(
    @Param('id') id: string,
    @Query('limit') limit: string | undefined,
    @Query('cursor') cursor: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ): { items: readonly ExchangeSummary[] } {
    const before = cursor === undefined ? Infinity : Number(readPageCursor(cursor, [isNumber])[0]);
    const size = readLimit(limit);
    const items = this.mocks.exchanges(id, before, size);
    const last = items.at(-1);
    if (items.length === size && last !== undefined && last.number > 1) {
      response.setHeader(
        'Link',
        nextLink(`/api/mocks/${id}/exchanges`, { limit, cursor: writePageCursor([String(last.number)]) }),
      );
    }
    return { items };
  }

  @Get(':id/exchanges/:number')
  exchange(@Param('id') id: string, @Param('number') number: string): Exchange {
    if (!/^[1-9]\d{0,14}$/.test(number))
      throw new ApiProblem('not-found', `The journal holds no exchange ${number}.`);
    return this.mocks.exchange(id, Number(number));
  }

  /** Exchanges and changes of a mock as they happen. After `Last-Event-ID` the exchanges since are told first. */
  @Sse(':id/events')
  events(
    @Param('id') id: string,
    @Headers('last-event-id') lastEventId: string | undefined,
  ): Observable<MessageEvent> {
    const state: MockEvent = { kind: 'mock', mock: id, state: this.mocks.read(id) };
    const since = Number(lastEventId ?? NaN);
    const missed = Number.isInteger(since)
      ? this.mocks
          .exchanges(id, Infinity, MOST_MISSED)
          .filter(({ number }) => number > since)
          .reverse()
      : [];
    const catchUp: MockEvent[] = [
      state,
      ...missed.map((exchange): MockEvent => ({ kind: 'exchange', mock: id, exchange })),
    ];
    return merge(from(catchUp), this.mock.events.pipe(filter((event) => event.mock === id))).pipe(
      map(asMessage),
    );
  }
}

function asMessage(event: MockEvent): MessageEvent {
  switch (event.kind) {
    case 'exchange':
      return { type: 'exchange', id: String(event.exchange.number), data: event.exchange };
    case 'mock':
      return { type: 'mock', id: String(event.state.exchanges), data: event.state };
    case 'progress':
      return { type: 'progress', data: event.progress };
    case 'removed':
      return { type: 'removed', data: { id: event.mock } };
  }
}
