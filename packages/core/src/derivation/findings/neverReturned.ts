import { because, type DerivationContext } from '../context.js';
import { memberId, type Traits } from '../shapes/index.js';

/** Reports what is accepted and never returned, though the model calls it no secret. */
export function findNeverReturned(
  context: DerivationContext,
  traits: Traits,
  exposed: ReadonlySet<string>,
): void {
  if (Object.keys(context.arrangement.exposures).length === 0) return;
  for (const entity of context.index.entities.values()) {
    if (!exposed.has(entity.name)) continue;
    for (const trait of traits.get(entity.name) ?? []) {
      const { out, create, replace, change } = trait.exposed;
      const isTaken = create !== 'no' || replace !== 'no' || change !== 'no';
      if (!trait.returned || out === 'yes' || !isTaken) continue;
      const of = memberId(trait);
      context.findings.push({
        id: 'member.unseen',
        severity: 'doubtful',
        message: `${trait.name} of ${entity.name} is accepted and never returned, though it is not write-only.`,
        about: of,
        reasons: [because('finding.unseen', { id: of })],
        quickFixes: [
          { title: 'Return it again', answer: { kind: 'exposure', entity: entity.id, of, aspect: 'out' } },
        ],
      });
    }
  }
}
