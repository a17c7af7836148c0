import type { AttributeType } from '../model/index.js';

/** One end of a range as a source says it. */
export interface Bound {
  readonly value: number;
  /** Whether the bound itself is out. */
  readonly isExclusive: boolean;
}

interface Ends {
  readonly min: number | null;
  readonly max: number | null;
}

/** The narrower of two ranges. */
const within = (known: Ends, min: number | null, max: number | null): Ends => ({
  min: known.min === null ? min : min === null ? known.min : Math.max(known.min, min),
  max: known.max === null ? max : max === null ? known.max : Math.min(known.max, max),
});

const wholeMin = (bound: Bound | null): number | null =>
  bound === null ? null : bound.isExclusive ? Math.floor(bound.value) + 1 : Math.ceil(bound.value);

const wholeMax = (bound: Bound | null): number | null =>
  bound === null ? null : bound.isExclusive ? Math.ceil(bound.value) - 1 : Math.floor(bound.value);

/** A range of whole numbers, narrowed by bounds. */
export const wholeWithin = (known: Ends, min: Bound | null, max: Bound | null): Ends =>
  within(known, wholeMin(min), wholeMax(max));

type Decimal = Extract<AttributeType, { kind: 'decimal' }>;

/** What is greater than a bound is at least the next value of the scale; without one the bound is said to be out. */
export function decimalWithin(type: Decimal, min: Bound | null, max: Bound | null): Decimal {
  const { scale, exclusiveMin, exclusiveMax } = type;
  if (scale !== null) {
    const step = (bound: Bound | null, sign: 1 | -1): number | null =>
      bound === null
        ? null
        : Number((bound.value + (bound.isExclusive ? sign * 10 ** -scale : 0)).toFixed(scale));
    return { ...type, ...within(type, step(min, 1), step(max, -1)) };
  }
  const ends = within(type, min?.value ?? null, max?.value ?? null);
  const isAbove =
    (exclusiveMin === true && ends.min === type.min) || (min?.isExclusive === true && ends.min === min.value);
  const isBelow =
    (exclusiveMax === true && ends.max === type.max) || (max?.isExclusive === true && ends.max === max.value);
  return {
    kind: 'decimal',
    scale,
    ...ends,
    ...(isAbove ? { exclusiveMin: true } : {}),
    ...(isBelow ? { exclusiveMax: true } : {}),
  };
}
