import { Dataset } from '../engine/index.js';
import { storageOf, type Model, type Steps } from '../model/index.js';
import type { SeedResult, Shortfall } from '../seeding/index.js';
import { columnsOf } from './columns.js';
import { tableRecord, type TableRecord } from './table.js';

/** So many records of each type are shown. */
const FIRST_SHOWN = 5;

/** What a plan would give of one entity or pairing. */
export interface SeedPreviewType {
  readonly name: string;
  readonly records: number;
  readonly columns: readonly string[];
  /** The first of them, a cell for each column. */
  readonly first: readonly TableRecord[];
}

/** What a plan would give. */
export interface SeedPreview {
  readonly types: readonly SeedPreviewType[];
  readonly shortfalls: readonly Shortfall[];
}

/** Tells of records that were made how many there are of each type, and what the first are. */
export function* seedPreview(
  model: Model,
  { rows, counters, shortfalls }: Omit<SeedResult, 'overflows'>,
): Steps<SeedPreview> {
  const dataset = yield* Dataset.filled(model, rows, { rid: rows.length, attributes: counters });
  const types = [...storageOf(model).byId.values()].map((storage): SeedPreviewType => ({
    name: storage.entity.name,
    records: dataset.countOf(storage),
    columns: columnsOf(model, storage).map(({ name }) => name),
    first: [...take(dataset.all(storage), FIRST_SHOWN)].map((row) =>
      tableRecord(model, dataset, storage, row),
    ),
  }));
  return { types, shortfalls };
}

function* take<T>(things: Iterable<T>, most: number): Iterable<T> {
  let count = 0;
  for (const thing of things) {
    if (count++ === most) return;
    yield thing;
  }
}
