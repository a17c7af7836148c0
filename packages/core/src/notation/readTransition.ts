import {
  COMPARE_OPERATORS,
  type CompareOperator,
  type Comparison,
  type Condition,
  type Literal,
  type Transition,
} from '../model/index.js';
import type { LineReader } from './lineReader.js';

const isOperator = (text: string): text is CompareOperator =>
  (COMPARE_OPERATORS as readonly string[]).includes(text);

/** Whether a line reads like a transition: a name, a colon, and an arrow somewhere. */
export function looksLikeTransition(reader: LineReader): boolean {
  if (reader.peek()?.kind !== 'word' || reader.peek(1)?.text !== ':') return false;
  for (let ahead = 2, token = reader.peek(ahead); token !== null; token = reader.peek(++ahead)) {
    if (token.kind === 'mark' && token.text === '->') return true;
  }
  return false;
}

/** Reads `name: from, from -> to [when CONDITION] "description"`. The identity is filled in by the caller. */
export function readTransition(
  reader: LineReader,
  comments: readonly string[],
): Omit<Transition, 'id'> | null {
  const name = reader.word('the name of a transition');
  if (name === null || !reader.expect(':')) return null;
  if (!/^[a-z][A-Za-z0-9]*$/.test(name.text)) {
    reader.report('name.case', `Names of transitions are in camelCase; ${name.text} is not.`, name.place);
  }
  const from: string[] = [];
  do {
    const state = readState(reader);
    if (state === null) return null;
    from.push(state);
  } while (reader.take(','));
  if (!reader.expect('->')) return null;
  const to = readState(reader);
  if (to === null) return null;
  const when = reader.take('when') ? readCondition(reader) : null;
  const description = reader.description();
  reader.finish();
  return { kind: 'transition', name: name.text, from, to, when, description, comments };
}

function readState(reader: LineReader): string | null {
  const token = reader.peek();
  if (token?.kind !== 'word' && token?.kind !== 'string') {
    reader.expected('the name of a state');
    return null;
  }
  reader.next();
  return token.kind === 'string' ? token.value : token.text;
}

/** Comparisons joined by `and` and `or`; `and` binds tighter. `null` after an error was reported. */
function readCondition(reader: LineReader): Condition | null {
  const alternatives: Comparison[][] = [];
  do {
    const all: Comparison[] = [];
    do {
      const comparison = readComparison(reader);
      if (comparison === null) return null;
      all.push(comparison);
    } while (reader.take('and'));
    alternatives.push(all);
  } while (reader.take('or'));
  return alternatives;
}

function readComparison(reader: LineReader): Comparison | null {
  const attribute = reader.word('the name of an attribute');
  if (attribute === null) return null;
  const operator = reader.peek();
  if (operator === null || !isOperator(operator.text)) {
    reader.expected(`one of ${COMPARE_OPERATORS.join(' ')}`);
    return null;
  }
  reader.next();
  const operand = readOperand(reader);
  return operand && { attribute: attribute.text, operator: operator.text, operand };
}

function readOperand(reader: LineReader): Comparison['operand'] | null {
  if (reader.take('now')) return { kind: 'now' };
  const token = reader.next();
  const value = token === null || token.kind === 'mark' ? null : literalOf(token);
  if (value !== null) return { kind: 'literal', value };
  reader.expected('a literal or now');
  return null;
}

function literalOf(token: Exclude<ReturnType<LineReader['next']>, null>): Literal | null {
  switch (token.kind) {
    case 'string':
    case 'number':
      return token.value;
    case 'word':
      return token.text === 'true' ? true : token.text === 'false' ? false : token.text;
    case 'json':
    case 'mark':
      return null;
  }
}
