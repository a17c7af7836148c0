import {
  greatest,
  type Attribute,
  type AttributeType,
  type ExclusiveBounds,
  type Range,
} from '../../model/index.js';
import type { ColumnDefault, ColumnType, Dialect } from './dialect.js';
import { commentOf, type CheckDraft, type ColumnDraft } from './draft.js';

/** Longer texts have a type without a length, and a check. */
const LONGEST_VARCHAR = 255;
/** What an index can hold of a key. */
const LONGEST_KEY = 500;
const LONGEST_EMAIL = 254;
/** Digits of a decimal that has no range. */
const MOST_DIGITS = 38;
const SMALLEST_INT = -2_147_483_648;
const GREATEST_INT = 2_147_483_647;

/** The column of an attribute, with what its values satisfy and what cannot be said of it. */
export interface ColumnFacts {
  readonly column: ColumnDraft;
  readonly checks: readonly CheckDraft[];
  readonly unsaid: readonly string[];
}

/** `isKey`: whether other tables refer to it. */
export function columnOf(
  dialect: Dialect,
  attribute: Attribute,
  name: string,
  isKey: boolean,
  computed: string | null,
): ColumnFacts {
  const { type, required, key, generated, touched, description } = attribute;
  const spelled = spelledType(type, isKey);
  const isCounted = generated && type.kind === 'integer' && (isKey || dialect.name === 'PostgreSQL');
  const unsaid = [
    ...spelled.unsaid,
    ...(type.kind === 'duration' && dialect.name === 'MariaDB'
      ? ['is a duration, and a text of ISO 8601 here']
      : []),
    ...(touched && dialect.touched === null ? ['is set at every change, which wants a trigger here'] : []),
    ...(generated && type.kind === 'integer' && !isCounted
      ? ['is counted by the server, and is not here']
      : []),
    ...(attribute.fixed && key === null ? ['never changes'] : []),
    ...(attribute.readOnly && computed === null && key === null ? ['is set by no client'] : []),
    ...(attribute.writeOnly ? ['is never returned'] : []),
    ...(attribute.lifeCycle === null ? [] : ['moves along its life cycle only']),
  ];
  return {
    column: {
      name,
      type: spelled.type,
      isRequired: computed === null && (required || key !== null),
      default: defaultOf(attribute),
      made: isCounted ? 'counted' : touched && type.kind === 'instant' ? 'touched' : null,
      computed,
      comment: commentOf({ description }),
    },
    // No database checks what it counts itself.
    checks: computed === null && !isCounted ? spelled.checks(name) : [],
    unsaid,
  };
}

function defaultOf({ type, key, generated, touched, defaultValue }: Attribute): ColumnDefault | null {
  if ((generated || touched) && type.kind === 'instant') return { kind: 'now' };
  if (key?.generated === true && type.kind === 'uuid') return { kind: 'uuid' };
  if (defaultValue === null) return null;
  const isJson = type.kind === 'json' || typeof defaultValue === 'object';
  return { kind: 'literal', value: isJson ? JSON.stringify(defaultValue) : defaultValue };
}

interface Spelled {
  readonly type: ColumnType;
  readonly checks: (column: string) => readonly CheckDraft[];
  readonly unsaid: readonly string[];
}

const NO_CHECKS = (): readonly CheckDraft[] => [];
const plain = (type: ColumnType, ...unsaid: readonly string[]): Spelled => ({
  type,
  checks: NO_CHECKS,
  unsaid,
});

function spelledType(type: AttributeType, isKey: boolean): Spelled {
  switch (type.kind) {
    case 'text':
      return textType(type, isKey);
    case 'integer':
      return {
        type: {
          kind:
            type.min !== null && type.max !== null && type.min >= SMALLEST_INT && type.max <= GREATEST_INT
              ? 'integer'
              : 'bigint',
        },
        checks: rangeCheck(type),
        unsaid: [],
      };
    case 'decimal':
      return {
        type:
          type.scale === null
            ? { kind: 'double' }
            : { kind: 'numeric', precision: precisionOf(type, type.scale), scale: type.scale },
        checks: rangeCheck(type),
        unsaid: [],
      };
    case 'choice': {
      const length = greatest(lengths(type.options), 1);
      return {
        type: { kind: 'varchar', length },
        checks: (column) => [{ kind: 'options', column, options: type.options }],
        unsaid: [],
      };
    }
    case 'email':
      return plain({ kind: 'varchar', length: LONGEST_EMAIL }, 'is an e-mail address');
    case 'uri':
      return isKey
        ? plain(
            { kind: 'varchar', length: LONGEST_KEY },
            `is a URI, of at most ${LONGEST_KEY} characters here`,
          )
        : plain({ kind: 'text' }, 'is a URI');
    case 'value':
      return plain({ kind: 'json' }, `is a ${type.name}, and any JSON here`);
    case 'list':
      return plain({ kind: 'json' }, 'is a list, and any JSON here');
    case 'json':
    case 'boolean':
    case 'date':
    case 'time':
    case 'instant':
    case 'duration':
    case 'uuid':
      return plain({ kind: type.kind });
  }
}

const lengths = (texts: readonly string[]): readonly number[] => texts.map((text) => [...text].length);

function textType({ min, max, pattern }: Extract<AttributeType, { kind: 'text' }>, isKey: boolean): Spelled {
  const unsaid = pattern === null ? [] : ['has a pattern'];
  if (isKey && (max === null || max > LONGEST_KEY))
    unsaid.push(`is at most ${LONGEST_KEY} characters long here`);
  const length = isKey ? Math.min(max ?? LONGEST_KEY, LONGEST_KEY) : max;
  const isShort = length !== null && (isKey || length <= LONGEST_VARCHAR);
  const least = min !== null && min > 0 ? min : null;
  // No column is that short.
  const most = isShort && length > 0 ? null : max;
  return {
    type: isShort ? { kind: 'varchar', length: Math.max(1, length) } : { kind: 'text' },
    checks: (column) =>
      least === null && most === null ? [] : [{ kind: 'length', column, min: least, max: most }],
    unsaid,
  };
}

const rangeCheck =
  ({ min, max, exclusiveMin, exclusiveMax }: Range & ExclusiveBounds) =>
  (column: string): readonly CheckDraft[] =>
    min === null && max === null
      ? []
      : [
          {
            kind: 'range',
            column,
            min,
            max,
            ...(exclusiveMin === true ? { exclusiveMin } : {}),
            ...(exclusiveMax === true ? { exclusiveMax } : {}),
          },
        ];

/** Enough digits for the range, else the most there are. */
function precisionOf(
  { min, max }: { readonly min: number | null; readonly max: number | null },
  scale: number,
): number {
  if (min === null || max === null) return MOST_DIGITS;
  const whole = Math.max(digitsBefore(Math.abs(min)), digitsBefore(Math.abs(max)));
  return Math.min(MOST_DIGITS, Math.max(1, whole + scale));
}

const digitsBefore = (value: number): number => BigInt(Math.trunc(value)).toString().length;
