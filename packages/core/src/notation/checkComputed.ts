import {
  checkScalar,
  partsOf,
  rolesAmong,
  type Aggregate,
  type Along,
  type Attribute,
  type AlongComparison,
  type Expression,
  type Relationship,
  type Roles,
  type ScalarType,
} from '../model/index.js';
import type { Block } from './block.js';
import { comparableType } from './checkLifeCycle.js';
import type { ModelCheck } from './modelCheck.js';

/** Something that an expression cannot say, in a sentence. */
class Wrong extends Error {
  constructor(
    message: string,
    readonly word?: string,
  ) {
    super(message);
  }
}

/** What an expression comes to. `isFraction`: it may have any number of decimal places. */
interface Outcome {
  readonly kind: ScalarType['kind'];
  readonly isFraction: boolean;
}

/** Checks what attributes are computed from: that it is there, fits, and does not need itself. */
export function checkComputed(relationships: readonly Relationship[], checking: ModelCheck): void {
  const roles = rolesAmong(relationships);
  for (const block of checking.values.values())
    for (const { id, name, computed } of block.attributes)
      if (computed !== null)
        checking.report(
          id,
          'flag.conflict',
          `Only attributes of entities are computed; ${name} is of a value.`,
        );
  for (const block of checking.entities.values())
    for (const attribute of block.attributes)
      if (attribute.computed !== null) checkOne(block, attribute, attribute.computed, roles, checking);
  reportCircles(roles, checking);
}

function checkOne(
  block: Block,
  attribute: Attribute,
  computed: Expression,
  roles: Roles,
  checking: ModelCheck,
): void {
  const flag = otherFlag(attribute);
  if (flag !== null) {
    const message = `${attribute.name} is computed, so it takes no flag but example; it has ${flag}.`;
    checking.report(attribute.id, 'flag.conflict', message, flag);
  }
  try {
    fit(attribute, new Reading(checking, roles).outcome(block.name, computed));
  } catch (error) {
    if (!(error instanceof Wrong)) throw error;
    checking.report(attribute.id, 'computed.invalid', error.message, error.word);
  }
}

/** A flag that contradicts being computed. */
function otherFlag(attribute: Attribute): string | null {
  const { required, unique, uniqueWithin, key, generated, touched, fixed, readOnly, writeOnly } = attribute;
  const { type, defaultValue, lifeCycle } = attribute;
  const flags = {
    required,
    unique: unique || uniqueWithin !== null,
    key: key !== null,
    generated,
    touched,
    fixed,
    'read-only': readOnly,
    'write-only': writeOnly,
    default: defaultValue !== null,
    pattern: type.kind === 'text' && type.pattern !== null,
    'a life cycle': lifeCycle !== null,
    'a range': 'min' in type && (type.min !== null || type.max !== null),
  };
  return Object.entries(flags).find(([, isSet]) => isSet)?.[0] ?? null;
}

/** Whether the type that was declared holds what the expression comes to. */
function fit({ name, type }: Attribute, { kind, isFraction }: Outcome): void {
  const holds = type.kind === kind || (type.kind === 'decimal' && kind === 'integer');
  if (!holds) throw new Wrong(`${name} is ${type.kind}, and is computed to ${kind}.`);
  if (isFraction && (type.kind !== 'decimal' || type.scale === null))
    throw new Wrong(
      `${name} may have any number of decimal places: give it a scale, as in decimal(scale 2).`,
    );
}

const INTEGER: Outcome = { kind: 'integer', isFraction: false };

class Reading {
  constructor(
    private readonly checking: ModelCheck,
    private readonly roles: Roles,
  ) {}

  outcome(entity: string, expression: Expression): Outcome {
    switch (expression.kind) {
      case 'literal':
        if (typeof expression.value === 'string') return { kind: 'text', isFraction: false };
        return Number.isInteger(expression.value) ? INTEGER : { kind: 'decimal', isFraction: false };
      case 'attribute':
        return { kind: this.scalar(entity, expression.name).kind, isFraction: false };
      case 'aggregate':
        return this.aggregate(entity, expression);
      case 'operation':
        return this.operation(entity, expression);
    }
  }

  private operation(
    entity: string,
    { operator, left, right }: Extract<Expression, { kind: 'operation' }>,
  ): Outcome {
    const [one, other] = [this.outcome(entity, left), this.outcome(entity, right)];
    if (operator === '&') return { kind: 'text', isFraction: false };
    const isFraction = operator === '/' || one.isFraction || other.isFraction;
    if (isNumeric(one) && isNumeric(other))
      return one.kind === 'integer' && other.kind === 'integer' && operator !== '/'
        ? INTEGER
        : { kind: 'decimal', isFraction };
    const isMoved = operator === '+' || operator === '-';
    if (isMoved && one.kind === 'instant' && other.kind === 'duration') return one;
    if (operator === '+' && one.kind === 'duration' && other.kind === 'instant') return other;
    throw new Wrong(
      `${operator} takes numbers, or an instant and a duration, not ${one.kind} and ${other.kind}; texts are joined by &.`,
      operator,
    );
  }

