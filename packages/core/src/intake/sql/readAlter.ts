import { replaceItems } from '../../model/index.js';
import { readDefault } from './readDefault.js';
import { readColumn, readGenerated, readParts, readColumnType } from './readColumn.js';
import { commentIn, SqlReader, splitAtCommas } from './reader.js';
import {
  columnNamed,
  imposeNotNull,
  newColumn,
  same,
  type SqlColumn,
  type SqlSchema,
  type SqlTable,
} from './schema.js';
import type { SqlToken } from './tokens.js';
import { READ, readTablePart, unread, type StatementRead } from './readTable.js';

/** What ALTER TABLE does that does not concern a model. */
const HARMLESS: ReadonlySet<string> = new Set([
  'OWNER',
  'ENABLE',
  'DISABLE',
  'CLUSTER',
  'REPLICA',
  'FORCE',
  'NO',
  'VALIDATE',
  'ATTACH',
  'DETACH',
  'ORDER',
  'ENGINE',
  'AUTO_INCREMENT',
  'CONVERT',
  'ROW_FORMAT',
  'CHARACTER',
  'CHARSET',
  'COLLATE',
  'LOCK',
  'ALGORITHM',
  'PARTITION',
  'REMOVE',
  'INHERIT',
]);

/** Reads what stands behind ALTER TABLE: several actions, of which each takes effect. */
export function readAlterTable(schema: SqlSchema, reader: SqlReader): StatementRead {
  reader.take('IF', 'EXISTS');
  const isAlone = reader.take('ONLY');
  const name = reader.name();
  const table = name === null ? undefined : schema.table(name);
  if (table === undefined) return unread(`There is no table ${name?.name ?? ''}.`);
  reader.takeMark('*');
  const wrong: string[] = [];
  for (const part of splitAtCommas(reader.rest())) {
    const why = alter(schema, table, new SqlReader(part));
    if (why !== null) wrong.push(why);
    else if (!isAlone && isAboutColumn(part)) alterHeirs(schema, table, part);
  }
  return wrong.length === 0 ? READ : unread(wrong.join(' '));
}

/** Whether an action is about a column, which tables that have it, too, follow. */
function isAboutColumn(part: readonly SqlToken[]): boolean {
  const [first, second] = part.map(({ word }) => word);
  return ['ADD', 'DROP', 'RENAME', 'ALTER'].includes(first ?? '') && second === 'COLUMN';
}

function alterHeirs(schema: SqlSchema, table: SqlTable, part: readonly SqlToken[]): void {
  for (const heir of table.heirs) {
    alter(schema, heir, new SqlReader(part));
    alterHeirs(schema, heir, part);
  }
}

/** Carries out one action; why it could not be, or `null`. */
function alter(schema: SqlSchema, table: SqlTable, reader: SqlReader): string | null {
  if (reader.take('ADD')) return add(schema, table, reader);
  if (reader.take('DROP')) return drop(table, reader);
  if (reader.take('RENAME')) return rename(schema, table, reader);
  if (reader.take('MODIFY')) {
    reader.take('COLUMN');
    reader.take('IF', 'EXISTS');
    return redeclare(schema, table, reader.peek()?.text ?? '', reader);
  }
  if (reader.take('CHANGE')) {
    reader.take('COLUMN');
    reader.take('IF', 'EXISTS');
    return redeclare(schema, table, reader.identifier() ?? '', reader);
  }
  if (reader.take('ALTER')) return alterColumn(table, reader);
  if (reader.take('COMMENT')) {
    reader.takeMark('=');
    table.comment = commentIn(reader.next());
    return null;
  }
  if (reader.peek()?.word === 'SET' || reader.peek()?.word === 'RESET') return null;
  return HARMLESS.has(reader.peek()?.word ?? '') ? null : 'An action of it is not known here.';
}

