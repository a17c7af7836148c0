import { In, type DataSource } from 'typeorm';
import { packJson, packText, unpackJson, unpackText } from '../../database/compressedJson.js';
import { JournalSegmentRow, PinnedExchangeRow } from '../../database/tables.js';
import type { StoredExchange, StoredSummary } from './storedExchange.js';

/** Exchanges that are stored together, by their numbers. */
export interface JournalSegment {
  readonly first: number;
  readonly last: number;
  readonly exchanges: number;
  /** As they are stored, compressed. */
  readonly bytes: number;
}

const asLines = (lines: readonly string[]): string => lines.join('\n');

const fromLines = (text: string): readonly unknown[] =>
  text === '' ? [] : text.split('\n').map((line) => JSON.parse(line) as unknown);

/** Where exchanges are kept. */
export type JournalStorage = Pick<JournalStore, keyof JournalStore>;

/** The journal of one mock in the database: exchanges in segments, and those that are pinned. */
export class JournalStore {
  constructor(
    private readonly database: DataSource,
    private readonly mockId: string,
  ) {}

  /** What is stored, oldest first. */
  segments(): Promise<readonly JournalSegment[]> {
    return this.database.getRepository(JournalSegmentRow).find({
      select: { first: true, last: true, exchanges: true, bytes: true },
      where: { mockId: this.mockId },
      order: { first: 'ASC' },
    });
  }

  /** Writes a segment, in the place of a shorter one that begins alike. Exchanges and summaries as lines of JSON. */
  async write(
    { first, last, exchanges }: Omit<JournalSegment, 'bytes'>,
    lines: { readonly exchanges: readonly string[]; readonly summaries: readonly string[] },
  ): Promise<JournalSegment> {
    const bodies = await packText(asLines(lines.exchanges));
    const summaries = await packText(asLines(lines.summaries));
    const bytes = bodies.length + summaries.length;
    const row = { mockId: this.mockId, first, last, exchanges, bytes, bodies, summaries };
    await this.database.getRepository(JournalSegmentRow).upsert(row, ['mockId', 'first']);
    return { first, last, exchanges, bytes };
  }

  /** The exchanges of a segment, oldest first; none where it is gone. */
  async exchanges(first: number): Promise<readonly StoredExchange[]> {
    const row = await this.database.getRepository(JournalSegmentRow).findOne({
      select: { bodies: true },
      where: { mockId: this.mockId, first },
    });
    return row === null ? [] : (fromLines(await unpackText(row.bodies)) as readonly StoredExchange[]);
  }

  async summaries(first: number): Promise<readonly StoredSummary[]> {
    const row = await this.database.getRepository(JournalSegmentRow).findOne({
      select: { summaries: true },
      where: { mockId: this.mockId, first },
    });
    return row === null ? [] : (fromLines(await unpackText(row.summaries)) as readonly StoredSummary[]);
  }

  async remove(segments: readonly JournalSegment[]): Promise<void> {
    if (segments.length === 0) return;
    const first = In(segments.map((segment) => segment.first));
    await this.database.getRepository(JournalSegmentRow).delete({ mockId: this.mockId, first });
  }

  async pinned(): Promise<readonly StoredExchange[]> {
    const rows = await this.database.getRepository(PinnedExchangeRow).find({
      where: { mockId: this.mockId },
      order: { number: 'ASC' },
    });
    return Promise.all(rows.map(({ exchange }) => unpackJson<StoredExchange>(exchange)));
  }

  async pin(exchange: StoredExchange): Promise<void> {
    const row = { mockId: this.mockId, number: exchange.number, exchange: await packJson(exchange) };
    await this.database.getRepository(PinnedExchangeRow).upsert(row, ['mockId', 'number']);
  }

  async unpin(number: number): Promise<void> {
    await this.database.getRepository(PinnedExchangeRow).delete({ mockId: this.mockId, number });
  }
}