  private aggregate(entity: string, { of, roles, attribute, where }: Aggregate): Outcome {
    const way = roles.reduce<readonly Along[]>((known, role) => {
      const from = known.at(-1)?.to ?? entity;
      return [...known, this.along(from, role)];
    }, []);
    if (!way.some(({ isMany }) => isMany))
      throw new Wrong(`${roles.join('.')} leads to one record; only several are taken together.`, roles[0]);
    for (const comparison of where) this.comparison(roles, way, comparison);
    if (attribute === null) return INTEGER;
    const { kind } = this.scalar(way.at(-1)?.to ?? '', attribute);
    const isNumber = kind === 'integer' || kind === 'decimal';
    if (of === 'average' && isNumber) return { kind: 'decimal', isFraction: true };
    if (of === 'sum' && isNumber) return { kind, isFraction: false };
    if (
      (of === 'min' || of === 'max') &&
      (isNumber || kind === 'instant' || kind === 'date' || kind === 'time')
    )
      return { kind, isFraction: false };
    throw new Wrong(`There is no ${of} of ${kind}.`, attribute);
  }

  private comparison(
    roles: readonly string[],
    way: readonly Along[],
    { roles: along, attribute, value }: AlongComparison,
  ): void {
    const isOnTheWay = along.every((role, index) => role === roles[index]);
    if (!isOnTheWay || along.length > roles.length)
      throw new Wrong(`${along.join('.')} is not on the way, which is ${roles.join('.')}.`, along[0]);
    const at = along.length === 0 ? way.at(-1) : way[along.length - 1];
    const type = this.scalar(at?.to ?? '', attribute);
    const problem = checkScalar(comparableType(type), value);
    if (problem !== null)
      throw new Wrong(
        `${attribute} cannot be compared with ${JSON.stringify(value)}. ${problem.message}`,
        attribute,
      );
  }

  private along(entity: string, role: string): Along {
    const roles = this.roles.get(entity);
    const found = roles?.get(role);
    if (found !== undefined) return found;
    const names = [...(roles?.keys() ?? [])];
    const hint = names.length === 0 ? 'it has none' : `there are ${names.join(', ')}`;
    throw new Wrong(`${entity} has no role ${role}; ${hint}.`, role);
  }

  private scalar(entity: string, name: string): ScalarType {
    const block = this.checking.entities.get(entity);
    const attribute = block?.attributes.find((one) => one.name === name);
    if (attribute === undefined) throw new Wrong(`${entity} has no attribute ${name}.`, name);
    if (attribute.writeOnly) throw new Wrong(`${name} is write-only: nothing is computed from it.`, name);
    const { type } = attribute;
    if (type.kind === 'json' || type.kind === 'list' || type.kind === 'value')
      throw new Wrong(`${name} is ${type.kind}; only single values are computed with.`, name);
    return type;
  }
}

const isNumeric = ({ kind }: Outcome): boolean => kind === 'integer' || kind === 'decimal';

/** Reports attributes that need themselves, by whatever way. */
function reportCircles(roles: Roles, checking: ModelCheck): void {
  const settled = new Set<Attribute>();
  const visit = (entity: string, attribute: Attribute, above: readonly Attribute[]): void => {
    if (settled.has(attribute) || attribute.computed === null) return;
    if (above.includes(attribute)) {
      const names = [...above.slice(above.indexOf(attribute)), attribute].map(({ name }) => name);
      const message = `${attribute.name} needs itself: ${names.join(' needs ')}.`;
      checking.report(attribute.id, 'computed.invalid', message);
      settled.add(attribute);
      return;
    }
    for (const [of, name] of neededBy(entity, attribute.computed, roles)) {
      const needed = checking.entities.get(of)?.attributes.find((one) => one.name === name);
      if (needed !== undefined) visit(of, needed, [...above, attribute]);
    }
    settled.add(attribute);
  };
  for (const block of checking.entities.values())
    for (const attribute of block.attributes) visit(block.name, attribute, []);
}

/** What an expression reads: names of entities with those of their attributes. */
function neededBy(
  entity: string,
  computed: Expression,
  roles: Roles,
): readonly (readonly [entity: string, attribute: string])[] {
  const ends = (along: readonly string[]): string =>
    along.reduce((from, role) => roles.get(from)?.get(role)?.to ?? '', entity);
  return partsOf(computed).flatMap((part): readonly (readonly [string, string])[] => {
    if (part.kind === 'attribute') return [[entity, part.name]];
    if (part.kind !== 'aggregate') return [];
    const end = ends(part.roles);
    return [
      ...(part.attribute === null ? [] : [[end, part.attribute] as const]),
      ...part.where.map(
        ({ roles: along, attribute }) => [along.length === 0 ? end : ends(along), attribute] as const,
      ),
    ];
  });
}
