import {
  isConstant,
  type Attribute,
  type Comparison,
  type Entity,
  type Transition,
} from '../../model/index.js';
import { printCondition } from '../../notation/index.js';
import { because, type DerivationContext } from '../context.js';

/** Reports comparisons of conditions that hold for every value there can be, or for none. */
export function findConstantConditions(context: DerivationContext): void {
  for (const entity of context.index.entities.values())
    for (const { lifeCycle } of entity.attributes)
      for (const transition of lifeCycle ?? []) report(context, entity, transition);
}

function report(context: DerivationContext, entity: Entity, transition: Transition): void {
  const byName = new Map<string, Attribute>(
    entity.attributes.map((attribute) => [attribute.name, attribute]),
  );
  for (const comparison of (transition.when ?? []).flat()) {
    const holds = constant(byName, comparison);
    if (holds === null) continue;
    const text = printCondition([[comparison]]);
    context.findings.push({
      id: 'condition.constant',
      severity: 'doubtful',
      message: `${text}, in ${transition.name} of ${entity.name}, ${holds ? 'always holds where there is a value' : 'never holds'}.`,
      about: transition.id,
      reasons: [because('finding.constant', transition)],
    });
  }
}

function constant(
  byName: ReadonlyMap<string, Attribute>,
  { attribute, operator, operand }: Comparison,
): boolean | null {
  const type = byName.get(attribute)?.type;
  return type === undefined || operand.kind === 'now' ? null : isConstant(type, operator, operand.value);
}
