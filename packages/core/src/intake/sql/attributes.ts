import { checkScalar, isSecretName, type Attribute, type AttributeType } from '../../model/index.js';
import { printType } from '../../notation/index.js';
import { newAttribute, asMemberName, typeByName } from '../build.js';
import { assumed, instead, type Report } from '../report.js';
import { readSqlExpression, withoutRange } from './computed.js';
import { textOf } from './reader.js';
import type { SqlColumn, SqlSchema, SqlTable } from './schema.js';
import type { SqlToken } from './tokens.js';

const NUMBER = /^\d+$/;

/** The attribute a column becomes; `null` where its type has no place in a model. */
export function columnAttribute(
  schema: SqlSchema,
  table: SqlTable,
  column: SqlColumn,
  entity: string,
  report: Report,
): Attribute | null {
  const single = typeOf(schema, column);
  if (single === null) {
    report.leave(column.lines, `${column.name} ${column.type}`, 'A model has no type for it.');
    return null;
  }
  const name = asMemberName(column.name, 'column');
  const listed: AttributeType = column.isArray ? { kind: 'list', min: null, max: null, of: single } : single;
  const type = withChecks(table, column, listed);
  const made = column.default?.kind === 'now' && type.kind === 'instant';
  const generated =
    (column.auto || (made && !column.onUpdateNow)) && (type.kind === 'integer' || type.kind === 'instant');
  if (column.default?.kind === 'other')
    report.leave(
      column.lines,
      `${column.name} DEFAULT ${column.default.text}`,
      'Only literals and the time are defaults.',
    );
  if (column.computed !== null) return computedAttribute(column, column.computed, entity, name, type, report);
  const attribute = newAttribute(entity, name, type, {
    description: column.comment,
    required: column.notNull,
    unique: table.uniques.some((names) => names.length === 1 && same(names[0], column.name)),
    generated,
    touched: column.onUpdateNow && type.kind === 'instant',
    writeOnly: isSecretName(column.name) && !isReadByComputed(table, column),
    defaultValue: generated ? null : defaultOf(type, column),
  });
  report.understand(attribute.id, column.lines, reasonFor(column, type));
  return askAbout(attribute, column, report);
}

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

/** Asks what a column leaves open, and takes the likelier answer. */
function askAbout(attribute: Attribute, column: SqlColumn, report: Report): Attribute {
  const { id, name, type } = attribute;
  if (attribute.writeOnly) {
    report.ask(column.lines, `May ${name} ever be returned?`, 'Its name says that it is a secret.', [
      assumed('never'),
      instead('yes', { kind: 'change-attribute', attribute: id, change: { writeOnly: false } }),
      instead('leave it out', { kind: 'remove', statement: id }),
    ]);
  }
  if (type.kind === 'instant' && !/zone|timestamptz/.test(column.type) && column.type !== 'timestamp') {
    report.ask(
      column.lines,
      `In which zone is ${name}?`,
      `A ${column.type} names none; an instant has one.`,
      [assumed('UTC')],
    );
  }
  if (type.kind === 'boolean' && /^(tinyint|bit)/.test(column.type)) {
    const other: AttributeType = { kind: 'integer', min: null, max: null };
    report.ask(column.lines, `Is ${name} true or false?`, `It is a ${column.type}(1).`, [
      assumed('yes'),
      instead('no, a number', {
        kind: 'change-attribute',
        attribute: id,
        change: { type: other, defaultValue: null },
      }),
    ]);
  }
  const named = type.kind === 'text' && attribute.defaultValue === null ? typeByName(column.name) : null;
  if (named === null) return attribute;
  report.ask(
    column.lines,
    `Is ${name} ${named.kind === 'uri' ? 'a URI' : 'an e-mail address'}?`,
    `It is ${printType(type)}; only its name says more.`,
    [assumed('yes'), instead('any text', { kind: 'change-attribute', attribute: id, change: { type } })],
  );
  return { ...attribute, type: named };
}

export const same = (a: string | undefined, b: string): boolean => a?.toLowerCase() === b.toLowerCase();

