import {
  isScalarType,
  isSecretName,
  literalProblem,
  scalarText,
  type Attribute,
  type AttributeType,
  type Json,
} from '../../model/index.js';
import { printType } from '../../notation/index.js';
import { newAttribute, asMemberName, typeByName } from '../build.js';
import { typedScalar } from '../typedValue.js';
import { assumed, instead, type Report } from '../report.js';
import { readSqlExpression, withoutRange } from './computed.js';
import { baseColumn, columnType } from './columnTypes.js';
import { columnValue } from './columnValue.js';
import { textOf } from './reader.js';
import { same, type SqlColumn, type SqlDefault, type SqlSchema, type SqlTable } from './schema.js';
import type { SqlToken } from './tokens.js';
import { withChecks, type ChecksSaid } from './withChecks.js';

/** The attribute a column becomes; `null` where its type has no place in a model. */
export function columnAttribute(
  schema: SqlSchema,
  table: SqlTable,
  column: SqlColumn,
  entity: string,
  report: Report,
  checks: ChecksSaid,
): Attribute | null {
  const declared = columnType(schema, column);
  if (declared === null) {
    report.leave(column.lines, `${table.name}.${column.name} ${column.type}`, 'A model has no type for it.');
    return null;
  }
  const name = asMemberName(column.name, 'column');
  const id = `${entity}.${name}`;
  const listed: AttributeType = column.isArray
    ? { kind: 'list', min: null, max: null, of: declared.type }
    : declared.type;
  const type = withChecks(table, column, listed, declared.checks, id, checks);
  const given = column.default ?? declared.default;
  const made = given?.kind === 'now' && type.kind === 'instant';
  const generated =
    (column.auto || (made && !column.onUpdateNow)) && (type.kind === 'integer' || type.kind === 'instant');
  if (column.computed !== null) return computedAttribute(column, column.computed, entity, name, type, report);
  const isSecret = isSecretName(column.name) && canBeSecret(type) && !isReadByComputed(table, column);
  const attribute = newAttribute(entity, name, type, {
    description: column.comment ?? declared.form,
    required: column.notNull || declared.notNull,
    unique: table.uniques.some(({ columns }) => columns.length === 1 && same(columns[0], column.name)),
    generated,
    touched: column.onUpdateNow && type.kind === 'instant',
    writeOnly: isSecret,
    defaultValue: generated ? null : defaultOf(type, baseColumn(schema, column), given),
  });
  accountForDefault(table, attribute, column, report);
  report.understand(attribute.id, column.lines, reasonFor(column, type));
  return askAbout(schema, attribute, column, report);
}

/** When something ends, and whether it is so, is no secret, whatever it is called. */
const canBeSecret = ({ kind }: AttributeType): boolean =>
  kind !== 'instant' && kind !== 'date' && kind !== 'boolean';

/** Whether the database computes another column from it: what is returned of that tells it. */
const isReadByComputed = ({ columns }: SqlTable, { name }: SqlColumn): boolean =>
  columns.some(({ computed }) => computed?.some(({ text }) => same(text, name)) === true);

/** What the database computes; whether it can be said is seen once all columns are known. */
function computedAttribute(
  column: SqlColumn,
  from: readonly SqlToken[],
  entity: string,
  name: string,
  type: AttributeType,
  report: Report,
): Attribute {
  const computed = readSqlExpression(from);
  const attribute = newAttribute(entity, name, computed === null ? type : withoutRange(type), {
    description: column.comment,
    computed,
    readOnly: computed === null,
  });
  report.understand(attribute.id, column.lines, `${column.type}, computed by the database`);
  if (computed === null) leaveUncomputed(column, report);
  return attribute;
}

/** That what a column is computed from has no place in a model. */
export const leaveUncomputed = (column: SqlColumn, report: Report): void =>
  report.leave(
    column.lines,
    `${column.name} AS (${textOf(column.computed ?? [])})`,
    'A model cannot say how it is computed; it is stored and read-only.',
  );

/** Counts what stands behind DEFAULT, and tells where a model does not say it. */
function accountForDefault(
  { name: table }: SqlTable,
  attribute: Attribute,
  column: SqlColumn,
  report: Report,
): void {
  const { default: given } = column;
  if (given === null) return;
  const { id, type, defaultValue, generated, touched } = attribute;
  const isMade = generated || touched || (given.kind === 'uuid' && type.kind === 'uuid');
  report.tally('defaults', defaultValue !== null || isMade ? id : null);
  if (defaultValue !== null || isMade) return;
  report.leave(
    column.lines,
    `${table}.${column.name} DEFAULT ${defaultText(given)}`,
    whyNoDefault(type, given.kind),
  );
}

