import type { LoadSecond } from '@isomeros/api';

/** So many seconds are kept. */
export const MOST_SECONDS = 600;
/** The connection was cut, then 1xx to 5xx (RFC 9110 §15). */
const CLASSES = 6;
/** Latencies fall into buckets, each a fifth wider than the one before, from 0.05 ms to over a minute. */
const BUCKETS = 80;
const FIRST_MS = 0.05;
const WIDER = 1.2;

const bucketOf = (milliseconds: number): number =>
  milliseconds <= FIRST_MS
    ? 0
    : Math.min(BUCKETS - 1, Math.ceil(Math.log(milliseconds / FIRST_MS) / Math.log(WIDER)));

const upperOf = (bucket: number): number => FIRST_MS * WIDER ** bucket;

/** What is read of the process and the records once a second in which something happens. */
export interface MeteredProcess {
  /** Bytes that the process uses. */
  readonly memory: () => number;
  readonly records: () => number;
}

/** Counts what a mock answers, second by second: by the class of the status, and how long it took. */
export class LoadMeter {
  /** The second that each place is about, counted from 1970. */
  private readonly seconds = new Float64Array(MOST_SECONDS);
  private readonly counts = new Uint32Array(MOST_SECONDS * CLASSES);
  private readonly latencies = new Uint32Array(MOST_SECONDS * BUCKETS);
  private readonly memory = new Float64Array(MOST_SECONDS);
  private readonly records = new Float64Array(MOST_SECONDS);

  constructor(private readonly metered: MeteredProcess) {}

  /** `at`: milliseconds since 1970. */
  count(at: number, status: number, milliseconds: number): void {
    const second = Math.floor(at / 1_000);
    const place = second % MOST_SECONDS;
    if (this.seconds[place] !== second) this.begin(place, second);
    const code = place * CLASSES + Math.min(CLASSES - 1, Math.floor(status / 100));
    this.counts[code] = (this.counts[code] ?? 0) + 1;
    const bucket = place * BUCKETS + bucketOf(milliseconds);
    this.latencies[bucket] = (this.latencies[bucket] ?? 0) + 1;
  }

  /** The seconds in which something was answered, of the last so many before `now`, oldest first. */
  latest(now: number, seconds: number): readonly LoadSecond[] {
    const last = Math.floor(now / 1_000);
    const told: LoadSecond[] = [];
    for (let second = last - Math.min(seconds, MOST_SECONDS) + 1; second <= last; second++) {
      const place = second % MOST_SECONDS;
      if (this.seconds[place] === second) told.push(this.second(place, second));
    }
    return told;
  }

  private begin(place: number, second: number): void {
    this.seconds[place] = second;
    this.counts.fill(0, place * CLASSES, (place + 1) * CLASSES);
    this.latencies.fill(0, place * BUCKETS, (place + 1) * BUCKETS);
    this.memory[place] = this.metered.memory();
    this.records[place] = this.metered.records();
  }

  private second(place: number, second: number): LoadSecond {
    const answered = [...this.counts.subarray(place * CLASSES, (place + 1) * CLASSES)];
    const buckets = this.latencies.subarray(place * BUCKETS, (place + 1) * BUCKETS);
    const all = answered.reduce((sum, count) => sum + count, 0);
    return {
      at: new Date(second * 1_000).toISOString(),
      answered,
      p50: quantile(buckets, all, 0.5),
      p95: quantile(buckets, all, 0.95),
      p99: quantile(buckets, all, 0.99),
      memory: this.memory[place] ?? 0,
      records: this.records[place] ?? 0,
    };
  }
}

/** The upper end of the bucket in which a share of all is reached, in milliseconds. */
function quantile(buckets: Uint32Array, all: number, share: number): number {
  let seen = 0;
  for (const [bucket, count] of buckets.entries()) {
    seen += count;
    if (seen >= all * share && seen > 0) return Math.round(upperOf(bucket) * 100) / 100;
  }
  return 0;
}
