import {
  COMPARE_OPERATORS,
  AGGREGATES,
  PRECEDENCE,
  type Aggregate,
  type AlongComparison,
  type Expression,
  type ExpressionOperator,
  type Literal,
} from '../model/index.js';
import type { LineReader } from './lineReader.js';

/**
 * Reads `seats * fare`, `code & " " & name` or `count of bookings where state = confirmed`; `null` after an error was
 * reported. What binds equally is taken from the left.
 */
export const readExpression = (reader: LineReader): Expression | null =>
  readFrom(reader, 1, { left: MOST_PARTS });

/** So many parts an expression has at most; who needs more computes it in steps. */
const MOST_PARTS = 100;

/** How many parts may still come. */
interface Room {
  left: number;
}

function readFrom(reader: LineReader, atLeast: number, room: Room): Expression | null {
  let left = readOperand(reader, room);
  for (
    let operator = operatorAt(reader);
    left !== null && operator !== null && PRECEDENCE[operator] >= atLeast;
    operator = operatorAt(reader)
  ) {
    reader.next();
    const right = readFrom(reader, PRECEDENCE[operator] + 1, room);
    left = right === null ? null : { kind: 'operation', operator, left, right };
  }
  return left;
}

function operatorAt(reader: LineReader): ExpressionOperator | null {
  const token = reader.peek();
  if (token?.kind === 'number' && token.text.startsWith('-')) {
    reader.report('syntax.extra', `Put a space behind the minus: - ${token.text.slice(1)}.`, token.place, [
      { title: 'Put the space in', place: token.place, replacement: `- ${token.text.slice(1)}` },
    ]);
    return null;
  }
  return token?.kind === 'mark' && Object.hasOwn(PRECEDENCE, token.text)
    ? (token.text as ExpressionOperator)
    : null;
}

function readOperand(reader: LineReader, room: Room): Expression | null {
  if (room.left-- <= 0) {
    reader.report('model.too-large', `An expression has at most ${MOST_PARTS} parts.`, reader.here());
    return null;
  }
  if (reader.take('(')) {
    const inside = readFrom(reader, 1, room);
    return inside !== null && reader.expect(')') ? inside : null;
  }
  const token = reader.peek();
  if (token?.kind === 'number' || token?.kind === 'string') {
    reader.next();
    return { kind: 'literal', value: token.value };
  }
  if (token?.kind !== 'word') {
    reader.expected('an attribute, a number, a text or an opening parenthesis');
    return null;
  }
  const of = AGGREGATES.find((name) => name === token.text);
  if (of !== undefined && reader.peek(1)?.text === 'of') return readAggregate(reader, of);
  reader.next();
  if (token.text.includes('-')) {
    const spaced = token.text.replaceAll('-', ' - ');
    reader.report('token.unknown', `A minus stands between spaces: ${spaced}.`, token.place, [
      { title: 'Put the spaces in', place: token.place, replacement: spaced },
    ]);
  }
  return { kind: 'attribute', name: token.text };
}

function readAggregate(reader: LineReader, of: Aggregate['of']): Aggregate | null {
  reader.next();
  reader.next();
  const path = readPath(reader);
  if (path === null) return null;
  const roles = of === 'count' ? path : path.slice(0, -1);
  if (roles.length === 0) {
    reader.expected(`a role and an attribute, as in ${of} of bookings.seats,`);
    return null;
  }
  const where: AlongComparison[] = [];
  if (reader.take('where'))
    do {
      const comparison = readComparison(reader);
      if (comparison === null) return null;
      where.push(comparison);
    } while (reader.take('and'));
  return { kind: 'aggregate', of, roles, attribute: of === 'count' ? null : (path.at(-1) ?? null), where };
}

/** `bookings.passengers`: names joined by dots. */
function readPath(reader: LineReader): readonly string[] | null {
  const path: string[] = [];
  do {
    const word = reader.word('the name of a role');
    if (word === null) return null;
    path.push(word.text);
  } while (reader.take('.'));
  return path;
}

function readComparison(reader: LineReader): AlongComparison | null {
  const path = readPath(reader);
  if (path === null) return null;
  const operator = COMPARE_OPERATORS.find((known) => known === reader.peek()?.text);
  if (operator === undefined) {
    reader.expected(`one of ${COMPARE_OPERATORS.join(' ')}`);
    return null;
  }
  reader.next();
  const value = readLiteral(reader);
  return value === null ? null : { roles: path.slice(0, -1), attribute: path.at(-1) ?? '', operator, value };
}

function readLiteral(reader: LineReader): Literal | null {
  const token = reader.peek();
  if (token === null || token.kind === 'mark' || token.kind === 'json') {
    reader.expected('a value');
    return null;
  }
  reader.next();
  if (token.kind !== 'word') return token.value;
  return token.text === 'true' || token.text === 'false' ? token.text === 'true' : token.text;
}
