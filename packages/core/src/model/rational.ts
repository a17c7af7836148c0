/** A fraction; the denominator is positive. */
export interface Rational {
  readonly over: bigint;
  readonly under: bigint;
}

const NUMBER = /^(-?)(\d+)(?:\.(\d+))?(?:e([+-]?\d+))?$/;

/** A finite number exactly as it is written in decimal digits. */
export function rational(value: number): Rational {
  if (Number.isSafeInteger(value)) return { over: BigInt(value), under: 1n };
  const [, sign = '', whole = '0', part = '', exponent = '0'] = NUMBER.exec(String(value)) ?? [];
  const shift = Number(exponent) - part.length;
  const digits = BigInt(sign + whole + part);
  return shift >= 0
    ? { over: digits * 10n ** BigInt(shift), under: 1n }
    : { over: digits, under: 10n ** BigInt(-shift) };
}

export const plus = (a: Rational, b: Rational): Rational =>
  a.under === b.under
    ? { over: a.over + b.over, under: a.under }
    : { over: a.over * b.under + b.over * a.under, under: a.under * b.under };

/** The sum of numbers, exactly; most are integers that a number holds. */
export function sumOf(values: readonly number[]): Rational {
  let total = 0;
  for (const [index, value] of values.entries()) {
    const next = total + value;
    if (!Number.isSafeInteger(value) || !Number.isSafeInteger(next))
      return values.slice(index).reduce((sum, one) => plus(sum, rational(one)), rational(total));
    total = next;
  }
  return rational(total);
}

export const minus = (a: Rational, b: Rational): Rational => plus(a, { over: -b.over, under: b.under });

export const times = (a: Rational, b: Rational): Rational => ({
  over: a.over * b.over,
  under: a.under * b.under,
});

/** `null` where it is divided by zero. */
export function dividedBy(a: Rational, b: Rational): Rational | null {
  if (b.over === 0n) return null;
  const sign = b.over < 0n ? -1n : 1n;
  return { over: a.over * b.under * sign, under: a.under * b.over * sign };
}

/** The fraction with so many decimal places, half to even, in units of the last place. */
function inUnits({ over, under }: Rational, scale: number): bigint {
  const scaled = over * 10n ** BigInt(scale);
  const [whole, rest] = [scaled / under, scaled % under];
  const twice = (rest < 0n ? -rest : rest) * 2n;
  const isUp = twice > under || (twice === under && whole % 2n !== 0n);
  return isUp ? whole + (scaled < 0n ? -1n : 1n) : whole;
}

const MOST_PLACES = 15;

/** The number with at most `scale` decimal places, half to even; as many as a number holds where that is `null`. */
export function rounded(value: Rational, scale: number | null): number {
  const places = scale ?? MOST_PLACES;
  const units = inUnits(value, places);
  return Number(`${units}e-${places}`);
}
