import type { Member, MemberType, Shape, TokenAnswer } from '../../contract/index.js';
import {
  becauseCustom,
  customOf,
  fixedOf,
  type FixedAnswer,
  type ResolvedCustom,
} from '../customOperations/index.js';
import type { FixedValue } from '../../arrangement/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import { sentFor, type SentInput } from '../customOperations/sentInput.js';
import { memberName, structureNames } from '../names/members.js';
import type { PlacedResource } from '../place/index.js';
import { memberId } from './exposure.js';
import { freeMember, inputMember } from './inputs.js';
import { linksMembers, member } from './members.js';
import type { MemberTraits } from './traits.js';

/** What an operation of one's own is sent; apart from what it lists, since one of each may have the same name. */
export const inputShapeName = ({ operation, entity }: ResolvedCustom): string =>
  `${entity.name}.${operation.name}.input`;

/** What an operation of one's own lists. */
const pageShapeName = ({ operation, entity }: ResolvedCustom): string =>
  `${entity.name}.${operation.name}.page`;

/** What an aggregate of one's own answers. */
const aggregateShapeName = ({ operation, entity }: ResolvedCustom): string =>
  `${entity.name}.${operation.name}.aggregate`;

/** To how many records an action on many did something; names of entities have no dot. */
const COUNTS_SHAPE = 'many.counts';

/** What an operation of one's own answers: what it found, the record it changed, the one it made, or a token. */
export function customAnswer(own: ResolvedCustom): string | null {
  switch (own.custom.kind) {
    case 'query':
      return pageShapeName(own);
    case 'verify':
      return own.custom.answers.kind === 'token'
        ? tokenShapeName(own.custom.answers.scheme)
        : own.entity.name;
    case 'aggregate':
      return aggregateShapeName(own);
    case 'many':
      return own.custom.answers === 'records' ? pageShapeName(own) : COUNTS_SHAPE;
    case 'find':
    case 'assign':
    case 'caller':
      return own.entity.name;
    case 'create':
      return own.custom.entity;
    case 'revoke':
    case 'fixed':
      return null;
  }
}

type Scheme = TokenAnswer['scheme'];

/** A token is told alike wherever it is handed out; names of entities have no dot. */
const tokenShapeName = (scheme: Scheme): string => `token.${scheme}`;

/** What a fixed answer is; `null` where it is a text. */
export const fixedShapeName = ({ operation, custom }: FixedAnswer): string | null =>
  custom.body.kind === 'object' ? `fixed.${operation.name}` : null;

/** Names of the entities whose records operations of one's own make, and answer. */
export const madeByCustomOperations = (
  context: DerivationContext,
  resources: readonly PlacedResource[],
): ReadonlySet<string> =>
  new Set(
    resources.flatMap((resource) => {
      const custom = customOf(context, resource)?.custom;
      return custom?.kind === 'create' ? [custom.entity] : [];
    }),
  );

/** The shapes of the operations of one's own that have a path. */
export function customShapes(
  context: DerivationContext,
  resources: readonly PlacedResource[],
  traits: ReadonlyMap<string, readonly MemberTraits[]>,
  hasShape: (name: string) => boolean,
): readonly Shape[] {
  const shared = new Map<string, Shape>();
  const shapes = resources.flatMap((resource): Shape[] => {
    const own = customOf(context, resource);
    if (own === null) return [];
    const { custom } = own;
    if (custom.kind === 'query' || custom.kind === 'find')
      return [
        ...(custom.kind === 'query' ? [foundShape(context, own, hasShape)] : []),
        ...(own.asked.length > 0 && isSentBy(context, resource, 'POST') ? [inputShape(own, traits)] : []),
      ];
    if (custom.kind === 'aggregate') return [aggregateShape(context, own, custom)];
    if (custom.kind === 'many' && custom.answers === 'counts')
      shared.set(COUNTS_SHAPE, shared.get(COUNTS_SHAPE) ?? countsShape(context, own));
    if (custom.kind === 'verify' && custom.answers.kind === 'token') {
      const shape = tokenShape(own, custom.answers.scheme);
      shared.set(shape.name, shared.get(shape.name) ?? shape);
    }
    return [
      ...(takesBody(own) ? [inputShape(own, traits)] : []),
      ...(custom.kind === 'many' && custom.answers === 'records' ? [foundShape(context, own, hasShape)] : []),
    ];
  });
  const fixed = resources.flatMap((resource) => fixedOf(context, resource) ?? []);
  return [...shapes, ...shared.values(), ...fixed.flatMap(fixedShape)];
}

/** Whether a query is sent by a method. */
export function isSentBy(
  context: DerivationContext,
  { id }: Pick<PlacedResource, 'id'>,
  method: 'GET' | 'POST',
): boolean {
  const chosen = valueOf(context, 'queryBy', { resource: id });
  return chosen === 'both' || chosen === method;
}

/** Whether something is sent to an operation of one's own, in a body. */
export const takesBody = ({ inputs, sent }: ResolvedCustom): boolean => inputs.length + sent.length > 0;

/** What is sent in a body that no record stores: for a query what else its address would hold. */
const sentBy = ({ sent, asked }: ResolvedCustom): readonly SentInput[] => [
  ...sent,
  ...asked.map(({ name, type, default: usual }) => sentFor(name, type, usual)),
];

