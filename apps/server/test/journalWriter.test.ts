import { describe, expect, jest, test } from '@jest/globals';
import { Journal } from '../src/mocks/journal/journal.js';
import type { JournalStorage, JournalSegment } from '../src/mocks/journal/journalStore.js';
import type { StoredExchange, StoredSummary } from '../src/mocks/journal/storedExchange.js';
import { keptExchange, routesContract } from './support/keptExchange.js';

/** Segments in memory, uncompressed. */
class MemoryStorage implements JournalStorage {
  readonly kept = new Map<
    number,
    JournalSegment & { lines: readonly string[]; summaries: readonly string[] }
  >();
  readonly pins = new Map<number, StoredExchange>();
  writes = 0;
  isAway = false;

  segments(): Promise<readonly JournalSegment[]> {
    return Promise.resolve([...this.kept.values()]);
  }

  write: JournalStorage['write'] = ({ first, last, exchanges }, lines) => {
    this.writes++;
    if (this.isAway) return Promise.reject(new Error('The database is away.'));
    const bytes = lines.exchanges.join('').length;
    const segment = { first, last, exchanges, bytes };
    this.kept.set(first, {
      ...segment,
      lines: [...lines.exchanges],
      summaries: [...lines.summaries],
    });
    return Promise.resolve(segment);
  };

  exchanges(first: number): Promise<readonly StoredExchange[]> {
    return Promise.resolve(
      (this.kept.get(first)?.lines ?? []).map((line) => JSON.parse(line) as StoredExchange),
    );
  }

  summaries(first: number): Promise<readonly StoredSummary[]> {
    return Promise.resolve(
      (this.kept.get(first)?.summaries ?? []).map((line) => JSON.parse(line) as StoredSummary),
    );
  }

  remove(segments: readonly JournalSegment[]): Promise<void> {
    for (const { first } of segments) this.kept.delete(first);
    return Promise.resolve();
  }

  pinned(): Promise<readonly StoredExchange[]> {
    return Promise.resolve([...this.pins.values()]);
  }

  pin(pinned: StoredExchange): Promise<void> {
    this.pins.set(pinned.number, pinned);
    return Promise.resolve();
  }

  unpin(number: number): Promise<void> {
    this.pins.delete(number);
    return Promise.resolve();
  }
}

const journalOn = async (store: JournalStorage, journalBytes = 1e9, exchanges = 10_000): Promise<Journal> => {
  const journal = new Journal(store, { exchanges, journalBytes }, () => routesContract);
  await journal.open();
  return journal;
};

const add = (journal: Journal, count: number, method = 'GET', answer = '{}'): void => {
  for (let done = 0; done < count; done++) journal.add(keptExchange('/api/v1/routes', answer, { method }));
};

const allIn = async (journal: Journal): Promise<number[]> => {
  const numbers: number[] = [];
  for await (const { number } of journal.all({})) numbers.push(number);
  return numbers;
};

describe('what is written of a journal', () => {
  test('is written a second later, once for all that came meanwhile, and goes on in the same segment', async () => {
    jest.useFakeTimers({ doNotFake: ['setImmediate'] });
    try {
      const store = new MemoryStorage();
      const journal = await journalOn(store);
      add(journal, 3);
      expect(store.writes).toBe(0);
      await jest.advanceTimersByTimeAsync(1_000);
      expect([store.writes, store.kept.size]).toEqual([1, 1]);
      add(journal, 2);
      await jest.advanceTimersByTimeAsync(1_000);
      expect([...store.kept.values()].map(({ first, last, exchanges }) => [first, last, exchanges])).toEqual([
        [1, 5, 5],
      ]);
      await jest.advanceTimersByTimeAsync(5_000);
      expect(store.writes).toBe(2);
    } finally {
      jest.useRealTimers();
    }
  });

  test('is what came until it was closed, read by the next one, and nothing after', async () => {
    const store = new MemoryStorage();
    const journal = await journalOn(store);
    add(journal, 5);
    await journal.close();
    add(journal, 1);
    expect(journal.state.dropped).toBe(1);
    const next = await journalOn(store);
    expect(next.count).toBe(5);
    expect(await allIn(next)).toEqual([1, 2, 3, 4, 5]);
    expect((await next.get(4))?.narrowing.length).toBeGreaterThan(0);
  });

  test('leaves out reads before writes where more comes than it keeps up with, and counts them', async () => {
    const store = new MemoryStorage();
    const journal = await journalOn(store);
    add(journal, 2_000, 'GET');
    add(journal, 100, 'POST');
    expect(journal.state.dropped).toBe(1_250);
    await journal.close();
    const next = await journalOn(store);
    const written = await allIn(next);
    expect(written).toHaveLength(850);
    expect(written.filter((number) => number > 2_000)).toHaveLength(100);
  });

  test('can be pinned while it waits, though it is no longer among the latest', async () => {
    const journal = await journalOn(new MemoryStorage(), 1e9, 5);
    add(journal, 20);
    expect(journal.find(3)).toBeUndefined();
    expect(await journal.pin(3)).toBe(true);
    expect((await journal.get(3))?.pinned).toBe(true);
    expect(await journal.pin(21)).toBe(false);
    await journal.close();
  });

  test('is bounded in bytes: the oldest segments go, pinned exchanges stay', async () => {
    const store = new MemoryStorage();
    let journal = await journalOn(store, 3_000_000, 10);
    add(journal, 1);
    await journal.close();
    journal = await journalOn(store, 3_000_000, 10);
    expect(await journal.pin(1)).toBe(true);
    for (let round = 0; round < 6; round++) {
      add(journal, 30, 'GET', 'x'.repeat(60_000));
      await journal.close();
      journal = await journalOn(store, 3_000_000, 10);
    }
    expect(journal.state.bytes).toBeLessThanOrEqual(3_000_000 + 1_900_000);
    const kept = await allIn(journal);
    expect([kept[0], kept.at(-1)]).toEqual([1, 181]);
    expect(kept).not.toContain(2);
  });

  test('waits while the database is away, then goes on; what it cannot hold meanwhile is counted', async () => {
    const store = new MemoryStorage();
    store.isAway = true;
    jest.useFakeTimers({ doNotFake: ['setImmediate'] });
    try {
      const journal = await journalOn(store);
      add(journal, 10);
      await jest.advanceTimersByTimeAsync(3_500);
      expect([store.writes, store.kept.size]).toEqual([3, 0]);
      add(journal, 800);
      expect(journal.state.dropped).toBe(60);
      store.isAway = false;
      await journal.close();
      expect((await store.segments()).reduce((sum, { exchanges }) => sum + exchanges, 0)).toBe(750);
    } finally {
      jest.useRealTimers();
    }
  });

  test('is what comes while it is written, too', async () => {
    const store = new MemoryStorage();
    const journal = await journalOn(store);
    add(journal, 150);
    const closed = journal.close();
    add(journal, 150);
    await closed;
    expect(await allIn(await journalOn(store))).toHaveLength(300);
  });

  test('forgets what waits when it is cleared', async () => {
    const store = new MemoryStorage();
    const journal = await journalOn(store);
    add(journal, 10);
    await journal.clear();
    add(journal, 1);
    await journal.close();
    expect(await allIn(await journalOn(store))).toEqual([11]);
  });
});
