import type { Attribute, AttributeType } from '../../model/index.js';
import { camelCase, checkScalar } from '../../model/index.js';
import type { Report } from '../report.js';
import type { SqlColumn, SqlSchema, SqlTable } from './schema.js';

const NUMBER = /^\d+$/;
const SECRET = /^(password|passwd|pin|secret|api_?key|token)(_?hash)?$/i;

/** The attribute a column becomes; `null` where its type has no place in a model. */
export function attributeOf(
  schema: SqlSchema,
  table: SqlTable,
  column: SqlColumn,
  entity: string,
  report: Report,
): Attribute | null {
  const single = typeOf(schema, column);
  if (single === null) {
    report.leave(column.line, `${column.name} ${column.type}`, 'A model has no type for it.');
    return null;
  }
  const name = camelCase(column.name.replace(/[^A-Za-z0-9]+/g, '_'));
  const type: AttributeType = column.isArray ? { kind: 'list', min: null, max: null, of: single } : single;
  const checked = withChecks(table, column, type, report);
  const made = column.default?.kind === 'now' && checked.kind === 'instant';
  const unique = table.uniques.some((names) => names.length === 1 && same(names[0], column.name));
  const secret = SECRET.test(column.name);
  if (secret) report.assume(column.line, column.name, 'A secret by its name, so it is never returned.');
  if (column.default?.kind === 'other')
    report.leave(
      column.line,
      `${column.name} DEFAULT ${column.default.text}`,
      'Only literals and the time are defaults.',
    );
  const generated = column.auto || (made && !column.onUpdateNow);
  return {
    kind: 'attribute',
    id: `${entity}.${name}`,
    name,
    type: checked,
    description: column.comment,
    comments: [],
    required: column.notNull,
    unique,
    uniqueWithin: null,
    key: null,
    generated: generated && (checked.kind === 'integer' || checked.kind === 'instant'),
    touched: column.onUpdateNow && checked.kind === 'instant',
    fixed: false,
    readOnly: false,
    writeOnly: secret,
    defaultValue: generated ? null : defaultOf(checked, column),
    example: null,
    lifeCycle: null,
  };
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
function withChecks(table: SqlTable, column: SqlColumn, type: AttributeType, report: Report): AttributeType {
  let narrowed = type;
  for (const { meaning, line, text } of table.checks) {
    if (meaning === null || !same(meaning.column, column.name)) continue;
    if (meaning.kind === 'in' && narrowed.kind === 'text') {
      narrowed = { kind: 'choice', options: [...new Set(meaning.options)] };
      report.understand(line, text, `${column.name} is one of ${meaning.options.length} options.`);
    } else if (meaning.kind === 'range' && (narrowed.kind === 'integer' || narrowed.kind === 'decimal')) {
      narrowed = { ...narrowed, min: meaning.min ?? narrowed.min, max: meaning.max ?? narrowed.max };
      report.understand(line, text, `${column.name} has a range.`);
    }
  }
  return narrowed;
}
