import {
  computedOf,
  indexed,
  isFound,
  passes,
  pointedAt,
  type Dataset,
  type RecordView,
} from '../engine/index.js';
import { namedValue, type EntityStorage, type Json, type Model, type Row } from '../model/index.js';
import { pointersOf } from '../transfer/index.js';
import { columnsOf } from './columns.js';
import type { RecordFind } from './find.js';
import { linkTo, type RecordLink } from './hint.js';

/** What stands in a column: a value, another record, or that a secret is there. */
export type RecordCell =
  | { readonly kind: 'value'; readonly value: Json }
  | { readonly kind: 'record'; readonly to: RecordLink }
  | { readonly kind: 'secret' };

/** One record of a table. */
export interface TableRecord {
  readonly number: number;
  /** Counts the changes of the record, from 1. */
  readonly version: number;
  /** What it is called where others refer to it. */
  readonly link: RecordLink;
  /** One for each column. */
  readonly cells: readonly RecordCell[];
}

/** Some of the records of a type. */
export interface RecordPage {
  /** How many there are of the type. */
  readonly total: number;
  /** How many of them are looked for. */
  readonly found: number;
  readonly rows: readonly TableRecord[];
}

interface Page {
  readonly offset: number;
  readonly limit: number;
}

/** The records that are looked for, by the order that is asked for and then by when they were made, from `offset` on. */
export function recordPage(
  dataset: Dataset,
  storage: EntityStorage,
  { filters, search, sort }: RecordFind,
  { offset, limit }: Page,
): RecordPage {
  const service = { model: dataset.model };
  // One order serves whatever is looked for in it: another one for each equality would be made first.
  const { span } = indexed(service, dataset, storage, { filters: [] }, sort);
  const shown =
    filters.length === 0 && search === null
      ? span
      : span.filter(
          (row) =>
            passes(service, dataset, row, filters) &&
            (search === null || isFound(service, dataset, row, search)),
        );
  return {
    total: dataset.countOf(storage),
    found: shown.length,
    rows: shown.rows(offset, offset + limit).map((row) => tableRecord(dataset.model, dataset, storage, row)),
  };
}

/** A record as a table shows it. */
export function tableRecord(model: Model, view: RecordView, storage: EntityStorage, row: Row): TableRecord {
  const attributes = new Map(
    [...storage.attributes, ...storage.computed].map((attribute) => [attribute.name, attribute]),
  );
  const pointers = new Map(pointersOf(model, storage).map((pointer) => [pointer.name, pointer]));
  const cells = columnsOf(model, storage).map(({ name }): RecordCell => {
    const attribute = attributes.get(name);
    if (attribute !== undefined) {
      const { id, type, writeOnly, computed } = attribute;
      const value = computed === null ? (row.values[id] ?? null) : computedOf({ model }, view, row, id);
      if (writeOnly && value !== null) return { kind: 'secret' };
      return { kind: 'value', value: namedValue(model, type, value, false) };
    }
    const pointed = pointedAt(view, row, pointers.get(name)?.id ?? '');
    const to = pointed === null ? null : linkTo(model, view, pointed);
    return to === null ? { kind: 'value', value: null } : { kind: 'record', to };
  });
  const link = linkTo(model, view, row) ?? {
    type: storage.entity.name,
    number: row.rid,
    key: null,
    hint: '',
  };
  return { number: row.rid, version: row.revision, link, cells };
}
