import {
  camelCase,
  firstPlural,
  phrase,
  plural,
  readByComputed,
  roleOf,
  type Entity,
} from '../../model/index.js';
import { pluralSubject } from '../../arrangement/index.js';
import { becauseSet, type DerivationContext } from '../context.js';

/** Reports plurals that a design kept from before the table of nouns, with the one it would have today. */
export function findKeptPlurals(context: DerivationContext): void {
  for (const entity of context.index.entities.values()) findKeptWord(context, entity);
  for (const relationship of context.index.relationships) {
    const { id, role, cardinality, to } = relationship;
    if (role === null || cardinality !== 'many' || role !== firstPlural(camelCase(to))) continue;
    const today = plural(camelCase(to));
    context.findings.push({
      id: 'plural.kept',
      severity: 'doubtful',
      message: `Many of ${to} are called ${roleOf(relationship)} here, as an earlier version derived it; today it would be ${today}.`,
      about: id,
      reasons: [becauseSet(context, 'finding.kept-plural', [], relationship)],
      quickFixes: readByComputed(context.model).has(id)
        ? []
        : [
            {
              title: `Call them ${today}`,
              answer: { kind: 'edit', edit: { kind: 'name-role', relationship: id, role: today } },
            },
          ],
    });
  }
}

function findKeptWord(context: DerivationContext, entity: Entity): void {
  const subject = pluralSubject(entity.id);
  const { words } = context.arrangement;
  const first = firstPlural(entity.name);
  if (first === null || !Object.hasOwn(words, subject) || words[subject] !== first) return;
  const today = plural(entity.name);
  context.findings.push({
    id: 'plural.kept',
    severity: 'doubtful',
    message: `Many of ${entity.name} are called ${phrase(first)}, as an earlier version derived it; today it would be ${phrase(today)}.`,
    about: entity.id,
    reasons: [becauseSet(context, 'finding.kept-plural', [], entity)],
    cause: { kind: 'word', subject, word: first, level: 'arrangement' },
    quickFixes: [{ title: `Call them ${phrase(today)}`, answer: { kind: 'word', subject, word: null } }],
  });
}
