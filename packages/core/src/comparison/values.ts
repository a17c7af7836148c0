import {
  checkScalar,
  describeType,
  type ExclusiveBounds,
  type Range,
  type ScalarType,
} from '../model/index.js';
import type { MemberType } from '../contract/index.js';

type Bounds = Range & ExclusiveBounds;

/**
 * Why some value of one type is none of another, as the end of a sentence that begins with the name of what has
 * it; `null` where each fits. Shapes inside are compared on their own.
 */
export function notWithin(inner: MemberType, outer: MemberType): string | null {
  if (outer.kind === 'json') return null;
  if (inner.kind === 'json') return `is ${describe(outer)}, no longer any JSON`;
  if (inner.kind === 'list' && outer.kind === 'list')
    return boundsProblem(inner, outer, 'elements') ?? notWithin(inner.of, outer.of);
  if (isScalar(inner) && isScalar(outer)) return scalarProblem(inner, outer);
  return inner.kind === outer.kind ? null : otherKind(inner, outer);
}

/** The same, of two types of scalar values. */
export function scalarProblem(inner: ScalarType, outer: ScalarType): string | null {
  if (outer.kind === 'text') {
    if (inner.kind === 'text') return textProblem(inner, outer);
    if (inner.kind === 'choice') return optionsAsText(inner.options, outer);
    const isText = !['integer', 'decimal', 'boolean'].includes(inner.kind);
    const takesAny = outer.min === null && outer.max === null && outer.pattern === null;
    return isText && takesAny ? null : otherKind(inner, outer);
  }
  if (outer.kind === 'decimal' && (inner.kind === 'decimal' || inner.kind === 'integer'))
    return numberProblem(inner, outer);
  if (outer.kind === 'integer' && inner.kind === 'integer') return numberProblem(inner, outer);
  if (outer.kind === 'choice' && inner.kind === 'choice') {
    const left = inner.options.filter((option) => !outer.options.includes(option));
    return left.length === 0 ? null : `does not have ${left.join(', ')}`;
  }
  return inner.kind === outer.kind ? null : otherKind(inner, outer);
}

const STRUCTURES = { json: 'any JSON', shape: 'an object', list: 'an array', links: 'links', page: 'a page' };

/** What a value looks like, for messages. */
export const describe = (type: MemberType): string =>
  isScalar(type) ? describeType(type) : STRUCTURES[type.kind];

const isScalar = (type: MemberType): type is ScalarType => !Object.hasOwn(STRUCTURES, type.kind);

const otherKind = (inner: MemberType, outer: MemberType): string =>
  `is ${describe(outer)}, not ${describe(inner)}`;

type Text = Extract<ScalarType, { kind: 'text' }>;

function textProblem(inner: Text, outer: Text): string | null {
  const bounds = boundsProblem(inner, outer, 'characters');
  if (bounds !== null || outer.pattern === null || outer.pattern === inner.pattern) return bounds;
  return `has to match ${outer.pattern}`;
}

function optionsAsText(options: readonly string[], outer: Text): string | null {
  const left = options.filter((option) => checkScalar(outer, option) !== null);
  return left.length === 0 ? null : `does not have ${left.join(', ')}`;
}

function numberProblem(
  inner: Bounds & { readonly kind: 'integer' | 'decimal'; readonly scale?: number | null },
  outer: Bounds & { readonly scale?: number | null },
): string | null {
  const bounds = boundsProblem(inner, outer, '');
  const scale = outer.scale ?? null;
  if (bounds !== null || scale === null || inner.kind === 'integer') return bounds;
  return (inner.scale ?? Infinity) <= scale ? null : `has at most ${scale} decimals`;
}

function boundsProblem(inner: Bounds, outer: Bounds, unit: string): string | null {
  const counted = unit === '' ? '' : ` ${unit}`;
  if (outer.max !== null) {
    const isLess = outer.exclusiveMax === true;
    const reaches = inner.max === outer.max && isLess && inner.exclusiveMax !== true;
    if ((inner.max ?? Infinity) > outer.max || reaches)
      return `is ${isLess ? 'less than' : 'at most'} ${outer.max}${counted}`;
  }
  if (outer.min !== null) {
    const isGreater = outer.exclusiveMin === true;
    const reaches = inner.min === outer.min && isGreater && inner.exclusiveMin !== true;
    const begins = unit !== '' && outer.min <= 0;
    if (!begins && ((inner.min ?? -Infinity) < outer.min || reaches))
      return `is ${isGreater ? 'greater than' : 'at least'} ${outer.min}${counted}`;
  }
  return null;
}
