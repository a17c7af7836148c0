import { because, type Deriving } from '../context.js';
import { memberId, type Traits } from '../shapes/index.js';

/** Reports what is accepted and never returned, though the model calls it no secret. */
export function findUnseen(deriving: Deriving, traits: Traits, exposed: ReadonlySet<string>): void {
  if (Object.keys(deriving.arrangement.exposures).length === 0) return;
  for (const entity of deriving.index.entities.values()) {
    if (!exposed.has(entity.name)) continue;
    for (const trait of traits.get(entity.name) ?? []) {
      const { out, create, replace, change } = trait.exposed;
      const isTaken = create !== 'no' || replace !== 'no' || change !== 'no';
      if (!trait.returned || out === 'yes' || !isTaken) continue;
      const of = memberId(trait);
      deriving.findings.push({
        id: 'member.unseen',
        severity: 'doubtful',
        message: `${trait.name} of ${entity.name} is accepted and never returned, though it is not write-only.`,
        about: of,
        reasons: [because('finding.unseen', { id: of })],
        mends: [
          { title: 'Return it again', act: { kind: 'exposure', entity: entity.id, of, aspect: 'out' } },
        ],
      });
    }
  }
}
