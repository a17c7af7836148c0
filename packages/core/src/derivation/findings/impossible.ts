import type { Mend } from '../../contract/index.js';
import { creationOrder, roleOf } from '../../model/index.js';
import { because, type Deriving } from '../context.js';

/** Reports entities of which no record could ever be created. */
export function findImpossible(deriving: Deriving): void {
  const { impossible } = creationOrder(deriving.model);
  const names = new Set(impossible.map(({ name }) => name));
  for (const entity of impossible) {
    const needed = (deriving.index.refersFrom.get(entity.name) ?? []).filter(
      ({ cardinality, to }) => cardinality === 'one' && names.has(to),
    );
    deriving.findings.push({
      id: 'create.impossible',
      severity: 'error',
      message: `No ${entity.name} can ever be created: what it needs first needs it in turn. Make one of the references optional.`,
      about: entity.id,
      reasons: [because('finding.impossible', entity, ...needed)],
      mends: needed.map((refers): Mend => ({
        title: `Make ${roleOf(refers)} optional`,
        act: { kind: 'edit', edit: { kind: 'make-optional', relationship: refers.id } },
      })),
    });
  }
}
