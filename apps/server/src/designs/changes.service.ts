import type { Design, RevisionKind } from '@isomeros/api';
import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import {
  findArrangement,
  MOST_ARRANGEMENTS,
  withArrangement,
  type ArrangementChoices,
  type Choices,
} from '@isomeros/core/arrangement';
import { MAX_TEXT_BYTES, withDesignName, type Diagnostic } from '@isomeros/core/notation';
import { IsNull, LessThan, Not, Repository, type EntityManager } from 'typeorm';
import type { CompressedRecords } from '../compute/compressedRecords.js';
import { ComputeService } from '../compute/compute.service.js';
import { DesignRow, InitialRecordsRow, InstallationStateRow, ReleaseRow } from '../database/tables.js';
import { checkIfMatch } from '../http/etag.js';
import { ApiProblem } from '../http/problem.js';
import { SERVER_SETTINGS, type ServerSettings } from '../settings.js';
import { InitialRecordsService } from './initialRecords.service.js';
import { orThrow } from './orThrow.js';
import { DesignDependents } from './designDependents.js';
import {
  choicesOf,
  readIdentities,
  readRenameCandidates,
  withArrangementName,
  withChoices,
  withoutQuestion,
  type DesignSource,
} from './designRows.js';
import { DesignsService } from './designs.service.js';
import { RevisionsService } from './revisions.service.js';

const FIRST_SAMPLE = 'kestrel-sound-ferries';
/** A removed design can be brought back for so long. */
const REMOVED_KEPT_MS = 30 * 24 * 3_600_000;

/** What is kept with a new design. */
interface KeptTogether {
  /** Its text as it was saved, where that is another one than the sound one. */
  readonly saved?: string;
  /** The records that its mocks begin with. */
  readonly records?: (row: DesignRow) => Promise<InitialRecordsRow | null> | InitialRecordsRow | null;
  readonly together?: (manager: EntityManager) => Promise<unknown>;
}

/** Changes designs: each change is one transaction, and a revision of its own. */
@Injectable()
export class ChangesService implements OnApplicationBootstrap {
  constructor(
    @InjectRepository(DesignRow) private readonly rows: Repository<DesignRow>,
    @InjectRepository(InstallationStateRow) private readonly state: Repository<InstallationStateRow>,
    private readonly designs: DesignsService,
    private readonly revisions: RevisionsService,
    private readonly dependents: DesignDependents,
    private readonly compute: ComputeService,
    private readonly initial: InitialRecordsService,
    @Inject(SERVER_SETTINGS) private readonly settings: ServerSettings,
  ) {}

  /** Loads the sample once in the life of an installation, and forgets what was removed long ago. */
  async onApplicationBootstrap(): Promise<void> {
    await this.rows.delete({ removedAt: LessThan(new Date(Date.now() - REMOVED_KEPT_MS)) });
    if (await this.state.existsBy({ name: 'samples.loaded' })) return;
    const sample = (await this.designs.listSamples()).find(({ id }) => id === FIRST_SAMPLE);
    if (sample === undefined) return;
    const loaded = { name: 'samples.loaded', value: new Date().toISOString() };
    const { choices } = sample;
    const text = withDesignName(sample.text, sample.name);
    await this.insert(
      { text, choices },
      { together: (manager) => manager.insert(InstallationStateRow, loaded) },
    );
  }

  /** `records`: those that fit the model, which its mocks begin with. */
  create(
    name: string | undefined,
    source: string,
    records: CompressedRecords | null = null,
  ): Promise<Design> {
    const text = name === undefined ? source : withDesignName(source, name);
    return this.insert({ text }, { records: (row) => this.initial.rowFor(row, records) });
  }

  /** A design of one's own like a sample. */
  async createFromSample(name: string | undefined, id: string): Promise<Design> {
    const samples = await this.designs.listSamples();
    const sample = samples.find((one) => one.id === id);
    if (sample === undefined) {
      const detail = `There is no sample ${id.slice(0, 60)}; there are ${samples.map((one) => one.id).join(', ')}.`;
      throw new ApiProblem('unsound', detail, {
        errors: [{ pointer: '/source/text', code: 'sample', message: detail }],
      });
    }
    return this.insert({ text: withDesignName(sample.text, name ?? sample.name), choices: sample.choices });
  }

  /** A design as a file carries it, identities and decisions included. */
  async createFromFile(
    name: string | undefined,
    text: string,
    withRecords: boolean,
    aborted: AbortSignal,
  ): Promise<Design> {
    const most = this.settings.limits.records;
    const read = await this.compute.runLong(
      'designFile',
      { text, withRecords, most },
      { refusal: 'The design file is more than can be read here', gone: aborted },
    );
    aborted.throwIfAborted();
    if (!read.ok) throw new ApiProblem('unsound', read.detail, { errors: read.errors });
    const { design, carried } = read;
    const named = (of: string): string => (name === undefined ? of : withDesignName(of, name));
    return this.insert(
      { text: named(design.model), identities: design.identities, choices: design.choices },
      {
        saved: named(design.draft ?? design.model),
        records: ({ id }) => (carried === null ? null : this.initial.carriedRow(id, carried)),
      },
    );
  }

