import type { KeptAnswer } from '@isomeros/core/engine';
import type { StoredRecord } from './recordStore.js';

/** What is written by one block: the sequence number it takes the dataset to, and what that number is for. */
export interface Committing {
  readonly datasetId: string;
  readonly holder: string;
  /** The number of the write before. */
  readonly sequence: number;
  /** As JSON. */
  readonly counters: string;
  readonly kept: readonly StoredRecord[];
  readonly removed: readonly number[];
  readonly answers: readonly KeptAnswer[];
}

const HEAD = `BEGIN NOT ATOMIC
DECLARE EXIT HANDLER FOR SQLEXCEPTION BEGIN ROLLBACK; RESIGNAL; END;
START TRANSACTION;
UPDATE datasets SET sequence = ?, counters = ? WHERE id = ? AND holder = ? AND sequence = ?;
IF ROW_COUNT() = 1 THEN
`;
const TAIL = 'COMMIT;\nSELECT 1 AS committed;\nELSE ROLLBACK;\nSELECT 0 AS committed;\nEND IF;\nEND';

/**
 * One transaction as one statement of MariaDB, so that a batch of writes takes one trip to the database instead of
 * one for each of its statements. It answers a row whose `committed` is 1, or 0 where somebody else holds the dataset.
 */
export function commitBlock(committing: Committing): { readonly sql: string; readonly values: unknown[] } {
  const { datasetId, holder, sequence, counters, kept, removed, answers } = committing;
  const values: unknown[] = [sequence + 1, counters, datasetId, holder, sequence];
  let sql = HEAD;
  if (kept.length > 0) {
    sql += `INSERT INTO records (dataset_id, rid, data) VALUES ${places(kept.length, 3)} ON DUPLICATE KEY UPDATE data = VALUES(data);\n`;
    for (const { rid, data } of kept) values.push(datasetId, rid, data);
  }
  if (removed.length > 0) {
    sql += 'DELETE FROM records WHERE dataset_id = ? AND rid IN (?);\n';
    values.push(datasetId, removed);
  }
  if (answers.length > 0) {
    sql += `INSERT INTO kept_answers (dataset_id, id, kept_at, data) VALUES ${places(answers.length, 4)} ON DUPLICATE KEY UPDATE kept_at = VALUES(kept_at), data = VALUES(data);\n`;
    for (const { id, at, fingerprint, response } of answers)
      values.push(datasetId, id, at, JSON.stringify({ fingerprint, response }));
  }
  return { sql: sql + TAIL, values };
}

const places = (rows: number, columns: number): string =>
  Array.from({ length: rows }, () => `(${Array.from({ length: columns }, () => '?').join(', ')})`).join(', ');

/** Whether a block says that it was committed; `false`: somebody else holds the dataset. */
export function saysCommitted(answer: unknown): boolean {
  const [rows] = Array.isArray(answer) ? (answer as readonly unknown[]) : [];
  const [row] = Array.isArray(rows) ? (rows as readonly { readonly committed?: unknown }[]) : [];
  if (row?.committed === undefined) throw new Error('A commit did not say what became of it.');
  return Number(row.committed) === 1;
}

/** Ended by the server while it worked: shutting down, killed, interrupted. */
const INTERRUPTED: ReadonlySet<unknown> = new Set([1053, 1317, 1927, 3024]);

/** Whether the database itself refused a statement, so that nothing of it took effect. */
export const isRefused = (error: unknown): boolean =>
  typeof error === 'object' &&
  error !== null &&
  'sqlState' in error &&
  error.sqlState !== undefined &&
  'errno' in error &&
  !INTERRUPTED.has(error.errno);
