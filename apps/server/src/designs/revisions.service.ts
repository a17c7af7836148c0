import { Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import type { Choices } from '@isomeros/core/arrangement';
import { changedLines } from '@isomeros/core/model';
import { LessThan, type DataSource, type EntityManager } from 'typeorm';
import { packJson, unpackJson } from '../database/compressedJson.js';
import { RevisionRow, type DesignRow, type RevisionKind } from '../database/tables.js';
import { isNumber, nextLink, readPageCursor, writePageCursor } from '../http/pagination.js';
import { ApiProblem } from '../http/problem.js';
import { readChoices, type KeptState } from './designRows.js';

/** One saved state of a design, as a list shows it. Who saved it is not known. */
export interface RevisionSummary {
  readonly number: number;
  readonly at: string;
  readonly what: RevisionKind;
  /** Whether its text has no errors. */
  readonly valid: boolean;
  /** Lines against the revision before, wherever they stand. */
  readonly lines: { readonly added: number; readonly removed: number };
}

export interface RevisionView extends RevisionSummary {
  readonly text: string;
  readonly choices: Choices;
}

/** Keeps every saved state of a design. */
@Injectable()
export class RevisionsService {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  /** Keeps the state of a row as the revision whose number it has. */
  async keep(manager: EntityManager, row: DesignRow, what: RevisionKind, before: string): Promise<void> {
    const { text, validText, identities, choices } = row;
    const kept: KeptState = { text, validText, identities, choices };
    const lines = changedLines(before, text);
    await manager.insert(RevisionRow, {
      designId: row.id,
      number: row.revision,
      at: row.changedAt,
      what,
      valid: text === validText,
      linesAdded: lines.added,
      linesRemoved: lines.removed,
      state: await packJson(kept),
    });
  }

  async list(
    design: string,
    limit: number,
    cursor: string | undefined,
  ): Promise<{ items: RevisionSummary[]; next: string | null }> {
    const [before] = cursor === undefined ? [] : readPageCursor(cursor, [isNumber]);
    const rows = await this.database.getRepository(RevisionRow).find({
      select: {
        designId: true,
        number: true,
        at: true,
        what: true,
        valid: true,
        linesAdded: true,
        linesRemoved: true,
      },
      where: { designId: design, ...(before === undefined ? {} : { number: LessThan(Number(before)) }) },
      order: { number: 'DESC' },
      take: limit + 1,
    });
    const shown = rows.slice(0, limit);
    const last = shown.at(-1);
    const next =
      rows.length > limit && last !== undefined
        ? nextLink(`/api/designs/${design}/revisions`, {
            limit: String(limit),
            cursor: writePageCursor([String(last.number)]),
          })
        : null;
    return { items: shown.map(summaryOf), next };
  }

  async read(design: string, number: number): Promise<RevisionView> {
    const row = await this.row(design, number);
    const kept = await stateOf(row);
    return { ...summaryOf(row), text: kept.text, choices: readChoices(kept) };
  }

  async state(design: string, number: number): Promise<KeptState> {
    return stateOf(await this.row(design, number));
  }

  /** The last revision before one of the given number. */
  async stateBefore(manager: EntityManager, design: string, number: number): Promise<KeptState | null> {
    const row = await manager.findOne(RevisionRow, {
      where: { designId: design, number: LessThan(number) },
      order: { number: 'DESC' },
    });
    return row === null ? null : stateOf(row);
  }

  private async row(design: string, number: number): Promise<RevisionRow> {
    const isNumber = Number.isInteger(number) && number > 0 && number < 2 ** 32;
    const row = isNumber
      ? await this.database.getRepository(RevisionRow).findOneBy({ designId: design, number })
      : null;
    if (row === null) throw new ApiProblem('not-found', `The design has no revision ${number}.`);
    return row;
  }
}

const stateOf = ({ state }: RevisionRow): Promise<KeptState> => unpackJson<KeptState>(state);

const summaryOf = (row: RevisionRow): RevisionSummary => ({
  number: row.number,
  at: row.at.toISOString(),
  what: row.what,
  valid: row.valid,
  lines: { added: row.linesAdded, removed: row.linesRemoved },
});
