import {
  checkScalar,
  listed,
  type Attribute,
  type Comparison,
  type Literal,
  type ScalarType,
  type Transition,
} from '../model/index.js';
import type { Block } from './block.js';
import type { ModelCheck } from './modelCheck.js';

type Choice = Extract<Attribute['type'], { kind: 'choice' }>;

/** Checks the life cycle of an attribute: states that exist, an initial one, conditions that can be compared. */
export function checkLifeCycle(block: Block, attribute: Attribute, checking: ModelCheck): Attribute {
  const { lifeCycle, type } = attribute;
  if (lifeCycle === null || type.kind !== 'choice') return attribute;
  if (attribute.defaultValue === null) {
    const message = `The life cycle of ${attribute.name} has no initial state; give the attribute a default.`;
    checking.report(attribute.id, 'cycle.default', message);
    return { ...attribute, lifeCycle: null };
  }
  const kept = lifeCycle.filter(
    (transition) =>
      statesKnown(attribute, type, transition, checking) && conditionFits(block, transition, checking),
  );
  return { ...attribute, lifeCycle: kept.length === 0 ? null : kept };
}

function statesKnown(
  attribute: Attribute,
  type: Choice,
  transition: Transition,
  checking: ModelCheck,
): boolean {
  const unknown = [...transition.from, transition.to].find((state) => !type.options.includes(state));
  if (unknown === undefined) return true;
  const message = `${attribute.name} has no state ${unknown}; it has ${listed(type.options)}.`;
  checking.report(transition.id, 'cycle.state', message, unknown);
  return false;
}

function conditionFits(block: Block, transition: Transition, checking: ModelCheck): boolean {
  for (const comparison of (transition.when ?? []).flat()) {
    const wrong = comparisonProblem(block, comparison);
    if (wrong === null) continue;
    checking.report(transition.id, 'cycle.condition', wrong, comparison.attribute);
    return false;
  }
  return true;
}

/** The type without its limits: a value outside of them may be compared with, and a finding says what follows. */
export function comparableType(type: ScalarType): ScalarType {
  switch (type.kind) {
    case 'integer':
    case 'decimal':
      return { kind: 'decimal', min: null, max: null, scale: null };
    case 'text':
      return { ...type, min: null, max: null, pattern: null };
    default:
      return type;
  }
}

function comparisonProblem(block: Block, { attribute: name, operand }: Comparison): string | null {
  const attribute = block.attributes.find((candidate) => candidate.name === name);
  if (attribute === undefined) return `${block.name} has no attribute ${name} to compare.`;
  if (attribute.computed !== null) return `${name} is computed; conditions compare what is stored.`;
  if (attribute.writeOnly) return `${name} is write-only: no condition may tell what it is.`;
  const { type } = attribute;
  if (type.kind === 'json' || type.kind === 'list' || type.kind === 'value')
    return `${name} is ${type.kind}, which cannot be compared.`;
  if (operand.kind === 'now') {
    return type.kind === 'instant' || type.kind === 'date'
      ? null
      : `${name} is ${type.kind}; only an instant or a date compares with now.`;
  }
  const problem = checkScalar(comparableType(type), operand.value satisfies Literal);
  return problem === null
    ? null
    : `${name} cannot be compared with ${JSON.stringify(operand.value)}. ${problem.message}`;
}
