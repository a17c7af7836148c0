import { randomUUID } from 'node:crypto';
import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { fingerprintOf } from '@isomeros/core/contract';
import { reconcile, type Identities } from '@isomeros/core/model';
import {
  MAX_TEXT_BYTES,
  parse,
  withDesignName,
  type Diagnostic,
  type ParseResult,
} from '@isomeros/core/notation';
import { Subject } from 'rxjs';
import type { DataSource, EntityManager } from 'typeorm';
import { ArrangementRow, DesignRow, FactRow } from '../database/tables.js';
import { checkIfMatch } from '../http/etag.js';
import { nextLink, readCursor, writeCursor } from '../http/pages.js';
import { ApiProblem } from '../http/problem.js';
import { SETTINGS, type ServerSettings } from '../settings.js';
import { DerivationCache, deriveFrom, type Derivation } from './derivations.js';
import { readSamples, type Sample } from './samples.js';
import { designFigures, type DesignSummary, type DesignView } from './views.js';

export const DEFAULT_ARRANGEMENT = 'main';
const DERIVATIONS_KEPT = 40;
const FIRST_SAMPLE = 'kestrel-sound-ferries';

/** A sound model as a mock takes it over. */
export interface SoundModel {
  readonly text: string;
  readonly identities: Identities;
  readonly revision: number;
}

