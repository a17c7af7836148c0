import type { Attribute, AttributeType, Expression, ExpressionOperator } from '../../model/index.js';
import { parse, print } from '../../notation/index.js';
import { asMemberName, newAttribute, newEntity } from '../build.js';
import { SqlReader, splitAtCommas } from './reader.js';
import type { SqlToken } from './tokens.js';

/** So many parts are read of an expression, and so deep. */
const MOST_TOKENS = 300;
const DEEPEST = 40;

/**
 * What a generated column is computed from: columns of the same table, literals, `+ - * /`, `||` and `CONCAT`, in
 * parentheses and with casts, which are passed over; `null` where it is anything else.
 */
export function readSqlExpression(tokens: readonly SqlToken[]): Expression | null {
  if (tokens.length === 0 || tokens.length > MOST_TOKENS) return null;
  const reader = new SqlReader(tokens);
  const expression = readLevel(reader, 0, DEEPEST);
  return reader.done ? expression : null;
}

/** The marks of each level, the loosest first; SQL joins texts last of all. */
const LEVELS: readonly (readonly string[])[] = [['||'], ['+', '-'], ['*', '/']];

function readLevel(reader: SqlReader, level: number, left: number): Expression | null {
  if (left === 0) return null;
  const marks = LEVELS[level];
  if (marks === undefined) return readOperand(reader, left);
  let found = readLevel(reader, level + 1, left);
  for (let operator = operatorAt(reader, marks); found !== null && operator !== null;) {
    const right = readLevel(reader, level + 1, left);
    found = right === null ? null : { kind: 'operation', operator, left: found, right };
    operator = operatorAt(reader, marks);
  }
  return found;
}

/** Takes an operator that is among some marks. */
function operatorAt(reader: SqlReader, marks: readonly string[]): ExpressionOperator | null {
  const isJoining = marks.includes('||') && reader.peek()?.text === '|' && reader.peek(1)?.text === '|';
  if (isJoining) {
    reader.next();
    reader.next();
    return '&';
  }
  const mark = marks.find((one) => reader.takeMark(one));
  return mark === undefined || mark === '||' ? null : (mark as ExpressionOperator);
}

function readOperand(reader: SqlReader, left: number): Expression | null {
  const found = readBare(reader, left);
  while (found !== null && reader.takeMark('::')) {
    if (reader.identifier() === null) return null;
    reader.parenthesised();
  }
  return found;
}

function readBare(reader: SqlReader, left: number): Expression | null {
  const token = reader.peek();
  if (token?.text === '(' && token.kind === 'mark') {
    const inside = new SqlReader(reader.parenthesised());
    const found = readLevel(inside, 0, left - 1);
    return inside.done ? found : null;
  }
  if (token?.kind === 'string' || token?.kind === 'number') {
    reader.next();
    return { kind: 'literal', value: token.kind === 'number' ? Number(token.text) : token.text };
  }
  const name = reader.identifier();
  if (name === null) return null;
  if (reader.peek()?.text !== '(') return { kind: 'attribute', name: asMemberName(name, 'column') };
  return name.toUpperCase() === 'CONCAT' ? joined(splitAtCommas(reader.parenthesised()), left) : null;
}

function joined(parts: readonly (readonly SqlToken[])[], left: number): Expression | null {
  let found: Expression | null = null;
  for (const part of parts) {
    const reader = new SqlReader(part);
    const one = readLevel(reader, 0, left - 1);
    if (one === null || !reader.done) return null;
    found = found === null ? one : { kind: 'operation', operator: '&', left: found, right: one };
  }
  return found;
}

/** The type of what is computed, which has no range of its own. */
export function withoutRange(type: AttributeType): AttributeType {
  switch (type.kind) {
    case 'text':
      return { kind: 'text', min: null, max: null, pattern: null };
    case 'integer':
      return { kind: 'integer', min: null, max: null };
    case 'decimal':
      return { ...type, min: null, max: null };
    default:
      return type;
  }
}

/**
 * Whether a computed attribute can be said beside others. What a database divides among integers it may cut off, so
 * that it comes to something else.
 */
export function canBeComputed(all: readonly Attribute[], attribute: Attribute): boolean {
  const { computed } = attribute;
  if (computed === null || dividesIntegers(all, computed)) return false;
  // An id that is counted need not be said, and any other is another's name.
  const plain = all
    .filter(({ name }) => name !== 'id')
    .map((one) => newAttribute('Probe', one.name, one.type, one.id === attribute.id ? { computed } : {}));
  const text = print({
    name: '',
    description: null,
    comments: [],
    declarations: [newEntity('Probe', plain)],
    trailingComments: [],
  });
  return parse(text).diagnostics.length === 0;
}

function dividesIntegers(all: readonly Attribute[], expression: Expression): boolean {
  if (expression.kind !== 'operation') return false;
  const { operator, left, right } = expression;
  return (
    (operator === '/' && isInteger(all, left) && isInteger(all, right)) ||
    dividesIntegers(all, left) ||
    dividesIntegers(all, right)
  );
}

function isInteger(all: readonly Attribute[], expression: Expression): boolean {
  switch (expression.kind) {
    case 'literal':
      return Number.isInteger(expression.value);
    case 'attribute':
      return all.find(({ name }) => name === expression.name)?.type.kind === 'integer';
    case 'operation':
      return isInteger(all, expression.left) && isInteger(all, expression.right);
    case 'aggregate':
      return false;
  }
}
