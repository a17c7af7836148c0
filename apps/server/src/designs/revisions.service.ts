import type { Revision, RevisionKind, RevisionSummary } from '@isomeros/api';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { changedLines, Format, type JsonObject } from '@isomeros/core/model';
import { LessThan, Repository, type EntityManager } from 'typeorm';
import { packJson, unpackJson } from '../database/compressedJson.js';
import { RevisionRow, type DesignRow } from '../database/tables.js';
import { isNumber, nextLink, readPageCursor, writePageCursor } from '../http/pagination.js';
import { ApiProblem } from '../http/problem.js';
import { choicesOf, type KeptState } from './designRows.js';

/** Keeps every saved state of a design. */
@Injectable()
export class RevisionsService {
  constructor(@InjectRepository(RevisionRow) private readonly rows: Repository<RevisionRow>) {}

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
      state: await packJson(STATE_FORMAT.stamp(kept)),
    });
  }

  async list(
    design: string,
    limit: number,
    cursor: string | undefined,
  ): Promise<{ items: RevisionSummary[]; next: string | null }> {
    const [before] = cursor === undefined ? [] : readPageCursor(cursor, [isNumber]);
    const rows = await this.rows.find({
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

  async read(design: string, number: number): Promise<Revision> {
    const row = await this.row(design, number);
    const kept = await stateOf(row);
    return { ...summaryOf(row), text: kept.text, choices: choicesOf(kept) };
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
    const row = isNumber ? await this.rows.findOneBy({ designId: design, number }) : null;
    if (row === null) throw new ApiProblem('not-found', `The design has no revision ${number}.`);
    return row;
  }
}

const stateOf = async ({ state }: RevisionRow): Promise<KeptState> =>
  STATE_FORMAT.upgrade(await unpackJson<JsonObject>(state)) as unknown as KeptState;

/** Format 1 calls the last text without errors otherwise. */
const STATE_FORMAT = new Format('A revision', [
  ({ soundText, ...others }) => ({ ...others, validText: soundText ?? '' }),
]);

const summaryOf = (row: RevisionRow): RevisionSummary => ({
  number: row.number,
  at: row.at.toISOString(),
  what: row.what,
  valid: row.valid,
  lines: { added: row.linesAdded, removed: row.linesRemoved },
});
