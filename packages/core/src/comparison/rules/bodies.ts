import type { Member, MemberType, Shape } from '../../contract/index.js';
import { breaking, compatible, type About } from '../change.js';
import { describe, notWithin } from '../values.js';
import type { Aligned, ContractChange, Pair } from '../types.js';

type Direction = 'sent' | 'answered';
type Compare = (was: Member, is: Member, about: About) => Generator<ContractChange>;

/** What goes in and comes out. Each pair of shapes is compared once, wherever it is used. */
export function* compareBodies(aligned: Aligned): Generator<ContractChange> {
  const met = new Set<string>();
  for (const pair of aligned.pairs) {
    yield* compareAccepted(aligned, pair, met);
    yield* compareReturned(aligned, pair, met);
  }
}

function* compareAccepted(aligned: Aligned, pair: Pair, met: Set<string>): Generator<ContractChange> {
  const { before, after, where } = pair;
  const about: About = { where, resource: after.resource, reasons: after.reasons };
  const lost = before.acceptedTypes.filter((type) => !after.acceptedTypes.includes(type));
  if (lost.length > 0) yield breaking('sender', about, `${where} does not take ${lost.join(', ')}.`);
  if (before.accepts !== null && after.accepts !== null)
    yield* compareShapes(aligned, [before.accepts, after.accepts], 'sent', about, met);
  else if (after.accepts !== null) {
    const wanted = shapeOf(aligned, 'after', after.accepts)?.members.filter(({ required }) => required) ?? [];
    if (wanted.length > 0) yield breaking('sender', about, `${where} needs a body.`);
  }
}

function* compareReturned(aligned: Aligned, pair: Pair, met: Set<string>): Generator<ContractChange> {
  const { before, after, where } = pair;
  const about: About = { where, resource: after.resource, reasons: after.reasons };
  if (before.returns !== null && after.returns !== null)
    yield* compareShapes(aligned, [before.returns, after.returns], 'answered', about, met);
  else if (before.returns !== null) yield breaking('reader', about, `${where} answers without a body.`);
  else if (after.returns !== null) yield compatible(about, `${where} answers with a body.`);
}

const shapeOf = (aligned: Aligned, side: 'before' | 'after', name: string): Shape | undefined =>
  aligned[side].index.shapes.get(name);

function* compareShapes(
  aligned: Aligned,
  [nameBefore, nameAfter]: readonly [string, string],
  direction: Direction,
  { resource }: About,
  met: Set<string>,
): Generator<ContractChange> {
  const key = `${direction} ${nameBefore} ${nameAfter}`;
  const [was, is] = [shapeOf(aligned, 'before', nameBefore), shapeOf(aligned, 'after', nameAfter)];
  if (met.has(key) || was === undefined || is === undefined) return;
  met.add(key);
  const about: About = { where: is.name, resource, reasons: is.reasons };
  const refuses = aligned.after.contract.unknownMembers === 'refused';
  yield* direction === 'sent'
    ? eachMember(was, is, about, compareSent(refuses), goneSent(refuses), comeSent)
    : eachMember(was, is, about, compareAnswered, goneAnswered, comeAnswered);
  const members = new Map(is.members.map((member) => [member.name, member]));
  for (const member of was.members) {
    const inner = shapesIn(member.type, members.get(member.name)?.type);
    if (inner !== null) yield* compareShapes(aligned, inner, direction, about, met);
  }
}

/** The shapes that two types hold in the same place. */
function shapesIn(was: MemberType, is: MemberType | undefined): readonly [string, string] | null {
  if (is === undefined) return null;
  if (was.kind === 'shape' && is.kind === 'shape') return [was.shape, is.shape];
  return was.kind === 'list' && is.kind === 'list' ? shapesIn(was.of, is.of) : null;
}

function* eachMember(
  was: Shape,
  is: Shape,
  about: About,
  both: Compare,
  gone: (member: Member, about: About) => Generator<ContractChange>,
  come: (member: Member, about: About) => Generator<ContractChange>,
): Generator<ContractChange> {
  const now = new Map(is.members.map((member) => [member.name, member]));
  for (const member of was.members) {
    const other = now.get(member.name);
    now.delete(member.name);
    if (other === undefined)
      yield* gone(member, { ...about, reasons: [...about.reasons, ...member.reasons] });
    else yield* both(member, other, { ...about, reasons: other.reasons });
  }
  for (const member of now.values()) yield* come(member, { ...about, reasons: member.reasons });
}

const isStored = ({ mode }: Member): boolean => mode === 'accepted' || mode === 'moved';
/** A body may carry it: it is stored, or what was read is sent back. */
const isSent = ({ mode }: Member): boolean => mode !== 'returned';

const compareSent = (refuses: boolean): Compare =>
  function* (was, is, about) {
    const name = `${is.name} of ${about.where}`;
    if (!isSent(was)) {
      if (isSent(is) && is.required) yield breaking('sender', about, `${name} is required.`);
      return;
    }
    if (!isSent(is)) {
      yield* goneSent(refuses)(was, about);
      return;
    }
    if (isStored(was) && !isStored(is)) yield breaking('sender', about, `${name} can no longer be set.`);
    else if (was.mode === 'accepted' && is.mode === 'moved')
      yield breaking('sender', about, `${name} changes only where a transition leads.`);
    else if (was.mode === 'ignored' && is.mode === 'must-equal')
      yield breaking('sender', about, `${name} must be sent back as it is.`);
    if (is.required && !was.required) yield breaking('sender', about, `${name} is required.`);
    else if (was.required && !is.required) yield compatible(about, `${name} can be left out.`);
    if (was.nullable && !is.nullable) yield breaking('sender', about, `${name} cannot be null.`);
    const problem = notWithin(was.type, is.type);
    if (problem !== null) yield breaking('sender', about, `${name} ${problem}.`);
    else if (notWithin(is.type, was.type) !== null)
      yield compatible(about, `${name} can be ${describe(is.type)}; it was ${describe(was.type)}.`);
  };

const goneSent = (refuses: boolean) =>
  function* (member: Member, about: About): Generator<ContractChange> {
    if (!isSent(member)) return;
    const name = `${member.name} of ${about.where}`;
    if (refuses) yield breaking('sender', about, `${name} is refused.`);
    else if (isStored(member)) yield breaking('sender', about, `${name} is ignored.`);
  };

function* comeSent(member: Member, about: About): Generator<ContractChange> {
  if (!isSent(member)) return;
  const name = `${member.name} of ${about.where}`;
  if (member.required) yield breaking('sender', about, `${name} is new and required.`);
  else yield compatible(about, `${name} is new.`);
}

function* compareAnswered(was: Member, is: Member, about: About): Generator<ContractChange> {
  const name = `${is.name} of ${about.where}`;
  if (was.required && !is.required) yield breaking('reader', about, `${name} can be missing.`);
  if (!was.nullable && is.nullable) yield breaking('reader', about, `${name} can be null.`);
  if (notWithin(is.type, was.type) !== null)
    yield breaking('reader', about, `${name} was ${describe(was.type)} and is ${describe(is.type)} now.`);
}

function* goneAnswered(member: Member, about: About): Generator<ContractChange> {
  yield breaking('reader', about, `${member.name} of ${about.where} is not answered any more.`);
}

function* comeAnswered(member: Member, about: About): Generator<ContractChange> {
  yield compatible(about, `${member.name} of ${about.where} is answered.`);
}
