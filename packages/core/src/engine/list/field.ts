import type { Field } from '../../contract/index.js';
import type { Json, Row } from '../../model/index.js';
import { computedOf } from '../computed.js';
import { pointedAt, type RecordView } from '../dataset.js';
import { storageNamed, type OfModel } from '../service.js';

/** What a record has in a field: its own value, or the key of what it points at; absent while unset. */
export function fieldValue(service: OfModel, view: RecordView, row: Row, field: Field): Json | undefined {
  if (field.kind === 'attribute') return row.values[field.attribute];
  if (field.kind === 'computed') return computedOf(service, view, row, field.attribute);
  const target = pointedAt(view, row, field.relationship);
  if (field.kind === 'through')
    return target === null ? undefined : fieldValue(service, view, target, field.of);
  return target?.values[storageNamed(service, field.entity).key.id];
}

export const isScalarValue = (value: Json | undefined): value is string | number | boolean =>
  value !== undefined && value !== null && typeof value !== 'object';
