import type { Member, MemberMode, Shape } from '../../contract/index.js';
import type { Entity } from '../../model/index.js';
import { because, type Deriving } from '../context.js';
import { expansionsOf } from './expansions.js';
import { inlineMembers, shownReferences } from './inline.js';
import { ignoredLinks, member } from './members.js';
import { hasPath, shapeName } from './named.js';
import type { Trait } from './traits.js';

/** PUT: a whole new value. What a client got from a read may be sent back. */
export function replaceShape(deriving: Deriving, entity: Entity, traits: readonly Trait[]): Shape {
  return updateShape(deriving, entity, traits, 'replace', (trait, mode) => {
    const required = mode === 'accepted' && trait.exposed.replace === 'must';
    return member(trait, mode, required, !required && (mode === 'accepted' || !trait.required));
  });
}

/** PATCH as a merge patch (RFC 7396): absent keeps, null unsets. */
export function changeShape(deriving: Deriving, entity: Entity, traits: readonly Trait[]): Shape {
  return updateShape(deriving, entity, traits, 'change', (trait, mode) =>
    member(trait, mode, false, !trait.required || trait.supplied),
  );
}

function updateShape(
  deriving: Deriving,
  entity: Entity,
  traits: readonly Trait[],
  verb: 'replace' | 'change',
  asMember: (trait: Trait, mode: MemberMode) => Member,
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
      ...inlineMembers(deriving, entity.name, verb),
      ...ignoredExpansions(deriving, entity, traits, members),
      ...(hasPath(deriving, entity) ? ignoredLinks(deriving) : []),
    ],
    reasons: [because(`operation.${verb}`, entity)],
  };
}

/** Related records that were read inside may be sent back; they are changed at their own address. */
function ignoredExpansions(
  deriving: Deriving,
  entity: Entity,
  traits: readonly Trait[],
  members: readonly Member[],
): readonly Member[] {
  const names = new Set(members.map(({ name }) => name));
  return [...shownReferences(deriving, entity.name, traits), ...expansionsOf(deriving, entity.name)]
    .filter(({ name }) => !names.has(name))
    .map((expanded): Member => ({ ...expanded, mode: 'ignored' }));
}

/** What is returned may be sent back, also where it is not accepted. */
const isWritable = ({ exposed }: Trait, verb: 'replace' | 'change'): boolean =>
  exposed.out === 'yes' || exposed[verb] !== 'no';

function writeMode(trait: Trait, verb: 'replace' | 'change'): MemberMode {
  if (trait.transitions.length > 0) return 'moved';
  if (trait.exposed[verb] !== 'no') return 'accepted';
  return trait.touched ? 'ignored' : 'must-equal';
}
