import type { AttributeType, CompareOperator, Literal } from './types.js';

/**
 * Whether a comparison with a literal comes out the same for every value of a type: `true` or `false` where it does,
 * `null` where it depends on the value, or nothing is known about the limits.
 */
export function isConstant(type: AttributeType, operator: CompareOperator, literal: Literal): boolean | null {
  if ((type.kind !== 'integer' && type.kind !== 'decimal') || typeof literal !== 'number') return null;
  const [min, max] = [type.min ?? -Infinity, type.max ?? Infinity];
  const isReachable =
    literal >= min && literal <= max && (type.kind === 'decimal' || Number.isInteger(literal));
  switch (operator) {
    case '=':
      return isReachable ? (min === max ? true : null) : false;
    case '!=':
      return isReachable ? (min === max ? false : null) : true;
    case '<':
      return max < literal ? true : min >= literal ? false : null;
    case '<=':
      return max <= literal ? true : min > literal ? false : null;
    case '>':
      return min > literal ? true : max <= literal ? false : null;
    case '>=':
      return min >= literal ? true : max < literal ? false : null;
  }
}
