import { Draft, firstViolation, withDefaultsOf } from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import type { ServedRelease } from '../designs/releases.service.js';
import { errorCode } from '../errors.js';
import { NotStored, type DurableDataset, type Written } from './durableDataset.js';

/** Releases that share the records of a mock, as long as every record satisfies their models too. */
export interface RecordSharing {
  /** Those that share them now. */
  readonly releases: () => readonly ServedRelease[];
  /** Gives releases records of their own: those there are now. */
  readonly split: (releases: readonly ServedRelease[]) => Promise<void>;
}

/** Thrown out of a write that cannot be done while everybody shares the records. */
class SplitRequired extends Error {
  constructor(readonly releases: readonly ServedRelease[]) {
    super('The records of the mock part.');
  }
}

/**
 * Runs one write on records that releases may share. What satisfies all their models is written, with the defaults
 * that each of them would fill in; before a write that does not, the releases get records of their own.
 */
export async function writeShared<T extends Written>(
  /** Looked at before each attempt: a release gets other records meanwhile. */
  shared: () => { readonly records: DurableDataset; readonly partners: RecordSharing },
  attempt: (draft: Draft) => T,
  succeeded: (result: T) => boolean,
): Promise<T> {
  for (;;) {
    const { records, partners } = shared();
    if (records.paused !== null) {
      await records.paused;
      continue;
    }
    const { model } = records.dataset;
    const others = partners.releases().filter(({ derivation }) => derivation.model !== model);
    if (others.length === 0) return records.write(attempt, succeeded);
    try {
      return await records.write((draft) => tried(draft, model, others, attempt, succeeded), succeeded);
    } catch (error) {
      if (!(error instanceof SplitRequired)) throw error;
      await splitRecords(partners, error.releases);
    }
  }
}

async function splitRecords(partners: RecordSharing, releases: readonly ServedRelease[]): Promise<void> {
  try {
    await partners.split(releases);
  } catch (error) {
    if (errorCode(error) === null) throw error;
    throw new NotStored(
      'The database did not take the records that a release was to get. Nothing was changed.',
    );
  }
}

function tried<T extends Written>(
  draft: Draft,
  model: Model,
  others: readonly ServedRelease[],
  attempt: (draft: Draft) => T,
  succeeded: (result: T) => boolean,
): T {
  const trial = new Draft(draft);
  const result = attempt(trial);
  if (!succeeded(result)) return result;
  const models = [model, ...others.map(({ derivation }) => derivation.model)];
  const changes = withDefaultsOf(models, result.changes);
  const contradicted = others.filter(({ derivation }) => firstViolation(derivation.model, changes) !== null);
  // What the records themselves may not be was written under a release: all of them go their own way.
  if (firstViolation(model, changes) !== null) throw new SplitRequired(others);
  if (contradicted.length > 0) throw new SplitRequired(contradicted);
  draft.merge(changes, trial.numbers);
  if (result.kept !== null) draft.keep(result.kept);
  return { ...result, changes };
}
