import { indexContract, type Custom, type Resource } from '../contract/index.js';
import { aggregateOf, type Json, type Row } from '../model/index.js';
import { rowsAtEnd } from './computed.js';
import type { RecordView } from './dataset.js';
import { matchingRows } from './list/answer.js';
import { fieldValue } from './list/field.js';
import { filtered, type Filter } from './list/filter.js';
import type { Location } from './locate.js';
import type { RequestContext } from './service.js';

type Aggregate = Extract<Custom, { kind: 'aggregate' }>;

/** What the records of a collection, or those that roles lead to from a record, come to; `null` where nothing does. */
export function aggregateAnswer(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  location: Location,
  { of, along, taken, type }: Aggregate,
  filters: readonly Filter[],
): Json {
  const rows = rowsOf(service, view, resource, location, along, filters);
  if (of === 'count' || taken === null) return rows.length;
  const values = rows.map((row) => ({
    type: taken.type,
    value: fieldValue(service, view, row, taken.field) ?? null,
  }));
  return aggregateOf(of, values, type);
}

function rowsOf(
  service: RequestContext,
  view: RecordView,
  { parent }: Resource,
  { record, above }: Location,
  along: Aggregate['along'],
  filters: readonly Filter[],
): readonly Row[] {
  if (record !== null && along.length > 0)
    return filtered(service, view, rowsAtEnd(service, view, record, along), filters);
  const list = indexContract(service.contract).resources.get(parent ?? '');
  if (list === undefined) throw new Error('An aggregate stands below nothing.');
  return matchingRows(service, view, list, above, filters);
}
