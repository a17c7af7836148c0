import { Dataset } from '../engine/index.js';
import { storageOf, type Model } from '../model/index.js';
import { seed, type SeedOptions, type Shortfall } from '../seeding/index.js';
import { columnsOf } from './columns.js';
import { recordPage, type TableRecord } from './table.js';

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
  /** Whether the plan asks for more records than may be made. */
  readonly overflows: boolean;
}

/** Makes the records of a plan, and tells how many there are of each type, and what the first are. */
export function previewSeed(model: Model, options: SeedOptions): SeedPreview {
  const { rows, counters, shortfalls, overflows } = seed(model, options);
  const dataset = new Dataset(model, rows, { rid: rows.length, attributes: counters });
  const everything = { filters: [], search: null, sort: [] };
  const types = [...storageOf(model).byId.values()].map((storage): SeedPreviewType => {
    const { found, rows: first } = recordPage(dataset, storage, everything, {
      offset: 0,
      limit: FIRST_SHOWN,
    });
    const columns = columnsOf(model, storage).map(({ name }) => name);
    return { name: storage.entity.name, records: found, columns, first };
  });
  return { types, shortfalls, overflows };
}
