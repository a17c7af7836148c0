import {
  checkScalar,
  codePointLength,
  decimalPlaces,
  type AttributeType,
  type Json,
  type ScalarType,
} from '../../model/index.js';
import { counted, typeByName } from '../build.js';
import type { SampleTable } from './tables.js';

/** What all values of one column have in common. */
export interface Profile {
  readonly column: string;
  /** Values that are there and not null. */
  readonly present: number;
  readonly missing: number;
  /** As texts. */
  readonly distinct: ReadonlySet<string>;
  readonly type: AttributeType;
  /** What the values show, in a few words. */
  readonly evidence: string;
}

/** A choice has few options, each of which comes again. */
const MOST_OPTIONS = 12;
const OPTION_LENGTH = 24;

export function profileOf(table: SampleTable, column: string): Profile {
  const values: Json[] = [];
  for (const { values: row } of table.rows) {
    const value = row.get(column);
    if (value !== undefined && value !== null) values.push(value);
  }
  const missing = table.rows.length - values.length;
  const distinct = new Set(
    values.map((value) => (typeof value === 'string' ? value : JSON.stringify(value))),
  );
  const { type, what } = typeOfValues(column, values, distinct);
  const absent = missing === 0 ? 'never missing' : `missing in ${missing} of ${table.rows.length}`;
  return {
    column,
    present: values.length,
    missing,
    distinct,
    type,
    evidence: `${counted(values.length, 'value')}, ${what}; ${absent}`,
  };
}

interface Guess {
  readonly type: AttributeType;
  readonly what: string;
}

function typeOfValues(column: string, values: readonly Json[], distinct: ReadonlySet<string>): Guess {
  if (values.length === 0)
    return { type: { kind: 'text', pattern: null, min: null, max: null }, what: 'none to go by' };
  if (values.every((value) => Array.isArray(value))) return listOf(column, values);
  if (values.every((value) => typeof value === 'boolean'))
    return { type: { kind: 'boolean' }, what: 'true or false' };
  if (values.every((value) => typeof value === 'number')) return numbers(column, values);
  if (values.every((value) => typeof value === 'string')) return texts(column, values, distinct);
  return { type: { kind: 'json' }, what: 'of several kinds' };
}

function listOf(column: string, lists: readonly Json[]): Guess {
  const items = lists.flatMap((list) => list as readonly Json[]);
  const plain = items.filter((item) => item !== null);
  const distinct = new Set(plain.map((item) => JSON.stringify(item)));
  const { type, what } = typeOfValues(column, plain, distinct);
  const of = type.kind === 'list' ? ({ kind: 'json' } as const) : type;
  return { type: { kind: 'list', of, min: null, max: null }, what: `lists of ${what}` };
}

/** Names of amounts, which have two digits behind the point. */
const MONEY = /(price|amount|total|cost|fee|fare|balance)$/i;

function numbers(column: string, values: readonly number[]): Guess {
  const places = values.reduce((most, value) => Math.max(most, decimalPlaces(value)), 0);
  let [min, max] = [Infinity, -Infinity];
  for (const value of values) {
    min = Math.min(min, value);
    max = Math.max(max, value);
  }
  const range = min === max ? `all ${min}` : `from ${min} to ${max}`;
  // A sample shows what numbers there are, not where they must end.
  if (places === 0)
    return { type: { kind: 'integer', min: null, max: null }, what: `whole numbers ${range}` };
  const scale = places <= 2 && MONEY.test(column) ? 2 : null;
  return { type: { kind: 'decimal', min: null, max: null, scale }, what: `numbers ${range}` };
}

/** Types that a text may have, the narrowest first. */
const TEXT_KINDS: readonly (readonly [ScalarType, string])[] = [
  [{ kind: 'uuid' }, 'uuids'],
  [{ kind: 'date' }, 'dates'],
  [{ kind: 'instant' }, 'instants'],
  [{ kind: 'time' }, 'times of day'],
  [{ kind: 'duration' }, 'durations'],
  [{ kind: 'email' }, 'e-mail addresses'],
];

const NUMBER = /^-?(?:0|[1-9]\d{0,14})(?:\.\d{1,15})?$/;

function texts(column: string, values: readonly string[], distinct: ReadonlySet<string>): Guess {
  if (values.every((value) => value === 'true' || value === 'false'))
    return { type: { kind: 'boolean' }, what: 'true or false' };
  if (values.every((value) => NUMBER.test(value))) return numbers(column, values.map(Number));
  for (const [type, what] of TEXT_KINDS)
    if (values.every((value) => checkScalar(type, value) === null)) return { type, what };
  const byName = typeByName(column);
  if (byName !== null && byName.kind !== 'list' && values.every((value) => fits(byName, value)))
    return { type: byName, what: 'as its name says' };
  if (values.every((value) => /^https?:\/\/\S+$/.test(value)))
    return { type: { kind: 'uri' }, what: 'web addresses' };
  const options = [...distinct];
  const isChoice =
    values.length >= 6 &&
    options.length <= MOST_OPTIONS &&
    options.length * 3 <= values.length &&
    options.every((option) => option.length <= OPTION_LENGTH && option.trim() === option && option !== '');
  if (isChoice) return { type: { kind: 'choice', options }, what: `${options.length} different ones` };
  const longest = values.reduce((most, value) => Math.max(most, codePointLength(value)), 0);
  return {
    type: { kind: 'text', pattern: null, min: null, max: roomFor(longest) },
    what: `texts of up to ${counted(longest, 'character')}`,
  };
}

const fits = (type: AttributeType, value: string): boolean =>
  type.kind !== 'json' && type.kind !== 'value' && type.kind !== 'list' && checkScalar(type, value) === null;

/** A round length with room for longer texts than the sample has. */
const roomFor = (longest: number): number =>
  [20, 40, 80, 120, 200, 400, 1_000, 2_000, 4_000].find((size) => size >= longest * 1.5) ?? longest * 2;
