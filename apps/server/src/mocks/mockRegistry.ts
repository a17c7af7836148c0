import type { MockEvent } from './mockEvent.js';
import type { Faults, ReleaseEnd } from '@isomeros/api';
import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { Dataset, IdempotentResponses, AccessTokens, type Counters } from '@isomeros/core/engine';
import type { Contract } from '@isomeros/core/contract';
import type { Progress } from '@isomeros/core/model';
import { Subject } from 'rxjs';
import type { DataSource } from 'typeorm';
import { EndpointRow, MockRow, type DatasetRow } from '../database/tables.js';
import { ReleasesService, type ServedRelease } from '../designs/releases.service.js';
import { DesignsService } from '../designs/designs.service.js';
import type { MockLimits } from '../config.js';
import { ApiProblem } from '../http/problem.js';
import { SERVER_SETTINGS, type ServerSettings } from '../settings.js';
import { DurableDataset } from './durableDataset.js';
import { Endpoint, type EndpointContext } from './endpoint.js';
import type { NewestModel } from './replaceRecords.js';
import { addressOf, firstOf, isRunning, listenAll, stopAll, viewOf, type LoadedMock } from './loadedMock.js';
import type { LargeWriteOptions } from './checkedWrite.js';
import { KeyedQueue } from './keyedQueue.js';
import { Journal } from './journal/journal.js';
import { JournalStore } from './journal/journalStore.js';
import type { KeptExchange } from './journal/keptExchange.js';
import { storedModel } from '../designs/modelColumns.js';
import { newDataset, type FirstRecords } from './newDataset.js';
import { serviceOf } from './service.js';
import { LoadMeter } from './load.js';
import { Origins } from './origin.js';
import { RecordStore, type Stored } from './recordStore.js';
import { allDerivations, deprecationOf } from './releaseEndpoints.js';
import {
  fromEndpointRow,
  servedArrangements,
  servedName,
  servedReleases,
  servedText,
  toEndpointRow,
  type ServedOnPort,
} from './served.js';
import { FaultInjector, NO_FAULTS } from './faults.js';

/** What a mock holds beside its records. */
type HeldParts = Pick<
  LoadedMock,
  'journal' | 'faultInjector' | 'load' | 'waiting' | 'shortfalls' | 'adjustments'
>;

const PROGRESS_EVERY_MS = 250;

