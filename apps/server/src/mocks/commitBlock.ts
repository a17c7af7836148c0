import type { IdempotentResponse, LeftBeside, AccessToken, TokenChange } from '@isomeros/core/engine';
import type { StoredRecord } from './storedRecord.js';

/** What one transaction writes: the sequence number it takes the dataset to, and what that number is for. */
export interface Committing extends LeftBeside {
  readonly datasetId: string;
  readonly holder: string;
  /** The number of the write before. */
  readonly sequence: number;
  /** As JSON. */
  readonly counters: string;
  readonly kept: readonly StoredRecord[];
  readonly removed: readonly number[];
}

export interface SqlStatement {
  readonly sql: string;
  readonly values: readonly unknown[];
  /** How many records it writes or removes. */
  readonly records: number;
}

/** So many rows one statement writes at most. */
const MOST_ROWS = 2_000;

/** So many characters of data one statement holds, unless a single row has more. */
const MOST_CHARACTERS = 4_194_304;

/** Takes a dataset one number on; it touches no row where somebody else holds the dataset. */
export const countOn = ({
  sequence,
  counters,
  datasetId,
  holder,
}: Omit<Committing, 'kept'>): SqlStatement => ({
  sql: 'UPDATE datasets SET sequence = ?, counters = ? WHERE id = ? AND holder = ? AND sequence = ?',
  values: [sequence + 1, counters, datasetId, holder, sequence],
  records: 0,
});

/** Writes records of a dataset, new ones or in the place of those there are. */
export const insertRecords = (datasetId: string, records: readonly StoredRecord[]): readonly SqlStatement[] =>
  chunks(records, ({ data }) => data.length).map((part) => ({
    sql: `INSERT INTO records (dataset_id, rid, data) VALUES ${places(part.length, 3)} ON DUPLICATE KEY UPDATE data = VALUES(data)`,
    values: part.flatMap(({ rid, data }) => [datasetId, rid, data]),
    records: part.length,
  }));

/** Keeps answers of a dataset for requests that are sent again. */
export const insertAnswers = (
  datasetId: string,
  answers: readonly IdempotentResponse[],
): readonly SqlStatement[] =>
  chunks(answers, ({ response }) => response.body?.length ?? 0).map((part) => ({
    sql: `INSERT INTO idempotent_responses (dataset_id, id, kept_at, data) VALUES ${places(part.length, 4)} ON DUPLICATE KEY UPDATE kept_at = VALUES(kept_at), data = VALUES(data)`,
    values: part.flatMap(({ id, at, fingerprint, response }) => [
      datasetId,
      id,
      at,
      JSON.stringify({ fingerprint, response }),
    ]),
    records: 0,
  }));

/** Writes down tokens of a dataset: of what is presented, the digest alone. */
export const insertTokens = (datasetId: string, tokens: readonly AccessToken[]): readonly SqlStatement[] =>
  chunks(tokens, () => 0).map((part) => ({
    sql: `INSERT INTO tokens (dataset_id, digest, rid, ends, data) VALUES ${places(part.length, 5)}`,
    values: part.flatMap((token) => [datasetId, token.digest, token.rid, token.ends, JSON.stringify(token)]),
    records: 0,
  }));

/** Tokens end by themselves, or with the record that they stand for. */
function endTokens(
  datasetId: string,
  tokens: readonly TokenChange[],
  removed: readonly number[],
): readonly SqlStatement[] {
  const ended = tokens.flatMap((change) => (change.kind === 'end' ? [change.digest] : []));
  const statement = (column: 'digest' | 'rid', values: readonly unknown[]): SqlStatement => ({
    sql: `DELETE FROM tokens WHERE dataset_id = ? AND ${column} IN (?)`,
    values: [datasetId, values],
    records: 0,
  });
  return [
    ...chunks(ended, () => 0).map((part) => statement('digest', part)),
    ...chunks(removed, () => 0).map((part) => statement('rid', part)),
  ];
}

/** Everything that is written once the dataset is counted on. */
export const writesOf = ({
  datasetId,
  kept,
  removed,
  answers,
  tokens,
}: Committing): readonly SqlStatement[] => [
  ...insertRecords(datasetId, kept),
  ...chunks(removed, () => 0).map((rids) => ({
    sql: 'DELETE FROM records WHERE dataset_id = ? AND rid IN (?)',
    values: [datasetId, rids],
    records: rids.length,
  })),
  ...insertAnswers(datasetId, answers),
  ...insertTokens(
    datasetId,
    tokens.flatMap((change) => (change.kind === 'issue' ? [change.token] : [])),
  ),
  ...endTokens(datasetId, tokens, removed),
];

/**
 * One transaction as one statement of MariaDB, so that a batch of writes takes one trip to the database instead of
 * one for each of its statements. It answers a row whose `committed` is 1, or 0 where somebody else holds the
 * dataset. `null`: it would be too long.
 */
export function commitBlock(committing: Committing): SqlStatement | null {
  const characters = committing.kept.reduce((sum, { data }) => sum + data.length, 0);
  if (characters > MOST_CHARACTERS) return null;
  const count = countOn(committing);
  const writes = writesOf(committing);
  return {
    sql: `BEGIN NOT ATOMIC
DECLARE EXIT HANDLER FOR SQLEXCEPTION BEGIN ROLLBACK; RESIGNAL; END;
START TRANSACTION;
${count.sql};
IF ROW_COUNT() = 1 THEN
${writes.map(({ sql }) => `${sql};\n`).join('')}COMMIT;
SELECT 1 AS committed;
ELSE ROLLBACK;
SELECT 0 AS committed;
END IF;
END`,
    values: [...count.values, ...writes.flatMap(({ values }) => values)],
    records: committing.kept.length + committing.removed.length,
  };
}

const places = (rows: number, columns: number): string =>
  Array.from({ length: rows }, () => `(${Array.from({ length: columns }, () => '?').join(', ')})`).join(', ');

/** Parts that one statement each can write. */
function chunks<T>(items: readonly T[], charactersOf: (item: T) => number): readonly (readonly T[])[] {
  const parts: T[][] = [];
  let characters = 0;
  for (const item of items) {
    const part = parts.at(-1);
    const own = charactersOf(item);
    if (part === undefined || part.length === MOST_ROWS || characters + own > MOST_CHARACTERS) {
      parts.push([item]);
      characters = own;
    } else {
      part.push(item);
      characters += own;
    }
  }
  return parts;
}

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
