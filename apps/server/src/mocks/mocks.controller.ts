import type { SeedPreview } from '@isomeros/core/records';
import { Body, Controller, Headers, Param, Query, Res, type MessageEvent } from '@nestjs/common';
import type { Response } from 'express';
import {
  pathOf,
  type Faults,
  type Items,
  type LoadSecond,
  type Mock,
  type MockCredential,
  type RecordType,
  type SeedSettings,
  type SentMessage,
  type Snapshot,
} from '@isomeros/api';
import { filter, from, map, merge, type Observable } from 'rxjs';
import { Answered } from '../http/answered.js';
import { clientAbortSignal } from '../http/clientAbort.js';
import { EventRoute, Route } from '../http/route.js';
import { FaultsDto } from './faults.dto.js';
import { toFaults } from './faults.js';
import type { MockEvent } from './mockEvent.js';
import { credentialsAt } from './credentials.js';
import { MockRegistry } from './mockRegistry.js';
import {
  CreateMockDto,
  LoadQueryDto,
  MocksQueryDto,
  SeedPlanDto,
  SendMessageDto,
  ServedDto,
  servedIn,
  SnapshotDto,
} from './mocks.dto.js';
import { MocksService } from './mocks.service.js';
import { recordTypesIn } from './recordExport.js';
import { sampled } from './sampledEvents.js';

/** So many seconds are told where nobody says. */
const USUAL_SECONDS = 60;

/** How many missed exchanges a client that comes back is told of. */
const MOST_MISSED = 1_000;

@Controller()
export class MocksController {
  constructor(
    private readonly mocks: MocksService,
    private readonly registry: MockRegistry,
  ) {}

  @Route('GET /api/mocks')
  list(@Query() { design }: MocksQueryDto): Items<Mock> {
    return { items: this.mocks.list(design) };
  }

  @Route('POST /api/mocks')
  async create(@Body() body: CreateMockDto): Promise<Answered<Mock>> {
    const mock = await this.mocks.create(body);
    return new Answered(mock, { location: pathOf('GET /api/mocks/{id}', { id: mock.id }) });
  }

  @Route('GET /api/mocks/{id}')
  read(@Param('id') id: string): Mock {
    return this.mocks.read(id);
  }

  @Route('DELETE /api/mocks/{id}')
  async remove(@Param('id') id: string): Promise<void> {
    await this.mocks.remove(id);
  }

  @Route('POST /api/mocks/{id}/start')
  start(@Param('id') id: string): Promise<Mock> {
    return this.mocks.start(id);
  }

  @Route('POST /api/mocks/{id}/stop')
  stop(@Param('id') id: string): Promise<Mock> {
    return this.mocks.stop(id);
  }

  @Route('POST /api/mocks/{id}/reset')
  reset(@Param('id') id: string, @Res({ passthrough: true }) response: Response): Promise<Mock> {
    return this.mocks.reset(id, clientAbortSignal(response));
  }

  @Route('GET /api/mocks/{id}/record-types')
  recordTypes(@Param('id') id: string): Items<RecordType> {
    return { items: recordTypesIn(this.registry.find(id)) };
  }

  /** Whom the mock knows where it asks who sends; nobody where it asks nobody. */
  @Route('GET /api/mocks/{id}/credentials')
  credentials(@Param('id') id: string): Items<MockCredential> {
    return { items: this.registry.find(id).endpoints.flatMap(credentialsAt) };
  }

  @Route('GET /api/mocks/{id}/seed-plan')
  seedPlan(@Param('id') id: string): SeedSettings {
    return this.mocks.seedSettings(id);
  }

  /** What is wanted of seed records from the next reset on. */
  @Route('PUT /api/mocks/{id}/seed-plan')
  saveSeedPlan(@Param('id') id: string, @Body() body: SeedPlanDto): Promise<SeedSettings> {
    return this.mocks.saveSeedSettings(id, body);
  }

