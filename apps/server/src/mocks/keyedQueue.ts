/** Runs work of the same key one after the other, in the order it came. */
export class KeyedQueue {
  private readonly last = new Map<string, Promise<unknown>>();

  /** Settles as the work does. What comes after runs even when it failed. */
  run<T>(key: string, work: () => Promise<T>): Promise<T> {
    const before = this.last.get(key) ?? Promise.resolve();
    const next = before.then(work, work);
    const forget = (): void => {
      if (this.last.get(key) === next) this.last.delete(key);
    };
    this.last.set(key, next);
    next.then(forget, forget);
    return next;
  }
}
