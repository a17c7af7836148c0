import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { Dataset, KeptAnswers, type Counters } from '@isomeros/core/engine';
import type { Progress, Row } from '@isomeros/core/model';
import type { SeedPlan } from '@isomeros/core/seeding';
import { Subject } from 'rxjs';
import type { DataSource } from 'typeorm';
import { MockRow, type DatasetRow } from '../database/tables.js';
import { ReleasesService, type ReleaseEnd, type ServedRelease } from '../designs/releases.service.js';
import { DesignsService, type SoundModel } from '../designs/designs.service.js';
import type { MockLimits } from '../config.js';
import { ApiProblem } from '../http/problem.js';
import { SETTINGS, type ServerSettings } from '../settings.js';
import { DurableDataset } from './durableDataset.js';
import { Face, type Shared } from './face.js';
import type { NewestModel } from './renewal.js';
import { addressOf, firstOf, listenAll, stopAll, viewOf, type Held } from './held.js';
import { InTurn } from './inTurn.js';
import { Journal, summaryOf, type KeptExchange } from './journal.js';
import { modelColumns, serviceOf, storedModel } from './provision.js';
import { RecordStore, type Stored } from './recordStore.js';
import { allDerivations, lifespanOf, rowsApart } from './releaseFaces.js';
import { servedBy, servedLabels, servedNames, servedPorts, servedText } from './served.js';
import { Dice, NO_TROUBLES, type Troubles } from './troubles.js';
import type { MockEvent } from './views.js';

const PROGRESS_EVERY_MS = 250;

/** What a new dataset begins with. */
export interface Beginning {
  readonly seed: number;
  readonly plan: SeedPlan;
  readonly model: SoundModel;
  readonly rows: readonly Row[];
  readonly counters: Counters;
}

