import { randomBytes, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import type { Model, Row } from '@isomeros/core/model';
import type { DataSource } from 'typeorm';
import { DatasetRow, MockRow } from '../database/tables.js';
import { DesignsService } from '../designs/designs.service.js';
import { ReleasesService, type ServedRelease } from '../designs/releases.service.js';
import { ApiProblem } from '../http/problem.js';
import { firstOf, isRunning, seedPlanOf, stopAll, viewOf, type Held } from './held.js';
import { HeldMocks } from './heldMocks.js';
import type { Exchange, ExchangeSummary } from './journal.js';
import type { CreateMockDto, SeedPlanDto } from './mocks.dto.js';
import { checkArrangements, makeRecords, modelColumnsOf } from './provision.js';
import { sharedRows } from './releaseFaces.js';
import { newestOf, reset, restore } from './renewal.js';
import { readSeedPlan } from './seedPlan.js';
import { sendMessage } from './sender.js';
import { servedBy, servedPorts, servedText, type Served } from './served.js';
import { Snapshots, type SnapshotView } from './snapshots.js';
import type { Troubles } from './troubles.js';
import type { MockView, Seeding } from './views.js';

const USUAL_SEED = 42;

/** What can be asked of mocks. */
@Injectable()
export class MocksService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly mocks: HeldMocks,
    private readonly designs: DesignsService,
    private readonly releases: ReleasesService,
  ) {}

  list(design: string | undefined): MockView[] {
    return (design === undefined ? this.mocks.all() : this.mocks.ofDesign(design)).map(viewOf);
  }

  read(id: string): MockView {
    return viewOf(this.mocks.find(id));
  }

  /**
   * Makes a mock and starts it. Its releases are served from the same records, as long as these satisfy their
   * models too; a release that they cannot be served under gets a mock of its own, beside it.
   */
  async create(wanted: CreateMockDto): Promise<MockView> {
    const releases = await this.releasesOf(wanted);
    const newest = await this.designs.soundModel(wanted.design);
    checkArrangements(newest, wanted.arrangements);
    const [first] = releases;
    const model = wanted.arrangements.length === 0 && first !== undefined ? first.model : newest;
    const derivations = await this.designs.derivations(newest, wanted.arrangements);
    const derivation = firstOf([...derivations, ...releases.map((release) => release.derivation)]);
    const plan = readSeedPlan(wanted, derivation.model, this.mocks.limits.records);
    const seed = wanted.seed ?? USUAL_SEED;
    const { rows, counters, shortfalls } = makeRecords(
      derivation,
      seed,
      plan,
      { rid: 0, attributes: {} },
      this.mocks.limits.records,
    );
    const { together, apart, shared } = divide(derivation.model, rows, releases);
    const row = newRow(wanted, together);
    const held = await this.mocks.begin(row, { seed, plan, model, rows: shared, counters });
    held.shortfalls = shortfalls;
    try {
      await this.mocks.listen(held, wanted.port === undefined);
      for (const { label } of apart)
        await this.create({ design: wanted.design, arrangements: [], releases: [label], seed });
    } catch (error) {
      await this.remove(row.id);
      throw error;
    }
    this.mocks.announce(held);
    return viewOf(held);
  }

  private async releasesOf({ design, arrangements, releases }: CreateMockDto): Promise<ServedRelease[]> {
    const labels = releases ?? [];
    if (arrangements.length + labels.length === 0) {
      const message = 'Expected at least one arrangement, or release.';
      const errors = [{ pointer: '/arrangements', code: 'length', message }];
      throw new ApiProblem('invalid', message, { errors });
    }
    return Promise.all(labels.map((label) => this.releases.served(design, label)));
  }

  async start(id: string): Promise<MockView> {
    const held = this.mocks.find(id);
    if (!isRunning(held)) await this.mocks.listen(held, true);
    this.mocks.announce(held);
    return viewOf(held);
  }

  async stop(id: string): Promise<MockView> {
    const held = this.mocks.find(id);
    await stopAll(held);
    await this.mocks.save(held, { running: false });
    this.mocks.announce(held);
    return viewOf(held);
  }

  /** Puts fresh seed records in place of all, under the newest model of the design. */
  async reset(id: string): Promise<MockView> {
    const held = this.mocks.find(id);
    const { designId } = held.row;
    await this.mocks.inTurn.run(designId, async () => {
      const newest = await this.mocks.newestFor(held);
      const { records } = this.mocks.limits;
      await reset(held, newest, records, (releases) => this.mocks.part(held, releases));
    });
    this.mocks.announce(held);
    return viewOf(held);
  }

  seeding(id: string): Seeding {
    const held = this.mocks.find(id);
    return { seed: held.dataset.seed, ...seedPlanOf(held) };
  }

  /** Tells what is wanted of seed records from the next reset on. */
  async tellSeeding(id: string, wanted: SeedPlanDto): Promise<Seeding> {
    const held = this.mocks.find(id);
    const { derivations } = newestOf(held, await this.mocks.newestFor(held));
    const seedPlan = JSON.stringify(
      readSeedPlan(wanted, firstOf(derivations).model, this.mocks.limits.records),
    );
    const seed = wanted.seed ?? held.dataset.seed;
    await this.database.getRepository(DatasetRow).update({ id }, { seed, seedPlan });
    held.dataset = { ...held.dataset, seed, seedPlan };
    return this.seeding(id);
  }

  troubles(id: string): Troubles {
    return this.mocks.find(id).dice.troubles;
  }

  /** Tells a mock what goes wrong from now on. */
  async tellTroubles(id: string, troubles: Troubles): Promise<Troubles> {
    const held = this.mocks.find(id);
    const trouble = JSON.stringify(troubles);
    await this.database.getRepository(MockRow).update({ id }, { trouble });
    held.row = { ...held.row, trouble };
    held.dice.tell(troubles);
    this.mocks.announce(held);
    return troubles;
  }

  /** Takes the latest write back, as a new one. */
  async undo(id: string): Promise<MockView> {
    const held = this.mocks.find(id);
    if ((await held.records.undo()) === null)
      throw new ApiProblem('conflict', 'There is no write to take back since the records were read.');
    this.mocks.announce(held);
    return viewOf(held);
  }

  snapshots(id: string): Promise<readonly SnapshotView[]> {
    return this.snapshotsOf(this.mocks.find(id)).list();
  }

  async takeSnapshot(id: string, name: string): Promise<{ view: SnapshotView; isNew: boolean }> {
    const held = this.mocks.find(id);
    await held.records.settled();
    const model = modelColumnsOf(held.dataset);
    return this.snapshotsOf(held).take(name, { model, rows: [...held.records.dataset.everything()] });
  }

  removeSnapshot(id: string, name: string): Promise<void> {
    return this.snapshotsOf(this.mocks.find(id)).remove(name);
  }

  /** Puts the records of a snapshot in the place of all, where the model that is served allows them. */
  async restoreSnapshot(id: string, name: string): Promise<MockView> {
    const held = this.mocks.find(id);
    const state = await this.snapshotsOf(held).read(name);
    await this.mocks.inTurn.run(held.row.designId, () =>
      restore(held, state, (releases) => this.mocks.part(held, releases)),
    );
    this.mocks.announce(held);
    return viewOf(held);
  }

  private snapshotsOf({ row }: Held): Snapshots {
    return new Snapshots(this.database, row.id);
  }

  async remove(id: string): Promise<void> {
    await this.mocks.letGo(this.mocks.find(id));
    await this.database.getRepository(MockRow).delete({ id });
  }

  exchanges(id: string, before: number, limit: number): ExchangeSummary[] {
    return this.mocks.find(id).journal.page(before, limit);
  }

  exchange(id: string, number: number): Exchange {
    const exchange = this.mocks.find(id).journal.get(number);
    if (exchange === undefined) throw new ApiProblem('not-found', `The journal holds no exchange ${number}.`);
    return exchange;
  }

  lastExchange(id: string): number {
    return this.mocks.find(id).journal.count;
  }

  /** Sends a message to what is wanted of a mock, the first arrangement where nothing is said. */
  async send(id: string, message: string, wanted: Served | null): Promise<void> {
    const held = this.mocks.find(id);
    if (!isRunning(held)) throw new ApiProblem('conflict', 'The mock is stopped; start it first.');
    const all = servedBy(held.row).map(servedText);
    const called = wanted === null ? all[0] : servedText(wanted);
    const index = all.indexOf(called ?? '');
    const [port, face] = [servedPorts(held.row)[index], held.faces[index]];
    if (port === undefined || face === undefined) {
      const text = `The mock serves no ${called ?? ''}; it serves ${all.join(', ')}.`;
      throw new ApiProblem('invalid', text, {
        errors: [{ pointer: `/${wanted?.kind ?? 'arrangement'}`, code: 'unknown', message: text }],
      });
    }
    await sendMessage(message, port, face.service.contract);
  }
}

/** Releases that can be served from the same records, which may get values for that, and those that cannot. */
function divide(
  model: Model,
  rows: readonly Row[],
  releases: readonly ServedRelease[],
): { readonly together: ServedRelease[]; readonly apart: ServedRelease[]; readonly shared: readonly Row[] } {
  const [together, apart]: [ServedRelease[], ServedRelease[]] = [[], []];
  let shared = rows;
  for (const release of releases) {
    const fitting = sharedRows(model, shared, release);
    shared = fitting ?? shared;
    (fitting === null ? apart : together).push(release);
  }
  return { together, apart, shared };
}

function newRow({ design, arrangements, port }: CreateMockDto, releases: readonly ServedRelease[]): MockRow {
  const others = arrangements.length + releases.length - 1;
  return {
    id: randomUUID(),
    designId: design,
    arrangements: JSON.stringify(arrangements),
    releases: JSON.stringify(releases.map(({ label }) => label)),
    ports: JSON.stringify([port ?? 0, ...Array.from({ length: others }, () => 0)]),
    running: true,
    trouble: '{}',
    secret: randomBytes(32).toString('base64url'),
    createdAt: new Date(),
  };
}
