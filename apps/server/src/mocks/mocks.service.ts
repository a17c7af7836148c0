import type { Faults, Mock, SeedSettings, SentMessage, Snapshot } from '@isomeros/api';
import { seedPreview, type SeedPreview } from '@isomeros/core/records';
import { randomBytes, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { DatasetRow, MockRow, SnapshotRow } from '../database/tables.js';
import type { Model } from '@isomeros/core/model';
import { DesignsService } from '../designs/designs.service.js';
import { InitialRecordsService } from '../designs/initialRecords.service.js';
import type { RecordState } from '../designs/recordState.js';
import { ReleasesService, type ServedRelease } from '../designs/releases.service.js';
import { ApiProblem } from '../http/problem.js';
import { inSlices } from '../slices.js';
import {
  endpointOf,
  firstOf,
  isRunning,
  seedPlanOf,
  stopAll,
  viewOf,
  type LoadedMock,
} from './loadedMock.js';
import { MockRegistry } from './mockRegistry.js';
import type { CreateMockDto, SeedPlanDto } from './mocks.dto.js';
import { modelColumnsOf } from '../designs/modelColumns.js';
import { checkArrangements } from './service.js';
import { freshRecords, numberedAfter, type FreshSource } from './freshRecords.js';
import { divideReleases } from './releaseEndpoints.js';
import { newestOf, reset, restore } from './replaceRecords.js';
import { checkOneSource, readSeedPlan, wantsInitial } from './seedPlan.js';
import { sendMessage } from './rawHttpClient.js';
import type { Served, ServedOnPort } from './served.js';
import { SnapshotStore } from './snapshotStore.js';

const USUAL_SEED = 42;

/** What can be asked of mocks. */
@Injectable()
export class MocksService {
  constructor(
    @InjectRepository(MockRow) private readonly rows: Repository<MockRow>,
    @InjectRepository(DatasetRow) private readonly datasets: Repository<DatasetRow>,
    @InjectRepository(SnapshotRow) private readonly snapshotRows: Repository<SnapshotRow>,
    private readonly mocks: MockRegistry,
    private readonly designs: DesignsService,
    private readonly releases: ReleasesService,
    private readonly initial: InitialRecordsService,
  ) {}

  list(design: string | undefined): Mock[] {
    return (design === undefined ? this.mocks.all() : this.mocks.ofDesign(design)).map(viewOf);
  }

  read(id: string): Mock {
    return viewOf(this.mocks.find(id));
  }

  /**
   * Makes a mock and starts it. Its releases are served from the same records, as long as these satisfy their
   * models too; a release that they cannot be served under gets a mock of its own, beside it.
   */
  async create(wanted: CreateMockDto): Promise<Mock> {
    const releases = await this.releasesOf(wanted);
    const newest = await this.designs.validModel(wanted.design);
    checkArrangements(newest, wanted.arrangements);
    const [first] = releases;
    const model = wanted.arrangements.length === 0 && first !== undefined ? first.model : newest;
    const derivations = await this.designs.derivations(newest, wanted.arrangements);
    const derivation = firstOf([...derivations, ...releases.map((release) => release.derivation)]);
    checkOneSource(wanted);
    const most = this.mocks.limits.records;
    const plan = readSeedPlan(wanted, derivation.model, most);
    const seed = wanted.seed ?? USUAL_SEED;
    const initial = await this.initialFor(wanted.design, wantsInitial(wanted) ?? 'where there are some');
    const made = await freshRecords(derivation.model, { seed, plan, initial }, most, {});
    const { rows, counters } = await numberedAfter(derivation.model, made, { rid: 0 });
    const { together, apart, shared } = await inSlices(divideReleases(derivation.model, rows, releases));
    const row = newRow(wanted.design);
    const mock = await this.mocks.begin(row, endpointsOf(wanted, together), {
      seed,
      plan,
      beginsInitial: initial !== null,
      model,
      rows: shared,
      counters,
    });
    mock.shortfalls = made.shortfalls;
    mock.adjustments = made.adjustments;
    try {
      await this.mocks.listen(mock, wanted.port === undefined);
      for (const { label } of apart)
        await this.create({
          design: wanted.design,
          arrangements: [],
          releases: [label],
          ...(initial === null ? { seed } : { initialRecords: true }),
        });
    } catch (error) {
      await this.remove(row.id);
      throw error;
    }
    this.mocks.announce(mock);
    return viewOf(mock);
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

  async start(id: string): Promise<Mock> {
    const mock = this.mocks.find(id);
    if (!isRunning(mock)) await this.mocks.listen(mock, true);
    this.mocks.announce(mock);
    return viewOf(mock);
  }

  async stop(id: string): Promise<Mock> {
    const mock = this.mocks.find(id);
    await stopAll(mock);
    await this.rows.update({ id }, { running: false });
    mock.row = { ...mock.row, running: false };
    this.mocks.announce(mock);
    return viewOf(mock);
  }

  /** The initial records of a design where they are wanted. */
  private async initialFor(
    design: string,
    wanted: boolean | 'where there are some',
  ): Promise<RecordState | null> {
    const initial = wanted === false ? null : await this.initial.read(design);
    if (initial !== null || wanted !== true) return initial;
    const message = 'The design has no initial records.';
    throw new ApiProblem('invalid', message, {
      errors: [{ pointer: '/initialRecords', code: 'unknown', message }],
    });
  }

  /** Puts fresh records in place of all, under the newest model of the design. */
  async reset(id: string, signal: AbortSignal): Promise<Mock> {
    const mock = this.mocks.find(id);
    const { designId } = mock.row;
    await this.mocks.queue.run(designId, async () => {
      const newest = await this.mocks.newestFor(mock);
      const wanted = mock.dataset.beginsInitial ? 'where there are some' : false;
      const initial = await this.initialFor(designId, wanted);
      await reset(mock, newest, initial, this.mocks.writeOptions(mock, signal));
    });
    await this.mocks.settle(mock);
    return viewOf(mock);
  }

  seedSettings(id: string): SeedSettings {
    const mock = this.mocks.find(id);
    const { seed, beginsInitial: initialRecords } = mock.dataset;
    return { seed, initialRecords, ...seedPlanOf(mock) };
  }

  /** Tells what is wanted of seed records from the next reset on. */
  async saveSeedSettings(id: string, wanted: SeedPlanDto): Promise<SeedSettings> {
    const mock = this.mocks.find(id);
    const { seed, plan, initial } = await this.wantedSeed(mock, wanted);
    const changed = { seed, seedPlan: JSON.stringify(plan), beginsInitial: initial !== null };
    await this.datasets.update({ id }, changed);
    mock.dataset = { ...mock.dataset, ...changed };
    this.mocks.announce(mock);
    return this.seedSettings(id);
  }

  /** Makes the records that a reset would make of a plan, and keeps none of them. */
  async seedPreview(id: string, wanted: SeedPlanDto, signal: AbortSignal): Promise<SeedPreview> {
    const mock = this.mocks.find(id);
    const { model, ...source } = await this.wantedSeed(mock, wanted);
    const { most, watching } = this.mocks.writeOptions(mock, signal);
    const made = await freshRecords(model, source, most, watching);
    return inSlices(seedPreview(model, made), watching);
  }

  private async wantedSeed(
    mock: LoadedMock,
    wanted: SeedPlanDto,
  ): Promise<FreshSource & { readonly model: Model }> {
    const { derivations } = newestOf(mock, await this.mocks.newestFor(mock));
    const { model } = firstOf(derivations);
    const plan = readSeedPlan(wanted, model, this.mocks.limits.records);
    const initial = await this.initialFor(mock.row.designId, wantsInitial(wanted) ?? false);
    return { model, seed: wanted.seed ?? mock.dataset.seed, plan, initial };
  }

  faults(id: string): Faults {
    return this.mocks.find(id).faultInjector.faults;
  }

  /** Tells a mock what goes wrong from now on. */
  async saveFaults(id: string, faults: Faults): Promise<Faults> {
    const mock = this.mocks.find(id);
    const kept = JSON.stringify(faults);
    await this.rows.update({ id }, { faults: kept });
    mock.row = { ...mock.row, faults: kept };
    mock.faultInjector.configure(faults);
    this.mocks.announce(mock);
    return faults;
  }

  /** Says which version answers requests that name none. */
  async answerUnversioned(id: string, wanted: Served | null): Promise<Mock> {
    const mock = this.mocks.find(id);
    const chosen = endpointOf(mock, wanted);
    await this.mocks.answerUnversioned(mock, chosen);
    this.mocks.announce(mock);
    return viewOf(mock);
  }

  /** Takes the latest write back, as a new one. */
  async undo(id: string, signal: AbortSignal): Promise<Mock> {
    const mock = this.mocks.find(id);
    const { watching } = this.mocks.writeOptions(mock, signal);
    if ((await mock.records.undo(watching)) === null)
      throw new ApiProblem('conflict', 'There is no write to take back since the records were read.');
    this.mocks.announce(mock);
    return viewOf(mock);
  }

  snapshots(id: string): Promise<readonly Snapshot[]> {
    return this.snapshotsOf(this.mocks.find(id)).list();
  }

  async takeSnapshot(
    id: string,
    name: string,
    signal: AbortSignal,
  ): Promise<{ view: Snapshot; isNew: boolean }> {
    const mock = this.mocks.find(id);
    await mock.records.settled();
    const model = modelColumnsOf(mock.dataset);
    const { watching } = this.mocks.writeOptions(mock, signal);
    const rows = [...mock.records.dataset.everything()];
    return this.snapshotsOf(mock).take(name, { model, rows }, watching);
  }

  removeSnapshot(id: string, name: string): Promise<void> {
    return this.snapshotsOf(this.mocks.find(id)).remove(name);
  }

  /** Puts the records of a snapshot in the place of all, where the model that is served allows them. */
  async restoreSnapshot(id: string, name: string, signal: AbortSignal): Promise<Mock> {
    const mock = this.mocks.find(id);
    const state = await this.snapshotsOf(mock).read(name);
    await this.mocks.queue.run(mock.row.designId, () =>
      restore(mock, state, this.mocks.writeOptions(mock, signal)),
    );
    this.mocks.announce(mock);
    return viewOf(mock);
  }

  private snapshotsOf({ row }: LoadedMock): SnapshotStore {
    return new SnapshotStore(this.snapshotRows, row.id);
  }

  async remove(id: string): Promise<void> {
    await this.mocks.unload(this.mocks.find(id));
    await this.rows.delete({ id });
  }

  /** Sends a message to what is wanted of a mock, the first arrangement where nothing is said. */
  async send(id: string, message: string, wanted: Served | null): Promise<SentMessage> {
    const mock = this.mocks.find(id);
    if (!isRunning(mock)) throw new ApiProblem('conflict', 'The mock is stopped; start it first.');
    const endpoint = endpointOf(mock, wanted);
    await sendMessage(message, endpoint.port, endpoint.service.contract);
    return { lastExchange: mock.journal.count };
  }
}

/** Arrangements come first; a port that was asked for is that of the first. */
const endpointsOf = (
  { arrangements, port }: CreateMockDto,
  releases: readonly ServedRelease[],
): readonly ServedOnPort[] =>
  [
    ...arrangements.map((name): Served => ({ kind: 'arrangement', name })),
    ...releases.map(({ label }): Served => ({ kind: 'release', label })),
  ].map((served, index) => ({ served, port: index === 0 ? (port ?? 0) : 0, unversioned: false }));

const newRow = (designId: string): MockRow => ({
  id: randomUUID(),
  designId,
  running: true,
  faults: '{}',
  secret: randomBytes(32).toString('base64url'),
  createdAt: new Date(),
});
