/** A number without an exponent, which standards of SQL read as another type. */
export function plainNumber(value: number): string {
  const text = String(value);
  if (!text.includes('e')) return text;
  return Number.isInteger(value) ? BigInt(value).toString() : value.toFixed(20).replace(/0+$/, '');
}
