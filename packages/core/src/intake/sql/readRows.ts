import type { SourceLines } from '../lines.js';
import type { Report } from '../report.js';
import { cellOf, copiedCells } from './cells.js';
import { SqlReader, splitAtCommas } from './reader.js';
import { READ, unread, type StatementRead } from './readTable.js';
import {
  columnNamed,
  type SqlCell,
  type SqlColumn,
  type SqlRow,
  type SqlSchema,
  type SqlTable,
} from './schema.js';
import type { ScriptStatement } from './statements.js';
import type { SqlToken } from './tokens.js';

const COPY_TEXT = 'Only records in the text format of COPY are read.';

/**
 * Reads the rows that a statement writes, as they are written. What they are of is known by the names of that moment,
 * whatever becomes of these later. `null` where the statement writes none.
 */
export function readRows(
  schema: SqlSchema,
  statement: Exclude<ScriptStatement, { kind: 'command' }>,
  report: Report,
): StatementRead | null {
  const reader = new SqlReader(statement.tokens);
  if (statement.kind === 'copy') {
    reader.take('COPY');
    const into = target(schema, reader, report);
    const isText = !reader
      .rest()
      .some(({ word }) => word === 'CSV' || word === 'BINARY' || word === 'DELIMITER');
    const rows = statement.rows.length;
    if (!into.ok || !isText) {
      report.tally('records', null, rows);
      return into.ok ? unread(COPY_TEXT) : into;
    }
    statement.rows.forEach((text, index) => {
      const line = statement.line + index;
      add(schema, into, copiedCells(text), { line, endLine: line }, report);
    });
    return READ;
  }
  if (!reader.takeOne('INSERT', 'REPLACE')) return null;
  while (reader.takeOne('LOW_PRIORITY', 'DELAYED', 'HIGH_PRIORITY', 'IGNORE'));
  reader.take('INTO');
  const into = target(schema, reader, report);
  if (reader.take('SET')) return readAssigned(schema, into, reader, report);
  if (reader.take('OVERRIDING')) {
    reader.next();
    reader.take('VALUE');
  }
  if (!reader.takeOne('VALUES', 'VALUE')) return unread('Its records are not written out.');
  do {
    const before = reader.peek();
    const row = reader.parenthesised();
    const line = before?.line ?? reader.lines.line;
    const lines = { line, endLine: row.at(-1)?.endLine ?? line };
    if (!into.ok) report.tally('records', null);
    else add(schema, into, splitAtCommas(row).map(cellOf), lines, report);
  } while (reader.takeMark(','));
  return into.ok ? READ : into;
}

type Target = {
  readonly ok: true;
  readonly table: SqlTable;
  readonly columns: readonly (SqlColumn | null)[];
};

/** The table that rows go to, and its columns in the order of their cells; `null` for one that is not there. */
function target(
  schema: SqlSchema,
  reader: SqlReader,
  report: Report,
): Target | Extract<StatementRead, { ok: false }> {
  const name = reader.name();
  const table = name === null ? undefined : schema.holderOf(name);
  if (reader.take('PARTITION')) reader.parenthesised();
  if (reader.take('AS')) reader.identifier();
  const isNamed = reader.isMark('(');
  const names = reader.names();
  if (table === undefined) return { ok: false, why: `There is no table ${name?.name ?? ''}.` };
  for (const column of names)
    if (columnNamed(table, column) === undefined)
      report.leave(
        reader.lines,
        `${table.name}.${column}`,
        'There is no such column; its values are left out.',
      );
  return {
    ok: true,
    table,
    columns: isNamed ? names.map((column) => columnNamed(table, column) ?? null) : [...table.columns],
  };
}

/** `INSERT INTO harbours SET code = 'KSH', name = 'Kestrel'` */
function readAssigned(
  schema: SqlSchema,
  into: ReturnType<typeof target>,
  reader: SqlReader,
  report: Report,
): StatementRead {
  const { lines } = reader;
  if (!into.ok) {
    report.tally('records', null);
    return into;
  }
  const { table } = into;
  const assigned = splitAtCommas(upTo(reader.rest(), 'ON')).map((part) => ({
    column: columnNamed(table, part[0]?.text ?? null) ?? null,
    cell: cellOf(part.slice(2)),
  }));
  const columns = assigned.map(({ column }) => column);
  add(
    schema,
    { ok: true, table, columns },
    assigned.map(({ cell }) => cell),
    lines,
    report,
  );
  return READ;
}

function upTo(tokens: readonly SqlToken[], word: string): readonly SqlToken[] {
  const end = tokens.findIndex((token) => token.word === word);
  return end === -1 ? tokens : tokens.slice(0, end);
}

function add(
  schema: SqlSchema,
  { table, columns }: Target,
  cells: readonly SqlCell[],
  lines: SourceLines,
  report: Report,
): void {
  if (cells.length === columns.length) {
    const row: SqlRow = { table, columns, cells, lines };
    schema.rows.push(row);
    return;
  }
  report.tally('records', null);
  report.leave(
    lines,
    `${table.name}: ${cells.length} values`,
    `Expected ${columns.length}, one for each column.`,
  );
}
