import { typeProblem } from '../engine/index.js';
import {
  codePointLength,
  scalarFromText,
  scalarText,
  type AttributeType,
  type Json,
  type Model,
  type ScalarType,
} from '../model/index.js';

/**
 * The nearest value that fits a type: numbers in a text, a text of a number, rounded, cut or brought into the range,
 * days of instants; `undefined` where there is none that means about the same.
 */
export function converted(model: Model, type: AttributeType, value: Json): Json | undefined {
  const found = nearestValue(model, type, value);
  return found === undefined || found === null || typeProblem(model, type, found) !== null
    ? undefined
    : found;
}

function nearestValue(model: Model, type: AttributeType, value: Json): Json | undefined {
  switch (type.kind) {
    case 'json':
      return value;
    case 'value':
      return undefined;
    case 'list': {
      const items = Array.isArray(value) ? (value as readonly Json[]) : [value];
      const kept = items.flatMap((item) => converted(model, type.of, item) ?? []);
      return kept.length < items.length ? undefined : kept.slice(0, type.max ?? kept.length);
    }
    default:
      return typeof value === 'object' ? undefined : nearestScalar(type, scalarText(value).trim());
  }
}

/** The value next to a bound that is not in the range itself. */
function besideBound(type: Extract<ScalarType, { kind: 'decimal' }>, value: number): number {
  const step = 10 ** -(type.scale ?? 6);
  const moved =
    type.exclusiveMin === true && value === type.min
      ? value + step
      : type.exclusiveMax === true && value === type.max
        ? value - step
        : value;
  return moved === value ? value : Number(moved.toFixed(type.scale ?? 6));
}

const YES: ReadonlySet<string> = new Set(['true', 'yes', '1']);
const NO: ReadonlySet<string> = new Set(['false', 'no', '0']);

function nearestScalar(type: ScalarType, text: string): Json | undefined {
  switch (type.kind) {
    case 'text':
      return type.max !== null && codePointLength(text) > type.max
        ? [...text].slice(0, type.max).join('')
        : text;
    case 'integer':
    case 'decimal': {
      const number = scalarFromText({ kind: 'decimal', min: null, max: null, scale: null }, text);
      if (typeof number !== 'number') return undefined;
      const scale = type.kind === 'integer' ? 0 : type.scale;
      const rounded = scale === null ? number : Number(number.toFixed(Math.min(scale, 100)));
      const inside = Math.min(Math.max(rounded, type.min ?? -Infinity), type.max ?? Infinity);
      return type.kind === 'integer' ? inside : besideBound(type, inside);
    }
    case 'boolean': {
      const word = text.toLowerCase();
      return YES.has(word) ? true : NO.has(word) ? false : undefined;
    }
    case 'choice':
      return type.options.find((option) => option.toLowerCase() === text.toLowerCase());
    case 'date':
      return text.slice(0, 10);
    case 'time':
      return /T(\d\d:\d\d:\d\d)/.exec(text)?.[1] ?? text;
    case 'instant':
      return /^\d{4}-\d\d-\d\d$/.test(text) ? `${text}T00:00:00Z` : text;
    case 'uuid':
      return text.toLowerCase();
    case 'duration':
    case 'email':
    case 'uri':
      return text;
  }
}