  /** What a plan would give, under the model that a reset takes. */
  @Route('POST /api/mocks/{id}/seed-preview')
  seedPreview(
    @Param('id') id: string,
    @Body() body: SeedPlanDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SeedPreview> {
    return this.mocks.seedPreview(id, body, clientAbortSignal(response));
  }

  /** What was answered lately, second by second. */
  @Route('GET /api/mocks/{id}/load')
  load(@Param('id') id: string, @Query() { seconds }: LoadQueryDto): Items<LoadSecond> {
    const asked = seconds === undefined ? USUAL_SECONDS : Number(seconds);
    return { items: this.registry.find(id).load.latest(Date.now(), asked) };
  }

  @Route('GET /api/mocks/{id}/faults')
  faults(@Param('id') id: string): Faults {
    return this.mocks.faults(id);
  }

  /** Puts other rules in the place of those there were; draws begin anew. */
  @Route('PUT /api/mocks/{id}/faults')
  saveFaults(@Param('id') id: string, @Body() body: FaultsDto): Promise<Faults> {
    return this.mocks.saveFaults(id, toFaults(body));
  }

  /** Says which version answers requests that name none. */
  @Route('PUT /api/mocks/{id}/unversioned')
  answerUnversioned(@Param('id') id: string, @Body() body: ServedDto): Promise<Mock> {
    return this.mocks.answerUnversioned(id, servedIn(body));
  }

  /** Takes the latest write back, as a write of its own. */
  @Route('POST /api/mocks/{id}/undo')
  undo(@Param('id') id: string, @Res({ passthrough: true }) response: Response): Promise<Mock> {
    return this.mocks.undo(id, clientAbortSignal(response));
  }

  @Route('GET /api/mocks/{id}/snapshots')
  async snapshots(@Param('id') id: string): Promise<Items<Snapshot>> {
    return { items: await this.mocks.snapshots(id) };
  }

  /** Keeps the records as they are under a name, in the place of an earlier snapshot of that name. */
  @Route('POST /api/mocks/{id}/snapshots')
  async takeSnapshot(
    @Param('id') id: string,
    @Body() { name }: SnapshotDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Answered<Snapshot>> {
    const { view, isNew } = await this.mocks.takeSnapshot(id, name, clientAbortSignal(response));
    const location = `/api/mocks/${id}/snapshots/${encodeURIComponent(name)}`;
    return new Answered(view, { created: isNew, location });
  }

  @Route('POST /api/mocks/{id}/snapshots/{name}/restore')
  restoreSnapshot(
    @Param('id') id: string,
    @Param('name') name: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Mock> {
    return this.mocks.restoreSnapshot(id, name, clientAbortSignal(response));
  }

  @Route('DELETE /api/mocks/{id}/snapshots/{name}')
  async removeSnapshot(@Param('id') id: string, @Param('name') name: string): Promise<void> {
    await this.mocks.removeSnapshot(id, name);
  }

  /** Sends a message to the mock. It shows up in the journal like any other client's. */
  @Route('POST /api/mocks/{id}/messages')
  send(@Param('id') id: string, @Body() body: SendMessageDto): Promise<SentMessage> {
    return this.mocks.send(id, body.message, servedIn(body));
  }

  /** Exchanges and changes of a mock as they happen. After `Last-Event-ID` the exchanges since are told first. */
  @EventRoute('GET /api/mocks/{id}/events')
  events(
    @Param('id') id: string,
    @Headers('last-event-id') lastEventId: string | undefined,
  ): Observable<MessageEvent> {
    const state: MockEvent = { kind: 'mock', mock: id, state: this.mocks.read(id) };
    const since = Number(lastEventId ?? NaN);
    const missed = Number.isInteger(since)
      ? this.registry
          .find(id)
          .journal.latest(MOST_MISSED)
          .filter(({ number }) => number > since)
          .reverse()
      : [];
    const catchUp: MockEvent[] = [
      state,
      ...missed.map((exchange): MockEvent => ({ kind: 'exchange', mock: id, exchange })),
    ];
    const own = this.registry.events.pipe(filter((event) => event.mock === id));
    return merge(from(catchUp), sampled(own)).pipe(map(asMessage));
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
    case 'sampled': {
      const { told, of, last } = event;
      return { type: 'sampled', id: String(last), data: { told, of, last } };
    }
    case 'removed':
      return { type: 'removed', data: { id: event.mock } };
  }
}