/** The mocks in memory: read, made, listening, and parting from releases they cannot share records with. */
@Injectable()
export class MockRegistry {
  private readonly holder = randomUUID();
  private readonly origins = new Origins();
  private readonly loaded = new Map<string, LoadedMock>();
  /** What puts other records or another model in place is done one after the other, for each design. */
  readonly queue = new KeyedQueue();
  readonly events = new Subject<MockEvent>();

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly designs: DesignsService,
    private readonly releases: ReleasesService,
    @Inject(SERVER_SETTINGS) private readonly settings: ServerSettings,
  ) {}

  get limits(): MockLimits {
    return this.settings.limits;
  }

  all(): readonly LoadedMock[] {
    return [...this.loaded.values()];
  }

  ofDesign(design: string): readonly LoadedMock[] {
    return this.all().filter(({ row }) => row.designId === design);
  }

  find(id: string): LoadedMock {
    const mock = this.loaded.get(id);
    if (mock === undefined) throw new ApiProblem('not-found', `There is no mock ${id}.`);
    return mock;
  }

  /** The newest sound model of a mock's design, with what it implies under what the mock serves. */
  async newestFor({ row, endpoints }: LoadedMock): Promise<NewestModel> {
    const model = await this.designs.validModel(row.designId);
    return { ...model, derivations: await this.designs.derivations(model, servedArrangements(endpoints)) };
  }

  announce(mock: LoadedMock): void {
    this.events.next({ kind: 'mock', mock: mock.row.id, state: viewOf(mock) });
  }

  /** Tells of other contracts of a mock, once those that cannot be told apart any more have a port of their own. */
  async settle(mock: LoadedMock): Promise<void> {
    for (const endpoint of mock.endpoints) {
      if (!endpoint.isStray) continue;
      await endpoint.stop();
      endpoint.port = 0;
    }
    if (isRunning(mock)) await this.listen(mock, true);
    this.announce(mock);
  }

  /** What a write to a mock needs that is about all records. */
  writeOptions(mock: LoadedMock, signal?: AbortSignal): LargeWriteOptions {
    return {
      most: this.limits.records,
      split: (releases) => this.split(mock, releases),
      watching: { onProgress: this.progressOf(mock), signal },
    };
  }

  /** Tells whoever looks on how far a large write is, now and then. */
  progressOf(mock: LoadedMock): (progress: Progress) => void {
    let told = performance.now();
    return (progress) => {
      if (performance.now() - told < PROGRESS_EVERY_MS) return;
      told = performance.now();
      this.events.next({ kind: 'progress', mock: mock.row.id, progress });
    };
  }

  /** Stops serving a mock, and forgets it until it is read again. */
  async unload(mock: LoadedMock): Promise<void> {
    this.loaded.delete(mock.row.id);
    await stopAll(mock);
    await mock.journal.close();
    this.events.next({ kind: 'removed', mock: mock.row.id });
  }

  /** Writes a new mock with its records, which are in memory already. */
  async begin(
    row: MockRow,
    endpoints: readonly ServedOnPort[],
    { seed, plan, beginsInitial, model, rows, counters }: FirstRecords,
  ): Promise<LoadedMock> {
    const store = this.storeOf(row.id);
    const dataset = newDataset({ seed, seedPlan: JSON.stringify(plan), beginsInitial }, model, counters);
    const endpointRows = endpoints.map((endpoint, index) => toEndpointRow(row.id, endpoint, index));
    await store.insertAll(row, endpointRows, dataset, rows);
    return this.loadStored(row, endpoints, store, { dataset, rows, answers: [], tokens: [] });
  }

  private storeOf(id: string): RecordStore {
    return new RecordStore(this.database, id, this.holder);
  }

  /** Reads a mock into memory. */
  async load(row: MockRow): Promise<LoadedMock> {
    const store = this.storeOf(row.id);
    const endpoints = await this.database
      .getRepository(EndpointRow)
      .find({ where: { mockId: row.id }, order: { position: 'ASC' } });
    return this.loadStored(row, endpoints.map(fromEndpointRow), store, await store.open());
  }

  private async loadStored(
    row: MockRow,
    wanted: readonly ServedOnPort[],
    store: RecordStore,
    {
      dataset,
      rows,
      answers,
      tokens,
    }: Omit<Stored, 'dataset'> & {
      readonly dataset: Omit<DatasetRow, 'id' | 'holder'>;
    },
  ): Promise<LoadedMock> {
    const releases = await Promise.all(
      servedReleases(wanted).map((label) => this.releases.served(row.designId, label)),
    );
    const derivations = allDerivations(
      await this.designs.derivations(storedModel(dataset), servedArrangements(wanted)),
      releases,
    );
    const { model } = firstOf(derivations);
    const counters = JSON.parse(dataset.counters) as Counters;
    const kept = new IdempotentResponses(answers);
    const held = new Dataset(model, rows, counters, kept, new AccessTokens(tokens));
    const records = new DurableDataset(store, held, dataset.sequence);
    const mock: LoadedMock = {
      ...this.heldParts(row, records),
      row,
      dataset,
      store,
      records,
      endpoints: [],
      releases,
    };
    const shared = this.sharedBy(mock);
    mock.endpoints = wanted.map(({ served, port, unversioned }, index) => {
      const derivation = derivations[index] ?? firstOf(derivations);
      const end = (): ReleaseEnd | null =>
        served.kind === 'release' ? this.endOf(row.designId, served.label) : null;
      const service = serviceOf(derivation, row, servedText(served));
      const endpoint = new Endpoint(served, port, service, shared, () =>
        deprecationOf(end(), (successor) => this.successorAt(row.designId, successor)),
      );
      endpoint.unversioned = unversioned;
      return endpoint;
    });
    await mock.journal.open();
    this.loaded.set(row.id, mock);
    return mock;
  }

  private heldParts(row: MockRow, records: DurableDataset): HeldParts {
    const faultInjector = new FaultInjector({ ...NO_FAULTS, ...(JSON.parse(row.faults) as Partial<Faults>) });
    const store = new JournalStore(this.database, row.id);
    const journal = new Journal(store, this.limits, (arrangement) =>
      this.contractServed(row.id, arrangement),
    );
    const load = new LoadMeter({
      memory: () => process.memoryUsage().heapUsed,
      records: () => records.dataset.size,
    });
    return { journal, faultInjector, load, waiting: [], shortfalls: [], adjustments: [] };
  }

  /** The contract that a mock serves under a name now. */
  private contractServed(id: string, called: string): Contract | undefined {
    const endpoints = this.loaded.get(id)?.endpoints ?? [];
    return endpoints.find(({ served }) => servedText(served) === called)?.service.contract;
  }

  private sharedBy(mock: LoadedMock): EndpointContext {
    const { records, journal, faultInjector, load } = mock;
    const onExchange = (exchange: KeptExchange): void => {
      load.count(exchange.at, exchange.response.status, exchange.microseconds / 1_000);
      if (this.events.observed)
        this.events.next({ kind: 'exchange', mock: mock.row.id, exchange: journal.summaryOf(exchange) });
    };
    const { records: mostRecords } = this.limits;
    const { origins } = this;
    const partners = this.partnersOf(mock);
    return { origins, records, journal, faultInjector, onExchange, partners, mostRecords };
  }

  /** The releases that share the records of a mock, and how they get their own. */
  partnersOf(mock: LoadedMock): EndpointContext['partners'] {
    return {
      releases: () => mock.releases,
      split: (releases) => this.queue.run(mock.row.designId, () => this.split(mock, releases)),
    };
  }

  private endOf(design: string, label: string): ReleaseEnd | null {
    for (const { releases } of this.ofDesign(design))
      for (const release of releases) if (release.label === label) return release.end;
    return null;
  }

  private successorAt(design: string, successor: NonNullable<ReleaseEnd['successor']>): string | null {
    const wanted = 'release' in successor ? successor.release : successor.arrangement;
    const kind = 'release' in successor ? 'release' : 'arrangement';
    for (const mock of this.ofDesign(design)) {
      const address = addressOf(mock, kind, wanted);
      if (address !== null) return address;
    }
    return null;
  }

  /** Follows what is said about the end of a release. */
  mark(design: string, label: string, end: ReleaseEnd | null): void {
    for (const mock of this.ofDesign(design))
      mock.releases = mock.releases.map((release) =>
        release.label === label ? { ...release, end } : release,
      );
  }

  /**
   * Gives releases the records there are now, each as a mock of its own; their ports go with them, and nobody who
   * is connected is cut off. Writes wait meanwhile.
   */
  async split(mock: LoadedMock, wanted: readonly ServedRelease[]): Promise<void> {
    for (const { label } of wanted) {
      const release = mock.releases.find((known) => known.label === label);
      if (release === undefined) continue;
      const parted = await mock.records.exclusively(() => this.partOne(mock, release));
      this.announce(mock);
      this.announce(parted);
    }
  }

  private async partOne(mock: LoadedMock, release: ServedRelease): Promise<LoadedMock> {
    const { dataset: now } = mock.records;
    const apart = { ...mock.row, id: randomUUID(), createdAt: new Date() };
    const rows = [...now.everything()];
    const beside = { answers: [...now.answers.all()], tokens: [...now.tokens.all()] };
    const store = this.storeOf(apart.id);
    const dataset = newDataset(mock.dataset, release.model, now.counters);
    const at = { mockId: mock.row.id, kind: 'release', name: release.label } as const;
    await store.insertAll(apart, [], dataset, rows, beside, (manager) =>
      manager.update(EndpointRow, at, { mockId: apart.id }),
    );
    const own = new Dataset(
      release.derivation.model,
      rows,
      now.counters,
      new IdempotentResponses(beside.answers),
      new AccessTokens(beside.tokens),
    );
    const endpoint = mock.endpoints.find(
      ({ served }) => served.kind === 'release' && served.label === release.label,
    );
    const records = new DurableDataset(store, own, dataset.sequence);
    const parted: LoadedMock = {
      ...this.heldParts(apart, records),
      row: apart,
      dataset,
      store,
      records,
      endpoints: endpoint === undefined ? [] : [endpoint],
      releases: [release],
    };
    endpoint?.moveTo(this.sharedBy(parted));
    mock.endpoints = mock.endpoints.filter((other) => other !== endpoint);
    mock.releases = mock.releases.filter((other) => other !== release);
    this.loaded.set(apart.id, parted);
    return parted;
  }

  /** Lets one endpoint answer requests that name no version. */
  async answerUnversioned(mock: LoadedMock, chosen: Endpoint): Promise<void> {
    const mockId = mock.row.id;
    await this.database.transaction(async (manager) => {
      for (const endpoint of mock.endpoints) {
        const at = { mockId, kind: endpoint.served.kind, name: servedName(endpoint.served) };
        await manager.update(EndpointRow, at, { unversioned: endpoint === chosen });
      }
    });
    for (const endpoint of mock.endpoints) endpoint.unversioned = endpoint === chosen;
  }

  /** Opens the port that each arrangement and release had, or, where that may be, the next free one. */
  async listen(mock: LoadedMock, mayMove: boolean): Promise<void> {
    const others = this.all().filter((other) => other !== mock);
    const taken = new Set(others.flatMap(({ endpoints }) => endpoints.map(({ port }) => port)));
    await listenAll(mock, { first: this.settings.mockPort, taken, mayMove });
    const mockId = mock.row.id;
    await this.database.transaction(async (manager) => {
      for (const { served, port } of mock.endpoints)
        await manager.update(EndpointRow, { mockId, kind: served.kind, name: servedName(served) }, { port });
      await manager.update(MockRow, { id: mockId }, { running: true });
    });
    mock.row = { ...mock.row, running: true };
  }
}
