import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import type { Choices } from '@isomeros/core/arrangement';
import { fingerprintOf } from '@isomeros/core/contract';
import { possibleRenames, type Identities } from '@isomeros/core/model';
import type { Diagnostic } from '@isomeros/core/notation';
import { IsNull, type DataSource, type EntityManager } from 'typeorm';
import { ArrangementRow, DesignRow } from '../database/tables.js';
import { nextLink, readCursor, writeCursor } from '../http/pages.js';
import { ApiProblem } from '../http/problem.js';
import { SETTINGS, type ServerSettings } from '../settings.js';
import { DerivationCache, deriveFrom, type Derivation } from './derivations.js';
import { readChoices, readIdentities, readLooseEnds, readText } from './designRows.js';
import { readSamples, type Sample } from './samples.js';
import { designFigures, type DesignSummary, type DesignView } from './views.js';

export const DEFAULT_ARRANGEMENT = 'main';
const DERIVATIONS_KEPT = 40;

/** A sound model as a mock takes it over. */
export interface SoundModel {
  readonly text: string;
  readonly identities: Identities;
  readonly choices: Choices;
  readonly revision: number;
}

/** Reads designs and what is derived from them. */
@Injectable()
export class DesignsService {
  private readonly derivations = new DerivationCache(DERIVATIONS_KEPT);
  private samples: Promise<readonly Sample[]> | null = null;

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @Inject(SETTINGS) private readonly settings: ServerSettings,
  ) {}

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
      .where('d.removedAt IS NULL')
      .orderBy('d.changedAt', 'DESC')
      .addOrderBy('d.id', 'DESC');
    if (cursor !== undefined) {
      const [changedAt = '', id = ''] = readCursor(cursor, 2);
      query.andWhere('(d.changedAt < :changedAt OR (d.changedAt = :changedAt AND d.id < :id))', {
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

  async read(id: string): Promise<DesignView> {
    return this.view(await this.row(id));
  }

  /** What the last sound text of a design implies in one of its arrangements. */
  async derivation(id: string, arrangement: string): Promise<Derivation & { readonly revision: number }> {
    const row = await this.row(id);
    const known = await this.arrangementNames(id);
    if (!known.includes(arrangement)) {
      const names = known.join(', ');
      throw new ApiProblem('not-found', `The design has no arrangement ${arrangement}; it has ${names}.`);
    }
    return { ...this.derive(row, arrangement), revision: row.revision };
  }

  async soundModel(id: string): Promise<SoundModel> {
    const row = await this.row(id);
    const { soundText: text, revision } = row;
    return { text, identities: readIdentities(row), choices: readChoices(row), revision };
  }

  async arrangementNames(id: string): Promise<readonly string[]> {
    return ((await this.arrangementsOf([id])).get(id) ?? []).map(({ name }) => name);
  }

  /** The row of a design that is not removed. Inside a transaction it is locked until its end. */
  async row(id: string, manager?: EntityManager): Promise<DesignRow> {
    const row = await (manager ?? this.database.manager).findOne(DesignRow, {
      where: { id, removedAt: IsNull() },
      ...(manager === undefined ? {} : { lock: { mode: 'pessimistic_write' as const } }),
    });
    if (row === null) throw new ApiProblem('not-found', `There is no design ${id}.`);
    return row;
  }

  /** Whether there is a design that is not removed. */
  isThere(id: string): Promise<boolean> {
    return this.database.getRepository(DesignRow).existsBy({ id, removedAt: IsNull() });
  }

  async view(row: DesignRow): Promise<DesignView> {
    const { diagnostics } = readText(row);
    const arrangements = (await this.arrangementsOf([row.id])).get(row.id) ?? [];
    return {
      ...this.summary(row, arrangements, diagnostics),
      text: row.text,
      soundText: row.soundText,
      identities: readIdentities(row),
      diagnostics,
      choices: readChoices(row),
      possibleRenames: possibleRenames(readLooseEnds(row)),
    };
  }

  private derive(row: DesignRow, arrangement: string): Derivation {
    return this.derivations.get(`${row.id}/${row.revision}/${arrangement}`, () =>
      deriveFrom(row.soundText, readIdentities(row), readChoices(row), arrangement),
    );
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
      figures: designFigures(model, contract, readChoices(row)),
      fingerprint: fingerprintOf(contract),
    };
  }
}
