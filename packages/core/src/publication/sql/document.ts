import { memoize, type Model } from '../../model/index.js';
import { MARIADB, POSTGRESQL, type Dialect } from './dialect.js';
import { printTables } from './print.js';
import { draftTables, type DraftedTables } from './tables.js';

const IN_MARIADB = memoize((model: Model): DraftedTables => draftTables(model, MARIADB));
const IN_POSTGRESQL = memoize((model: Model): DraftedTables => draftTables(model, POSTGRESQL));

const tablesIn = (dialect: Dialect, model: Model): DraftedTables =>
  dialect === MARIADB ? IN_MARIADB(model) : IN_POSTGRESQL(model);

/** The statements that make the tables of a model. */
export function sqlDocument(dialect: Dialect, model: Model): string {
  const title = model.name.replace(/[\s\u0085\u2028\u2029]+/g, ' ').trim();
  return `-- ${title}\n\n${printTables(dialect, tablesIn(dialect, model).tables)}\n`;
}

/** What the tables of a model cannot say. */
export const unsaidInTables = (dialect: Dialect, model: Model): readonly string[] => [
  ...new Set(tablesIn(dialect, model).cannotSay),
];
