import type { CustomOperation, TokenRole, VerifyAnswer, VerifyEffect } from '../../arrangement/index.js';
import type { Custom, SecurityScheme, TokenAnswer } from '../../contract/index.js';
import { isSingleton, type Attribute, type Entity, type ScalarType } from '../../model/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import { SCHEMES } from '../operations/schemes.js';
import { findMember, nameOf, scalarOf, Unfit } from './found.js';
import { acceptedInputs, type StoredMember } from './accepted.js';
import { sentFor, type SentInput } from './sentInput.js';

interface Verified {
  readonly custom: Extract<Custom, { kind: 'verify' }>;
  readonly sent: readonly SentInput[];
}

/** Inputs that must equal attributes, one of which finds the record. */
export function resolveVerify(context: DerivationContext, entity: Entity, effect: VerifyEffect): Verified {
  const sent = new Map<string, SentInput>();
  const stored: StoredMember[] = [];
  const compared = effect.compared.map(({ member, input: written }) => {
    const attribute = attributeNamed(context, entity, member);
    const { name, type } = scalarOf({ kind: 'attribute', attribute });
    const input = memberName(context, written);
    if (sent.has(input)) throw new Unfit(`The input ${written} is compared twice.`);
    const compared = { attribute: attribute.id, type: asSent(type), input };
    if (effect.compared.filter((other) => other.member === member).length > 1)
      throw new Unfit(`${name} is compared twice.`);
    sent.set(input, sentFor(input, compared.type, null, attribute.writeOnly));
    stored.push({ of: attribute.id, name: input, kind: type.kind, isSecret: attribute.writeOnly });
    return compared;
  });
  const attributes = effect.compared.map(({ member }) => attributeNamed(context, entity, member));
  if (!attributes.some((attribute) => isUnique(context, entity, attribute))) {
    const names = attributes.map(({ name }) => name);
    throw new Unfit(`None of ${names.join(', ')} is unique, so that more than one ${entity.name} may match.`);
  }
  if (effect.failure === 'unauthenticated' && valueOf(context, 'security').length === 0)
    throw new Unfit('401 names the credentials that are wanted, and the API wants none: say else 404.');
  const answers = resolveAnswer(context, entity, effect.answers);
  // What is compared stands for the attributes: an input may have to equal one of them.
  const accepted = acceptedInputs(context, effect.accepts ?? [], stored, []);
  return { custom: { kind: 'verify', compared, answers }, sent: [...sent.values(), ...accepted] };
}

function attributeNamed(context: DerivationContext, entity: Entity, id: string): Attribute {
  const found = findMember(context, entity, id);
  if (found.kind === 'reference')
    throw new Unfit(`${nameOf(found)} is a reference; inputs equal attributes.`);
  if (found.attribute.computed !== null)
    throw new Unfit(`${found.attribute.name} is computed; inputs equal what is stored.`);
  return found.attribute;
}

/** Whether one record at most has a value of the attribute. */
const isUnique = (context: DerivationContext, { name }: Entity, { key, unique }: Attribute): boolean =>
  unique || (key !== null && key.within === null && !isSingleton(context.index, name));

/** Whoever guesses is not told how long a secret is, or how it is made. */
const asSent = (type: ScalarType): ScalarType =>
  type.kind === 'text' ? { kind: 'text', min: null, max: null, pattern: null } : type;

function resolveAnswer(
  context: DerivationContext,
  entity: Entity,
  answers: VerifyAnswer,
): { readonly kind: 'record' } | TokenAnswer {
  if (answers.kind === 'record') return answers;
  const { seconds, role } = answers;
  if (role !== null) checkRole(context, entity, role);
  return { kind: 'token', scheme: tokenScheme(context), seconds, role };
}

function checkRole(context: DerivationContext, entity: Entity, role: TokenRole): void {
  if (role.kind === 'fixed') return;
  const { name, type } = attributeNamed(context, entity, role.attribute);
  if (type.kind !== 'choice') throw new Unfit(`${name} is ${type.kind}; a role is read from a choice.`);
}

/** How tokens are presented: as the first scheme that has any. */
function tokenScheme(context: DerivationContext): Exclude<SecurityScheme, 'basic'> {
  const scheme = valueOf(context, 'security')
    .map((one) => SCHEMES[one])
    .find((one) => one !== 'basic');
  if (scheme === undefined)
    throw new Unfit('A token is presented as Bearer or as an API key; the security of the API has neither.');
  return scheme;
}

/** The end of a token, which only whoever has one can ask for. */
export function resolveRevoke(context: DerivationContext): Custom {
  tokenScheme(context);
  return { kind: 'revoke' };
}

/** Whoever sent the request, known by a token that some operation hands out for such a record. */
export function resolveCaller(context: DerivationContext, { entity }: CustomOperation): Custom {
  tokenScheme(context);
  const isKnown = context.arrangement.customOperations.some(
    (other) =>
      other.entity === entity && other.effect.kind === 'verify' && other.effect.answers.kind === 'token',
  );
  if (!isKnown) throw new Unfit('No operation hands out a token for such a record: add one that verifies.');
  return { kind: 'caller' };
}
