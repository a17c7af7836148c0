import type { Attribute } from '../../model/index.js';
import type { Report } from '../report.js';
import { leaveUncomputed } from './attributes.js';
import { canBeComputed } from './computed.js';
import { same, type SqlColumn, type SqlTable } from './schema.js';

interface ColumnRead {
  readonly column: SqlColumn;
  readonly attribute: Attribute;
}

/** Computed attributes as far as they can be said; others are stored, and read-only. */
export function withSayable(table: SqlTable, all: readonly ColumnRead[], report: Report): Attribute[] {
  const attributes = all.map(({ attribute }) => attribute);
  return all.map(({ column, attribute }) => {
    if (attribute.computed === null || (!isInKey(table, column) && canBeComputed(attributes, attribute)))
      return attribute;
    leaveUncomputed(column, report);
    return { ...attribute, computed: null, readOnly: true };
  });
}

/** Whether a column is part of something that must be stored. */
const isInKey = ({ primary, uniques }: SqlTable, { name }: SqlColumn): boolean =>
  [...uniques, ...(primary === null ? [] : [primary])].some(({ columns }) =>
    columns.some((one) => same(one, name)),
  );