  /** A design like another one, under another name. Errors of its text are copied too. */
  async copy(id: string, name: string, withRecords: boolean): Promise<Design> {
    const row = await this.designs.row(id);
    const [identities, choices] = [readIdentities(row), choicesOf(row)];
    const text = withDesignName(row.validText, name);
    return this.insert(
      { text, identities, choices },
      {
        saved: withDesignName(row.text, name),
        records: (made) => (withRecords ? this.initial.copyOf(id, made.id) : null),
      },
    );
  }

  /** Keeps a new design, and something together with it. */
  private async insert(
    design: DesignSource,
    { saved = design.text, records = () => null, together }: KeptTogether = {},
  ): Promise<Design> {
    const begun = await this.compute.run('newRow', design);
    if (!('id' in begun)) throw invalidModel(begun);
    checkSize(saved);
    const row = await this.designs.withFigures({ ...begun, text: saved });
    const initial = await records(row);
    await this.rows.manager.transaction(async (manager) => {
      await manager.insert(DesignRow, row);
      await this.revisions.keep(manager, row, 'begun', '');
      await this.initial.keep(manager, initial);
      await together?.(manager);
    });
    return this.designs.view(row);
  }

  /**
   * Saves the text of a model. A text with errors is kept too, so that nothing is lost; what is derived and
   * served stays that of the last sound text.
   */
  saveModel(id: string, text: string, ifMatch: string | undefined): Promise<Design> {
    checkSize(text);
    return this.change(id, ifMatch, 'text', (row) => this.compute.run('withText', { row, text }));
  }

  /** Writes another name into the text. */
  rename(id: string, name: string, ifMatch: string | undefined): Promise<Design> {
    return this.change(id, ifMatch, 'text', (row) => {
      const text = withDesignName(row.text, name);
      checkSize(text);
      return this.compute.run('withText', { row, text });
    });
  }

  saveChoices(id: string, choices: Choices, ifMatch: string | undefined): Promise<Design> {
    return this.change(id, ifMatch, 'choices', async (row) => {
      for (const [index, own] of choices.arrangements.entries())
        await this.checkExposures(row, choices, own, `/arrangements/${index}`);
      return withChoices(row, choices);
    });
  }

  /** Puts an arrangement in the place of the one of its name; whether there was none. */
  async saveArrangement(
    id: string,
    arrangement: ArrangementChoices,
    ifMatch: string | undefined,
  ): Promise<{ readonly design: Design; readonly isNew: boolean }> {
    let isNew = false;
    const design = await this.change(id, ifMatch, 'choices', async (row) => {
      const choices = choicesOf(row);
      isNew = findArrangement(choices, arrangement.name) === undefined;
      if (isNew && choices.arrangements.length >= MOST_ARRANGEMENTS)
        throw new ApiProblem('conflict', `A design has at most ${MOST_ARRANGEMENTS} arrangements.`);
      const wanted = withArrangement(choices, arrangement);
      await this.checkExposures(row, wanted, arrangement, '');
      return withChoices(row, wanted);
    });
    return { design, isNew };
  }

  /** What is newly chosen of what goes in and out of members must be something that the model allows. */
  private async checkExposures(
    row: DesignRow,
    choices: Choices,
    { name, exposures }: ArrangementChoices,
    pointer: string,
  ): Promise<void> {
    const before = choicesOf(row).arrangements.map((known) => known.exposures);
    const text = JSON.stringify(exposures);
    if (before.some((known) => JSON.stringify(known) === text)) return;
    const source = { text: row.validText, identities: readIdentities(row), choices, arrangement: name };
    const problems = await this.compute.run('refused', { ...source, before });
    orThrow({
      value: null,
      problems: problems.map((found) => ({ ...found, pointer: pointer + found.pointer })),
    });
  }

  /** Gives an arrangement another name; mocks that serve it go on. */
  async renameArrangement(
    id: string,
    from: string,
    to: string,
    ifMatch: string | undefined,
  ): Promise<Design> {
    return this.change(
      id,
      ifMatch,
      'choices',
      async (row, manager) => {
        const choices = choicesOf(row);
        this.designs.arrangement(choices, from);
        if (from !== to && findArrangement(choices, to) !== undefined)
          throw new ApiProblem('conflict', `The design has an arrangement ${to} already.`);
        await this.dependents.arrangementRenaming(manager, id, from, to);
        await manager.update(ReleaseRow, { designId: id, arrangement: from }, { arrangement: to });
        return withArrangementName(row, from, to);
      },
      () => this.dependents.arrangementRenamed(id, from, to),
    );
  }

