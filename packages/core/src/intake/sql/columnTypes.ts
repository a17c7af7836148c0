import type { AttributeType } from '../../model/index.js';
import type { SqlCheck, SqlColumn, SqlDefault, SqlSchema } from './schema.js';

const NUMBER = /^\d+$/;

/** What the type of a column comes to. */
export interface TypeOfColumn {
  readonly type: AttributeType;
  /** How a text writes what is no text in the database; `null` where nothing needs to be said. */
  readonly form: string | null;
  /** What its domain asks of it. */
  readonly checks: readonly SqlCheck[];
  readonly notNull: boolean;
  readonly default: SqlDefault | null;
}

const PLAIN = { form: null, checks: [], notNull: false, default: null } as const;

/** Domains may be made of domains, so deep. */
const DEEPEST = 8;

/** The type of one value of a column; `null` where a model has none for it. */
export function columnType(schema: SqlSchema, column: SqlColumn, left = DEEPEST): TypeOfColumn | null {
  const declared = schema.type(column.type);
  if (declared?.kind === 'options') return { ...PLAIN, type: { kind: 'choice', options: declared.options } };
  if (declared?.kind === 'domain') {
    const of = left === 0 ? null : columnType(schema, declared.column, left - 1);
    if (of === null) return null;
    const type: AttributeType = declared.column.isArray
      ? { kind: 'list', min: null, max: null, of: of.type }
      : of.type;
    return {
      type,
      form: of.form,
      checks: [...of.checks, ...declared.checks],
      notNull: of.notNull || declared.column.notNull,
      default: declared.column.default ?? of.default,
    };
  }
  const form = Object.hasOwn(FORMS, column.type) ? FORMS[column.type] : undefined;
  if (form !== undefined) {
    const type: AttributeType = { kind: 'text', pattern: form.pattern, min: null, max: null };
    return { ...PLAIN, type, form: form.says };
  }
  const type = plainType(column);
  if (type === null) return null;
  const says = /^bit/.test(column.type) && type.kind === 'text' ? BITS : null;
  return { ...PLAIN, type, form: says };
}

/** A column as the database stores it: of a domain the type that it is made of. */
export function baseColumn(schema: SqlSchema, column: SqlColumn, left = DEEPEST): SqlColumn {
  const declared = schema.type(column.type);
  if (declared?.kind !== 'domain' || left === 0) return column;
  const base = baseColumn(schema, declared.column, left - 1);
  return { ...column, type: base.type, isArray: column.isArray || base.isArray };
}

interface Form {
  readonly says: string;
  readonly pattern: string | null;
}

const BASE64: Form = { says: 'In base64 (RFC 4648 §4)', pattern: '[A-Za-z0-9+/]*={0,2}' };
const BITS = 'Bits, as 0 and 1';

/** What a database holds otherwise, and JSON as text. */
const FORMS: Readonly<Record<string, Form>> = {
  ...Object.fromEntries(
    ['blob', 'tinyblob', 'mediumblob', 'longblob', 'binary', 'varbinary', 'bytea', 'image'].map((name) => [
      name,
      BASE64,
    ]),
  ),
  inet: {
    says: 'An IP address, with the length of its network or without',
    pattern: '[0-9a-f:.]{2,39}(/[0-9]{1,3})?',
  },
  inet4: { says: 'An IPv4 address', pattern: '[0-9]{1,3}(\\.[0-9]{1,3}){3}' },
  inet6: { says: 'An IPv6 address', pattern: '[0-9a-f:.]{2,39}' },
  cidr: { says: 'A network in CIDR notation (RFC 4632)', pattern: '[0-9a-f:.]{2,39}/[0-9]{1,3}' },
  macaddr: { says: 'A MAC address', pattern: '[0-9a-f]{2}(:[0-9a-f]{2}){5}' },
  macaddr8: { says: 'A MAC address of eight bytes', pattern: '[0-9a-f]{2}(:[0-9a-f]{2}){7}' },
  xml: { says: 'XML', pattern: null },
};

function plainType({ type, args }: SqlColumn): AttributeType | null {
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
      if (first === '' || first === '1') return { kind: 'boolean' };
      return { kind: 'text', pattern: '[01]*', min: Number(first), max: Number(first) };
    case 'bit varying':
    case 'varbit':
      return { kind: 'text', pattern: '[01]*', min: null, max: NUMBER.test(first) ? Number(first) : null };
    case 'money':
      return { kind: 'decimal', min: null, max: null, scale: 2 };
    case 'decimal':
    case 'numeric':
    case 'fixed':
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
  ...names(
    'text',
    'char',
    'character',
    'varchar',
    'character varying',
    'char varying',
    'nvarchar',
    'nchar',
    'bpchar',
  ),
  ...names(
    'text',
    'text',
    'tinytext',
    'mediumtext',
    'longtext',
    'ntext',
    'citext',
    'name',
    'ltree',
    'varchar2',
    'clob',
  ),
  ...names('boolean', 'bool', 'boolean'),
  ...names(
    'integer',
    'smallint',
    'mediumint',
    'int',
    'integer',
    'bigint',
    'int2',
    'int4',
    'int8',
    'year',
    'oid',
  ),
  ...names('integer', 'int1', 'int3', 'middleint'),
  ...names('integer', 'serial', 'bigserial', 'smallserial', 'serial2', 'serial4', 'serial8'),
  ...names('decimal', 'float', 'double', 'double precision', 'real', 'float4', 'float8', 'number'),
  ...names('date', 'date'),
  ...names('time', 'time', 'time without time zone', 'time with time zone', 'timetz'),
  ...names(
    'instant',
    'datetime',
    'timestamp',
    'timestamptz',
    'timestamp with time zone',
    'timestamp without time zone',
  ),
  ...names('duration', 'interval'),
  ...names('uuid', 'uuid', 'uniqueidentifier'),
  ...names('json', 'json', 'jsonb', 'hstore'),
]);
