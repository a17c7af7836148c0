import type { Exchange, ExchangeSummary, JournalState, RecordVersion } from '@isomeros/api';
import type { Contract } from '@isomeros/core/contract';
import { appendAll, greatest } from '@isomeros/core/model';
import { ALL_EXCHANGES, isLookedFor, type ExchangeFilter } from './exchangeFilter.js';
import type { JournalStorage, JournalSegment } from './journalStore.js';
import { JournalWriter } from './journalWriter.js';
import { exchangeSummary, type KeptExchange } from './keptExchange.js';
import { RecentExchanges } from './recentExchanges.js';
import {
  exchangeToStore,
  summaryIn,
  summaryToStore,
  describeExchange,
  versionsIn,
  versionsKept,
  type StoredExchange,
  type StoredSummary,
} from './storedExchange.js';

export interface JournalLimits {
  /** Exchanges in memory. */
  readonly exchanges: number;
  /** Bytes in the database; the oldest segments go when there are more. */
  readonly journalBytes: number;
}

/** At most so many exchanges are pinned. */
const MOST_PINNED = 200;
/** Of a record so many versions are told. */
const MOST_VERSIONS = 200;

/** The records that a segment touched, up to an exchange: it may have grown since. */
interface TouchedRecords {
  readonly last: number;
  readonly rids: ReadonlySet<number>;
}

/**
 * The exchanges of a mock: the latest in memory, those before in the database, where they are written a second later by a
 * queue of its own. Pinned ones stay whatever goes.
 */
export class Journal {
  private readonly recent: RecentExchanges;
  private readonly writer: JournalWriter;
  /** Oldest first. */
  private segments: readonly JournalSegment[] = [];
  private readonly pins = new Map<number, StoredExchange>();
  /** What segments touched, by their first number, once they were looked through. */
  private readonly touched = new Map<number, TouchedRecords>();
  /** The first number that was given after it was cleared. */
  private from = 1;

  constructor(
    private readonly store: JournalStorage,
    private readonly limits: JournalLimits,
    /** The contract that is served under a name now. */
    private readonly contractOf: (arrangement: string) => Contract | undefined,
  ) {
    this.recent = new RecentExchanges(limits.exchanges);
    this.writer = new JournalWriter(store, (segment) => this.written(segment));
  }

  /** Reads what is stored of it. */
  async open(): Promise<void> {
    this.segments = await this.store.segments();
    for (const exchange of await this.store.pinned()) this.pins.set(exchange.number, exchange);
    const last = this.segments.at(-1)?.last ?? 0;
    this.recent.beginAfter(greatest(this.pins.keys(), last));
  }

  /** Writes what waits, and keeps nothing from then on. */
  close(): Promise<void> {
    return this.writer.close();
  }

  /** The number of the latest exchange. */
  get count(): number {
    return this.recent.count;
  }

  get state(): JournalState {
    return { from: this.from, bytes: this.bytes, dropped: this.writer.dropped };
  }

  private get bytes(): number {
    return this.segments.reduce((sum, { bytes }) => sum + bytes, 0);
  }

  add(exchange: KeptExchange): void {
    this.recent.add(exchange);
    this.writer.add(exchange);
  }

  /** An exchange as it is kept in memory. */
  find(number: number): KeptExchange | undefined {
    return this.recent.find(number);
  }

  summaryOf(kept: KeptExchange): ExchangeSummary {
    return { ...exchangeSummary(kept), pinned: this.pins.has(kept.number) };
  }

  /** The latest exchanges that are in memory, newest first. */
  latest(limit: number): ExchangeSummary[] {
    const listed: ExchangeSummary[] = [];
    for (const kept of this.recent.newestFirst()) {
      if (listed.length >= limit) break;
      listed.push(this.summaryOf(kept));
    }
    return listed;
  }

  /** At most `limit` exchanges before `before` that are looked for, newest first. */
  async page(before: number, limit: number, filter = ALL_EXCHANGES): Promise<ExchangeSummary[]> {
    const found = new Map<number, StoredSummary>();
    let oldest = Math.min(before, this.count + 1);
    for (const kept of this.recent.newestFirst(before - 1)) {
      oldest = kept.number;
      const summary = summaryToStore(kept);
      if (isLookedFor(filter, summary)) found.set(kept.number, summary);
      if (found.size >= limit) break;
    }
    // What waits to be written may be out of memory already.
    for (const kept of this.writer.unwritten) {
      const summary = summaryToStore(kept);
      if (kept.number < oldest && isLookedFor(filter, summary)) found.set(kept.number, summary);
    }
    for (const segment of [...this.segments].reverse()) {
      if (found.size >= limit) break;
      if (segment.first >= oldest || !(await this.mayTouch(segment, filter.record))) continue;
      for (const summary of [...(await this.store.summaries(segment.first))].reverse())
        if (summary.number < oldest && isLookedFor(filter, summary)) found.set(summary.number, summary);
    }
    for (const pinned of this.pins.values()) {
      const summary = summaryIn(pinned);
      if (summary.number < before && isLookedFor(filter, summary)) found.set(summary.number, summary);
    }
    const newest = [...found.values()].sort((one, other) => other.number - one.number);
    return newest.slice(0, limit).map((summary) => this.listed(summary));
  }

  async get(number: number): Promise<Exchange | undefined> {
    const kept = this.inMemory(number);
    const isWhole = kept !== undefined && !kept.isLean;
    const stored = (isWhole ? undefined : await this.stored(number)) ?? (kept && exchangeToStore(kept));
    if (stored === undefined) return undefined;
    const contract = kept?.contract ?? this.contractOf(stored.arrangement);
    return describeExchange(stored, contract, this.pins.has(number));
  }

