import { compareText, sortableText } from './text.js';
import type { Json } from './records.js';
import type { CompareOperator, ScalarType } from './types.js';

type Scalar = string | number | boolean;

/** How two values of a type are ordered: below zero where the first comes before the second. */
export type ScalarOrder = (a: Scalar, b: Scalar) => number;

const byNumber: ScalarOrder = (a, b) => Number(a) - Number(b);
const byText: ScalarOrder = (a, b) => compareText(String(a), String(b));
const byInstant: ScalarOrder = (a, b) => compareInstants(String(a), String(b));
const byDuration: ScalarOrder = (a, b) => durationSeconds(String(a)) - durationSeconds(String(b));

/** The order of a type: numbers and instants by size, choices by their place, text by code point. */
export function scalarOrder(type: ScalarType): ScalarOrder {
  switch (type.kind) {
    case 'integer':
    case 'decimal':
    case 'boolean':
      return byNumber;
    case 'choice': {
      const { options } = type;
      return (a, b) => options.indexOf(String(a)) - options.indexOf(String(b));
    }
    case 'instant':
      return byInstant;
    case 'duration':
      return byDuration;
    case 'text':
    case 'date':
    case 'time':
    case 'uuid':
    case 'email':
    case 'uri':
      return byText;
  }
}

/** What stands for a value where many are sorted: `<` orders it as the value is ordered. */
export type SortValue =
  | { readonly kind: 'number'; readonly of: (value: Scalar) => number }
  | { readonly kind: 'text'; readonly of: (value: Scalar) => string };

/** What stands for the values of a type where many are sorted. What is equal then may still differ in its text. */
export function sortValue(type: ScalarType): SortValue {
  switch (type.kind) {
    case 'integer':
    case 'decimal':
    case 'boolean':
      return { kind: 'number', of: Number };
    case 'choice': {
      const places = new Map(type.options.map((option, place) => [option, place]));
      return { kind: 'number', of: (value) => places.get(String(value)) ?? -1 };
    }
    case 'instant':
      return { kind: 'number', of: (value) => instantMillis(String(value)) };
    case 'duration':
      return { kind: 'number', of: (value) => durationSeconds(String(value)) };
    case 'text':
    case 'date':
    case 'time':
    case 'uuid':
    case 'email':
    case 'uri':
      return { kind: 'text', of: (value) => sortableText(String(value)) };
  }
}

/** Orders two values of one type. */
export const compareScalars = (type: ScalarType, a: Scalar, b: Scalar): number => scalarOrder(type)(a, b);

/** What is written alike, as most instants of a mock are, is in the order of its text. */
const isPlainUtc = (text: string): boolean => text.length >= 20 && text[10] === 'T' && text.endsWith('Z');

function compareInstants(a: string, b: string): number {
  if (a.length === b.length && isPlainUtc(a) && isPlainUtc(b)) return a < b ? -1 : a > b ? 1 : 0;
  return instantMillis(a) - instantMillis(b) || compareText(a, b);
}

/** Whether two values of one type mean the same; instants may be written with different offsets. */
export const sameScalar = (type: ScalarType, a: Scalar, b: Scalar): boolean =>
  type.kind === 'instant' ? instantMillis(String(a)) === instantMillis(String(b)) : a === b;

/** Milliseconds since 1970 of an RFC 3339 instant; a leap second counts as the second before it. */
export const instantMillis = (text: string): number =>
  isPlainUtc(text) && !text.includes(':60')
    ? Date.parse(text)
    : Date.parse(text.toUpperCase().replace(/:60(?=[.Z+-])/, ':59'));

const DURATION =
  /^P(?:(\d+)Y)?(?:(\d+)M)?(?:(\d+)W)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)?$/;
const DAY = 86_400;
const YEAR = 365.2425 * DAY;
const UNITS = [YEAR, YEAR / 12, 7 * DAY, DAY, 3_600, 60, 1];

/** The months of an ISO 8601 duration, and the seconds of the rest, in which a day has 24 hours; `null` where it is none. */
export function durationParts(text: string): { readonly months: number; readonly seconds: number } | null {
  const parts = DURATION.exec(text)
    ?.slice(1)
    .map((part: string | undefined) => Number(part ?? 0));
  if (parts === undefined) return null;
  const [years = 0, months = 0, ...rest] = parts;
  return {
    months: years * 12 + months,
    seconds: rest.reduce((sum, part, index) => sum + part * (UNITS[index + 2] ?? 0), 0),
  };
}

/** The length of an ISO 8601 duration in seconds, with years and months of mean length. */
function durationSeconds(text: string): number {
  const parts: readonly (string | undefined)[] = DURATION.exec(text)?.slice(1) ?? [];
  return parts.reduce<number>((sum, part, index) => sum + Number(part ?? 0) * (UNITS[index] ?? 0), 0);
}

export const COMPARE_OPERATORS: readonly CompareOperator[] = ['=', '!=', '<', '<=', '>', '>='];

/** Whether a value compares so with another. What is unset only differs; it is neither less nor greater. */
export function comparesTo(type: ScalarType, value: Json, operator: CompareOperator, other: Scalar): boolean {
  if (value === null || typeof value === 'object') return operator === '!=';
  if (operator === '=') return sameScalar(type, value, other);
  if (operator === '!=') return !sameScalar(type, value, other);
  const order = compareScalars(type, value, other);
  switch (operator) {
    case '<':
      return order < 0;
    case '<=':
      return order <= 0;
    case '>':
      return order > 0;
    case '>=':
      return order >= 0;
  }
}