function add(schema: SqlSchema, table: SqlTable, reader: SqlReader): string | null {
  const isColumn = reader.take('COLUMN');
  reader.take('IF', 'NOT', 'EXISTS');
  if (reader.isMark('(')) {
    for (const part of splitAtCommas(reader.parenthesised())) readColumn(table, new SqlReader(part));
    return null;
  }
  if (reader.peek()?.word === 'PARTITION' && !isColumn) return null;
  const { primary } = table;
  if (isColumn) readColumn(table, reader);
  else readTablePart(schema, table, reader);
  if (table.primary !== primary) imposeNotNull(table);
  return null;
}

function drop(table: SqlTable, reader: SqlReader): string | null {
  if (reader.take('PRIMARY', 'KEY')) {
    table.primary = null;
    return null;
  }
  if (reader.takeOne('CONSTRAINT', 'INDEX', 'KEY', 'CHECK') || reader.take('FOREIGN', 'KEY')) {
    reader.take('IF', 'EXISTS');
    dropConstraint(table, reader.identifier() ?? '');
    return null;
  }
  if (reader.peek()?.word === 'PARTITION') return null;
  reader.take('COLUMN');
  reader.take('IF', 'EXISTS');
  const name = reader.identifier() ?? '';
  return dropColumn(table, name) ? null : `${table.name} has no column ${name}.`;
}

/** Names that databases give to what has none. */
function usualName(
  table: SqlTable,
  columns: readonly string[],
  kind: 'key' | 'fkey' | 'check' | 'pkey',
): string {
  return [table.name, ...(kind === 'pkey' ? [] : columns), kind].join('_');
}

function dropConstraint(table: SqlTable, name: string): void {
  const isIt =
    (kind: 'key' | 'fkey' | 'check') =>
    (one: { readonly name: string | null; readonly columns: readonly string[] }): boolean =>
      same(one.name ?? usualName(table, one.columns, kind), name) ||
      same(usualName(table, one.columns, kind), name);
  const keep = <T>(all: T[], isDropped: (one: T) => boolean): void => {
    const at = all.findIndex(isDropped);
    if (at !== -1) all.splice(at, 1);
  };
  if (table.primary !== null && same(table.primary.name ?? usualName(table, [], 'pkey'), name)) {
    table.primary = null;
    return;
  }
  const keyed = isIt('key');
  const referring = isIt('fkey');
  keep(table.uniques, keyed);
  keep(table.foreign, referring);
  // MariaDB counts the references of a table.
  const counted = /_ibfk_(\d+)$/.exec(name)?.[1];
  const unnamed = table.foreign.filter((one) => one.name === null);
  if (counted !== undefined && same(`${table.name}_ibfk_${counted}`, name))
    keep(table.foreign, (one) => one === unnamed[Number(counted) - 1]);
  keep(table.checks, (check) => isIt('check')({ name: check.name, columns: columnsOf(check) }));
}

const columnsOf = ({ meaning }: SqlTable['checks'][number]): readonly string[] => [
  ...new Set((meaning ?? []).map(({ column }) => column)),
];

/** What stood on the column goes with it. */
function dropColumn(table: SqlTable, name: string): boolean {
  const at = table.columns.findIndex((column) => same(column.name, name));
  if (at === -1) return false;
  table.columns.splice(at, 1);
  const isOn = ({ columns }: { readonly columns: readonly string[] }): boolean =>
    columns.some((one) => same(one, name));
  if (table.primary !== null && isOn(table.primary)) table.primary = null;
  replace(table.uniques, (one) => !isOn(one));
  replace(table.foreign, (one) => !isOn(one));
  replace(table.checks, (one) => !isOn({ columns: columnsOf(one) }));
  return true;
}

function replace<T>(all: T[], isKept: (one: T) => boolean): void {
  const kept = all.filter(isKept);
  if (kept.length < all.length) replaceItems(all, kept);
}

