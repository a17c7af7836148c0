import { randomBytes, randomUUID } from 'node:crypto';
import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { Dataset, KeptAnswers, type Counters } from '@isomeros/core/engine';
import type { SeedPlan } from '@isomeros/core/seeding';
import { Subject } from 'rxjs';
import type { DataSource } from 'typeorm';
import { DatasetRow, MockRow } from '../database/tables.js';
import type { Derivation } from '../designs/derivations.js';
import { DesignEvents, type Followed } from '../designs/designEvents.js';
import { DesignsService, type SoundModel } from '../designs/designs.service.js';
import { ApiProblem } from '../http/problem.js';
import { DurableDataset } from './durableDataset.js';
import { firstOf, isRunning, listenAll, seedPlanOf, stopAll, viewOf, type Held } from './held.js';
import { InTurn } from './inTurn.js';
import { Journal, summaryOf, type Exchange, type ExchangeSummary, type KeptExchange } from './journal.js';
import type { MockEvent, MockView, Seeding } from './views.js';
import { servedNames, servedPorts, withRenamed } from './servedNames.js';
import { Face } from './face.js';
import type { CreateMockDto, SeedPlanDto } from './mocks.dto.js';
import {
  checkArrangements,
  isOutdated,
  makeRecords,
  modelColumns,
  modelColumnsOf,
  newestDerivations,
  serviceOf,
  storedDerivations,
} from './provision.js';
import { readSeedPlan } from './seedPlan.js';
import { adoptModel, reset, restore } from './renewal.js';
import { Snapshots, type SnapshotView } from './snapshots.js';
import { Dice, NO_TROUBLES, type Troubles } from './troubles.js';
import { RecordStore } from './recordStore.js';

