import { randomUUID } from 'node:crypto';
import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { FIRST_ARRANGEMENT } from '@isomeros/core/arrangement';
import { adopt, Dataset, type Counters } from '@isomeros/core/engine';
import { Subject } from 'rxjs';
import type { DataSource } from 'typeorm';
import { FIRST_MOCK_PORT } from '../config.js';
import { DatasetRow, MockRow, RecordRow } from '../database/tables.js';
import type { Derivation } from '../designs/derivations.js';
import { DesignEvents, type Followed } from '../designs/designEvents.js';
import { DesignsService, type SoundModel } from '../designs/designs.service.js';
import { ApiProblem } from '../http/problem.js';
import { DurableDataset } from './durableDataset.js';
import { InTurn } from './inTurn.js';
import { Journal, summaryOf, type Exchange, type ExchangeSummary } from './journal.js';
import type { MockEvent, MockView } from './views.js';
import { RunningMock } from './runningMock.js';
import type { CreateMockDto } from './mocks.dto.js';
import {
  isOutdated,
  isPortTaken,
  makeRecords,
  modelColumns,
  newestDerivation,
  readCounts,
  serviceOf,
  servedBy,
  storedDerivation,
  type ModelColumns,
} from './provision.js';
import { RecordStore, toStored } from './recordStore.js';

interface Held {
  row: MockRow;
  dataset: Pick<DatasetRow, 'seed' | 'counts'> & ModelColumns;
  readonly store: RecordStore;
  readonly server: RunningMock;
  readonly journal: Journal;
  obstacles: readonly string[];
}

const PORTS_TRIED = 200;
const INSERT_CHUNK = 500;

