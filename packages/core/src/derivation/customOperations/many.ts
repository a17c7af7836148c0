import { MOST_ACTED_ON, type CustomOperation, type ManyEffect } from '../../arrangement/index.js';
import type { Custom, MemberType } from '../../contract/index.js';
import { keyOf, type Entity } from '../../model/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import { keyType } from '../place/tree.js';
import { resolveFound } from './filters.js';
import { Unfit } from './found.js';
import { sentFor, type SentInput } from './sentInput.js';
import { bodyInputs, inputsOf, resolveValues, resolveWhen } from './values.js';

interface Many {
  readonly custom: Extract<Custom, { kind: 'many' }>;
  readonly inputs: readonly string[];
  readonly sent: readonly SentInput[];
}

/** The same for many records: those of a condition, or those that are named. */
export function resolveMany(
  context: DerivationContext,
  entity: Entity,
  operation: CustomOperation,
  { over, does, accepts = [] }: ManyEffect,
): Many {
  const filters = over.kind === 'condition' ? over.filters : [];
  const found = resolveFound(context, entity, operation, { filters, order: [] });
  const member = memberName(context, 'ids');
  const sent: readonly SentInput[] = [
    ...(over.kind === 'ids' ? [sentFor(member, idsOf(entity))] : []),
    ...found.asked.map(({ name, type, default: usual }) => sentFor(name, type, usual)),
  ];
  const values = does.kind === 'assign' ? does.values : [];
  if (over.kind === 'ids' && keyOf(entity).attribute.key?.within != null)
    throw new Unfit(`The key of ${entity.name} is unique under its owner only, so that it names none alone.`);
  return {
    custom: {
      kind: 'many',
      over: over.kind === 'ids' ? { kind: 'ids', member } : { kind: 'condition', filters: found.filters },
      does: resolveDoing(context, entity, does),
      answers: valueOf(context, 'manyAnswers', { resource: `${operation.id}/custom`, verb: 'custom' }),
    },
    inputs: inputsOf(values),
    sent: bodyInputs(context, entity, values, accepts, sent),
  };
}

const idsOf = (entity: Entity): MemberType => ({
  kind: 'list',
  of: keyType(entity),
  min: 1,
  max: MOST_ACTED_ON,
});

function resolveDoing(
  context: DerivationContext,
  entity: Entity,
  does: ManyEffect['does'],
): Many['custom']['does'] {
  if (does.kind === 'assign') {
    if (does.values.length === 0) throw new Unfit('It sets nothing.');
    return {
      kind: 'assign',
      when: resolveWhen(context, entity, does.when),
      values: resolveValues(context, entity, does.values, 'assign'),
    };
  }
  const isThere = entity.attributes.some(({ lifeCycle }) =>
    lifeCycle?.some(({ id }) => id === does.transition),
  );
  if (!isThere) throw new Unfit(`${entity.name} has no such transition any more.`);
  return does;
}
