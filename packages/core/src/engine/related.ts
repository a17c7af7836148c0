import type { Expanded } from '../contract/index.js';
import { indexModel, type Row } from '../model/index.js';
import { pointedAt, type RecordView } from './dataset.js';
import { decidingKeys, ranked } from './list/sort.js';
import { pairedRows } from './pairedRows.js';
import { storageNamed, type RequestContext } from './service.js';

/** The records that a record has by a relationship, in the order of their key, at most as many as are shown. */
export function relatedBy(
  service: RequestContext,
  view: RecordView,
  record: Row,
  source: Expanded,
): readonly Row[] {
  const rows = unordered(service, view, record, source);
  if (rows.length < 2) return rows;
  const keys = decidingKeys(service, source, []);
  return ranked(service, view, keys, rows)
    .slice(0, source.limit ?? 1)
    .map(({ row }) => row);
}

function unordered(
  service: RequestContext,
  view: RecordView,
  record: Row,
  { way, relationship, entity }: Expanded,
): readonly Row[] {
  switch (way) {
    case 'owner':
    case 'referred': {
      const target = pointedAt(view, record, relationship);
      return target === null ? [] : [target];
    }
    case 'owned':
    case 'referrers':
      return view.pointingAt(storageNamed(service, entity), relationship, record.rid);
    case 'paired':
    case 'paired-back': {
      const pairs = indexModel(service.model).relationshipById.get(relationship);
      return pairs?.kind === 'pairs' ? pairedRows(service, view, pairs, way, record) : [];
    }
  }
}

/** What a record owns and shows inside itself, in the order of the key. */
export function inlineRows(
  service: RequestContext,
  view: RecordView,
  { entity, relationship }: { readonly entity: string; readonly relationship: string },
  record: Row,
): readonly Row[] {
  const rows = view.pointingAt(storageNamed(service, entity), relationship, record.rid);
  if (rows.length < 2) return rows;
  return ranked(service, view, decidingKeys(service, { entity }, []), rows).map(({ row }) => row);
}