const ANY_TEXT: MemberType = { kind: 'text', min: null, max: null, pattern: null };

/** A token as it is handed out: by RFC 6749 §5.1, or as a key. */
function tokenShape({ operation, entity }: ResolvedCustom, scheme: Scheme): Shape {
  const why = becauseCustom('operation.verify', operation, entity);
  const seconds: MemberType = { kind: 'integer', min: 0, max: null };
  const ends = freeMember('expires_in', seconds, { kind: 'token', part: 'seconds' }, why);
  const members =
    scheme === 'bearer'
      ? [
          freeMember('access_token', ANY_TEXT, { kind: 'token', part: 'secret' }, why),
          freeMember(
            'token_type',
            { kind: 'choice', options: ['Bearer'] },
            { kind: 'token', part: 'type' },
            why,
          ),
          ends,
        ]
      : [freeMember('key', ANY_TEXT, { kind: 'token', part: 'secret' }, why), ends];
  return { name: tokenShapeName(scheme), purpose: 'token', of: null, members, reasons: [why] };
}

/** How many records an action on many was about, and how many of them it changed. */
function countsShape(context: DerivationContext, { operation, entity }: ResolvedCustom): Shape {
  const why = becauseCustom('operation.many', operation, entity);
  const number: MemberType = { kind: 'integer', min: 0, max: null };
  const members = (['found', 'changed'] as const).map((of) =>
    freeMember(memberName(context, of), number, { kind: 'count', of }, why),
  );
  return { name: COUNTS_SHAPE, purpose: 'counts', of: null, members, reasons: [why] };
}

/** What some records come to, in a member that is called as the operation. */
function aggregateShape(
  context: DerivationContext,
  own: ResolvedCustom,
  { type, of }: Extract<ResolvedCustom['custom'], { kind: 'aggregate' }>,
): Shape {
  const why = becauseCustom('operation.aggregate', own.operation, own.entity);
  const name = memberName(context, own.operation.name);
  // The sum of nothing is 0, the greatest of nothing is nothing; a sum may be too great to be told.
  const one = { ...freeMember(name, type, { kind: 'aggregate' }, why), nullable: of !== 'count' };
  return { name: aggregateShapeName(own), purpose: 'aggregate', of: null, members: [one], reasons: [why] };
}

function fixedShape(answer: FixedAnswer): readonly Shape[] {
  const { operation, custom } = answer;
  const name = fixedShapeName(answer);
  if (name === null || custom.body.kind !== 'object') return [];
  const why = becauseCustom('operation.fixed', operation);
  const members = custom.body.members.map((one) => ({
    ...freeMember(one.name, fixedType(one.value), { kind: 'fixed' }, why),
    nullable: one.value.kind === 'literal' && one.value.value === null,
  }));
  return [{ name, purpose: 'fixed', of: null, members, reasons: [why] }];
}

function fixedType(value: FixedValue): MemberType {
  switch (value.kind) {
    case 'now':
      return { kind: 'instant' };
    case 'version':
      return ANY_TEXT;
    case 'list':
    case 'object':
      return { kind: 'json' };
    case 'literal':
      switch (typeof value.value) {
        case 'string':
          return ANY_TEXT;
        case 'boolean':
          return { kind: 'boolean' };
        case 'number':
          return Number.isInteger(value.value)
            ? { kind: 'integer', min: null, max: null }
            : { kind: 'decimal', min: null, max: null, scale: null };
        default:
          return { kind: 'json' };
      }
  }
}

function foundShape(
  context: DerivationContext,
  own: ResolvedCustom,
  hasShape: (name: string) => boolean,
): Shape {
  const { name } = own.entity;
  const listed = hasShape(`${name}.member`) ? `${name}.member` : name;
  const items: Member = {
    name: structureNames(context).items,
    mode: 'returned',
    required: true,
    nullable: false,
    type: { kind: 'list', of: { kind: 'shape', shape: listed }, min: null, max: null },
    source: { kind: 'items' },
    description: null,
    default: null,
    example: null,
    reasons: [becauseCustom('list.query', own.operation, own.entity)],
  };
  return {
    name: pageShapeName(own),
    purpose: 'page',
    of: name,
    members: [items, ...linksMembers(context)],
    reasons: [becauseCustom('list.query', own.operation, own.entity)],
  };
}

/** What is sent, by the rules of the entity whose record gets it. */
function inputShape(own: ResolvedCustom, traits: ReadonlyMap<string, readonly MemberTraits[]>): Shape {
  const of = own.custom.kind === 'create' ? own.custom.entity : own.entity.name;
  const sent = (traits.get(of) ?? []).filter((trait) => own.inputs.includes(memberId(trait)));
  return {
    name: inputShapeName(own),
    purpose: 'input',
    of,
    members: [
      ...sent.map((trait) => {
        const must = trait.required && !trait.supplied;
        return member(trait, 'accepted', must, !must);
      }),
      ...sentBy(own).map((sent) => inputMember(sent, becauseCustom('list.input', own.operation, own.entity))),
    ],
    reasons: [becauseCustom('operation.custom', own.operation, own.entity)],
  };
}
