import {
  Dataset,
  Draft,
  inverseOf,
  type RowChange,
  type Counters,
  type IdempotentResponse,
  type TokenChange,
} from '@isomeros/core/engine';
import { Logger } from '@nestjs/common';
import { errorText } from '../errors.js';
import { ApiProblem } from '../http/problem.js';
import { inSlices, type Watching } from '../slices.js';
import type { Batch, RecordStore } from './recordStore.js';

/** Thrown to a write that was not stored. Nothing of it is there, or will be. */
export class NotStored extends ApiProblem {
  constructor(detail: string) {
    super('unavailable', detail, { headers: { 'Retry-After': '1' } });
  }
}

/** What one write comes to. */
export interface Written {
  readonly changes: readonly RowChange[];
  readonly kept: IdempotentResponse | null;
  readonly tokens: readonly TokenChange[];
}

interface Waiting extends Batch {
  /** Whether it can be taken back; what takes another one back cannot. */
  readonly isUndo: boolean;
  readonly resolve: () => void;
  readonly reject: (error: NotStored) => void;
}

const CHECK_EVERY_MS = 500;

/** A write of more changes is taken back in slices. */
const MOST_AT_ONCE = 10_000;

/** So many writes can be taken back, one after the other. */
const MOST_UNDONE = 100;

/**
 * The records of a mock, committed to the database before they are acknowledged.
 *
 * Writes are checked against a draft that holds everything pending, and wait together: while one batch is
 * being committed the next one gathers. Reads see `dataset`, which takes a batch over only once it is
 * committed. When a commit fails, its batch and everything checked on top of it is refused; when its outcome
 * is unknown, writing stops until the stored sequence number has been read back.
 */
export class DurableDataset {
  private readonly logger = new Logger('Dataset');
  private draft: Draft;
  private waiting: Waiting[] = [];
  private flushing: Promise<void> | null = null;
  private stopped: string | null = null;
  private pause: Promise<void> | null = null;
  /** The latest writes, oldest first, until records are replaced. */
  private history: (readonly RowChange[])[] = [];

  constructor(
    private readonly store: Pick<RecordStore, 'commit' | 'readSequence'>,
    private committed: Dataset,
    private sequence: number,
  ) {
    this.draft = new Draft(committed);
  }

  get dataset(): Dataset {
    return this.committed;
  }

  get writes(): number {
    return this.sequence;
  }

  /**
   * Runs one write against the draft. `attempt` returns what to answer and what it changed; the promise
   * resolves once that, and everything the write saw, is durable.
   */
  async write<T extends Written>(
    attempt: (draft: Draft) => T,
    succeeded: (result: T) => boolean,
  ): Promise<T> {
    this.checkWritable();
    const result = attempt(this.draft);
    if (!succeeded(result)) return result;
    const nothingPending = this.draft.changes.length === 0 && this.flushing === null;
    const { changes, tokens } = result;
    const written = { changes, answers: result.kept === null ? [] : [result.kept], tokens };
    if (isEmpty(written) && nothingPending) return result;
    await this.enqueue({ ...written, isUndo: false });
    return result;
  }

  /**
   * Writes many changes at once, in slices. Nothing else is written meanwhile: only for whoever holds the dataset
   * `exclusively`. Resolves once everything is durable.
   */
  async writeLarge(
    changes: readonly RowChange[],
    counters: Counters,
    isUndo: boolean,
    watching: Watching,
  ): Promise<void> {
    this.checkWritable();
    if (changes.length === 0) return;
    const written: Batch = { changes, answers: [], tokens: [] };
    const stored = new Promise<void>((resolve, reject) => {
      const batch = [{ ...written, isUndo, resolve, reject }];
      // A fault while it is committed is told to whoever writes, and waited for by nobody in vain.
      this.flushing = this.commit(batch, written, counters, watching)
        .catch(reject)
        .finally(() => {
          this.flushing = null;
        });
    });
    await stored;
  }

  private enqueue(written: Omit<Waiting, 'resolve' | 'reject'>): Promise<void> {
    const stored = new Promise<void>((resolve, reject) => {
      this.waiting.push({ ...written, resolve, reject });
    });
    this.flushing ??= this.flush().finally(() => {
      this.flushing = null;
    });
    return stored;
  }

  /** Takes the latest committed write back, by a write of its own; `null` where there is none to take back. */
  async undo(watching: Watching = {}): Promise<readonly RowChange[] | null> {
    // Looked at again after every wait: of several that wait together, each is to see what the one before did.
    while (this.flushing !== null || this.pause !== null) await (this.flushing ?? this.pause);
    this.checkWritable();
    const latest = this.history.at(-1);
    if (latest === undefined) return null;
    const changes = inverseOf(latest, this.committed);
    if (changes.length > MOST_AT_ONCE) {
      await this.exclusively(() => this.writeLarge(changes, this.committed.counters, true, watching));
      return changes;
    }
    this.draft.apply(changes);
    await this.enqueue({ changes, answers: [], tokens: [], isUndo: true });
    return changes;
  }

