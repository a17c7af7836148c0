import type { SqlReader } from './reader.js';
import type { SqlForeignKey } from './schema.js';

/** `REFERENCES table (columns) ON DELETE …`; `null` where none stands here. */
export function readReference(reader: SqlReader, columns: readonly string[]): SqlForeignKey | null {
  const { lines } = reader;
  if (!reader.take('REFERENCES')) return null;
  const table = reader.identifier();
  if (table === null) return null;
  const references = reader.names();
  let onDelete: SqlForeignKey['onDelete'] = 'restrict';
  while (!reader.done) {
    if (reader.take('ON', 'DELETE', 'CASCADE')) onDelete = 'cascade';
    else if (reader.take('ON', 'DELETE', 'SET', 'NULL')) onDelete = 'set null';
    else if (
      ['NOT', 'NULL', 'UNIQUE', 'PRIMARY', 'DEFAULT', 'CHECK', 'COMMENT'].includes(reader.peek()?.word ?? '')
    )
      break;
    else reader.next();
  }
  return { columns, table, references, onDelete, lines };
}