/** Keeps designs: the text of their models, their identities across edits, and what is derived from them. */
@Injectable()
export class DesignsService implements OnApplicationBootstrap {
  private readonly derivations = new DerivationCache(DERIVATIONS_KEPT);
  private samples: Promise<readonly Sample[]> | null = null;
  /** Ids of designs whose sound model changed, or that are about to be removed. */
  readonly modelChanged = new Subject<string>();
  readonly removing = new Subject<{ readonly id: string; readonly done: Promise<void>[] }>();

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @Inject(SETTINGS) private readonly settings: ServerSettings,
  ) {}

  /** Loads the sample once in the life of an installation. */
  async onApplicationBootstrap(): Promise<void> {
    const facts = this.database.getRepository(FactRow);
    if (await facts.existsBy({ name: 'samples.loaded' })) return;
    const sample = (await this.listSamples()).find(({ id }) => id === FIRST_SAMPLE);
    if (sample === undefined) return;
    await this.create(sample.name, sample.text);
    await facts.insert({ name: 'samples.loaded', value: new Date().toISOString() });
  }

  listSamples(): Promise<readonly Sample[]> {
    this.samples ??= readSamples(this.settings.samplesFolder);
    return this.samples;
  }

  async list(
    limit: number,
    cursor: string | undefined,
  ): Promise<{ items: DesignSummary[]; next: string | null }> {
    const query = this.database
      .getRepository(DesignRow)
      .createQueryBuilder('d')
      .orderBy('d.changedAt', 'DESC')
      .addOrderBy('d.id', 'DESC');
    if (cursor !== undefined) {
      const [changedAt = '', id = ''] = readCursor(cursor, 2);
      query.where('(d.changedAt < :changedAt OR (d.changedAt = :changedAt AND d.id < :id))', {
        changedAt: new Date(changedAt),
        id,
      });
    }
    const rows = await query.take(limit + 1).getMany();
    const shown = rows.slice(0, limit);
    const last = shown.at(-1);
    const more = rows.length > limit && last !== undefined;
    const next = more
      ? nextLink('/api/designs', {
          limit: String(limit),
          cursor: writeCursor([last.changedAt.toISOString(), last.id]),
        })
      : null;
    const arrangements = await this.arrangementsOf(shown.map(({ id }) => id));
    return {
      items: shown.map((row) => this.summary(row, arrangements.get(row.id) ?? [], readText(row).diagnostics)),
      next,
    };
  }

  private async arrangementsOf(ids: readonly string[]): Promise<ReadonlyMap<string, ArrangementRow[]>> {
    if (ids.length === 0) return new Map();
    const rows = await this.database
      .getRepository(ArrangementRow)
      .createQueryBuilder('a')
      .where('a.designId IN (:...ids)', { ids })
      .orderBy('a.name')
      .getMany();
    const byDesign = new Map<string, ArrangementRow[]>(ids.map((id) => [id, []]));
    for (const row of rows) byDesign.get(row.designId)?.push(row);
    return byDesign;
  }

  async create(name: string | undefined, source: string): Promise<DesignView> {
    const text = name === undefined ? source : withDesignName(source, name);
    const parsed = parse(text);
    if (parsed.diagnostics.length > 0) throw unsound(parsed.diagnostics);
    const now = new Date();
    const identities = JSON.stringify(reconcile(parsed.model, parsed.model));
    const row: DesignRow = {
      id: randomUUID(),
      name: nameIn(parsed),
      text,
      soundText: text,
      identities,
      revision: 1,
      createdAt: now,
      changedAt: now,
    };
    await this.database.transaction(async (manager) => {
      await manager.insert(DesignRow, row);
      await manager.insert(ArrangementRow, { designId: row.id, name: DEFAULT_ARRANGEMENT });
    });
    return this.view(row, [{ designId: row.id, name: DEFAULT_ARRANGEMENT }]);
  }

  async read(id: string): Promise<DesignView> {
    const row = await this.row(id);
    return this.view(row, (await this.arrangementsOf([id])).get(id) ?? []);
  }

  /**
   * Saves the text of a model. A text with errors is kept too, so that nothing is lost; what is derived and
   * served stays that of the last sound text.
   */
  async saveModel(id: string, text: string, ifMatch: string | undefined): Promise<DesignView> {
    const bytes = Buffer.byteLength(text);
    if (bytes > MAX_TEXT_BYTES) {
      throw new ApiProblem('too-large', `The text has ${bytes} bytes; the limit is ${MAX_TEXT_BYTES}.`);
    }
    const saved = await this.database.transaction(async (manager) => {
      const row = await this.row(id, manager);
      checkIfMatch(ifMatch, row.revision);
      if (row.text === text) return { row, soundChanged: false };
      const changed = withText(row, text);
      await manager.save(DesignRow, changed);
      return { row: changed, soundChanged: changed.soundText !== row.soundText };
    });
    if (saved.soundChanged) this.modelChanged.next(id);
    return this.view(saved.row, (await this.arrangementsOf([id])).get(id) ?? []);
  }

  async remove(id: string, ifMatch: string | undefined): Promise<void> {
    const row = await this.row(id);
    checkIfMatch(ifMatch, row.revision);
    const done: Promise<void>[] = [];
    this.removing.next({ id, done });
    await Promise.all(done);
    await this.database.getRepository(DesignRow).delete({ id });
  }

  /** What the last sound text of a design implies in one of its arrangements. */
  async derivation(id: string, arrangement: string): Promise<Derivation & { readonly revision: number }> {
    const row = await this.row(id);
    const known = (await this.arrangementsOf([id])).get(id) ?? [];
    if (!known.some(({ name }) => name === arrangement)) {
      const names = known.map(({ name }) => name).join(', ');
      throw new ApiProblem('not-found', `The design has no arrangement ${arrangement}; it has ${names}.`);
    }
    return { ...this.derive(row, arrangement), revision: row.revision };
  }

  async soundModel(id: string): Promise<SoundModel> {
    const row = await this.row(id);
    return { text: row.soundText, identities: readIdentities(row), revision: row.revision };
  }

  async arrangementNames(id: string): Promise<readonly string[]> {
    return ((await this.arrangementsOf([id])).get(id) ?? []).map(({ name }) => name);
  }

  private derive(row: DesignRow, arrangement: string): Derivation {
    return this.derivations.get(`${row.id}/${row.revision}/${arrangement}`, () =>
      deriveFrom(row.soundText, readIdentities(row), arrangement),
    );
  }

  /** Inside a transaction the row is locked until its end. */
  private async row(id: string, manager?: EntityManager): Promise<DesignRow> {
    const row = await (manager ?? this.database.manager).findOne(DesignRow, {
      where: { id },
      ...(manager === undefined ? {} : { lock: { mode: 'pessimistic_write' as const } }),
    });
    if (row === null) throw new ApiProblem('not-found', `There is no design ${id}.`);
    return row;
  }

  private summary(
    row: DesignRow,
    arrangements: readonly ArrangementRow[],
    diagnostics: readonly Diagnostic[],
  ): DesignSummary {
    const { model, contract } = this.derive(row, DEFAULT_ARRANGEMENT);
    return {
      id: row.id,
      name: row.name,
      revision: row.revision,
      createdAt: row.createdAt.toISOString(),
      changedAt: row.changedAt.toISOString(),
      arrangements: arrangements.map(({ name }) => ({ name })),
      sound: diagnostics.length === 0,
      figures: designFigures(model, contract),
      fingerprint: fingerprintOf(contract),
    };
  }

  private view(row: DesignRow, arrangements: readonly ArrangementRow[]): DesignView {
    const { diagnostics } = readText(row);
    return {
      ...this.summary(row, arrangements, diagnostics),
      text: row.text,
      soundText: row.soundText,
      identities: readIdentities(row),
      diagnostics,
    };
  }
}

const readIdentities = (row: DesignRow): Identities => JSON.parse(row.identities) as Identities;

const readText = (row: DesignRow): ParseResult => parse(row.text, readIdentities(row));

const nameIn = (parsed: ParseResult): string =>
  parsed.model.name === '' ? 'Untitled design' : parsed.model.name.slice(0, 255);

function withText(row: DesignRow, text: string): DesignRow {
  const identities = readIdentities(row);
  const parsed = parse(text, identities);
  const next = { ...row, text, revision: row.revision + 1, changedAt: new Date() };
  if (parsed.diagnostics.length > 0) return next;
  const before = parse(row.soundText, identities).model;
  const reconciled = reconcile(before, parsed.model);
  return { ...next, name: nameIn(parsed), soundText: text, identities: JSON.stringify(reconciled) };
}

function unsound(diagnostics: readonly Diagnostic[]): ApiProblem {
  const [first] = diagnostics;
  const detail = `The text has ${diagnostics.length} ${diagnostics.length === 1 ? 'error' : 'errors'}, the first in line ${first?.place.line ?? 1}: ${first?.message ?? ''}`;
  return new ApiProblem('unsound', detail, { members: { diagnostics } });
}
