import type { Member, MemberType, Operation, Reason, Shape } from '../../contract/index.js';
import { entryOf, memoize, type Entity } from '../../model/index.js';
import { because, entityNamed, type DerivationContext } from '../context.js';
import { acceptedBeside } from '../customOperations/index.js';
import type { SentInput } from '../customOperations/sentInput.js';
import { transitionAt } from '../names/transitions.js';
import type { PlacedResource } from '../place/index.js';
import { shapeName } from './named.js';
import type { MemberTraits } from './traits.js';

/** A member that no statement of the model stands behind. */
export const freeMember = (
  name: string,
  type: MemberType,
  source: Member['source'],
  reason: Reason,
): Member => ({
  name,
  mode: source.kind === 'input' ? 'accepted' : 'returned',
  required: true,
  nullable: false,
  type,
  source,
  description: null,
  default: null,
  example: null,
  reasons: [reason],
});

/** Something that is sent and not stored. */
export const inputMember = (
  { name, type, isRequired, isSecret, default: usual, equals }: SentInput,
  reason: Reason,
): Member => ({
  ...freeMember(name, type, { kind: 'input', isSecret, usual, equals }, reason),
  required: isRequired,
  nullable: !isRequired,
  default: usual?.kind === 'literal' ? usual.value : null,
});

const createInputs = memoize<DerivationContext, Map<string, readonly Member[]>>(() => new Map());

/** What the bodies that make a record carry, and no record stores. */
export function inputsOfCreate(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
): readonly Member[] {
  return entryOf(createInputs(context), entity.name, () => makeInputs(context, entity, traits));
}

function makeInputs(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
): readonly Member[] {
  const stored = traits.flatMap(({ name, source, type, exposed, returned }) =>
    exposed.create === 'no' || source.kind === 'computed'
      ? []
      : [
          {
            of: source.kind === 'attribute' ? source.attribute : source.relationship,
            name,
            kind: type.kind,
            isSecret: !returned,
          },
        ],
  );
  return acceptedBeside(context, entity, null, stored).map((sent) =>
    inputMember(sent, because('member.input', entity)),
  );
}

const moveShapes = memoize<DerivationContext, Map<string, Shape | null>>(() => new Map());

/** What a transition is sent; `null` where it is sent nothing. */
export const moveShape = (context: DerivationContext, resource: PlacedResource): Shape | null =>
  entryOf(moveShapes(context), resource.transition ?? '', () => makeMoveShape(context, resource));

function makeMoveShape(context: DerivationContext, resource: PlacedResource): Shape | null {
  const entity = entityNamed(context, resource.entity ?? '');
  const transition = transitionAt(context, resource);
  const sent = acceptedBeside(context, entity, transition.id, []);
  if (sent.length === 0) return null;
  const why = because('member.input', transition);
  const members = sent.map((one) => inputMember(one, why));
  const name = `${entity.name}.${transition.name}.transition`;
  return { name, purpose: 'input', of: entity.name, members, reasons: [why] };
}

/** A whole value that may also make a record takes what that takes: without effect where one is replaced. */
export function withInputsOf(replace: Shape, create: Shape): Shape {
  const inputs = create.members.filter(({ source }) => source.kind === 'input');
  const known = new Set(replace.members.map(({ name }) => name));
  const members = inputs
    .filter(({ name }) => !known.has(name))
    .map((member): Member => ({ ...member, required: false, nullable: true }));
  return members.length === 0 ? replace : { ...replace, members: [...replace.members, ...members] };
}

/** The same shapes, with what a PUT takes that may make what it is sent to. */
export function withInputsOfPut(
  shapes: readonly Shape[],
  operations: readonly Operation[],
): readonly Shape[] {
  const making = new Set(
    operations.flatMap(({ verb, accepts, responses }) =>
      verb === 'replace' && accepts !== null && responses.some(({ code }) => code === 'created')
        ? accepts
        : [],
    ),
  );
  const byName = new Map(shapes.map((shape) => [shape.name, shape]));
  return shapes.map((shape) => {
    const create = making.has(shape.name) ? byName.get(shapeName(shape.of ?? '', 'create')) : undefined;
    return create === undefined ? shape : withInputsOf(shape, create);
  });
}