  /** Removes an arrangement that is not the last one and that no mock serves. */
  removeArrangement(id: string, name: string, ifMatch: string | undefined): Promise<Design> {
    return this.change(id, ifMatch, 'choices', (row) => {
      const choices = choicesOf(row);
      this.designs.arrangement(choices, name);
      const arrangements = choices.arrangements.filter((known) => known.name !== name);
      if (arrangements.length === 0)
        throw new ApiProblem('conflict', 'The last arrangement of a design cannot be removed.');
      return withChoices(row, { ...choices, arrangements });
    });
  }

  /** Brings the state of an earlier revision back, as a new revision. */
  async restoreRevision(id: string, number: number, ifMatch: string | undefined): Promise<Design> {
    await this.designs.row(id);
    const kept = await this.revisions.state(id, number);
    return this.change(id, ifMatch, 'restored', (row) => this.compute.run('withState', { row, kept }));
  }

  /** Takes what came for what went: its records and everything else that knew it go on. */
  declareRename(
    id: string,
    rename: { readonly from: string; readonly to: string },
    ifMatch: string | undefined,
  ): Promise<Design> {
    return this.change(id, ifMatch, 'rename', async (row, manager) => {
      const gone = readRenameCandidates(row).removed.find(({ address }) => address === rename.from);
      const before = gone === undefined ? null : await this.revisions.stateBefore(manager, id, gone.revision);
      if (before === null) throw notAsked(rename);
      return this.compute.run('withRename', { row, before, rename });
    });
  }

  /** Takes what came for something new; it is not asked about again. */
  async denyRename(id: string, rename: { readonly from: string; readonly to: string }): Promise<Design> {
    const row = await this.rows.manager.transaction(async (manager) => {
      const known = await this.designs.row(id, manager);
      if (!readRenameCandidates(known).added.some(({ address }) => address === rename.to))
        throw notAsked(rename);
      const changed = withoutQuestion(known, rename.to);
      await manager.save(DesignRow, changed);
      return changed;
    });
    return this.designs.view(row);
  }

  private async change(
    id: string,
    ifMatch: string | undefined,
    what: RevisionKind,
    make: (row: DesignRow, manager: EntityManager) => DesignRow | Promise<DesignRow>,
    /** Called once the change is done, before those who serve the design hear of it. */
    onDone?: () => void,
  ): Promise<Design> {
    const { before, after } = await this.rows.manager.transaction(async (manager) => {
      const row = await this.designs.row(id, manager);
      checkIfMatch(ifMatch, row.revision);
      const changed = await make(row, manager);
      if (changed.revision !== row.revision) {
        const left = choicesOf(changed).arrangements.map(({ name }) => name);
        const objection = await this.dependents.objectionToArrangements(manager, id, left);
        if (objection !== null) throw new ApiProblem('conflict', objection);
        // What cannot be worked out is not kept: nobody could open it.
        const kept = await this.designs.withFigures(changed);
        await manager.save(DesignRow, kept);
        await this.revisions.keep(manager, kept, what, row.text);
        return { before: row, after: kept };
      }
      return { before: row, after: changed };
    });
    onDone?.();
    const served = ({ validText, identities, choices }: DesignRow): string =>
      `${identities}\n${choices}\n${validText}`;
    if (served(before) !== served(after)) this.dependents.modelChanged(id);
    return this.designs.view(after);
  }

  /** Removes a design so that it can be brought back; its mocks stop, their records stay. */
  async remove(id: string, ifMatch: string | undefined): Promise<void> {
    const row = await this.designs.row(id);
    checkIfMatch(ifMatch, row.revision);
    await this.rows.update({ id }, { removedAt: new Date() });
    await this.dependents.designRemoved(id);
  }

  /** Brings a removed design back, with its mocks as they were. */
  async restore(id: string): Promise<Design> {
    const result = await this.rows.update({ id, removedAt: Not(IsNull()) }, { removedAt: null });
    if (result.affected !== 1) throw new ApiProblem('not-found', `There is no removed design ${id}.`);
    await this.dependents.designRestored(id);
    return this.designs.read(id);
  }
}

function invalidModel(diagnostics: readonly Diagnostic[]): ApiProblem {
  const [first] = diagnostics;
  const count = `${diagnostics.length} ${diagnostics.length === 1 ? 'error' : 'errors'}`;
  const detail = `The text has ${count}, the first in line ${first?.place.line ?? 1}: ${first?.message ?? ''}`;
  return new ApiProblem('unsound', detail, { members: { diagnostics } });
}

function checkSize(text: string): void {
  const bytes = Buffer.byteLength(text);
  if (bytes <= MAX_TEXT_BYTES) return;
  throw new ApiProblem('too-large', `The text has ${bytes} bytes; the limit is ${MAX_TEXT_BYTES}.`);
}

const notAsked = ({ from, to }: { readonly from: string; readonly to: string }): ApiProblem =>
  new ApiProblem('conflict', `${to} did not come lately in the place of ${from}.`);
