import { Draft, type Change, type Counters, type Dataset } from '@isomeros/core/engine';
import { Logger } from '@nestjs/common';
import { errorText } from '../errors.js';
import type { RecordStore } from './recordStore.js';

/** Thrown to a write that was not stored. Nothing of it is there, or will be. */
export class NotStored extends Error {}

interface Waiting {
  readonly changes: readonly Change[];
  readonly resolve: () => void;
  readonly reject: (error: NotStored) => void;
}

const CHECK_EVERY_MS = 500;

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

  constructor(
    private readonly store: RecordStore,
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
  async write<T extends { readonly changes: readonly Change[] }>(
    attempt: (draft: Draft) => T,
    succeeded: (result: T) => boolean,
  ): Promise<T> {
    if (this.stopped !== null) throw new NotStored(this.stopped);
    const result = attempt(this.draft);
    if (!succeeded(result)) return result;
    const nothingPending = this.draft.changes.length === 0 && this.flushing === null;
    if (result.changes.length === 0 && nothingPending) return result;
    await this.enqueue(result.changes);
    return result;
  }

  private enqueue(changes: readonly Change[]): Promise<void> {
    const stored = new Promise<void>((resolve, reject) => this.waiting.push({ changes, resolve, reject }));
    this.flushing ??= this.flush().finally(() => {
      this.flushing = null;
    });
    return stored;
  }

  /** Waits until nothing is pending. */
  async settled(): Promise<void> {
    while (this.flushing !== null) await this.flushing;
  }

  /** Takes over other records, once nothing is pending. */
  async replace(make: (counters: Counters, sequence: number) => Promise<Dataset>): Promise<void> {
    await this.settled();
    if (this.stopped !== null) throw new NotStored(this.stopped);
    this.stopped = 'The records are being replaced.';
    try {
      this.committed = await make(this.committed.counters, this.sequence + 1);
      this.sequence++;
      this.draft = new Draft(this.committed);
    } finally {
      this.stopped = null;
    }
  }

  private async flush(): Promise<void> {
    while (this.waiting.length > 0) {
      const batch = this.waiting;
      this.waiting = [];
      const changes = batch.flatMap((write) => write.changes);
      const counters = this.draft.counters;
      const outcome =
        changes.length === 0 ? 'committed' : await this.store.commit(changes, counters, this.sequence);
      switch (outcome) {
        case 'committed':
          this.takeOver(changes, counters);
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
          await this.findOut(changes, counters);
          break;
        case 'fenced':
          this.stopped = 'Another process has taken the records over.';
          this.discard(batch, this.stopped);
          break;
      }
    }
  }

  private takeOver(changes: readonly Change[], counters: Counters): void {
    if (changes.length > 0) this.sequence++;
    this.committed.apply(changes, counters);
    this.draft.settle(changes);
  }

  private discard(batch: readonly Waiting[], message: string): void {
    const refused = [...batch, ...this.waiting];
    this.waiting = [];
    this.draft = new Draft(this.committed);
    for (const write of refused) write.reject(new NotStored(message));
  }

  /** Reads the stored sequence number until the database answers, then keeps or drops the lost batch. */
  private async findOut(changes: readonly Change[], counters: Counters): Promise<void> {
    this.stopped = 'The outcome of an earlier write is being found out.';
    for (;;) {
      try {
        const stored = await this.store.readSequence();
        if (stored === this.sequence + 1) {
          this.sequence++;
          this.committed.apply(changes, counters);
        }
        this.draft = new Draft(this.committed);
        this.stopped = null;
        return;
      } catch (error) {
        this.logger.warn(`The stored sequence number could not be read: ${errorText(error)}`);
        await new Promise((resolve) => setTimeout(resolve, CHECK_EVERY_MS));
      }
    }
  }
}
