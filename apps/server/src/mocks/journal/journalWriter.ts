import { Logger } from '@nestjs/common';
import { isWrite } from '@isomeros/core/engine';
import { errorText } from '../../errors.js';
import type { KeptExchange } from './keptExchange.js';
import type { JournalStorage, JournalSegment } from './journalStore.js';
import { exchangeToStore, summaryToStore } from './storedExchange.js';

/** Exchanges are written at most so often; a crash may lose those of so long. */
const EVERY_MS = 1_000;
/** So many wait at most. Beyond them reads are dropped first, since writes tell how records came to be. */
const MOST_WAITING = 1_000;
const MOST_READS_WAITING = 750;
const MOST_CHARACTERS_WAITING = 8 * 1_048_576;
/** A segment is begun anew beyond one of these. */
const SEGMENT_EXCHANGES = 1_000;
const SEGMENT_CHARACTERS = 1_048_576;
/** So many are put into words before others have their turn. */
const AT_ONCE = 100;

/** The segment that is still written to, as lines of JSON. */
interface OpenSegment {
  readonly exchanges: string[];
  readonly summaries: string[];
  readonly first: number;
  last: number;
  characters: number;
}

/** Writes exchanges to the database, behind those who answer them. What it cannot keep up with is dropped and counted. */
export class JournalWriter {
  private readonly logger = new Logger('Journal');
  private waiting: KeptExchange[] = [];
  private characters = 0;
  private open: OpenSegment | null = null;
  private timer: NodeJS.Timeout | null = null;
  private writing: Promise<void> | null = null;
  private isFailing = false;
  private isClosed = false;
  /** Counts how often everything was forgotten. */
  private generation = 0;
  /** How many were not kept since the mock is in memory. */
  dropped = 0;

  constructor(
    private readonly store: Pick<JournalStorage, 'write'>,
    private readonly onWritten: (segment: JournalSegment) => Promise<void>,
  ) {}

  /** What waits, oldest first. */
  get unwritten(): readonly KeptExchange[] {
    return this.waiting;
  }

  add(exchange: KeptExchange): void {
    const most = isWrite(exchange.method) ? MOST_WAITING : MOST_READS_WAITING;
    if (this.isClosed || this.waiting.length >= most || this.characters > MOST_CHARACTERS_WAITING) {
      this.dropped++;
      return;
    }
    this.waiting.push(exchange);
    this.characters += exchange.size;
    this.timer ??= setTimeout(() => void this.flush(), EVERY_MS).unref();
  }

  /** Writes what waits, and then what came meanwhile a second later. */
  flush(): Promise<void> {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    this.writing ??= this.write().finally(() => {
      this.writing = null;
      if (this.waiting.length > 0 && !this.isClosed)
        this.timer ??= setTimeout(() => void this.flush(), EVERY_MS).unref();
    });
    return this.writing;
  }

  /** Writes what waits, and nothing from then on. */
  async close(): Promise<void> {
    while (this.waiting.length > 0 || this.writing !== null) {
      await this.flush();
      if (this.isFailing) break;
    }
    this.isClosed = true;
    this.forget();
  }

  /** Lets go of what waits. */
  forget(): void {
    this.generation++;
    this.waiting = [];
    this.characters = 0;
    this.open = null;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
  }

  /** Resolves once nothing is being written. */
  async settled(): Promise<void> {
    while (this.writing !== null) await this.writing;
  }

  private async write(): Promise<void> {
    const taken = [...this.waiting];
    if (taken.length === 0) return;
    const { generation } = this;
    try {
      const segment = await this.grown(taken);
      const { first, last, exchanges } = segment;
      await this.onWritten(await this.store.write({ first, last, exchanges: exchanges.length }, segment));
      this.isFailing = false;
      if (generation !== this.generation) return;
      this.waiting = this.waiting.slice(taken.length);
      this.characters = this.waiting.reduce((sum, { size }) => sum + size, 0);
      this.open = isFull(segment) ? null : segment;
    } catch (error) {
      if (!this.isFailing)
        this.logger.warn(`Exchanges are not written to the database, and tried again: ${errorText(error)}`);
      this.isFailing = true;
    }
  }

  /** The open segment with more exchanges; the one before stays as it is. */
  private async grown(taken: readonly KeptExchange[]): Promise<OpenSegment> {
    const first = this.open?.first ?? taken[0]?.number ?? 0;
    const grown: OpenSegment = {
      exchanges: [...(this.open?.exchanges ?? [])],
      summaries: [...(this.open?.summaries ?? [])],
      first,
      last: this.open?.last ?? first,
      characters: this.open?.characters ?? 0,
    };
    for (const [at, exchange] of taken.entries()) {
      const line = JSON.stringify(exchangeToStore(exchange));
      grown.exchanges.push(line);
      grown.summaries.push(JSON.stringify(summaryToStore(exchange)));
      grown.last = exchange.number;
      grown.characters += line.length;
      if (at % AT_ONCE === AT_ONCE - 1) await new Promise((resolve) => setImmediate(resolve));
    }
    return grown;
  }
}

const isFull = ({ exchanges, characters }: OpenSegment): boolean =>
  exchanges.length >= SEGMENT_EXCHANGES || characters >= SEGMENT_CHARACTERS;
