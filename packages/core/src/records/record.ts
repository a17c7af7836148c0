import {
  joinedBy,
  planRemoval,
  removalTree,
  transitionsNow,
  type Dataset,
  type JoinedBy,
  type RemovalNode,
} from '../engine/index.js';
import { storageOf, type EntityStorage, type Row } from '../model/index.js';
import { linkTo, type RecordLink } from './hint.js';
import { tableRecord, type TableRecord } from './table.js';

/** So many of those that refer to a record are named. */
const MOST_NAMED = 20;

/** The records of one type that refer to a record by one role, or that it owns. */
export interface Referring {
  readonly type: string;
  readonly by: JoinedBy;
  readonly records: number;
  /** The first of them. */
  readonly first: readonly RecordLink[];
}

/** What would come of removing a record; nothing is done. */
export type RemovalPreview =
  | { readonly allowed: true; readonly tree: RemovalNode }
  | { readonly allowed: false; readonly blocking: number; readonly first: readonly RecordLink[] };

/** One record with what hangs together with it. */
export interface RecordDetail extends TableRecord {
  /** The transitions that its state allows now. */
  readonly transitions: readonly string[];
  readonly referring: readonly Referring[];
  readonly removal: RemovalPreview;
}

/** A record as it is now. `now`: milliseconds since 1970. */
export function recordDetail(dataset: Dataset, storage: EntityStorage, row: Row, now: number): RecordDetail {
  const { model } = dataset;
  const links = (rows: readonly Row[]): readonly RecordLink[] =>
    rows.slice(0, MOST_NAMED).flatMap((one) => linkTo(model, dataset, one) ?? []);
  const pointing = storageOf(model).pointing.get(storage.entity.name) ?? [];
  const referring = pointing.flatMap(({ storage: from, relationship }): readonly Referring[] => {
    const rows = dataset.pointingAt(from, relationship.id, row.rid);
    if (rows.length === 0) return [];
    return [{ type: from.entity.name, by: joinedBy(relationship), records: rows.length, first: links(rows) }];
  });
  const plan = planRemoval(model, dataset, row);
  return {
    ...tableRecord(model, dataset, storage, row),
    transitions: transitionsNow(storage.attributes, row, now),
    referring,
    removal: plan.ok
      ? { allowed: true, tree: removalTree(model, dataset, row) }
      : {
          allowed: false,
          blocking: plan.blocking.length,
          first: links(plan.blocking.map((one) => one.row)),
        },
  };
}