  /** An exchange that is among the latest, or waits to be written. */
  private inMemory(number: number): KeptExchange | undefined {
    return this.recent.find(number) ?? this.writer.unwritten.find((one) => one.number === number);
  }

  private async stored(number: number): Promise<StoredExchange | undefined> {
    const pinned = this.pins.get(number);
    if (pinned !== undefined) return pinned;
    const segment = this.segmentOf(number);
    if (segment === undefined) return undefined;
    return (await this.store.exchanges(segment.first)).find((exchange) => exchange.number === number);
  }

  /** The exchanges that made or changed a record, newest first. */
  async versionsOf(rid: number): Promise<RecordVersion[]> {
    const versions: RecordVersion[] = [];
    let oldest = this.count + 1;
    for (const kept of this.recent.newestFirst()) {
      if (kept.isLean) break;
      oldest = kept.number;
      appendAll(versions, versionsKept(kept, rid));
    }
    for (const segment of [...this.segments].reverse()) {
      if (versions.length >= MOST_VERSIONS) break;
      if (segment.first >= oldest || !(await this.mayTouch(segment, rid))) continue;
      for (const exchange of [...(await this.store.exchanges(segment.first))].reverse())
        if (exchange.number < oldest) appendAll(versions, versionsIn(exchange, rid));
    }
    const known = new Set(versions.map(({ exchange }) => exchange));
    for (const pinned of this.pins.values())
      if (!known.has(pinned.number)) appendAll(versions, versionsIn(pinned, rid));
    return versions.sort((one, other) => other.exchange - one.exchange).slice(0, MOST_VERSIONS);
  }

  /** All exchanges that are looked for, oldest first, as whole as they are kept. */
  async *all(filter: ExchangeFilter): AsyncGenerator<Exchange> {
    const numbers: number[] = [];
    for (let before = Infinity; ;) {
      const page = await this.page(before, PAGE, filter);
      for (const { number } of page) numbers.push(number);
      const last = page.at(-1);
      if (last === undefined || page.length < PAGE) break;
      before = last.number;
    }
    let opened: OpenedSegment = { first: 0, exchanges: new Map() };
    for (const number of numbers.reverse()) {
      const segment = this.segmentOf(number);
      const isInMemory = this.recent.find(number)?.isLean === false || this.pins.has(number);
      if (segment !== undefined && !isInMemory && opened.first !== segment.first) {
        const exchanges = await this.store.exchanges(segment.first);
        opened = { first: segment.first, exchanges: new Map(exchanges.map((one) => [one.number, one])) };
      }
      const stored = isInMemory ? undefined : opened.exchanges.get(number);
      const exchange =
        stored === undefined
          ? await this.get(number)
          : describeExchange(stored, this.contractOf(stored.arrangement), false);
      if (exchange !== undefined) yield exchange;
    }
  }

  private segmentOf(number: number): JournalSegment | undefined {
    return this.segments.findLast(({ first, last }) => first <= number && number <= last);
  }

  /** Keeps an exchange whatever goes; `false` where there is none. Throws where too many are pinned. */
  async pin(number: number): Promise<boolean> {
    if (this.pins.has(number)) return true;
    const kept = this.inMemory(number);
    const whole = kept?.isLean === false ? exchangeToStore(kept) : await this.stored(number);
    if (whole === undefined) return false;
    if (this.pins.size >= MOST_PINNED) throw new TooManyPinned();
    await this.store.pin(whole);
    this.pins.set(number, whole);
    return true;
  }

  async unpin(number: number): Promise<void> {
    await this.store.unpin(number);
    this.pins.delete(number);
  }

  /** Forgets all exchanges but those that are pinned. Numbers go on. */
  async clear(): Promise<void> {
    this.recent.clear();
    this.writer.forget();
    await this.writer.settled();
    await this.store.remove(this.segments);
    this.segments = [];
    this.touched.clear();
    this.from = this.count + 1;
  }

  private listed({ rids: _rids, ...summary }: StoredSummary): ExchangeSummary {
    return { ...summary, pinned: this.pins.has(summary.number) };
  }

  /** Whether a segment holds exchanges that touched a record; any may where none is named. */
  private async mayTouch(segment: JournalSegment, rid: number | undefined): Promise<boolean> {
    if (rid === undefined) return true;
    const { first, last } = segment;
    const known = this.touched.get(first);
    if (known?.last === last) return known.rids.has(rid);
    const rids = new Set((await this.store.summaries(first)).flatMap((summary) => summary.rids));
    // It may have gone meanwhile.
    if (this.segments.includes(segment)) this.touched.set(first, { last, rids });
    return rids.has(rid);
  }

  private async written(segment: JournalSegment): Promise<void> {
    this.segments = [...this.segments.filter(({ first }) => first !== segment.first), segment];
    const over: JournalSegment[] = [];
    let { bytes } = this;
    for (const oldest of this.segments) {
      if (bytes <= this.limits.journalBytes || oldest === segment) break;
      over.push(oldest);
      bytes -= oldest.bytes;
    }
    this.segments = this.segments.filter((one) => !over.includes(one));
    for (const { first } of over) this.touched.delete(first);
    await this.store.remove(over);
  }
}

const PAGE = 5_000;

/** A segment that was read whole. */
interface OpenedSegment {
  readonly first: number;
  readonly exchanges: ReadonlyMap<number, StoredExchange>;
}

/** Thrown where more exchanges would be pinned than may be. */
export class TooManyPinned extends Error {
  constructor() {
    super(`At most ${MOST_PINNED} exchanges are pinned; unpin one first.`);
  }
}
