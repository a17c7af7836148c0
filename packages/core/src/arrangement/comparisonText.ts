import { COMPARE_OPERATORS, type CompareOperator, type Entity, type ModelIndex } from '../model/index.js';
import type { LineReader } from '../notation/index.js';
import type { Operand, OwnComparison } from './customOperations.js';
import { nameableMembers } from './effectNames.js';

/** The identity of the member that the next word names; `null` after an error was reported. */
export function readMember(index: ModelIndex, reader: LineReader, entity: Entity): string | null {
  const word = reader.word('the name of an attribute or a role');
  if (word === null) return null;
  const found = nameableMembers(index, entity).find(({ name }) => name === word.text);
  if (found === undefined) reader.report('role.unknown', `${entity.name} has no ${word.text}.`, word.place);
  return found?.id ?? null;
}

export function readOperator(reader: LineReader): CompareOperator | null {
  const token = reader.peek();
  const found = COMPARE_OPERATORS.find((operator) => operator === token?.text);
  if (found === undefined) reader.expected(`one of ${COMPARE_OPERATORS.join(' ')}`);
  else reader.next();
  return found ?? null;
}

/** A literal, or the moment; a bare word is a literal. */
export function readOperand(reader: LineReader): Operand | null {
  if (reader.take('now')) return { kind: 'now' };
  const token = reader.next();
  switch (token?.kind) {
    case 'string':
    case 'number':
      return { kind: 'literal', value: token.value };
    case 'word': {
      const isBoolean = token.text === 'true' || token.text === 'false';
      return { kind: 'literal', value: isBoolean ? token.text === 'true' : token.text };
    }
    case 'json':
    case 'mark':
    case undefined:
      reader.expected('a value or now');
      return null;
  }
}

/** `when state = planned and departsAt > now`; nothing where the next word is another. */
export function readWhen(index: ModelIndex, reader: LineReader, entity: Entity): readonly OwnComparison[] {
  const all: OwnComparison[] = [];
  if (!reader.take('when')) return all;
  do {
    const member = readMember(index, reader, entity);
    const operator = member === null ? null : readOperator(reader);
    const value = operator === null ? null : readOperand(reader);
    if (member !== null && operator !== null && value !== null) all.push({ member, operator, value });
  } while (reader.take('and'));
  return all;
}