function defaultOf(type: AttributeType, { default: given }: SqlColumn): Attribute['defaultValue'] {
  if (given?.kind !== 'literal' || type.kind === 'list' || type.kind === 'value' || type.kind === 'json')
    return null;
  const value = type.kind === 'boolean' && typeof given.value === 'number' ? given.value !== 0 : given.value;
  const typed =
    (type.kind === 'integer' || type.kind === 'decimal') && typeof value === 'string' ? Number(value) : value;
  return checkScalar(type, typed) === null ? typed : null;
}

function typeOf(schema: SqlSchema, { type, args }: SqlColumn): AttributeType | null {
  const options = schema.enums.get(type);
  if (options !== undefined) return { kind: 'choice', options };
  const [first = '', second = ''] = args;
  const base = type.replace(/ (unsigned|signed|zerofill)/g, '');
  const unsigned = type.includes('unsigned') ? 0 : null;
  switch (base) {
    case 'enum':
      return { kind: 'choice', options: args };
    case 'set':
      return { kind: 'list', min: null, max: null, of: { kind: 'choice', options: args } };
    case 'tinyint':
      return first === '1' ? { kind: 'boolean' } : { kind: 'integer', min: unsigned, max: null };
    case 'bit':
      return first === '' || first === '1' ? { kind: 'boolean' } : null;
    case 'decimal':
    case 'numeric':
    case 'dec': {
      const scale = second === '' ? (first === '' ? null : 0) : Math.min(15, Number(second));
      return { kind: 'decimal', min: unsigned, max: null, scale };
    }
    default:
      break;
  }
  const kind = Object.hasOwn(PLAIN_TYPES, base) ? PLAIN_TYPES[base] : undefined;
  switch (kind) {
    case undefined:
      return null;
    case 'text':
      return { kind, pattern: null, min: null, max: NUMBER.test(first) ? Number(first) : null };
    case 'integer':
      return { kind, min: unsigned, max: null };
    case 'decimal':
      return { kind, min: unsigned, max: null, scale: null };
    default:
      return { kind };
  }
}

type PlainKind =
  'text' | 'integer' | 'decimal' | 'boolean' | 'date' | 'time' | 'instant' | 'duration' | 'uuid' | 'json';

const names = (kind: PlainKind, ...types: readonly string[]): [string, PlainKind][] =>
  types.map((type) => [type, kind]);

/** Types of both dialects that become one type each, whatever their arguments. */
const PLAIN_TYPES: Readonly<Record<string, PlainKind>> = Object.fromEntries([
  ...names('text', 'char', 'character', 'varchar', 'character varying', 'nvarchar', 'bpchar'),
  ...names('text', 'text', 'tinytext', 'mediumtext', 'longtext', 'citext', 'name'),
  ...names('boolean', 'bool', 'boolean'),
  ...names('integer', 'smallint', 'mediumint', 'int', 'integer', 'bigint', 'int2', 'int4', 'int8', 'year'),
  ...names('integer', 'serial', 'bigserial', 'smallserial'),
  ...names('decimal', 'float', 'double', 'double precision', 'real', 'float4', 'float8', 'money'),
  ...names('date', 'date'),
  ...names('time', 'time', 'time without time zone'),
  ...names(
    'instant',
    'datetime',
    'timestamp',
    'timestamptz',
    'timestamp with time zone',
    'timestamp without time zone',
  ),
  ...names('duration', 'interval'),
  ...names('uuid', 'uuid'),
  ...names('json', 'json', 'jsonb'),
]);

/** Narrows a type by the checks of the table that concern the column alone. */
function withChecks(table: SqlTable, column: SqlColumn, type: AttributeType): AttributeType {
  let narrowed = type;
  for (const { meaning } of table.checks) {
    if (meaning === null || !same(meaning.column, column.name)) continue;
    if (meaning.kind === 'in' && narrowed.kind === 'text') {
      narrowed = { kind: 'choice', options: [...new Set(meaning.options)] };
    } else if (meaning.kind === 'range' && (narrowed.kind === 'integer' || narrowed.kind === 'decimal')) {
      narrowed = { ...narrowed, min: meaning.min ?? narrowed.min, max: meaning.max ?? narrowed.max };
    } else if (meaning.kind === 'length' && narrowed.kind === 'text') {
      narrowed = { ...narrowed, min: meaning.min ?? narrowed.min, max: meaning.max ?? narrowed.max };
    }
  }
  return narrowed;
}
