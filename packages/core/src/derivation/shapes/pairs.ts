import type { Member, Shape } from '../../contract/index.js';
import { carriedName, roleOf, type PairsWith, type ValueDefinition } from '../../model/index.js';
import { because, entityNamed, type DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import { expansionsOf } from './expansions.js';
import { isListedOtherwise, linksMembers, memberType, returnedMember, usualPage } from './members.js';
import type { MemberTraits } from './traits.js';

/** From which side a pairing is looked at: that of the entity its sentence begins with, or the other. */
export type PairSide = 'near' | 'far';

/** The shapes of a pairing are named by the entity and the role; a hyphen keeps them apart from all others. */
export const pairShapeName = (
  pairs: PairsWith,
  purpose: 'item' | 'member' | 'page' | 'change',
  side: PairSide,
): string => {
  const name = side === 'near' ? `${pairs.from}-${roleOf(pairs)}` : `${pairs.to}-${pairs.back ?? pairs.from}`;
  return purpose === 'item' ? name : `${name}.${purpose}`;
};

/** What a listed pair shows, a page of them, and the patch of what it carries; none where it carries nothing. */
export function pairShapes(
  context: DerivationContext,
  pairs: PairsWith,
  traits: ReadonlyMap<string, readonly MemberTraits[]>,
  side: PairSide,
): readonly Shape[] {
  const value = context.index.values.get(pairs.carrying ?? '');
  if (value === undefined) return [];
  const why = because('member.carried', pairs, value);
  const shown = side === 'near' ? pairs.to : pairs.from;
  const all = traits.get(shown) ?? [];
  const name = memberName(context, carriedName(value.name));
  if (all.some((trait) => trait.name === name && trait.exposed.out === 'yes'))
    reportTaken(context, pairs, shown, name);
  const showing = (purpose: 'item' | 'member'): Shape => ({
    name: pairShapeName(pairs, purpose, side),
    purpose,
    of: shown,
    members: [
      ...all
        .filter(({ exposed }) => exposed[purpose === 'item' ? 'out' : 'list'] === 'yes')
        .filter((trait) => trait.name !== name)
        .map((trait) => returnedMember(context, shown, trait)),
      ...expansionsOf(context, shown).filter(
        (one) => !all.some((trait) => trait.name === one.name) && one.name !== name,
      ),
      carriedMember(name, pairs, value),
      ...linksMembers(context),
    ],
    reasons: [why],
  });
  const item = showing('item');
  const listed = isListedOtherwise(context, entityNamed(context, shown), all) ? [showing('member')] : [];
  const page = usualPage(context, pairShapeName(pairs, 'page', side), shown, (listed[0] ?? item).name);
  return [item, ...listed, page, patchShape(context, pairs, value, side)];
}

function reportTaken(context: DerivationContext, pairs: PairsWith, shown: string, name: string): void {
  context.findings.push({
    id: 'member.collide',
    severity: 'error',
    message: `A listed ${shown} would have two members called ${name}; that of the pair takes the place of its own.`,
    about: pairs.id,
    reasons: [because('finding.collision', pairs)],
  });
}

const carriedMember = (name: string, pairs: PairsWith, value: ValueDefinition): Member => ({
  name,
  mode: 'returned',
  required: true,
  nullable: false,
  type: { kind: 'shape', shape: value.name },
  source: { kind: 'carried', relationship: pairs.id },
  description: value.description,
  default: null,
  example: null,
  reasons: [because('member.carried', pairs, value)],
});

/** PATCH of what a pair carries: nothing is required, but what is required cannot be unset. */
function patchShape(
  context: DerivationContext,
  pairs: PairsWith,
  value: ValueDefinition,
  side: PairSide,
): Shape {
  const members = value.attributes.map((attribute): Member => ({
    name: memberName(context, attribute.name),
    mode: 'accepted',
    required: false,
    nullable: !attribute.required || attribute.defaultValue !== null,
    type: memberType(attribute.type),
    source: { kind: 'attribute', attribute: attribute.id },
    description: attribute.description,
    default: attribute.defaultValue,
    example: attribute.example,
    reasons: [because('member.attribute', attribute)],
  }));
  const reasons = [because('operation.change', pairs)];
  return { name: pairShapeName(pairs, 'change', side), purpose: 'change', of: value.name, members, reasons };
}