function rename(schema: SqlSchema, table: SqlTable, reader: SqlReader): string | null {
  if (reader.takeOne('INDEX', 'KEY', 'CONSTRAINT')) {
    const old = reader.identifier();
    const name = reader.take('TO') ? reader.identifier() : null;
    const all = [...table.uniques, ...table.foreign, ...table.checks];
    const found = all.find((one) => one.name !== null && same(one.name, old ?? ''));
    if (found !== undefined) found.name = name;
    return null;
  }
  if (reader.takeOne('TO', 'AS')) {
    const name = reader.name();
    if (name !== null) schema.rename(table, name.name);
    return null;
  }
  const isColumn = reader.take('COLUMN');
  const old = reader.identifier() ?? '';
  if (reader.take('TO')) {
    const name = reader.identifier() ?? '';
    return renameColumn(schema, table, old, name) ? null : `${table.name} has no column ${old}.`;
  }
  // MariaDB's RENAME new_name.
  if (isColumn || old === '') return 'It does not say the new name.';
  schema.rename(table, old);
  return null;
}

/** Gives a column another name, wherever it is named. */
function renameColumn(schema: SqlSchema, table: SqlTable, old: string, name: string): boolean {
  const column = columnNamed(table, old);
  if (column === undefined) return false;
  const renamed = (columns: readonly string[]): readonly string[] =>
    columns.map((one) => (same(one, old) ? name : one));
  for (const key of [...table.uniques, ...(table.primary === null ? [] : [table.primary])])
    key.columns = renamed(key.columns);
  for (const foreign of table.foreign) foreign.columns = renamed(foreign.columns);
  for (const foreign of schema.referringTo(table)) foreign.references = renamed(foreign.references);
  table.checks.forEach((check, at) => {
    const meaning = (check.meaning ?? []).map((one) =>
      same(one.column, old) ? { ...one, column: name } : one,
    );
    if (check.meaning !== null) table.checks[at] = { ...check, meaning };
  });
  column.name = name;
  return true;
}

/** MODIFY and CHANGE say everything about a column anew, but its keys. */
function redeclare(schema: SqlSchema, table: SqlTable, old: string, reader: SqlReader): string | null {
  const known = columnNamed(table, old);
  if (known === undefined) return `${table.name} has no column ${old}.`;
  const name = reader.next()?.text ?? old;
  if (!same(name, old) || name !== known.name) renameColumn(schema, table, old, name);
  const fresh: SqlColumn = { ...newColumn(name, known.lines), comment: known.comment };
  Object.assign(known, fresh);
  readColumnType(known, reader);
  readParts(table, known, reader);
  known.notNull ||= table.primary?.columns.some((one) => same(one, known.name)) ?? false;
  return null;
}

/** `ALTER COLUMN … SET DEFAULT`, `DROP NOT NULL`, `TYPE`, `ADD GENERATED … AS IDENTITY`. */
function alterColumn(table: SqlTable, reader: SqlReader): string | null {
  if (reader.takeOne('INDEX', 'CHECK', 'CONSTRAINT')) return null;
  reader.take('COLUMN');
  const name = reader.identifier();
  const column = columnNamed(table, name);
  if (column === undefined) return `${table.name} has no column ${name ?? ''}.`;
  if (reader.take('SET', 'DEFAULT')) readDefault(column, reader);
  else if (reader.take('DROP', 'DEFAULT')) column.default = null;
  else if (reader.take('SET', 'NOT', 'NULL')) column.notNull = true;
  else if (reader.take('DROP', 'NOT', 'NULL')) column.notNull = false;
  else if (reader.take('DROP', 'IDENTITY')) column.auto = false;
  else if (reader.take('DROP', 'EXPRESSION')) column.computed = null;
  else if (reader.take('ADD', 'GENERATED')) readGenerated(column, reader);
  else if (reader.take('SET', 'DATA', 'TYPE') || reader.take('TYPE')) readColumnType(column, reader);
  return null;
}