/** Creates mocks, keeps them running across restarts, and hands them the models that designs get. */
@Injectable()
export class MocksService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('Mocks');
  private readonly holder = randomUUID();
  private readonly held = new Map<string, Held>();
  /** What puts other records or another model in place is done one after the other, for each design. */
  private readonly inTurn = new InTurn();
  readonly events = new Subject<MockEvent>();

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly designs: DesignsService,
    private readonly designEvents: DesignEvents,
  ) {}

  /** Mocks that were running when the server ended are running again. */
  async onApplicationBootstrap(): Promise<void> {
    this.designEvents.modelChanged.subscribe((design) => {
      this.inTurn
        .run(design, () => this.takeOverModel(design))
        .catch((error: unknown) => {
          this.logger.error(error instanceof Error ? error.stack : String(error));
        });
    });
    this.designEvents.arrangementRenamed.subscribe(({ design, from, to }) => {
      for (const held of this.held.values()) {
        if (held.row.designId !== design) continue;
        held.row = { ...held.row, arrangements: withRenamed(held.row, from, to) };
        for (const face of held.faces) if (face.arrangement === from) face.arrangement = to;
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
    await stopAll(held);
    this.events.next({ kind: 'removed', mock: held.row.id });
  }

  async beforeApplicationShutdown(): Promise<void> {
    await Promise.all([...this.held.values()].map(stopAll));
    this.events.complete();
  }

  list(design: string | undefined): MockView[] {
    const all = [...this.held.values()].filter(({ row }) => design === undefined || row.designId === design);
    return all.map((held) => viewOf(held));
  }

  read(id: string): MockView {
    return viewOf(this.find(id));
  }

  async create(wanted: CreateMockDto): Promise<MockView> {
    const model = await this.designs.soundModel(wanted.design);
    checkArrangements(model, wanted.arrangements);
    const derivations = newestDerivations(model, wanted.arrangements);
    const derivation = firstOf(derivations);
    const plan = readSeedPlan(wanted, derivation.model);
    const id = randomUUID();
    const seedNumber = wanted.seed ?? 42;
    const row: MockRow = {
      id,
      designId: wanted.design,
      arrangements: JSON.stringify(wanted.arrangements),
      ports: JSON.stringify([wanted.port ?? 0]),
      running: true,
      trouble: '{}',
      secret: randomBytes(32).toString('base64url'),
      createdAt: new Date(),
    };
    await this.insert(row, seedNumber, plan, model, derivation);
    const held = await this.hold(row);
    try {
      await this.listen(held, wanted.port === undefined);
    } catch (error) {
      await this.remove(id);
      throw error;
    }
    this.announce(held);
    return viewOf(held);
  }

  async start(id: string): Promise<MockView> {
    const held = this.find(id);
    if (!isRunning(held)) await this.listen(held, true);
    this.announce(held);
    return viewOf(held);
  }

  async stop(id: string): Promise<MockView> {
    const held = this.find(id);
    await stopAll(held);
    await this.save(held, { running: false });
    this.announce(held);
    return viewOf(held);
  }

  /** Puts fresh seed records in place of all, under the newest model of the design. */
  async reset(id: string): Promise<MockView> {
    const held = this.find(id);
    await this.inTurn.run(held.row.designId, async () => {
      await reset(held, await this.designs.soundModel(held.row.designId));
    });
    this.announce(held);
    return viewOf(held);
  }

  seeding(id: string): Seeding {
    const held = this.find(id);
    return { seed: held.dataset.seed, ...seedPlanOf(held) };
  }

  /** Tells what is wanted of seed records from the next reset on. */
  async tellSeeding(id: string, wanted: SeedPlanDto): Promise<Seeding> {
    const held = this.find(id);
    const model = await this.designs.soundModel(held.row.designId);
    const derivation = firstOf(newestDerivations(model, servedNames(held.row)));
    const seedPlan = JSON.stringify(readSeedPlan(wanted, derivation.model));
    const seed = wanted.seed ?? held.dataset.seed;
    await this.database.getRepository(DatasetRow).update({ id }, { seed, seedPlan });
    held.dataset = { ...held.dataset, seed, seedPlan };
    return this.seeding(id);
  }

  troubles(id: string): Troubles {
    return this.find(id).dice.troubles;
  }

  /** Tells a mock what goes wrong from now on. */
  async tellTroubles(id: string, troubles: Troubles): Promise<Troubles> {
    const held = this.find(id);
    const trouble = JSON.stringify(troubles);
    await this.database.getRepository(MockRow).update({ id }, { trouble });
    held.row = { ...held.row, trouble };
    held.dice.tell(troubles);
    return troubles;
  }

  /** Takes the latest write back, as a new one. */
  async undo(id: string): Promise<MockView> {
    const held = this.find(id);
    if ((await held.records.undo()) === null)
      throw new ApiProblem('conflict', 'There is no write to take back since the records were read.');
    this.announce(held);
    return viewOf(held);
  }

  snapshots(id: string): Promise<readonly SnapshotView[]> {
    return this.snapshotsOf(this.find(id)).list();
  }

  async takeSnapshot(id: string, name: string): Promise<{ view: SnapshotView; isNew: boolean }> {
    const held = this.find(id);
    await held.records.settled();
    const model = modelColumnsOf(held.dataset);
    return this.snapshotsOf(held).take(name, { model, rows: [...held.records.dataset.everything()] });
  }

  removeSnapshot(id: string, name: string): Promise<void> {
    return this.snapshotsOf(this.find(id)).remove(name);
  }

  /** Puts the records of a snapshot in the place of all, where the model that is served allows them. */
  async restoreSnapshot(id: string, name: string): Promise<MockView> {
    const held = this.find(id);
    const state = await this.snapshotsOf(held).read(name);
    await this.inTurn.run(held.row.designId, () => restore(held, state));
    this.announce(held);
    return viewOf(held);
  }

  private snapshotsOf({ row }: Held): Snapshots {
    return new Snapshots(this.database, row.id);
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

  /** The port of an arrangement of a mock that listens; of the first where none is named. */
  listeningPort(id: string, arrangement?: string): number {
    const held = this.find(id);
    if (!isRunning(held)) throw new ApiProblem('conflict', 'The mock is stopped; start it first.');
    const names = servedNames(held.row);
    const index = arrangement === undefined ? 0 : names.indexOf(arrangement);
    const port = servedPorts(held.row)[index];
    if (port !== undefined) return port;
    const message = `The mock serves no arrangement ${arrangement ?? ''}; it serves ${names.join(', ')}.`;
    throw new ApiProblem('invalid', message, {
      errors: [{ pointer: '/arrangement', code: 'unknown', message }],
    });
  }

  find(id: string): Held {
    const held = this.held.get(id);
    if (held === undefined) throw new ApiProblem('not-found', `There is no mock ${id}.`);
    return held;
  }

  announce(held: Held): void {
    this.events.next({ kind: 'mock', mock: held.row.id, state: viewOf(held) });
  }

  private async insert(
    row: MockRow,
    seedNumber: number,
    plan: SeedPlan,
    model: SoundModel,
    derivation: Derivation,
  ): Promise<void> {
    const made = makeRecords(derivation, seedNumber, plan, { rid: 0, attributes: {} });
    const dataset = {
      seed: seedNumber,
      seedPlan: JSON.stringify(plan),
      ...modelColumns(model),
      counters: JSON.stringify(made.counters),
      sequence: 0,
    };
    await new RecordStore(this.database, row.id, this.holder).insertAll(row, dataset, made.rows);
  }

  /** Reads a mock into memory. */
  private async hold(row: MockRow): Promise<Held> {
    const store = new RecordStore(this.database, row.id, this.holder);
    const { dataset, rows, answers } = await store.open();
    const derivations = storedDerivations(dataset, row);
    const counters = JSON.parse(dataset.counters) as Counters;
    const kept = new KeptAnswers(answers);
    const { model } = firstOf(derivations);
    const records = new DurableDataset(store, new Dataset(model, rows, counters, kept), dataset.sequence);
    const journal = new Journal();
    const onExchange = (exchange: KeptExchange): void => {
      if (this.events.observed)
        this.events.next({ kind: 'exchange', mock: row.id, exchange: summaryOf(exchange) });
    };
    const dice = new Dice({ ...NO_TROUBLES, ...(JSON.parse(row.trouble) as Partial<Troubles>) });
    const names = servedNames(row);
    const faces = derivations.map(
      (derivation, index) =>
        new Face(names[index] ?? '', serviceOf(derivation, row), { records, journal, onExchange, dice }),
    );
    const held: Held = { row, dataset, store, records, faces, journal, dice, obstacles: [] };
    this.held.set(row.id, held);
    return held;
  }

  /** Opens the port each arrangement had, or, where that may be, the next free one. */
  private async listen(held: Held, mayMove: boolean): Promise<void> {
    const others = [...this.held.values()].filter((other) => other !== held);
    const taken = new Set(others.flatMap(({ row }) => servedPorts(row)));
    const ports = await listenAll(held, taken, mayMove);
    await this.save(held, { running: true, ports: JSON.stringify(ports) });
  }

  private async save(held: Held, changes: Partial<Pick<MockRow, 'running' | 'ports'>>): Promise<void> {
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
    if (isOutdated(held.dataset, model)) await adoptModel(held, model);
    this.announce(held);
  }
}
