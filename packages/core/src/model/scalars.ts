import { RE2JS } from 're2js';
import { codePointLength, listed } from './text.js';
import type { ExclusiveBounds, Range, ScalarType } from './types.js';

/** One way in which a value fails its type. `code` is stable; `message` is plain English. */
export interface ScalarProblem {
  readonly code: string;
  readonly message: string;
}

const DATE = /^(\d{4})-(\d{2})-(\d{2})$/;
/** A local time, `HH:MM:SS` (ISO 8601-1 §5.3.1). */
export const TIME = /^([01]\d|2[0-3]):[0-5]\d:[0-5]\d$/;
const INSTANT =
  /^(\d{4}-\d{2}-\d{2})[Tt]([01]\d|2[0-3]):[0-5]\d:([0-5]\d|60)(\.\d+)?([Zz]|[+-]([01]\d|2[0-3]):[0-5]\d)$/;
/** An ISO 8601-1 §5.5.2 duration. */
export const DURATION = /^P(?!$)(\d+Y)?(\d+M)?(\d+W)?(\d+D)?(T(?=\d)(\d+H)?(\d+M)?(\d+(\.\d+)?S)?)?$/;
const UUID = /^[0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12}$/;
const EMAIL =
  /^[A-Za-z0-9.!#$%&'*+/=?^_`{|}~-]{1,64}@[A-Za-z0-9](?:[A-Za-z0-9-]{0,62})(?:\.[A-Za-z0-9](?:[A-Za-z0-9-]{0,62}))+$/;

/** RFC 3339 §5.6 full-date with a real day of the month. */
export function isDate(text: string): boolean {
  const match = DATE.exec(text);
  if (match === null) return false;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  if (month < 1 || month > 12 || day < 1) return false;
  const leap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  const lengths = [31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];
  return day <= (lengths[month - 1] ?? 0);
}

/** RFC 3339 §5.6 date-time. */
export function isInstant(text: string): boolean {
  const match = INSTANT.exec(text);
  return match !== null && isDate(match[1] ?? '');
}

/** RFC 3986 §3: a scheme, then only characters and percent-encodings that a URI may hold. */
const ABSOLUTE_URI = /^[A-Za-z][A-Za-z0-9+.-]*:[A-Za-z0-9\-._~:/?#[\]@!$&'()*+,;=%]+$/;
const BROKEN_ENCODING = /%(?![0-9A-Fa-f]{2})/;

const isAbsoluteUri = (text: string): boolean => ABSOLUTE_URI.test(text) && !BROKEN_ENCODING.test(text);

/** The number of digits after the decimal point in the shortest exact form of a number. */
export function decimalPlaces(value: number): number {
  const [mantissa = '', exponent = '0'] = String(value).toLowerCase().split('e');
  const fraction = mantissa.split('.')[1] ?? '';
  return Math.max(0, fraction.length - Number(exponent));
}

const patterns = new Map<string, RE2JS>();

/** Compiles a pattern to an automaton that runs in linear time, whatever the text. Throws on bad syntax. */
export function compilePattern(pattern: string): RE2JS {
  let compiled = patterns.get(pattern);
  if (compiled === undefined) {
    compiled = RE2JS.compile(pattern);
    if (patterns.size > 2_000) patterns.clear();
    patterns.set(pattern, compiled);
  }
  return compiled;
}

/** Why a pattern cannot be read; `null` when it can. */
export function patternProblem(pattern: string): string | null {
  try {
    compilePattern(pattern);
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/** What a value of the type looks like, for messages: "an integer from 1 to 6". */
export function describeType(type: ScalarType): string {
  switch (type.kind) {
    case 'text':
      return `text${describeLength(type.min, type.max)}`;
    case 'integer':
      return `an integer${describeRange(type.min, type.max, ' ', '')}`;
    case 'decimal':
      return `a number${describeBounds(type)}${type.scale === null ? '' : ` with at most ${type.scale} decimals`}`;
    case 'boolean':
      return 'true or false';
    case 'date':
      return 'a date such as "2026-06-14"';
    case 'time':
      return 'a local time such as "08:30:00"';
    case 'instant':
      return 'an instant such as "2026-06-14T08:30:00Z"';
    case 'duration':
      return 'an ISO 8601 duration such as "PT1H30M"';
    case 'uuid':
      return 'a UUID';
    case 'email':
      return 'an e-mail address';
    case 'uri':
      return 'an absolute URI';
    case 'choice':
      return `one of ${listed(type.options)}`;
  }
}

function describeLength(min: number | null, max: number | null): string {
  if (min !== null && max !== null)
    return min === max ? ` of ${min} characters` : ` of ${min} to ${max} characters`;
  return describeRange(min, max, ' of ', ' characters');
}

/** `greater than 0 and at most 1`; where both bounds are in it, `from 0 to 1`. */
function describeBounds({ min, max, exclusiveMin, exclusiveMax }: Range & ExclusiveBounds): string {
  if (exclusiveMin !== true && exclusiveMax !== true) return describeRange(min, max, ' ', '');
  const low = min === null ? [] : [`${exclusiveMin === true ? 'greater than' : 'at least'} ${min}`];
  const high = max === null ? [] : [`${exclusiveMax === true ? 'less than' : 'at most'} ${max}`];
  const said = [...low, ...high].join(' and ');
  return said === '' ? '' : ` ${said}`;
}

function describeRange(min: number | null, max: number | null, before: string, after: string): string {
  if (min !== null && max !== null) return `${before}from ${min} to ${max}${after}`;
  if (min !== null) return `${before}at least ${min}${after}`;
  if (max !== null) return `${before}at most ${max}${after}`;
  return '';
}

/** Checks one JSON value against a scalar type. Returns `null` when it fits. */
export function checkScalar(type: ScalarType, value: unknown): ScalarProblem | null {
  switch (type.kind) {
    case 'text':
      return checkText(type, value);
    case 'integer':
      if (typeof value !== 'number' || !Number.isInteger(value)) return wrongType(type);
      if (!Number.isSafeInteger(value)) {
        return { code: 'range', message: 'Expected an integer within ±9007199254740991.' };
      }
      return outside(type.min, type.max, value)
        ? { code: 'range', message: `Expected ${describeType(type)}.` }
        : null;
    case 'decimal':
      if (typeof value !== 'number' || !Number.isFinite(value)) return wrongType(type);
      if (outside(type.min, type.max, value) || isExcluded(type, value))
        return { code: 'range', message: `Expected ${describeType(type)}.` };
      return type.scale !== null && decimalPlaces(value) > type.scale
        ? { code: 'scale', message: `Expected at most ${type.scale} digits after the point.` }
        : null;
    case 'boolean':
      return typeof value === 'boolean' ? null : wrongType(type);
    case 'date':
      return checkFormat(type, value, isDate);
    case 'time':
      return checkFormat(type, value, (text) => TIME.test(text));
    case 'instant':
      return checkFormat(type, value, isInstant);
    case 'duration':
      return checkFormat(type, value, (text) => DURATION.test(text));
    case 'uuid':
      return checkFormat(type, value, (text) => UUID.test(text));
    case 'email':
      return checkFormat(type, value, (text) => text.length <= 254 && EMAIL.test(text));
    case 'uri':
      return checkFormat(type, value, isAbsoluteUri);
    case 'choice':
      return typeof value === 'string' && type.options.includes(value)
        ? null
        : { code: 'choice', message: `Expected ${describeType(type)}.` };
  }
}

function checkText(type: Extract<ScalarType, { kind: 'text' }>, value: unknown): ScalarProblem | null {
  if (typeof value !== 'string') return wrongType(type);
  if (outside(type.min, type.max, codePointLength(value))) {
    return { code: 'length', message: `Expected ${describeType(type)}.` };
  }
  return type.pattern !== null && !compilePattern(type.pattern).matches(value)
    ? { code: 'pattern', message: `Expected text that matches ${type.pattern} as a whole.` }
    : null;
}

function checkFormat(
  type: ScalarType,
  value: unknown,
  fits: (text: string) => boolean,
): ScalarProblem | null {
  if (typeof value !== 'string') return wrongType(type);
  return fits(value) ? null : { code: 'format', message: `Expected ${describeType(type)}.` };
}

/** Whether a value is a bound that is not in the range itself. */
const isExcluded = (
  { min, max, exclusiveMin, exclusiveMax }: Range & ExclusiveBounds,
  value: number,
): boolean => (exclusiveMin === true && value === min) || (exclusiveMax === true && value === max);

const wrongType = (type: ScalarType): ScalarProblem => ({
  code: 'type',
  message: `Expected ${describeType(type)}.`,
});

const outside = (min: number | null, max: number | null, value: number): boolean =>
  (min !== null && value < min) || (max !== null && value > max);

/**
 * Reads a scalar from the text of a path segment or query parameter.
 * Returns `undefined` when the text is not a value of that kind of type; ranges are not checked here.
 */
export function scalarFromText(type: ScalarType, text: string): string | number | boolean | undefined {
  switch (type.kind) {
    case 'integer': {
      if (!/^(0|-?[1-9]\d*)$/.test(text)) return undefined;
      const value = Number(text);
      return Number.isSafeInteger(value) ? value : undefined;
    }
    case 'decimal':
      return /^-?(0|[1-9]\d*)(\.\d+)?([eE][+-]?\d+)?$/.test(text) && Number.isFinite(Number(text))
        ? Number(text)
        : undefined;
    case 'boolean':
      return text === 'true' ? true : text === 'false' ? false : undefined;
    case 'text':
      return text;
    case 'date':
    case 'time':
    case 'instant':
    case 'duration':
    case 'uuid':
    case 'email':
    case 'uri':
    case 'choice':
      return checkScalar(type, text) === null ? text : undefined;
  }
}
