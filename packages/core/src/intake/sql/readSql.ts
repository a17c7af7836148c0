import { Report, type Intake, type IntakeOptions } from '../report.js';
import { finishIntake } from '../finishIntake.js';
import { ModelBuilder } from './modelBuilder.js';
import { readSqlSchema } from './readSchema.js';

/**
 * Reads SQL DDL (MariaDB and PostgreSQL spellings) as a model: tables become entities, foreign keys
 * relationships, join tables pairings, what is removed with its parent is owned by it. Total: whatever cannot
 * be read is in the report.
 */
export function readSql(source: string, name: string, { progress, now }: IntakeOptions = {}): Intake {
  const report = new Report();
  const schema = readSqlSchema(source, report, (done) => progress?.(done * 0.6));
  if (schema.tables.length === 0) report.problem = 'No CREATE TABLE was found.';
  const builder = new ModelBuilder(schema, report);
  const declarations = builder.declarations();
  progress?.(0.8);
  report.records = builder.records(now ?? null);
  progress?.(0.9);
  return finishIntake(name, declarations, report);
}
