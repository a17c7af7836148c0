import { completeModel, NO_CHOICES } from '../arrangement/index.js';
import type { Intake, IntakeCount } from '../intake/index.js';
import type { Row } from '../model/index.js';
import type { MigrationRuntime } from '../migration/index.js';
import { fitRecords } from './fitRecords.js';

/** An intake whose records were looked at: those that fit its model are rows of it, the others are left out. */
export interface IntakeWithRecords extends Omit<Intake, 'records'> {
  readonly rows: readonly Row[];
}

/** Fits the records that a source has to the model that was read from it, and accounts for them. */
export function withRecords({ records, ...intake }: Intake, runtime: MigrationRuntime): IntakeWithRecords {
  const { rows, leftOut } = fitRecords(completeModel(intake.model, NO_CHOICES), records, runtime);
  const lost = records.length - rows.length;
  return {
    ...intake,
    rows,
    leftOut: [...intake.leftOut, ...leftOut].sort((a, b) => a.line - b.line),
    counts: intake.counts.map((count) => (count.kind === 'records' ? withLost(count, lost) : count)),
  };
}

const withLost = (count: IntakeCount, lost: number): IntakeCount => ({
  ...count,
  understood: count.understood - lost,
  leftOut: count.leftOut + lost,
});
