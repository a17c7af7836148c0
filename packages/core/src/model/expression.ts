import type { AggregateKind, Attribute, Expression, ExpressionOperator } from './types.js';

export const AGGREGATES: readonly AggregateKind[] = ['count', 'sum', 'min', 'max', 'average'];

/** `*` and `/` bind tighter than `+`, `-` and `&`. */
export const PRECEDENCE: Readonly<Record<ExpressionOperator, number>> = {
  '+': 1,
  '-': 1,
  '&': 1,
  '*': 2,
  '/': 2,
};

/** Everything an expression is made of, itself first. */
export function partsOf(expression: Expression): readonly Expression[] {
  return expression.kind === 'operation'
    ? [expression, ...partsOf(expression.left), ...partsOf(expression.right)]
    : [expression];
}

/**
 * Whether a computed attribute reads other records than its own, itself or by what it is computed from. `among`: the
 * attributes of its entity.
 */
export function readsOthers(
  { computed }: Attribute,
  among: readonly Attribute[],
  seen: ReadonlySet<string> = new Set(),
): boolean {
  if (computed === null) return false;
  return partsOf(computed).some((part) => {
    if (part.kind === 'aggregate') return true;
    if (part.kind !== 'attribute' || seen.has(part.name)) return false;
    const read = among.find(({ name }) => name === part.name);
    return read !== undefined && readsOthers(read, among, new Set([...seen, part.name]));
  });
}
