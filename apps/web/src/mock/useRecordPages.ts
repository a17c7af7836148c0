import type { RecordTable } from '@isomeros/api';
import { skipToken } from '@reduxjs/toolkit/query';
import type { TableRecord } from '@isomeros/core/records';
import { useReadRecordTableQuery, type RecordsAsked } from './recordsApi.js';

/** So many records are asked for at a time; two such pages hold whatever is in view. */
const PAGE = 100;

interface Pages {
  /** The page in view; while it is read, the one before. */
  readonly known: RecordTable | undefined;
  readonly found: number;
  readonly error: unknown;
  readonly rowAt: (index: number) => TableRecord | undefined;
  /** The places of the rows that can be there. */
  readonly loaded: readonly number[];
}

/** The page that holds the first row in view, and the next one. */
export function useRecordPages(looked: Omit<RecordsAsked, 'offset' | 'limit'>, first: number): Pages {
  const start = Math.floor(first / PAGE) * PAGE;
  const asked = { ...looked, limit: PAGE };
  const { currentData: one, data: last, error } = useReadRecordTableQuery({ ...asked, offset: start });
  const known = one ?? last;
  const found = error === undefined ? (known?.found ?? 0) : 0;
  const isMore = found > start + PAGE;
  const next = useReadRecordTableQuery(isMore ? { ...asked, offset: start + PAGE } : skipToken);
  const two = isMore ? next.currentData : undefined;
  return {
    known,
    found,
    error,
    rowAt: (index) => (index < start + PAGE ? one?.rows[index - start] : two?.rows[index - start - PAGE]),
    loaded: Array.from({ length: 2 * PAGE }, (_, index) => start + index),
  };
}
