import { exposureChoice } from '../../arrangement/index.js';
import {
  entryOf,
  keyOf,
  memoize,
  ownerRoleOf,
  pascalCase,
  recordAttributes,
  roleOf,
  type Attribute,
  type Entity,
  type Owns,
  type RefersTo,
} from '../../model/index.js';
import { because, entityNamed, type DerivationContext } from '../context.js';
import { memberName, structureNames } from './members.js';

/** What the members of an entity that are called otherwise than in the model are called, by their identities. */
type Called = ReadonlyMap<string, string>;

const NONE: Called = new Map();

/** What an attribute is called as a member. */
export const attributeMember = (context: DerivationContext, entity: Entity, attribute: Attribute): string =>
  calledIn(context, entity).get(attribute.id) ?? memberName(context, attribute.name);

/** What the member is called that holds the key of what a reference leads to. */
export const referenceMember = (context: DerivationContext, entity: Entity, refers: RefersTo): string =>
  calledIn(context, entity).get(refers.id) ?? derivedReference(context, refers);

/** What the member is called that holds the key of the owner. */
export const ownerMember = (context: DerivationContext, owns: Owns): string =>
  calledIn(context, entityNamed(context, owns.to)).get(owns.id) ?? derivedOwner(context, owns);

/** The same as the model has them. */
export const derivedReference = (context: DerivationContext, refers: RefersTo): string =>
  keyMember(context, roleOf(refers), refers.to);

export const derivedOwner = (context: DerivationContext, owns: Owns): string =>
  keyMember(context, ownerRoleOf(owns), owns.from);

const keyMember = (context: DerivationContext, role: string, of: string): string =>
  memberName(context, role + pascalCase(keyOf(entityNamed(context, of)).attribute.name));

const known = memoize<DerivationContext, Map<Entity, Called>>(() => new Map());

function calledIn(context: DerivationContext, entity: Entity): Called {
  const { exposures } = context.arrangement;
  if (!Object.hasOwn(exposures, entity.id)) return NONE;
  return entryOf(known(context), entity, () => findCalled(context, entity));
}

interface Candidate {
  readonly id: string;
  readonly derived: string;
  readonly chosen: string | undefined;
}

/** Names that were chosen and that no other member has; those that one has are reported, and their members keep their own. */
function findCalled(context: DerivationContext, entity: Entity): Called {
  const candidates = candidatesOf(context, entity);
  const called = new Map(
    candidates.flatMap(({ id, chosen }) => (chosen === undefined ? [] : [[id, chosen] as const])),
  );
  const others = otherNames(context, entity);
  // Whoever gets its own name back may have taken it from somebody.
  for (let isSettled = called.size === 0; !isSettled;) {
    const names = new Set(others);
    for (const { id, derived } of candidates) if (!called.has(id)) names.add(derived);
    isSettled = true;
    for (const { id, chosen } of candidates) {
      if (chosen === undefined || !called.has(id)) continue;
      if (names.has(chosen)) {
        called.delete(id);
        isSettled = false;
      } else names.add(chosen);
    }
  }
  for (const candidate of candidates)
    if (candidate.chosen !== undefined && !called.has(candidate.id)) reportTaken(context, entity, candidate);
  return called;
}

function candidatesOf(context: DerivationContext, entity: Entity): readonly Candidate[] {
  const owns = context.index.ownerOf.get(entity.name);
  const derived: readonly (readonly [string, string])[] = [
    ...recordAttributes(context.index, entity).map(
      ({ id, name }) => [id, memberName(context, name)] as const,
    ),
    ...(owns === undefined ? [] : [[owns.id, derivedOwner(context, owns)] as const]),
    ...(context.index.refersFrom.get(entity.name) ?? []).map(
      (refers) => [refers.id, derivedReference(context, refers)] as const,
    ),
  ];
  const { exposures } = context.arrangement;
  return derived.map(([id, name]) => {
    const { name: chosen } = exposureChoice(exposures, entity.id, id);
    return { id, derived: name, chosen: chosen === name ? undefined : chosen };
  });
}

/** What else can stand in a record: its links, what it owns, and what its references show. */
function otherNames(context: DerivationContext, entity: Entity): readonly string[] {
  const { ownedBy, refersFrom } = context.index;
  const related = [...(ownedBy.get(entity.name) ?? []), ...(refersFrom.get(entity.name) ?? [])];
  return [
    structureNames(context).links,
    ...related.map((relationship) => memberName(context, roleOf(relationship))),
  ];
}

function reportTaken(context: DerivationContext, entity: Entity, { id, derived, chosen }: Candidate): void {
  context.findings.push({
    id: 'member.collide',
    severity: 'error',
    message: `${entity.name} has another member called ${chosen ?? ''}; ${derived} keeps its name.`,
    about: entity.id,
    reasons: [
      {
        rule: 'finding.collision',
        because: [
          {
            kind: 'exposure',
            entity: entity.id,
            of: id,
            aspect: 'name',
            value: chosen ?? '',
            level: 'arrangement',
          },
        ],
      },
      because('member.attribute', entity),
    ],
    quickFixes: [
      {
        title: `Call it ${derived} again`,
        answer: { kind: 'exposure', entity: entity.id, of: id, aspect: 'name' },
      },
    ],
  });
}
