import { FILTER_OPERATORS, type FilterOperator, type Operand } from '../../arrangement/index.js';
import type { CustomFilter, Field, FilterParameter } from '../../contract/index.js';
import {
  compareScalars,
  describeType,
  sameScalar,
  scalarFromText,
  type Row,
  type ScalarType,
} from '../../model/index.js';
import type { RecordView } from '../dataset.js';
import { momentAs } from '../lifeCycle.js';
import type { ProblemDetail } from '../message.js';
import type { OfModel } from '../service.js';
import { decode, type QueryEntry } from '../target.js';
import { fieldValue, isScalarValue } from './field.js';

type Scalar = string | number | boolean;

/** One comparison of a field; all filters of a query must hold. */
export type Filter = { readonly field: Field; readonly type: ScalarType } & (
  | { readonly operator: Exclude<FilterOperator, 'in' | 'unset'>; readonly value: Scalar }
  | { readonly operator: 'in'; readonly values: readonly Scalar[] }
  | { readonly operator: 'unset'; readonly wanted: boolean }
);

/** Reads one filter; `null` after an error was reported. */
export function readFilter(
  parameter: FilterParameter,
  written: string,
  entry: QueryEntry,
  errors: ProblemDetail[],
): Filter | null {
  const { field, type, operators } = parameter;
  const operator = FILTER_OPERATORS.find((known) => known === written && operators.includes(known));
  const refuse = (code: string, message: string): null => {
    errors.push({ parameter: entry.name, code, message });
    return null;
  };
  switch (operator) {
    case undefined:
      return refuse(
        'operator',
        `${parameter.name} cannot be compared by ${written === '' ? 'nothing' : written}; there are ${operators.join(', ')}.`,
      );
    case 'unset':
      return entry.value === 'true' || entry.value === 'false'
        ? { field, type, operator, wanted: entry.value === 'true' }
        : refuse('type', 'Expected true or false.');
    case 'in': {
      const values = splitValues(type, entry.raw);
      return values === null
        ? refuse('type', `Expected values separated by commas, each ${describeType(type)}.`)
        : { field, type, operator, values };
    }
    case 'contains':
    case 'icontains':
    case 'starts':
      return entry.value === ''
        ? refuse('type', 'Expected a text that is not empty.')
        : { field, type, operator, value: entry.value };
    case 'eq':
    case 'ne':
    case 'lt':
    case 'lte':
    case 'gt':
    case 'gte': {
      const value = scalarFromText(type, entry.value);
      return value === undefined
        ? refuse('type', `Expected ${describeType(type)}.`)
        : { field, type, operator, value };
    }
  }
}

/** A comparison that a query of one's own always makes, at a moment. */
export function fixedFilter({ field, type, operator }: CustomFilter, value: Operand, now: number): Filter {
  const known = value.kind === 'now' ? momentAs(type, now) : value.value;
  return operator === 'unset'
    ? { field, type, operator, wanted: known === true }
    : { field, type, operator, value: known };
}

/** Commas separate before anything is decoded, so that a value may hold one as `%2C`. */
function splitValues(type: ScalarType, raw: string): readonly Scalar[] | null {
  const values: Scalar[] = [];
  for (const part of raw.split(',')) {
    const decoded = decode(part.replaceAll('+', ' '));
    const value = decoded === null ? undefined : scalarFromText(type, decoded);
    if (value === undefined) return null;
    values.push(value);
  }
  return values;
}

/** Whether every filter holds of a record. */
export const passes = (service: OfModel, view: RecordView, row: Row, filters: readonly Filter[]): boolean =>
  filters.every((filter) => holds(filter, fieldValue(service, view, row, filter.field)));

/** Keeps the records for which every filter holds. */
export const filtered = (
  service: OfModel,
  view: RecordView,
  rows: Iterable<Row>,
  filters: readonly Filter[],
): Row[] => [...rows].filter((row) => passes(service, view, row, filters));

/** Whether a value passes. What is unset equals nothing, differs from everything, and is neither less nor greater. */
export function holds(filter: Filter, value: unknown): boolean {
  const own = isScalarValue(value as Scalar) ? (value as Scalar) : null;
  if (filter.operator === 'unset') return (own === null) === filter.wanted;
  if (own === null) return filter.operator === 'ne';
  const { type } = filter;
  switch (filter.operator) {
    case 'eq':
      return sameScalar(type, own, filter.value);
    case 'ne':
      return !sameScalar(type, own, filter.value);
    case 'in':
      return filter.values.some((wanted) => sameScalar(type, own, wanted));
    case 'lt':
      return compareScalars(type, own, filter.value) < 0;
    case 'lte':
      return compareScalars(type, own, filter.value) <= 0;
    case 'gt':
      return compareScalars(type, own, filter.value) > 0;
    case 'gte':
      return compareScalars(type, own, filter.value) >= 0;
    case 'contains':
      return String(own).includes(String(filter.value));
    case 'icontains':
      return String(own).toLowerCase().includes(String(filter.value).toLowerCase());
    case 'starts':
      return String(own).startsWith(String(filter.value));
  }
}
