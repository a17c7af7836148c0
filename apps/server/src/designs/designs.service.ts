import type { Design, DesignSummary, Sample } from '@isomeros/api';
import { hash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import {
  findArrangement,
  FIRST_ARRANGEMENT,
  type ArrangementChoices,
  type Choices,
} from '@isomeros/core/arrangement';
import { DERIVATION_VERSION } from '@isomeros/core/derivation';
import { possibleRenames } from '@isomeros/core/model';
import { IsNull, Repository, type EntityManager } from 'typeorm';
import { ComputeService } from '../compute/compute.service.js';
import type { Derivation, DerivationSource, DesignOutcome } from '../compute/program.js';
import { DesignRow } from '../database/tables.js';
import { isId, isMoment, nextLink, readPageCursor, writePageCursor } from '../http/pagination.js';
import { ApiProblem } from '../http/problem.js';
import { SERVER_SETTINGS, type ServerSettings } from '../settings.js';
import { choicesOf, readIdentities, readRenameCandidates } from './designRows.js';
import { InitialRecordsService } from './initialRecords.service.js';
import { validModelOf, type ValidModel } from './modelColumns.js';
import { RecentAnswers } from './recent.js';
import { readSamples } from './samples.js';

const OUTCOMES_KEPT = 1_000;

/** Reads designs and what is derived from them. */
@Injectable()
export class DesignsService {
  private readonly outcomes = new RecentAnswers<DesignOutcome>(OUTCOMES_KEPT);
  private samples: Promise<readonly Sample[]> | null = null;

  constructor(
    @InjectRepository(DesignRow) private readonly rows: Repository<DesignRow>,
    @Inject(SERVER_SETTINGS) private readonly settings: ServerSettings,
    private readonly compute: ComputeService,
    private readonly initial: InitialRecordsService,
  ) {}

  listSamples(): Promise<readonly Sample[]> {
    this.samples ??= readSamples(this.settings.samplesFolder, this.compute);
    return this.samples;
  }

  async list(
    limit: number,
    cursor: string | undefined,
    /** A part of the name, in whatever case; all where it is empty. */
    name: string,
  ): Promise<{ items: DesignSummary[]; next: string | null }> {
    const query = this.rows
      .createQueryBuilder('d')
      .where('d.removedAt IS NULL')
      .orderBy('d.changedAt', 'DESC')
      .addOrderBy('d.id', 'DESC');
    if (cursor !== undefined) {
      const [changedAt = '', id = ''] = readPageCursor(cursor, [isMoment, isId]);
      query.andWhere('(d.changedAt < :changedAt OR (d.changedAt = :changedAt AND d.id < :id))', {
        changedAt: new Date(changedAt),
        id,
      });
    }
    if (name !== '')
      query.andWhere('LOWER(d.name) LIKE LOWER(:name)', { name: `%${name.replace(/[\\%_]/g, '\\$&')}%` });
    const rows = await query.take(limit + 1).getMany();
    const shown = rows.slice(0, limit);
    const last = shown.at(-1);
    const more = rows.length > limit && last !== undefined;
    const next = more
      ? nextLink('/api/designs', {
          limit: String(limit),
          ...(name === '' ? {} : { name }),
          cursor: writePageCursor([last.changedAt.toISOString(), last.id]),
        })
      : null;
    const counts = await this.initial.counts(shown.map(({ id }) => id));
    return { items: shown.map((row) => summaryOf(row, counts.get(row.id) ?? 0)), next };
  }

  async read(id: string): Promise<Design> {
    return this.view(await this.row(id));
  }

  /** What the last sound text of a design and one of its arrangements are. */
  async source(
    id: string,
    arrangement: string,
  ): Promise<{ readonly source: DerivationSource; readonly revision: number }> {
    const row = await this.row(id);
    this.arrangement(choicesOf(row), arrangement);
    return { source: sourceOf(row, arrangement), revision: row.revision };
  }

  /** What a sound model implies under each of some arrangements. */
  derivations(
    { text, identities, choices }: Omit<ValidModel, 'revision'>,
    arrangements: readonly string[],
  ): Promise<readonly Derivation[]> {
    return Promise.all(
      arrangements.map((arrangement) =>
        this.compute.run('derivation', { text, identities, choices, arrangement }),
      ),
    );
  }

  async validModel(id: string): Promise<ValidModel> {
    return validModelOf(await this.row(id));
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
    const row = await (manager ?? this.rows.manager).findOne(DesignRow, {
      where: { id, removedAt: IsNull() },
      ...(manager === undefined ? {} : { lock: { mode: 'pessimistic_write' as const } }),
    });
    if (row === null) throw new ApiProblem('not-found', `There is no design ${id}.`);
    return row;
  }

  /** Whether there is a design that is not removed. */
  isThere(id: string): Promise<boolean> {
    return this.rows.existsBy({ id, removedAt: IsNull() });
  }

  async view(row: DesignRow): Promise<Design> {
    const { diagnostics, figures, fingerprint } = await this.outcome(row);
    return {
      ...summaryOf(row, (await this.initial.counts([row.id])).get(row.id) ?? 0),
      figures,
      fingerprint,
      text: row.text,
      validText: row.validText,
      identities: readIdentities(row),
      diagnostics,
      choices: choicesOf(row),
      possibleRenames: possibleRenames(readRenameCandidates(row)),
    };
  }

  /** What the row of a design amounts to. A problem where that is more than can be worked out. */
  outcome(row: DesignRow): Promise<DesignOutcome> {
    const first = choicesOf(row).arrangements[0]?.name ?? FIRST_ARRANGEMENT;
    return this.outcomes.get(contentOf(row), () =>
      this.compute.run('outcome', { ...sourceOf(row, first), saved: row.text }),
    );
  }

  /** The row with what it amounts to, to be kept with it. A problem where that is more than can be worked out. */
  async withFigures(row: DesignRow): Promise<DesignRow> {
    const { figures, fingerprint } = await this.outcome(row);
    const kept: KeptFigures = { figures, fingerprint };
    return { ...row, figures: JSON.stringify(kept), figuresVersion: DERIVATION_VERSION };
  }
}

/** What a list shows of the contract of a design. */
type KeptFigures = Pick<DesignOutcome, 'figures' | 'fingerprint'>;

/** Nothing is derived: what it amounts to is kept with it. */
function summaryOf(row: DesignRow, initialRecords: number): DesignSummary {
  const kept = row.figures === null ? null : (JSON.parse(row.figures) as KeptFigures);
  return {
    id: row.id,
    name: row.name,
    revision: row.revision,
    createdAt: row.createdAt.toISOString(),
    changedAt: row.changedAt.toISOString(),
    arrangements: choicesOf(row).arrangements.map(({ name }) => ({ name })),
    valid: row.text === row.validText,
    figures: kept?.figures ?? null,
    fingerprint: kept?.fingerprint ?? [],
    initialRecords,
  };
}

/** The content of a row, whatever its number: a change that is not kept in the end has one too. */
const contentOf = ({ text, validText, identities, choices }: DesignRow): string =>
  hash('sha256', JSON.stringify([text, validText, identities, choices]));

const sourceOf = (row: DesignRow, arrangement: string): DerivationSource => ({
  text: row.validText,
  identities: readIdentities(row),
  choices: choicesOf(row),
  arrangement,
});
