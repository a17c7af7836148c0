import type { SqlReader } from './reader.js';
import type { SqlForeignKey } from './schema.js';

/** What may stand behind a reference, and is no part of it. */
const ENDS: ReadonlySet<string> = new Set([
  'NOT',
  'NULL',
  'UNIQUE',
  'PRIMARY',
  'DEFAULT',
  'CHECK',
  'COMMENT',
  'CONSTRAINT',
  'GENERATED',
  'AUTO_INCREMENT',
  'COLLATE',
]);

/** `REFERENCES table (columns) ON DELETE …`; `null` where none stands here. */
export function readReference(
  reader: SqlReader,
  columns: readonly string[],
  name: string | null,
): SqlForeignKey | null {
  const { lines } = reader;
  if (!reader.take('REFERENCES')) return null;
  const table = reader.name();
  if (table === null) return null;
  const references = reader.names();
  let onDelete: SqlForeignKey['onDelete'] = 'restrict';
  while (!reader.done) {
    if (reader.take('ON', 'DELETE', 'CASCADE')) onDelete = 'cascade';
    else if (reader.take('ON', 'DELETE', 'SET', 'NULL')) onDelete = 'set null';
    else if (reader.take('ON', 'UPDATE') || reader.take('ON', 'DELETE')) passAction(reader);
    else if (
      reader.peek()?.word === 'NOT' &&
      reader.peek(1)?.word !== 'DEFERRABLE' &&
      reader.peek(1)?.word !== 'VALID'
    )
      break;
    else if (reader.peek()?.word !== 'NOT' && ENDS.has(reader.peek()?.word ?? '')) break;
    else reader.next();
  }
  return { name, columns, table, references, onDelete, lines };
}

/** What happens at a change does not concern a model: its keys never change. */
function passAction(reader: SqlReader): void {
  if (!reader.take('SET', 'NULL') && !reader.take('SET', 'DEFAULT') && !reader.take('NO', 'ACTION'))
    reader.next();
}
