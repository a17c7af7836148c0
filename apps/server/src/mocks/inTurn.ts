/** Runs work of the same key one after the other, in the order it came. */
export class InTurn {
  private readonly last = new Map<string, Promise<void>>();

  constructor(private readonly onError: (error: unknown) => void) {}

  run(key: string, work: () => Promise<void>): void {
    const before = this.last.get(key) ?? Promise.resolve();
    const next = before
      .then(work)
      .catch(this.onError)
      .finally(() => {
        if (this.last.get(key) === next) this.last.delete(key);
      });
    this.last.set(key, next);
  }
}
