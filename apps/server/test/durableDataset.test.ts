import { describe, expect, test } from '@jest/globals';
import { Dataset, type RowChange, type Draft, type RecordView } from '@isomeros/core/engine';
import { parse } from '@isomeros/core/notation';
import { indexModel, type Row } from '@isomeros/core/model';
import { DurableDataset, NotStored } from '../src/mocks/durableDataset.js';
import type { CommitOutcome } from '../src/mocks/recordStore.js';

const { model } = parse('entity Route\n  name: text(1..60), required\n');
const route = indexModel(model).entities.get('Route');
const [name] = route?.attributes ?? [];
if (route === undefined || name === undefined) throw new Error('The model of this test has a named entity.');

/** A store whose commits end when and how the test says. */
class ToldStore {
  stored = 0;
  private readonly waiting: ((outcome: CommitOutcome) => void)[] = [];
  private arrived: (() => void) | null = null;

  commit(): Promise<CommitOutcome> {
    return new Promise((resolve) => {
      this.waiting.push(resolve);
      this.arrived?.();
    });
  }

  readSequence(): Promise<number> {
    return Promise.resolve(this.stored);
  }

  /** Waits for a commit, and ends it. `takesEffect`: whether it is stored, whatever the store says. */
  async end(outcome: CommitOutcome, takesEffect = outcome === 'committed'): Promise<void> {
    if (this.waiting.length === 0) await new Promise<void>((resolve) => (this.arrived = resolve));
    this.arrived = null;
    if (takesEffect) this.stored++;
    this.waiting.shift()?.(outcome);
  }
}

const row = (text: string, revision: number): Row => ({
  rid: 1,
  entity: route.id,
  revision,
  values: { [name.id]: text },
});

function begun(): { store: ToldStore; records: DurableDataset } {
  const store = new ToldStore();
  const dataset = new Dataset(model, [row('zero', 1)], { rid: 1, attributes: {} });
  return { store, records: new DurableDataset(store, dataset, 0) };
}

/** Renames the one record. */
function renamed(records: DurableDataset, to: string): Promise<unknown> {
  const attempt = (draft: Draft): { changes: readonly RowChange[]; kept: null; tokens: [] } => {
    const before = draft.get(1);
    if (before === undefined) throw new Error('There is one record.');
    const changes: RowChange[] = [{ kind: 'update', before, after: row(to, before.revision + 1) }];
    draft.apply(changes);
    return { changes, kept: null, tokens: [] };
  };
  return records.write(attempt, () => true);
}

const nameIn = (view: RecordView): unknown => view.get(1)?.values[name.id];

async function written(records: DurableDataset, store: ToldStore, to: string): Promise<void> {
  const done = renamed(records, to);
  await store.end('committed');
  await done;
}

describe('records that are committed before they are acknowledged', () => {
  test('show a write once it is committed, not before', async () => {
    const { store, records } = begun();
    const done = renamed(records, 'one');
    expect(nameIn(records.dataset)).toBe('zero');
    await store.end('committed');
    await done;
    expect(nameIn(records.dataset)).toBe('one');
  });

  test('are as before when the commit failed, and take the next write', async () => {
    const { store, records } = begun();
    const refused = expect(renamed(records, 'one')).rejects.toBeInstanceOf(NotStored);
    await store.end('not-committed');
    await refused;
    expect(nameIn(records.dataset)).toBe('zero');
    await written(records, store, 'two');
    expect(nameIn(records.dataset)).toBe('two');
  });

  test('take back one write for each undo, also when several wait for the same commit', async () => {
    const { store, records } = begun();
    await written(records, store, 'one');
    await written(records, store, 'two');
    const third = renamed(records, 'three');
    const undone = Promise.all([records.undo(), records.undo()]);
    await store.end('committed');
    await third;
    await store.end('committed');
    await store.end('committed');
    expect((await undone).map((changes) => changes?.length)).toEqual([1, 1]);
    expect([nameIn(records.dataset), store.stored]).toEqual(['one', 5]);
  });

  test.each([
    { takesEffect: true, now: 'two', undone: 'one' },
    { takesEffect: false, now: 'one', undone: 'zero' },
  ])('a lost answer (stored: $takesEffect) is found out, and undo goes by it', async (told) => {
    const { store, records } = begun();
    await written(records, store, 'one');
    const lost = expect(renamed(records, 'two')).rejects.toBeInstanceOf(NotStored);
    await store.end('unknown', told.takesEffect);
    await lost;
    await records.settled();
    expect(nameIn(records.dataset)).toBe(told.now);
    const undo = records.undo();
    await store.end('committed');
    await undo;
    expect(nameIn(records.dataset)).toBe(told.undone);
  });

  test('are replaced only after what is pending, and then have nothing to take back', async () => {
    const { store, records } = begun();
    const first = renamed(records, 'one');
    const replaced = records.exclusively(() => {
      expect([nameIn(records.dataset), records.writes]).toEqual(['one', 1]);
      records.replace(new Dataset(model, [row('new', 1)], records.dataset.counters));
      return Promise.resolve();
    });
    await store.end('committed');
    await Promise.all([first, replaced]);
    expect([nameIn(records.dataset), await records.undo()]).toEqual(['new', null]);
  });
});