/** The mocks that are held in memory: read, made, listening, and parting from releases they cannot share records with. */
@Injectable()
export class HeldMocks {
  private readonly holder = randomUUID();
  private readonly held = new Map<string, Held>();
  /** What puts other records or another model in place is done one after the other, for each design. */
  readonly inTurn = new InTurn();
  readonly events = new Subject<MockEvent>();

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly designs: DesignsService,
    private readonly releases: ReleasesService,
    @Inject(SETTINGS) private readonly settings: ServerSettings,
  ) {}

  get limits(): MockLimits {
    return this.settings.limits;
  }

  all(): readonly Held[] {
    return [...this.held.values()];
  }

  ofDesign(design: string): readonly Held[] {
    return this.all().filter(({ row }) => row.designId === design);
  }

  find(id: string): Held {
    const held = this.held.get(id);
    if (held === undefined) throw new ApiProblem('not-found', `There is no mock ${id}.`);
    return held;
  }

  /** The newest sound model of a mock's design, with what it implies under what the mock serves. */
  async newestFor({ row }: Held): Promise<NewestModel> {
    const model = await this.designs.soundModel(row.designId);
    return { ...model, derivations: await this.designs.derivations(model, servedNames(row)) };
  }

  announce(held: Held): void {
    this.events.next({ kind: 'mock', mock: held.row.id, state: viewOf(held) });
  }

  /** Tells whoever looks on how far a large write is, now and then. */
  progressOf(held: Held): (progress: Progress) => void {
    let told = performance.now();
    return (progress) => {
      if (performance.now() - told < PROGRESS_EVERY_MS) return;
      told = performance.now();
      this.events.next({ kind: 'progress', mock: held.row.id, progress });
    };
  }

  /** Stops serving a mock, and forgets it until it is read again. */
  async letGo(held: Held): Promise<void> {
    this.held.delete(held.row.id);
    await stopAll(held);
    this.events.next({ kind: 'removed', mock: held.row.id });
  }

  /** Writes a new mock with its records, which are in memory already. */
  async begin(row: MockRow, { seed, plan, model, rows, counters }: Beginning): Promise<Held> {
    const store = this.storeOf(row.id);
    const dataset = datasetOf({ seed, seedPlan: JSON.stringify(plan) }, model, counters);
    await store.insertAll(row, dataset, rows);
    return this.holdStored(row, store, { dataset, rows, answers: [] });
  }

  private storeOf(id: string): RecordStore {
    return new RecordStore(this.database, id, this.holder);
  }

  /** Reads a mock into memory. */
  async hold(row: MockRow): Promise<Held> {
    const store = this.storeOf(row.id);
    return this.holdStored(row, store, await store.open());
  }

  private async holdStored(
    row: MockRow,
    store: RecordStore,
    {
      dataset,
      rows,
      answers,
    }: Omit<Stored, 'dataset'> & {
      readonly dataset: Omit<DatasetRow, 'id' | 'holder'>;
    },
  ): Promise<Held> {
    const releases = await Promise.all(
      servedLabels(row).map((label) => this.releases.served(row.designId, label)),
    );
    const derivations = allDerivations(
      await this.designs.derivations(storedModel(dataset), servedNames(row)),
      releases,
    );
    const { model } = firstOf(derivations);
    const counters = JSON.parse(dataset.counters) as Counters;
    const kept = new KeptAnswers(answers);
    const records = new DurableDataset(store, new Dataset(model, rows, counters, kept), dataset.sequence);
    const held: Held = { ...this.heldParts(row), row, dataset, store, records, faces: [], releases };
    const shared = this.sharedBy(held);
    held.faces = servedBy(row).map((served, index) => {
      const derivation = derivations[index] ?? firstOf(derivations);
      const end = (): ReleaseEnd | null =>
        served.kind === 'release' ? this.endOf(row.designId, served.label) : null;
      return new Face(served, serviceOf(derivation, row, servedText(served)), shared, () =>
        lifespanOf(end(), (successor) => this.successorAt(row.designId, successor)),
      );
    });
    this.held.set(row.id, held);
    return held;
  }

  private heldParts(row: MockRow): Pick<Held, 'journal' | 'dice' | 'waiting' | 'shortfalls'> {
    const dice = new Dice({ ...NO_TROUBLES, ...(JSON.parse(row.trouble) as Partial<Troubles>) });
    return { journal: new Journal(this.limits.exchanges), dice, waiting: [], shortfalls: [] };
  }

  private sharedBy(held: Held): Shared {
    const { records, journal, dice } = held;
    const onExchange = (exchange: KeptExchange): void => {
      if (this.events.observed)
        this.events.next({ kind: 'exchange', mock: held.row.id, exchange: summaryOf(exchange) });
    };
    const { records: mostRecords } = this.limits;
    return { records, journal, dice, onExchange, partners: this.partnersOf(held), mostRecords };
  }

  /** The releases that share the records of a mock, and how they get their own. */
  partnersOf(held: Held): Shared['partners'] {
    return {
      releases: () => held.releases,
      part: (releases) => this.inTurn.run(held.row.designId, () => this.part(held, releases)),
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
    for (const held of this.ofDesign(design)) {
      const address = addressOf(held, kind, wanted);
      if (address !== null) return address;
    }
    return null;
  }

  /** Follows what is said about the end of a release. */
  mark(design: string, label: string, end: ReleaseEnd | null): void {
    for (const held of this.ofDesign(design))
      held.releases = held.releases.map((release) =>
        release.label === label ? { ...release, end } : release,
      );
  }

  /**
   * Gives releases the records there are now, each as a mock of its own; their ports go with them, and nobody who
   * is connected is cut off. Writes wait meanwhile.
   */
  async part(held: Held, wanted: readonly ServedRelease[]): Promise<void> {
    for (const { label } of wanted) {
      const release = held.releases.find((known) => known.label === label);
      if (release === undefined) continue;
      const parted = await held.records.exclusively(() => this.partOne(held, release));
      this.announce(held);
      this.announce(parted);
    }
  }

  private async partOne(held: Held, release: ServedRelease): Promise<Held> {
    const { dataset: now } = held.records;
    const { left, apart } = rowsApart(held.row, [release.label], randomUUID());
    const rows = [...now.everything()];
    const answers = [...now.answers.all()];
    const store = this.storeOf(apart.id);
    const dataset = datasetOf(held.dataset, release.model, now.counters);
    await store.insertAll(apart, dataset, rows, answers, (manager) =>
      manager.update(MockRow, { id: held.row.id }, left),
    );
    const own = new Dataset(release.derivation.model, rows, now.counters, new KeptAnswers(answers));
    const face = held.faces.find(({ served }) => served.kind === 'release' && served.label === release.label);
    const parted: Held = {
      ...this.heldParts(apart),
      row: apart,
      dataset,
      store,
      records: new DurableDataset(store, own, dataset.sequence),
      faces: face === undefined ? [] : [face],
      releases: [release],
    };
    face?.moveTo(this.sharedBy(parted));
    held.row = { ...held.row, ...left };
    held.faces = held.faces.filter((other) => other !== face);
    held.releases = held.releases.filter((other) => other !== release);
    this.held.set(apart.id, parted);
    return parted;
  }

  /** Opens the port that each arrangement and release had, or, where that may be, the next free one. */
  async listen(held: Held, mayMove: boolean): Promise<void> {
    const others = this.all().filter((other) => other !== held);
    const taken = new Set(others.flatMap(({ row }) => servedPorts(row)));
    const ports = await listenAll(held, taken, mayMove);
    await this.save(held, { running: true, ports: JSON.stringify(ports) });
  }

  async save(held: Held, changes: Partial<Pick<MockRow, 'running' | 'ports'>>): Promise<void> {
    held.row = { ...held.row, ...changes };
    await this.database.getRepository(MockRow).update({ id: held.row.id }, changes);
  }
}

const datasetOf = (
  { seed, seedPlan }: Pick<DatasetRow, 'seed' | 'seedPlan'>,
  model: SoundModel,
  counters: Counters,
): Omit<DatasetRow, 'id' | 'holder'> => ({
  seed,
  seedPlan,
  ...modelColumns(model),
  counters: JSON.stringify(counters),
  sequence: 0,
});
