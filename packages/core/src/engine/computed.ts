import { computedValue, rolesOfModel, type Json, type RecordReading, type Row } from '../model/index.js';
import { pointedAt, type RecordView } from './dataset.js';
import { pairedRows } from './pairedRows.js';
import { storageNamed, storages, type RequestContext } from './service.js';

/** The value of a computed attribute of a record, by its identity. */
export function computedOf(service: RequestContext, view: RecordView, row: Row, id: string): Json {
  const attribute = storages(service)
    .byId.get(row.entity)
    ?.computed.find((one) => one.id === id);
  return attribute === undefined ? null : computedValue(attribute, readingOf(service, view, row));
}

function readingOf(service: RequestContext, view: RecordView, row: Row): RecordReading {
  const storage = storages(service).byId.get(row.entity);
  const reading: RecordReading = {
    attribute(name) {
      const stored = storage?.attributes.find((one) => one.name === name);
      const attribute = stored ?? storage?.computed.find((one) => one.name === name);
      if (attribute === undefined) return null;
      const { type } = attribute;
      if (type.kind === 'json' || type.kind === 'list' || type.kind === 'value') return null;
      const value =
        stored === undefined ? computedValue(attribute, reading) : (row.values[attribute.id] ?? null);
      return { type, value };
    },
    along: (role) =>
      rowsAlong(service, view, storage?.entity.name ?? '', row, role).map((one) =>
        readingOf(service, view, one),
      ),
  };
  return reading;
}

/** The records that a role leads to. */
function rowsAlong(
  service: RequestContext,
  view: RecordView,
  entity: string,
  row: Row,
  role: string,
): readonly Row[] {
  const along = rolesOfModel(service.model).get(entity)?.get(role);
  if (along === undefined) return [];
  const { relationship, direction, to } = along;
  if (relationship.kind === 'pairs')
    return pairedRows(service, view, relationship, direction === 'back' ? 'paired-back' : 'paired', row);
  // What is owned points at its owner, and what refers to something at that.
  const isPointedAt = (relationship.kind === 'owns') === (direction === 'onwards');
  if (isPointedAt) return view.pointingAt(storageNamed(service, to), relationship.id, row.rid);
  const target = pointedAt(view, row, relationship.id);
  return target === null ? [] : [target];
}
