import type { Field, QueryParameter, Resource } from '../../contract/index.js';
import { compareScalars, type Json, type Row, type ScalarType } from '../../model/index.js';
import type { RecordView } from '../dataset.js';
import type { ProblemDetail } from '../message.js';
import { storageNamed, type Serving } from '../service.js';
import { fieldValue, isScalarValue } from './field.js';

export interface SortBy {
  readonly field: Field;
  readonly type: ScalarType;
  readonly descending: boolean;
}

type SortParameter = Extract<QueryParameter, { role: 'sort' }>;

/** Reads sort keys: `-departsAt,name`, or `departsAt:desc,name`. */
export function readSort(parameter: SortParameter, text: string, errors: ProblemDetail[]): readonly SortBy[] {
  const keys = new Map(parameter.keys.map((key) => [key.name, key]));
  return text.split(',').flatMap((part) => {
    const { name, descending } = parameter.style === 'minus' ? minusKey(part) : suffixKey(part);
    const key = keys.get(name);
    if (key !== undefined) return [{ field: key.field, type: key.type, descending }];
    const how = parameter.style === 'minus' ? 'with - in front' : 'followed by :desc';
    const message = `Cannot sort by ${part === '' ? 'nothing' : part}. Keys are ${[...keys.keys()].join(', ')}, each ${how} for descending.`;
    errors.push({ parameter: parameter.name, code: 'key', message });
    return [];
  });
}

interface Key {
  readonly name: string;
  readonly descending: boolean;
}

const minusKey = (part: string): Key =>
  part.startsWith('-') ? { name: part.slice(1), descending: true } : { name: part, descending: false };

function suffixKey(part: string): Key {
  const [, name = part, direction] = /^(.*):(asc|desc)$/.exec(part) ?? [];
  return { name, descending: direction === 'desc' };
}

/** Orders by the sort keys, unset last ascending and first descending; the key of the record breaks ties. */
export function sorted(
  service: Serving,
  view: RecordView,
  resource: Resource,
  rows: Row[],
  sort: readonly SortBy[],
): Row[] {
  const { key } = storageNamed(service, resource.entity);
  const byKey: SortBy = {
    field: { kind: 'attribute', attribute: key.id },
    type: key.type as ScalarType,
    descending: false,
  };
  const keys = [...sort, byKey];
  return rows.sort((a, b) => {
    for (const { field, type, descending } of keys) {
      const order = compareValues(
        type,
        fieldValue(service, view, a, field),
        fieldValue(service, view, b, field),
      );
      if (order !== 0) return descending ? -order : order;
    }
    return a.rid - b.rid;
  });
}

function compareValues(type: ScalarType, a: Json | undefined, b: Json | undefined): number {
  if (isScalarValue(a)) return isScalarValue(b) ? compareScalars(type, a, b) : -1;
  return isScalarValue(b) ? 1 : 0;
}
