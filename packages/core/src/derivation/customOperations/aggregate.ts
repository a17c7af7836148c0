import type { AggregateEffect, AlongStep, CustomOperation } from '../../arrangement/index.js';
import type { Custom } from '../../contract/index.js';
import {
  roleOfStep,
  rolesOfModel,
  type AggregateKind,
  type Entity,
  type ScalarType,
} from '../../model/index.js';
import { entityNamed, type DerivationContext } from '../context.js';
import { comparable, resolveFound, type FoundTerms } from './filters.js';
import { findMember, nameOf, Unfit } from './found.js';

interface Taken {
  readonly custom: Extract<Custom, { kind: 'aggregate' }>;
  readonly asked: FoundTerms['asked'];
}

const COUNT: ScalarType = { kind: 'integer', min: 0, max: null };

/** What some records have, taken together: those of a collection, or what roles lead to from an item. */
export function resolveAggregate(
  context: DerivationContext,
  entity: Entity,
  operation: CustomOperation,
  { of, along, member, scale, filters }: AggregateEffect,
): Taken {
  const last = along.reduce((at, step) => followed(context, at, step), entity);
  const { filters: compared, asked } = resolveFound(context, last, operation, { filters, order: [] });
  const taken = member === null ? null : takenFrom(context, last, member);
  return {
    custom: {
      kind: 'aggregate',
      of,
      along,
      entity: last.name,
      taken,
      type: taken === null ? COUNT : typeOf(of, taken.name, taken.type, scale),
      filters: compared,
    },
    asked,
  };
}

function followed(context: DerivationContext, from: Entity, step: AlongStep): Entity {
  const found = roleOfStep(rolesOfModel(context.model).get(from.name), step);
  if (found === undefined) throw new Unfit(`${from.name} has no role of ${step.relationship} any more.`);
  return entityNamed(context, found[1].to);
}

function takenFrom(
  context: DerivationContext,
  entity: Entity,
  member: string,
): ReturnType<typeof comparable> {
  const found = findMember(context, entity, member);
  if (found.kind === 'reference')
    throw new Unfit(`${nameOf(found)} is a reference, and is not taken together.`);
  return comparable(context, entity, member);
}

const ORDERED: ReadonlySet<ScalarType['kind']> = new Set<ScalarType['kind']>([
  'integer',
  'decimal',
  'instant',
  'date',
  'time',
]);

/** The type of what values come to, without the range of one of them. */
function typeOf(of: AggregateKind, name: string, type: ScalarType, scale: number | null): ScalarType {
  const isNumber = type.kind === 'integer' || type.kind === 'decimal';
  if (of === 'average' && isNumber) return { kind: 'decimal', min: null, max: null, scale };
  const isTaken = of === 'sum' ? isNumber : of !== 'average' && ORDERED.has(type.kind);
  if (!isTaken) throw new Unfit(`${name} is ${type.kind}, of which there is no ${of}.`);
  return isNumber ? { ...type, min: null, max: null } : type;
}
