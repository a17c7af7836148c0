import type { LineReader } from '../notation/index.js';
import { LONGEST_TOKEN, type TokenRole, type VerifyAnswer, type VerifyEffect } from './customOperations.js';

/** Units of the life of a token, the longest first. */
const UNITS = [
  { one: 'day', many: 'days', seconds: 24 * 60 * 60 },
  { one: 'hour', many: 'hours', seconds: 60 * 60 },
  { one: 'minute', many: 'minutes', seconds: 60 },
  { one: 'second', many: 'seconds', seconds: 1 },
] as const;

/** Names of members, as the entity has them. */
interface Members {
  /** The member that the next word names; `null`, and reported, where there is none. */
  readonly read: () => string | null;
}

/**
 * Reads what comes after `verify`: `email = input email and password = input password answers token for 8 hours
 * with role crew`, or `… answers record else 404`.
 */
export function readVerify(reader: LineReader, members: Members): VerifyEffect | null {
  const compared: { member: string; input: string }[] = [];
  do {
    const member = members.read();
    if (member === null || !reader.expect('=') || !reader.expect('input')) return null;
    const input = reader.word('the name of an input');
    if (input === null) return null;
    compared.push({ member, input: input.text });
  } while (reader.take('and'));
  if (!reader.expect('answers')) return null;
  const answers = readAnswer(reader, members);
  if (answers === null) return null;
  if (!reader.take('else')) return { kind: 'verify', compared, answers, failure: 'unauthenticated' };
  const status = reader.next();
  if (status?.kind === 'number' && (status.value === 401 || status.value === 404))
    return {
      kind: 'verify',
      compared,
      answers,
      failure: status.value === 401 ? 'unauthenticated' : 'missing',
    };
  reader.expected('401 or 404 after else');
  return null;
}

function readAnswer(reader: LineReader, members: Members): VerifyAnswer | null {
  if (reader.take('record')) return { kind: 'record' };
  if (!reader.take('token')) {
    reader.expected('record, or token for and how long');
    return null;
  }
  if (!reader.expect('for')) return null;
  const number = reader.peek();
  if (number?.kind !== 'number') {
    reader.expected('how long it holds, as in 8 hours');
    return null;
  }
  reader.next();
  const unit = UNITS.find(({ one, many }) => reader.take(many) || reader.take(one));
  if (unit === undefined) {
    reader.expected(`one of ${UNITS.map(({ many }) => many).join(' ')}`);
    return null;
  }
  const seconds = number.value * unit.seconds;
  if (!Number.isInteger(seconds) || seconds < 1 || seconds > LONGEST_TOKEN) {
    reader.report('literal.invalid', 'A token holds from 1 second to 366 days.', number.place);
    return null;
  }
  if (!reader.takeWords('with', 'role')) return { kind: 'token', seconds, role: null };
  const role = readRole(reader, members);
  return role === null ? null : { kind: 'token', seconds, role };
}

function readRole(reader: LineReader, members: Members): TokenRole | null {
  if (reader.takeWords('from')) {
    const attribute = members.read();
    return attribute === null ? null : { kind: 'attribute', attribute };
  }
  const role = reader.word('the name of a role, or from and a choice attribute');
  return role === null ? null : { kind: 'fixed', role: role.text };
}

/** The line that `readVerify` reads as the effect, `verify` before it. */
export function printVerify(
  { compared, answers, failure }: VerifyEffect,
  nameOf: (member: string) => string,
): string {
  const all = compared.map(({ member, input }) => `${nameOf(member)} = input ${input}`).join(' and ');
  return `verify ${all} answers ${answerText(answers, nameOf)}${failure === 'missing' ? ' else 404' : ''}`;
}

function answerText(answers: VerifyAnswer, nameOf: (member: string) => string): string {
  if (answers.kind === 'record') return 'record';
  const life = `token for ${durationText(answers.seconds)}`;
  const { role } = answers;
  if (role === null) return life;
  return `${life} with role ${role.kind === 'fixed' ? role.role : `from ${nameOf(role.attribute)}`}`;
}

/** How long something lasts, in the longest unit that tells it exactly: `8 hours`. */
function durationText(seconds: number): string {
  const unit = UNITS.find((one) => seconds % one.seconds === 0) ?? UNITS[3];
  const number = seconds / unit.seconds;
  return `${number} ${number === 1 ? unit.one : unit.many}`;
}
