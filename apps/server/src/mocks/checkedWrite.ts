import { Draft, firstViolation, withDefaultsOf, type RowChange } from '@isomeros/core/engine';
import type { Model, Steps } from '@isomeros/core/model';
import type { ServedRelease } from '../designs/releases.service.js';
import { inSlices, type Watching } from '../slices.js';
import type { LoadedMock } from './loadedMock.js';

/** What is wanted around a write that is about all records. */
export interface LargeWriteOptions {
  /** More records than this there may not be afterwards. */
  readonly most: number;
  /** Gives releases records of their own. */
  readonly split: (releases: readonly ServedRelease[]) => Promise<void>;
  readonly watching: Watching;
}

/** What came of checking: the changes, or `null` where nothing is to be written. */
interface Checked {
  readonly changes: readonly RowChange[] | null;
}

/**
 * Writes what is checked against all records, as one write, in slices: reads go on meanwhile, writes wait. Releases that
 * share the records and cannot take the write get records of their own before. Nobody else may replace records or the
 * model at the same time.
 */
export async function writeChecked<T extends Checked>(
  mock: LoadedMock,
  { split, watching }: LargeWriteOptions,
  check: (draft: Draft) => Steps<T>,
): Promise<T> {
  for (;;) {
    const outcome = await mock.records.exclusively(
      async (): Promise<{ readonly checked: T } | { readonly apart: readonly ServedRelease[] }> => {
        const { dataset } = mock.records;
        const draft = new Draft(dataset);
        const checked = await inSlices(check(draft), watching);
        if (checked.changes === null) return { checked };
        const others = mock.releases.filter(({ derivation }) => derivation.model !== dataset.model);
        const shared = await inSlices(sharedChanges(dataset.model, others, checked.changes), watching);
        if ('apart' in shared) return shared;
        await mock.records.writeLarge(shared.changes, draft.counters, false, watching);
        return { checked };
      },
    );
    if ('checked' in outcome) return outcome.checked;
    await split(outcome.apart);
  }
}

const CHANGES_AT_ONCE = 500;

/**
 * The changes with the defaults that releases would fill in which share the records; or the releases that they
 * contradict, and all of them where the records themselves may not be what was written under a release.
 */
function* sharedChanges(
  model: Model,
  others: readonly ServedRelease[],
  changes: readonly RowChange[],
): Steps<{ readonly changes: readonly RowChange[] } | { readonly apart: readonly ServedRelease[] }> {
  if (others.length === 0) return { changes };
  const models = [model, ...others.map(({ derivation }) => derivation.model)];
  const whole: RowChange[] = [];
  const apart = new Set<ServedRelease>();
  for (let from = 0; from < changes.length; from += CHANGES_AT_ONCE) {
    const some = withDefaultsOf(models, changes.slice(from, from + CHANGES_AT_ONCE));
    if (firstViolation(model, some) !== null) return { apart: others };
    for (const other of others) if (firstViolation(other.derivation.model, some) !== null) apart.add(other);
    for (const change of some) whole.push(change);
    yield { doing: 'checking', count: from + some.length };
  }
  return apart.size > 0 ? { apart: [...apart] } : { changes: whole };
}
