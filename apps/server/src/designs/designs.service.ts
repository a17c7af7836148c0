import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import {
  findArrangement,
  FIRST_ARRANGEMENT,
  type ArrangementChoices,
  type Choices,
} from '@isomeros/core/arrangement';
import { fingerprintOf } from '@isomeros/core/contract';
import { possibleRenames, type Identities } from '@isomeros/core/model';
import type { Diagnostic } from '@isomeros/core/notation';
import { IsNull, type DataSource, type EntityManager } from 'typeorm';
import { DesignRow } from '../database/tables.js';
import { nextLink, readCursor, writeCursor } from '../http/pages.js';
import { ApiProblem } from '../http/problem.js';
import { SETTINGS, type ServerSettings } from '../settings.js';
import { DerivationCache, deriveFrom, type Derivation } from './derivations.js';
import { readChoices, readIdentities, readLooseEnds, readText } from './designRows.js';
import { readSamples, type Sample } from './samples.js';
import { designFigures, type DesignSummary, type DesignView } from './views.js';

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
    return { items: shown.map((row) => this.summary(row, readText(row).diagnostics)), next };
  }

  async read(id: string): Promise<DesignView> {
    return this.view(await this.row(id));
  }

  /** What the last sound text of a design implies in one of its arrangements. */
  async derivation(id: string, arrangement: string): Promise<Derivation & { readonly revision: number }> {
    const row = await this.row(id);
    this.arrangement(readChoices(row), arrangement);
    return { ...this.derive(row, arrangement), revision: row.revision };
  }

  async soundModel(id: string): Promise<SoundModel> {
    const row = await this.row(id);
    const { soundText: text, revision } = row;
    return { text, identities: readIdentities(row), choices: readChoices(row), revision };
  }

  /** What was decided about an arrangement that is there. */
  arrangement(choices: Choices, name: string): ArrangementChoices {
    const found = findArrangement(choices, name);
    if (found !== undefined) return found;
    const names = choices.arrangements.map((known) => known.name).join(', ');
    throw new ApiProblem('not-found', `The design has no arrangement ${name}; it has ${names}.`);
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

  view(row: DesignRow): DesignView {
    const { diagnostics } = readText(row);
    return {
      ...this.summary(row, diagnostics),
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

  private summary(row: DesignRow, diagnostics: readonly Diagnostic[]): DesignSummary {
    const choices = readChoices(row);
    const { model, contract } = this.derive(row, choices.arrangements[0]?.name ?? FIRST_ARRANGEMENT);
    return {
      id: row.id,
      name: row.name,
      revision: row.revision,
      createdAt: row.createdAt.toISOString(),
      changedAt: row.changedAt.toISOString(),
      arrangements: choices.arrangements.map(({ name }) => ({ name })),
      sound: diagnostics.length === 0,
      figures: designFigures(model, contract, choices),
      fingerprint: fingerprintOf(contract),
    };
  }
}
