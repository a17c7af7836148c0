import { Mutex } from 'async-mutex';

/** Runs work of the same key one after the other, in the order it came. */
export class KeyedQueue {
  private readonly mutexes = new Map<string, Mutex>();

  /** Settles as the work does. What comes after runs even when it failed. */
  async run<T>(key: string, work: () => Promise<T>): Promise<T> {
    const mutex = this.mutexes.get(key) ?? new Mutex();
    this.mutexes.set(key, mutex);
    try {
      return await mutex.runExclusive(work);
    } finally {
      if (!mutex.isLocked()) this.mutexes.delete(key);
    }
  }
}