/** Creates mocks, keeps them running across restarts, and hands them the models that designs get. */
@Injectable()
export class MocksService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('Mocks');
  private readonly holder = randomUUID();
  private readonly held = new Map<string, Held>();
  /** Changes of a design are taken over one after the other. */
  private readonly takingOver = new InTurn((error) => {
    this.logger.error(error instanceof Error ? error.stack : String(error));
  });
  readonly events = new Subject<MockEvent>();

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly designs: DesignsService,
    private readonly designEvents: DesignEvents,
  ) {}

  /** Mocks that were running when the server ended are running again. */
  async onApplicationBootstrap(): Promise<void> {
    this.designEvents.modelChanged.subscribe((design) => {
      this.takingOver.run(design, () => this.takeOverModel(design));
    });
    this.designEvents.arrangementRenamed.subscribe(({ design, from, to }) => {
      for (const held of this.held.values()) {
        if (held.row.designId !== design) continue;
        const served = JSON.parse(held.row.arrangements) as string[];
        const arrangements = JSON.stringify(served.map((name) => (name === from ? to : name)));
        held.row = { ...held.row, arrangements };
      }
    });
    this.designEvents.removing.subscribe(({ id, done }) => {
      for (const held of [...this.held.values()]) if (held.row.designId === id) done.push(this.release(held));
    });
    this.designEvents.broughtBack.subscribe(({ id, done }: Followed) => {
      done.push(this.holdAll({ designId: id }));
    });
    await this.holdAll({});
  }

  /** Reads the mocks of designs that are not removed; those that were running are running again. */
  private async holdAll(wanted: { readonly designId?: string }): Promise<void> {
    const rows = await this.database
      .getRepository(MockRow)
      .find({ where: wanted, order: { createdAt: 'ASC' } });
    for (const row of rows) {
      if (!(await this.designs.isThere(row.designId))) continue;
      const held = await this.hold(row);
      if (row.running) await this.listen(held, true);
      await this.refreshModel(held);
    }
  }

  /** Stops serving a mock, and forgets it until it is read again. */
  private async release(held: Held): Promise<void> {
    this.held.delete(held.row.id);
    await held.server.stop();
    this.events.next({ kind: 'removed', mock: held.row.id });
  }

  async beforeApplicationShutdown(): Promise<void> {
    await Promise.all([...this.held.values()].map(({ server }) => server.stop()));
    this.events.complete();
  }

  list(design: string | undefined): MockView[] {
    const all = [...this.held.values()].filter(({ row }) => design === undefined || row.designId === design);
    return all.map((held) => this.view(held));
  }

  read(id: string): MockView {
    return this.view(this.find(id));
  }

  async create(wanted: CreateMockDto): Promise<MockView> {
    const model = await this.designs.soundModel(wanted.design);
    const known = model.choices.arrangements.map(({ name }) => name);
    const missing = wanted.arrangements.find((name) => !known.includes(name));
    if (missing !== undefined) {
      const message = `The design has no arrangement ${missing}; it has ${known.join(', ')}.`;
      throw new ApiProblem('invalid', message, {
        errors: [{ pointer: '/arrangements', code: 'unknown', message }],
      });
    }
    const derivation = newestDerivation(model, wanted.arrangements[0] ?? FIRST_ARRANGEMENT);
    const counts = readCounts(wanted.counts ?? {}, derivation);
    const id = randomUUID();
    const seedNumber = wanted.seed ?? 42;
    const row: MockRow = {
      id,
      designId: wanted.design,
      arrangements: JSON.stringify(wanted.arrangements),
      port: wanted.port ?? 0,
      running: true,
      createdAt: new Date(),
    };
    await this.insert(row, seedNumber, counts, model, derivation);
    const held = await this.hold(row);
    try {
      await this.listen(held, wanted.port === undefined);
    } catch (error) {
      await this.remove(id);
      throw error;
    }
    this.announce(held);
    return this.view(held);
  }

  async start(id: string): Promise<MockView> {
    const held = this.find(id);
    if (!held.server.running) await this.listen(held, true);
    this.announce(held);
    return this.view(held);
  }

  async stop(id: string): Promise<MockView> {
    const held = this.find(id);
    await held.server.stop();
    await this.save(held, { running: false });
    this.announce(held);
    return this.view(held);
  }

  /** Puts fresh seed records in place of all, under the newest model of the design. */
  async reset(id: string): Promise<MockView> {
    const held = this.find(id);
    const model = await this.designs.soundModel(held.row.designId);
    const derivation = newestDerivation(model, servedBy(held.row));
    await held.server.records.replace(async (counters, sequence) => {
      const made = makeRecords(
        derivation,
        held.dataset.seed,
        JSON.parse(held.dataset.counts) as Record<string, number>,
        counters,
      );
      const next = { ...modelColumns(model), counters: JSON.stringify(made.counters), sequence };
      await held.store.replaceAll(made.rows, next);
      held.dataset = { ...held.dataset, ...modelColumns(model) };
      held.server.service = serviceOf(derivation);
      return new Dataset(derivation.model, made.rows, made.counters);
    });
    held.obstacles = [];
    this.announce(held);
    return this.view(held);
  }

  async remove(id: string): Promise<void> {
    await this.release(this.find(id));
    await this.database.getRepository(MockRow).delete({ id });
  }

  exchanges(id: string, before: number, limit: number): ExchangeSummary[] {
    return this.find(id).journal.page(before, limit);
  }

  exchange(id: string, number: number): Exchange {
    const exchange = this.find(id).journal.get(number);
    if (exchange === undefined) throw new ApiProblem('not-found', `The journal holds no exchange ${number}.`);
    return exchange;
  }

  lastExchange(id: string): number {
    return this.find(id).journal.count;
  }

  /** The port of a mock that listens. */
  listeningPort(id: string): number {
    const held = this.find(id);
    if (!held.server.running) throw new ApiProblem('conflict', 'The mock is stopped; start it first.');
    return held.row.port;
  }

  private find(id: string): Held {
    const held = this.held.get(id);
    if (held === undefined) throw new ApiProblem('not-found', `There is no mock ${id}.`);
    return held;
  }

  private announce(held: Held): void {
    this.events.next({ kind: 'mock', mock: held.row.id, state: this.view(held) });
  }

  private async insert(
    row: MockRow,
    seedNumber: number,
    counts: Record<string, number>,
    model: SoundModel,
    derivation: Derivation,
  ): Promise<void> {
    const made = makeRecords(derivation, seedNumber, counts, { rid: 0, attributes: {} });
    await this.database.transaction(async (manager) => {
      await manager.insert(MockRow, row);
      await manager.insert(DatasetRow, {
        id: row.id,
        seed: seedNumber,
        counts: JSON.stringify(counts),
        ...modelColumns(model),
        counters: JSON.stringify(made.counters),
        sequence: 0,
        holder: this.holder,
      });
      for (let from = 0; from < made.rows.length; from += INSERT_CHUNK) {
        await manager.insert(
          RecordRow,
          made.rows.slice(from, from + INSERT_CHUNK).map((record) => toStored(row.id, record)),
        );
      }
    });
  }

  /** Reads a mock into memory. */
  private async hold(row: MockRow): Promise<Held> {
    const store = new RecordStore(this.database, row.id, this.holder);
    const { dataset, rows } = await store.open();
    const derivation = storedDerivation(dataset, servedBy(row));
    const records = new DurableDataset(
      store,
      new Dataset(derivation.model, rows, JSON.parse(dataset.counters) as Counters),
      dataset.sequence,
    );
    const journal = new Journal();
    const server = new RunningMock(serviceOf(derivation), records, journal, (exchange) => {
      this.events.next({ kind: 'exchange', mock: row.id, exchange: summaryOf(exchange) });
    });
    const held: Held = { row, dataset, store, server, journal, obstacles: [] };
    this.held.set(row.id, held);
    return held;
  }

  /** Opens the port the mock had, or, where that may be, the next free one. */
  private async listen(held: Held, mayMove: boolean): Promise<void> {
    const first = held.row.port === 0 ? FIRST_MOCK_PORT : held.row.port;
    const taken = new Set(
      [...this.held.values()].filter((other) => other !== held).map(({ row }) => row.port),
    );
    for (let port = first; port < first + PORTS_TRIED && port <= 65_535; port++) {
      if (mayMove && port !== held.row.port && taken.has(port)) continue;
      try {
        await held.server.start(port);
        await this.save(held, { running: true, port });
        return;
      } catch (error) {
        if (!isPortTaken(error)) throw error;
        if (!mayMove)
          throw new ApiProblem('conflict', `The port ${port} is in use; choose another or leave it out.`);
      }
    }
    throw new ApiProblem('conflict', `No free port was found from ${first} on.`);
  }

  private async save(held: Held, changes: Partial<Pick<MockRow, 'running' | 'port'>>): Promise<void> {
    held.row = { ...held.row, ...changes };
    await this.database.getRepository(MockRow).update({ id: held.row.id }, changes);
  }

  private async takeOverModel(design: string): Promise<void> {
    for (const held of this.held.values()) if (held.row.designId === design) await this.refreshModel(held);
  }

  /** Serves the newest model of the design, unless records would lose something or contradict it. */
  private async refreshModel(held: Held): Promise<void> {
    const model = await this.designs.soundModel(held.row.designId);
    if (model.revision === held.dataset.modelRevision) return;
    if (isOutdated(held.dataset, model)) await this.adoptModel(held, model);
    this.announce(held);
  }

  private async adoptModel(held: Held, model: SoundModel): Promise<void> {
    const derivation = newestDerivation(model, servedBy(held.row));
    const { records } = held.server;
    await records.settled();
    const adoption = adopt(held.server.service.model, derivation.model, records.dataset.everything());
    held.obstacles = adoption.ok ? [] : adoption.obstacles;
    if (!adoption.ok) return;
    await records.replace(async (counters, sequence) => {
      const rows = new Map([...records.dataset.everything()].map((row) => [row.rid, row]));
      for (const change of adoption.changes)
        if (change.kind === 'update') rows.set(change.after.rid, change.after);
      const next = { ...modelColumns(model), counters: JSON.stringify(counters), sequence };
      await held.store.replaceAll([...rows.values()], next);
      held.dataset = { ...held.dataset, ...modelColumns(model) };
      held.server.service = serviceOf(derivation);
      return new Dataset(derivation.model, rows.values(), counters);
    });
  }

  private view({ row, dataset, server, journal, obstacles }: Held): MockView {
    const arrangements = JSON.parse(row.arrangements) as string[];
    const baseUrl = `http://127.0.0.1:${row.port}${server.root}`;
    return {
      id: row.id,
      design: row.designId,
      arrangements,
      baseUrls: Object.fromEntries(arrangements.map((name) => [name, baseUrl])),
      port: row.port,
      running: server.running,
      seed: dataset.seed,
      records: server.records.dataset.size,
      exchanges: journal.count,
      servesRevision: dataset.modelRevision,
      obstacles,
    };
  }
}
