import type { QuickFix } from '../../contract/index.js';
import type { Attribute, AttributeType, Entity, ValueDefinition } from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';

/** Reports entities that no relationship joins to anything, and values that nothing has. */
export function findUnused(context: DerivationContext): void {
  const { index, model, findings } = context;
  const joined = new Set(index.relationships.flatMap(({ from, to }) => [from, to]));
  const used = usedValues(context);
  for (const declaration of model.declarations) {
    const isAlone = declaration.kind === 'entity' && declaration.single !== true;
    if (isAlone && joined.size > 0 && !joined.has(declaration.name)) {
      findings.push({
        id: 'model.leftover',
        severity: 'doubtful',
        message: `Nothing leads to ${declaration.name}, and it leads nowhere.`,
        about: declaration.id,
        reasons: [because('finding.leftover', declaration)],
        quickFixes: [removal(declaration)],
      });
    }
    if (declaration.kind === 'value' && !used.has(declaration.name)) {
      findings.push({
        id: 'value.unused',
        severity: 'doubtful',
        message: `Nothing has a value ${declaration.name}.`,
        about: declaration.id,
        reasons: [because('finding.leftover', declaration)],
        quickFixes: [removal(declaration)],
      });
    }
  }
}

const removal = ({ id, name }: Entity | ValueDefinition): QuickFix => ({
  title: `Remove ${name}`,
  answer: { kind: 'edit', edit: { kind: 'remove', statement: id } },
});

function usedValues({ index }: DerivationContext): ReadonlySet<string> {
  const used = new Set<string>();
  const use = ({ type }: Attribute): void => {
    const name = valueName(type);
    if (name !== null) used.add(name);
  };
  for (const block of [...index.entities.values(), ...index.values.values()]) block.attributes.forEach(use);
  for (const relationship of index.relationships)
    if (relationship.kind === 'pairs' && relationship.carrying !== null) used.add(relationship.carrying);
  return used;
}

function valueName(type: AttributeType): string | null {
  if (type.kind === 'value') return type.name;
  return type.kind === 'list' ? valueName(type.of) : null;
}
