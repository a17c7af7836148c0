import { PRECEDENCE, type Aggregate, type Expression } from '../model/index.js';
import { writeOperand } from './tokens.js';

/** An expression as its notation, with as few parentheses as it takes. */
export function printExpression(expression: Expression, atLeast = 1): string {
  switch (expression.kind) {
    case 'literal':
      return typeof expression.value === 'number'
        ? String(expression.value)
        : JSON.stringify(expression.value);
    case 'attribute':
      return expression.name;
    case 'aggregate':
      return aggregateText(expression);
    case 'operation': {
      const { operator, left, right } = expression;
      const binding = PRECEDENCE[operator];
      const text = `${printExpression(left, binding)} ${operator} ${printExpression(right, binding + 1)}`;
      return binding < atLeast ? `(${text})` : text;
    }
  }
}

function aggregateText({ of, roles, attribute, where }: Aggregate): string {
  const path = [...roles, ...(attribute === null ? [] : [attribute])].join('.');
  const conditions = where.map(
    ({ roles: along, attribute: name, operator, value }) =>
      `${[...along, name].join('.')} ${operator} ${writeOperand(value)}`,
  );
  return `${of} of ${path}${conditions.length === 0 ? '' : ` where ${conditions.join(' and ')}`}`;
}
