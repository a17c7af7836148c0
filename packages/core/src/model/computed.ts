import { comparesTo, durationParts, instantMillis } from './compare.js';
import { dividedBy, minus, plus, rational, rounded, sumOf, times, type Rational } from './rational.js';
import { scalarText, type Json } from './records.js';
import type {
  Aggregate,
  AggregateKind,
  AlongComparison,
  Attribute,
  AttributeType,
  Expression,
  ScalarType,
} from './types.js';

/** A record as an expression reads it. */
export interface RecordReading {
  /** The type of an attribute, and its value; `null` while it has none. */
  attribute(name: string): { readonly type: ScalarType; readonly value: Json } | null;
  /** The records that a role leads to. */
  along(role: string): readonly RecordReading[];
}

/** A value on the way: exact where it is a number. */
type Value = Rational | string | boolean;

const isNumber = (value: Value): value is Rational => typeof value === 'object';

/**
 * The value of a computed attribute for a record; `null` where an operand is unset, where it is divided by zero, or
 * where an integer would be beyond ±(2^53 − 1).
 */
export function computedValue({ type, computed }: Attribute, record: RecordReading): Json {
  const value = computed === null ? null : valueOf(computed, record);
  return value === null ? null : asValueOf(type, value);
}

/** A number as many digits long as the type has, none where it would be no safe integer. */
function asValueOf(type: AttributeType, value: Value): Json {
  if (!isNumber(value)) return value;
  const scale = type.kind === 'decimal' ? type.scale : 0;
  const number = rounded(value, scale);
  return type.kind === 'integer' && !Number.isSafeInteger(number) ? null : number;
}

function valueOf(expression: Expression, record: RecordReading): Value | null {
  switch (expression.kind) {
    case 'literal':
      return typeof expression.value === 'number' ? rational(expression.value) : expression.value;
    case 'attribute':
      return known(record.attribute(expression.name)?.value ?? null);
    case 'operation': {
      const left = valueOf(expression.left, record);
      const right = valueOf(expression.right, record);
      return left === null || right === null ? null : operated(expression.operator, left, right);
    }
    case 'aggregate':
      return aggregated(expression, record);
  }
}

function known(value: Json): Value | null {
  if (typeof value === 'number') return rational(value);
  return typeof value === 'string' || typeof value === 'boolean' ? value : null;
}

function operated(
  operator: Extract<Expression, { kind: 'operation' }>['operator'],
  left: Value,
  right: Value,
): Value | null {
  if (operator === '&') return textOf(left) + textOf(right);
  if (!isNumber(left) || !isNumber(right)) return moved(operator, textOf(left), textOf(right));
  switch (operator) {
    case '+':
      return plus(left, right);
    case '-':
      return minus(left, right);
    case '*':
      return times(left, right);
    case '/':
      return dividedBy(left, right);
  }
}

/** As many digits as a number holds. */
const textOf = (value: Value): string => scalarText(isNumber(value) ? rounded(value, null) : value);

/** An instant a duration later or earlier, by the calendar of UTC; a day that a month does not have is its last. */
function moved(operator: '+' | '-' | '*' | '/', left: string, right: string): string | null {
  const [instant, duration] = right.startsWith('P') ? [left, right] : [right, left];
  const parts = durationParts(duration);
  const start = instantMillis(instant);
  if (parts === null || Number.isNaN(start)) return null;
  const sign = operator === '-' ? -1 : 1;
  const date = new Date(start);
  const day = date.getUTCDate();
  date.setUTCDate(1);
  date.setUTCMonth(date.getUTCMonth() + sign * parts.months);
  const last = new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + 1, 0)).getUTCDate();
  date.setUTCDate(Math.min(day, last));
  const end = new Date(date.getTime() + sign * parts.seconds * 1_000);
  const isKnown = !Number.isNaN(end.getTime()) && end.getUTCFullYear() >= 0 && end.getUTCFullYear() <= 9999;
  return isKnown ? end.toISOString().replace('.000Z', 'Z') : null;
}

/** What is found along roles, taken together; what is unset is passed over. */
function aggregated(aggregate: Aggregate, record: RecordReading): Value | null {
  const records = found(aggregate, record);
  const { of, attribute } = aggregate;
  if (of === 'count' || attribute === null) return rational(records.length);
  return takenTogether(
    of,
    records.flatMap((one) => one.attribute(attribute) ?? []),
  );
}

type Read = NonNullable<ReturnType<RecordReading['attribute']>>;

function takenTogether(of: Exclude<AggregateKind, 'count'>, all: readonly Read[]): Value | null {
  if (of === 'min' || of === 'max') return outermost(of, all);
  const numbers = all.flatMap(({ value }) => (typeof value === 'number' ? [value] : []));
  return of === 'sum' ? sumOf(numbers) : dividedBy(sumOf(numbers), rational(numbers.length));
}

function outermost(of: 'min' | 'max', all: readonly Read[]): Value | null {
  let best: string | number | boolean | null = null;
  for (const { type, value } of all) {
    if (value === null || typeof value === 'object') continue;
    const isBeyond = best === null || comparesTo(type, value, of === 'min' ? '<' : '>', best);
    if (isBeyond) best = value;
  }
  return known(best);
}

/** Values taken together, as a computed attribute of a type would be: `null` where it would be unset. */
export function aggregateOf(
  of: Exclude<AggregateKind, 'count'>,
  all: readonly Read[],
  type: ScalarType,
): Json {
  const value = takenTogether(of, all);
  return value === null ? null : asValueOf(type, value);
}

/** The records at the end of the roles for which everything holds, themselves and on the way. */
function found({ roles, where }: Aggregate, record: RecordReading): readonly RecordReading[] {
  return roles.reduce<readonly RecordReading[]>(
    (records, role, index) => {
      const isLast = index === roles.length - 1;
      const asked = where.filter(
        (one) => one.roles.length === index + 1 || (isLast && one.roles.length === 0),
      );
      const next = records.flatMap((one) => one.along(role));
      return asked.length === 0
        ? next
        : next.filter((one) => asked.every((comparison) => holds(one, comparison)));
    },
    [record],
  );
}

function holds(record: RecordReading, { attribute, operator, value }: AlongComparison): boolean {
  const read = record.attribute(attribute);
  return read === null ? operator === '!=' : comparesTo(read.type, read.value, operator, value);
}
