import type { QuickFix } from '../../contract/index.js';
import { creationOrder, roleOf } from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';

/** Reports entities of which no record could ever be created. */
export function findImpossible(context: DerivationContext): void {
  const { impossible } = creationOrder(context.model);
  const names = new Set(impossible.map(({ name }) => name));
  for (const entity of impossible) {
    const needed = (context.index.refersFrom.get(entity.name) ?? []).filter(
      ({ cardinality, to }) => cardinality === 'one' && names.has(to),
    );
    context.findings.push({
      id: 'create.impossible',
      severity: 'error',
      message: `No ${entity.name} can ever be created: what it needs first needs it in turn. Make one of the references optional.`,
      about: entity.id,
      reasons: [because('finding.impossible', entity, ...needed)],
      quickFixes: needed.map((refers): QuickFix => ({
        title: `Make ${roleOf(refers)} optional`,
        answer: { kind: 'edit', edit: { kind: 'make-optional', relationship: refers.id } },
      })),
    });
  }
}
