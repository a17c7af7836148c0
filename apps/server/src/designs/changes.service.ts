import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import type { Choices, DesignFile, SettingValues } from '@isomeros/core/arrangement';
import type { Identities } from '@isomeros/core/model';
import { MAX_TEXT_BYTES, withDesignName } from '@isomeros/core/notation';
import { IsNull, LessThan, Not, type DataSource, type EntityManager } from 'typeorm';
import { ArrangementRow, DesignRow, FactRow, type RevisionKind } from '../database/tables.js';
import { checkIfMatch } from '../http/etag.js';
import { ApiProblem } from '../http/problem.js';
import { DesignEvents } from './designEvents.js';
import {
  newRow,
  readChoices,
  readIdentities,
  readLooseEnds,
  readSound,
  withChoices,
  withoutQuestion,
  withRename,
  withState,
  withText,
} from './designRows.js';
import { DEFAULT_ARRANGEMENT, DesignsService } from './designs.service.js';
import { RevisionsService } from './revisions.service.js';
import type { DesignView } from './views.js';

const FIRST_SAMPLE = 'kestrel-sound-ferries';
/** A removed design can be brought back for so long. */
const REMOVED_KEPT_MS = 30 * 24 * 3_600_000;

/** Changes designs: each change is one transaction, and a revision of its own. */
@Injectable()
export class ChangesService implements OnApplicationBootstrap {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly designs: DesignsService,
    private readonly revisions: RevisionsService,
    private readonly events: DesignEvents,
  ) {}

  /** Loads the sample once in the life of an installation, and forgets what was removed long ago. */
  async onApplicationBootstrap(): Promise<void> {
    await this.database
      .getRepository(DesignRow)
      .delete({ removedAt: LessThan(new Date(Date.now() - REMOVED_KEPT_MS)) });
    const facts = this.database.getRepository(FactRow);
    if (await facts.existsBy({ name: 'samples.loaded' })) return;
    const sample = (await this.designs.listSamples()).find(({ id }) => id === FIRST_SAMPLE);
    if (sample === undefined) return;
    await this.create(sample.name, sample.text);
    await facts.insert({ name: 'samples.loaded', value: new Date().toISOString() });
  }

  create(name: string | undefined, source: string): Promise<DesignView> {
    return this.insert(newRow(name === undefined ? source : withDesignName(source, name)), [
      DEFAULT_ARRANGEMENT,
    ]);
  }

  /** A design as a file carries it, identities and decisions included. */
  createFromFile(name: string | undefined, file: DesignFile): Promise<DesignView> {
    const named = (text: string): string => (name === undefined ? text : withDesignName(text, name));
    return this.insert(
      { ...newRow(named(file.model), file), text: named(file.draft ?? file.model) },
      file.arrangements.map((arrangement) => arrangement.name),
    );
  }

  /** A design like another one, under another name. Errors of its text are copied too. */
  async copy(id: string, name: string): Promise<DesignView> {
    const row = await this.designs.row(id);
    const given: { identities: Identities; choices: Choices } = {
      identities: readIdentities(row),
      choices: readChoices(row),
    };
    const copy = newRow(withDesignName(row.soundText, name), given);
    const names = await this.designs.arrangementNames(id);
    return this.insert({ ...copy, text: withDesignName(row.text, name) }, names);
  }

  private async insert(row: DesignRow, arrangements: readonly string[]): Promise<DesignView> {
    checkSize(row.text);
    await this.database.transaction(async (manager) => {
      await manager.insert(DesignRow, row);
      await manager.insert(
        ArrangementRow,
        arrangements.map((name) => ({ designId: row.id, name })),
      );
      await this.revisions.keep(manager, row, 'begun', '');
    });
    return this.designs.view(row);
  }

  /**
   * Saves the text of a model. A text with errors is kept too, so that nothing is lost; what is derived and
   * served stays that of the last sound text.
   */
  saveModel(id: string, text: string, ifMatch: string | undefined): Promise<DesignView> {
    checkSize(text);
    return this.change(id, ifMatch, 'text', (row) => withText(row, text));
  }

  /** Writes another name into the text. */
  rename(id: string, name: string, ifMatch: string | undefined): Promise<DesignView> {
    return this.change(id, ifMatch, 'text', (row) => {
      const text = withDesignName(row.text, name);
      checkSize(text);
      return withText(row, text);
    });
  }

  saveChoices(id: string, choices: Choices, ifMatch: string | undefined): Promise<DesignView> {
    return this.change(id, ifMatch, 'choices', (row) => withChoices(row, choices));
  }

  /** Saves what one arrangement has of its own. */
  saveArrangement(
    id: string,
    name: string,
    own: SettingValues,
    ifMatch: string | undefined,
  ): Promise<DesignView> {
    return this.change(id, ifMatch, 'choices', (row) => {
      const choices = readChoices(row);
      return withChoices(row, { ...choices, arrangements: { ...choices.arrangements, [name]: own } });
    });
  }

  /** Brings the state of an earlier revision back, as a new revision. */
  async restore(id: string, number: number, ifMatch: string | undefined): Promise<DesignView> {
    await this.designs.row(id);
    const kept = await this.revisions.state(id, number);
    return this.change(id, ifMatch, 'restored', (row) => withState(row, kept));
  }

  /** Takes what came for what went: its records and everything else that knew it go on. */
  declareRename(
    id: string,
    rename: { readonly from: string; readonly to: string },
    ifMatch: string | undefined,
  ): Promise<DesignView> {
    return this.change(id, ifMatch, 'rename', async (row, manager) => {
      const gone = readLooseEnds(row).gone.find(({ address }) => address === rename.from);
      const before = gone === undefined ? null : await this.revisions.stateBefore(manager, id, gone.revision);
      if (before === null) throw notAsked(rename);
      return withRename(row, readSound(before), rename);
    });
  }

  /** Takes what came for something new; it is not asked about again. */
  async denyRename(id: string, rename: { readonly from: string; readonly to: string }): Promise<DesignView> {
    const row = await this.database.transaction(async (manager) => {
      const known = await this.designs.row(id, manager);
      if (!readLooseEnds(known).fresh.some(({ address }) => address === rename.to)) throw notAsked(rename);
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
  ): Promise<DesignView> {
    const { before, after } = await this.database.transaction(async (manager) => {
      const row = await this.designs.row(id, manager);
      checkIfMatch(ifMatch, row.revision);
      const changed = await make(row, manager);
      if (changed.revision !== row.revision) {
        await manager.save(DesignRow, changed);
        await this.revisions.keep(manager, changed, what, row.text);
      }
      return { before: row, after: changed };
    });
    const served = ({ soundText, identities, choices }: DesignRow): string =>
      `${identities}\n${choices}\n${soundText}`;
    if (served(before) !== served(after)) this.events.modelChanged.next(id);
    return this.designs.view(after);
  }

  /** Removes a design so that it can be brought back; its mocks stop, their records stay. */
  async remove(id: string, ifMatch: string | undefined): Promise<void> {
    const row = await this.designs.row(id);
    checkIfMatch(ifMatch, row.revision);
    await this.database.getRepository(DesignRow).update({ id }, { removedAt: new Date() });
    await follow((done) => this.events.removing.next({ id, done }));
  }

  /** Brings a removed design back, with its mocks as they were. */
  async bringBack(id: string): Promise<DesignView> {
    const result = await this.database
      .getRepository(DesignRow)
      .update({ id, removedAt: Not(IsNull()) }, { removedAt: null });
    if (result.affected !== 1) throw new ApiProblem('not-found', `There is no removed design ${id}.`);
    await follow((done) => this.events.broughtBack.next({ id, done }));
    return this.designs.read(id);
  }
}

async function follow(tell: (done: Promise<void>[]) => void): Promise<void> {
  const done: Promise<void>[] = [];
  tell(done);
  await Promise.all(done);
}

function checkSize(text: string): void {
  const bytes = Buffer.byteLength(text);
  if (bytes <= MAX_TEXT_BYTES) return;
  throw new ApiProblem('too-large', `The text has ${bytes} bytes; the limit is ${MAX_TEXT_BYTES}.`);
}

const notAsked = ({ from, to }: { readonly from: string; readonly to: string }): ApiProblem =>
  new ApiProblem('conflict', `${to} did not come lately in the place of ${from}.`);
