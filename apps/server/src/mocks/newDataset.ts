import type { Counters } from '@isomeros/core/engine';
import type { Row } from '@isomeros/core/model';
import type { SeedPlan } from '@isomeros/core/seeding';
import type { DatasetRow } from '../database/tables.js';
import { modelColumns, type ValidModel } from '../designs/modelColumns.js';

/** What a new dataset begins with. */
export interface FirstRecords {
  readonly seed: number;
  readonly plan: SeedPlan;
  /** Whether they are the initial records of the design. */
  readonly beginsInitial: boolean;
  readonly model: ValidModel;
  readonly rows: readonly Row[];
  readonly counters: Counters;
}

/** A dataset as it is stored before its first write. */
export const newDataset = (
  { seed, seedPlan, beginsInitial }: Pick<DatasetRow, 'seed' | 'seedPlan' | 'beginsInitial'>,
  model: ValidModel,
  counters: Counters,
): Omit<DatasetRow, 'id' | 'holder'> => ({
  seed,
  seedPlan,
  beginsInitial,
  ...modelColumns(model),
  counters: JSON.stringify(counters),
  sequence: 0,
});
