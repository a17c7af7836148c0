import { MARIADB, POSTGRESQL, type Dialect } from '../sql/dialect.js';
import { sqlDocument, unsaidInTables } from '../sql/document.js';
import type { PublicationFormat } from './format.js';

const inDialect = (dialect: Dialect): PublicationFormat => ({
  title: `Tables, ${dialect.name}`,
  mediaType: 'application/sql',
  write: ({ model }) => sqlDocument(dialect, model),
  cannotSay: ({ model }) => unsaidInTables(dialect, model),
});

export const SQL_FORMATS = {
  'mariadb.sql': inDialect(MARIADB),
  'postgresql.sql': inDialect(POSTGRESQL),
} as const;