  /** What writes wait for; `null` where they need not. */
  get paused(): Promise<void> | null {
    return this.pause;
  }

  /** Does something while nothing is pending and nothing is written; those who write look at `paused` before. */
  async exclusively<T>(work: () => Promise<T>): Promise<T> {
    while (this.pause !== null) await this.pause;
    let resume = (): void => undefined;
    this.pause = new Promise<void>((resolve) => (resume = resolve));
    try {
      await this.settled();
      return await work();
    } finally {
      this.pause = null;
      resume();
    }
  }

  /** Waits until nothing is pending. */
  async settled(): Promise<void> {
    while (this.flushing !== null) await this.flushing;
  }

  /** Throws where nothing can be written: the outcome of a write is open, or somebody else holds the dataset. */
  checkWritable(): void {
    if (this.stopped !== null) throw new NotStored(this.stopped);
  }

  /** Takes over other records, which are stored already. Only for whoever holds the dataset `exclusively`. */
  replace(dataset: Dataset): void {
    this.committed = dataset;
    this.sequence++;
    this.draft = new Draft(dataset);
    this.history = [];
  }

  private async flush(): Promise<void> {
    while (this.waiting.length > 0) {
      await gathered();
      const batch = this.waiting;
      this.waiting = [];
      const written: Batch = {
        changes: batch.flatMap(({ changes }) => changes),
        answers: batch.flatMap(({ answers }) => answers),
        tokens: batch.flatMap(({ tokens }) => tokens),
      };
      await this.commit(batch, written, this.draft.counters, null);
    }
  }

  private async commit(
    batch: readonly Waiting[],
    written: Batch,
    counters: Counters,
    /** Of a large write; `null` of any other. */
    large: Watching | null,
  ): Promise<void> {
    const outcome = isEmpty(written)
      ? 'committed'
      : await this.store.commit(written, counters, this.sequence, large ?? {});
    switch (outcome) {
      case 'committed':
        if (large !== null) await this.takeOverLarge(written, counters);
        else this.takeOver(written, counters);
        for (const write of batch) this.remember(write);
        for (const write of batch) write.resolve();
        break;
      case 'not-committed':
        this.discard(batch, 'The database did not take the write. Nothing was changed.');
        break;
      case 'unknown':
        this.discard(
          batch,
          'The answer of the database was lost. Whether the write took effect is being found out.',
        );
        await this.resolveUnknownCommit(batch, written, counters);
        break;
      case 'fenced':
        this.stopped = 'Another process has taken the records over.';
        this.discard(batch, this.stopped);
        break;
    }
  }

  private remember({ changes, isUndo }: Waiting): void {
    if (isUndo) this.history.pop();
    else if (changes.length > 0) this.history.push(changes);
    if (this.history.length > MOST_UNDONE) this.history.shift();
  }

  private takeOver(batch: Batch, counters: Counters): void {
    if (!isEmpty(batch)) this.sequence++;
    this.committed.apply(batch.changes, counters, batch);
    this.draft.confirm(batch.changes, batch.answers);
  }

  /** Makes the records anew beside those that are read meanwhile. */
  private async takeOverLarge({ changes }: Batch, counters: Counters): Promise<void> {
    this.sequence++;
    this.committed = await inSlices(Dataset.changed(this.committed, changes, counters));
    this.draft = new Draft(this.committed);
  }

  private discard(batch: readonly Waiting[], message: string): void {
    const refused = [...batch, ...this.waiting];
    this.waiting = [];
    this.draft = new Draft(this.committed);
    for (const write of refused) write.reject(new NotStored(message));
  }

  /** Reads the stored sequence number until the database answers, then keeps or drops the lost batch. */
  private async resolveUnknownCommit(
    batch: readonly Waiting[],
    written: Batch,
    counters: Counters,
  ): Promise<void> {
    this.stopped = 'The outcome of an earlier write is being found out.';
    for (let attempt = 1; ; attempt++) {
      try {
        const stored = await this.store.readSequence();
        if (stored === this.sequence + 1) {
          this.sequence++;
          this.committed.apply(written.changes, counters, written);
          for (const write of batch) this.remember(write);
        }
        this.draft = new Draft(this.committed);
        this.stopped = null;
        return;
      } catch (error) {
        if (attempt === 1)
          this.logger.warn(
            `The stored sequence number could not be read, and is asked for until it is: ${errorText(error)}`,
          );
        await new Promise((resolve) => setTimeout(resolve, CHECK_EVERY_MS));
      }
    }
  }
}

/** Two turns of the loop: whoever has just been answered may write again, and joins. */
const gathered = (): Promise<void> =>
  new Promise((resolve) => {
    setImmediate(() => {
      setImmediate(resolve);
    });
  });

const isEmpty = ({ changes, answers, tokens }: Batch): boolean =>
  changes.length + answers.length + tokens.length === 0;
