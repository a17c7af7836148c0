import type { Assumption, AssumptionOption } from '../../contract/index.js';
import {
  ownerRoleOf,
  phrase,
  readByComputed,
  withArticle,
  roleOf,
  type Relationship,
} from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';

/** Roles that are left out are derived from the names of entities; what something is computed from is named already. */
export const assumeRoles = (context: DerivationContext): readonly Assumption[] =>
  context.index.relationships
    .filter(({ id }) => !readByComputed(context.model).has(id))
    .flatMap((relationship) => [
      ...(relationship.role === null ? [roleAssumption(relationship)] : []),
      ...(relationship.kind === 'owns' && relationship.back === null
        ? [ownerAssumption(relationship, ownerRoleOf(relationship))]
        : []),
    ]);

function roleAssumption(relationship: Relationship): Assumption {
  const { id, from, to } = relationship;
  const assumed = roleOf(relationship);
  return {
    id: `role:${id}`,
    question: `What does ${withArticle(phrase(from))} call its ${phrase(to)}?`,
    ground: 'The sentence says no as.',
    options: [
      named(id, 'name-role', assumed, true),
      { label: 'another name', assumed: false, answer: { kind: 'name', of: 'name-role', relationship: id } },
    ],
    settled: false,
    reasons: [because('name.path', relationship)],
  };
}

function ownerAssumption(owns: Relationship, assumed: string): Assumption {
  return {
    id: `owner-role:${owns.id}`,
    question: `What does ${withArticle(phrase(owns.to))} call the ${phrase(owns.from)} it belongs to?`,
    ground: 'The sentence says no back as.',
    options: [
      named(owns.id, 'name-way-back', assumed, true),
      ...(assumed === 'owner' ? [] : [named(owns.id, 'name-way-back', 'owner', false)]),
      {
        label: 'another name',
        assumed: false,
        answer: { kind: 'name', of: 'name-way-back', relationship: owns.id },
      },
    ],
    settled: false,
    reasons: [because('member.owner', owns)],
  };
}

function named(
  relationship: string,
  kind: 'name-role' | 'name-way-back',
  name: string,
  assumed: boolean,
): AssumptionOption {
  const edit = kind === 'name-role' ? { kind, relationship, role: name } : { kind, relationship, back: name };
  return { label: name, assumed, answer: { kind: 'edit', edit } };
}
