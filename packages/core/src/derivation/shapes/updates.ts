import type { Member, MemberMode, Shape } from '../../contract/index.js';
import type { Entity } from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';
import { expansionsOf } from './expansions.js';
import { inlineMembers, shownReferences } from './inline.js';
import { ignoredLinks, member } from './members.js';
import { hasPath, shapeName } from './named.js';
import type { MemberTraits } from './traits.js';

/** PUT: a whole new value. What a client got from a read may be sent back. */
export function replaceShape(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
): Shape {
  return updateShape(context, entity, traits, 'replace', (trait, mode) => {
    const required = mode === 'accepted' && trait.exposed.replace === 'must';
    return member(trait, mode, required, !required && (mode === 'accepted' || !trait.required));
  });
}

/** PATCH as a merge patch (RFC 7396): absent keeps, null unsets. */
export function changeShape(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
): Shape {
  return updateShape(context, entity, traits, 'change', (trait, mode) =>
    member(trait, mode, false, !trait.required || trait.supplied),
  );
}

function updateShape(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
  verb: 'replace' | 'change',
  asMember: (trait: MemberTraits, mode: MemberMode) => Member,
): Shape {
  const members = traits
    .filter((trait) => isWritable(trait, verb))
    .map((trait) => asMember(trait, writeMode(trait, verb)));
  return {
    name: shapeName(entity.name, verb),
    purpose: verb,
    of: entity.name,
    members: [
      ...members,
      ...inlineMembers(context, entity.name, verb),
      ...ignoredExpansions(context, entity, traits, members),
      ...(hasPath(context, entity) ? ignoredLinks(context) : []),
    ],
    reasons: [because(`operation.${verb}`, entity)],
  };
}

/** Related records that were read inside may be sent back; they are changed at their own address. */
function ignoredExpansions(
  context: DerivationContext,
  entity: Entity,
  traits: readonly MemberTraits[],
  members: readonly Member[],
): readonly Member[] {
  const names = new Set(members.map(({ name }) => name));
  return [...shownReferences(context, entity.name, traits), ...expansionsOf(context, entity.name)]
    .filter(({ name }) => !names.has(name))
    .map((expanded): Member => ({ ...expanded, mode: 'ignored' }));
}

/** What is returned may be sent back, also where it is not accepted. */
const isWritable = ({ exposed }: MemberTraits, verb: 'replace' | 'change'): boolean =>
  exposed.out === 'yes' || exposed[verb] !== 'no';

function writeMode(trait: MemberTraits, verb: 'replace' | 'change'): MemberMode {
  if (trait.transitions.length > 0) return 'moved';
  if (trait.exposed[verb] !== 'no') return 'accepted';
  return trait.touched ? 'ignored' : 'must-equal';
}