export const defaultText = (given: NonNullable<SqlColumn['default']>): string => {
  switch (given.kind) {
    case 'literal':
      return typeof given.value === 'string' ? `'${given.value}'` : String(given.value);
    case 'now':
      return 'CURRENT_TIMESTAMP';
    case 'uuid':
      return 'uuid()';
    case 'other':
      return given.text;
  }
};

function whyNoDefault(type: AttributeType, kind: NonNullable<SqlColumn['default']>['kind']): string {
  if (kind === 'other') return 'Only literals and the time are defaults.';
  if (kind === 'now') return `Only an instant is set to the time; this is ${printType(type)}.`;
  return kind === 'uuid' ? 'Only a key that is a uuid is made.' : `It is no value of ${printType(type)}.`;
}

/** The words of the column that made the attribute what it is. */
function reasonFor(column: SqlColumn, type: AttributeType): string {
  const args = column.args.length === 0 || type.kind === 'choice' ? '' : `(${column.args.join(', ')})`;
  const parts = [column.type + args, column.notNull ? 'not null' : 'may be null'];
  if (column.auto) parts.push('counted by the server');
  if (column.onUpdateNow) parts.push('set at every update');
  if (column.default?.kind === 'now') parts.push('default now');
  if (column.default?.kind === 'literal') parts.push(`default ${String(column.default.value)}`);
  return parts.join(', ');
}

/** Asks what a column leaves open, and takes the likelier answer; tells what has one answer. */
function askAbout(schema: SqlSchema, attribute: Attribute, column: SqlColumn, report: Report): Attribute {
  const { id, name, type } = attribute;
  if (attribute.writeOnly) report.askSecret(column.lines, name, id);
  if (type.kind === 'instant' && !namesZone(schema, column))
    report.assume(column.lines, `${name} is in UTC.`, `A ${column.type} names no zone; an instant has one.`);
  if (type.kind === 'boolean' && /^(tinyint|bit)/.test(column.type)) {
    const other: AttributeType = { kind: 'integer', min: null, max: null };
    report.ask(
      column.lines,
      `Is ${name} true or false?`,
      `It is a ${column.type}(1).`,
      [
        assumed('yes'),
        instead('no, a number', {
          kind: 'change-attribute',
          attribute: id,
          change: { type: other, defaultValue: null },
        }),
      ],
      id,
    );
  }
  const named = type.kind === 'text' && attribute.defaultValue === null ? typeByName(column.name) : null;
  if (named === null) return attribute;
  report.ask(
    column.lines,
    `Is ${name} ${named.kind === 'uri' ? 'a URI' : 'an e-mail address'}?`,
    `It is ${printType(type)}; only its name says more.`,
    [assumed('yes'), instead('any text', { kind: 'change-attribute', attribute: id, change: { type } })],
    id,
  );
  return { ...attribute, type: named };
}

/** Whether a time is a moment: MariaDB's timestamps are, PostgreSQL's where they say so. */
const namesZone = ({ dialect }: SqlSchema, { type }: SqlColumn): boolean =>
  /with time zone|timestamptz/.test(type) || (dialect === 'mariadb' && type === 'timestamp');

/** A default as the model says it; `null` where it has none, or no value of the type. */
function defaultOf(
  type: AttributeType,
  column: SqlColumn,
  given: SqlDefault | null,
): Attribute['defaultValue'] {
  if (given?.kind !== 'literal') return null;
  const value = isScalarType(type) ? typedScalar(type, given.value) : jsonDefault(type, column, given.value);
  return literalProblem(type, value) === null ? value : null;
}

/** What a column of lists or JSON has by default, as its text says it. */
function jsonDefault(type: AttributeType, column: SqlColumn, given: string | number | boolean): Json {
  const read = columnValue(column, String(given), null);
  if (read.kind !== 'value') return null;
  const of = type.kind === 'list' ? type.of : null;
  return of !== null && isScalarType(of) && Array.isArray(read.value)
    ? (read.value as readonly Json[]).map((item) => typedScalar(of, scalarText(item)))
    : read.value;
}
