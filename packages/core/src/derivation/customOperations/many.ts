import { MOST_ACTED_ON, type CustomOperation, type ManyEffect } from '../../arrangement/index.js';
import type { Custom, MemberType } from '../../contract/index.js';
import { keyOf, recordAttributes, type Entity } from '../../model/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import { attributeMember } from '../names/called.js';
import { memberName } from '../names/members.js';
import { keyType } from '../place/tree.js';
import { resolveFound } from './filters.js';
import { Unfit } from './found.js';
import type { SentInput } from './sentInput.js';
import { inputsOf, resolveValues, resolveWhen } from './values.js';

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
  { over, does }: ManyEffect,
): Many {
  const filters = over.kind === 'condition' ? over.filters : [];
  const found = resolveFound(context, entity, operation, { filters, order: [] });
  const member = memberName(context, 'ids');
  const sent: readonly SentInput[] = [
    ...(over.kind === 'ids' ? [{ name: member, type: idsOf(entity), isSecret: false, default: null }] : []),
    ...found.asked.map(({ name, type, default: usual }) => ({ name, type, isSecret: false, default: usual })),
  ];
  const inputs = does.kind === 'assign' ? inputsOf(does.values) : [];
  checkNames(context, entity, inputs, sent);
  return {
    custom: {
      kind: 'many',
      over: over.kind === 'ids' ? { kind: 'ids', member } : { kind: 'condition', filters: found.filters },
      does: resolveDoing(context, entity, does),
      answers: valueOf(context, 'manyAnswers', { resource: `${operation.id}/custom`, verb: 'custom' }),
    },
    inputs,
    sent,
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

/** What is sent stands in one body, whatever it is for. */
function checkNames(
  context: DerivationContext,
  entity: Entity,
  inputs: readonly string[],
  sent: readonly SentInput[],
): void {
  const names = new Set(
    recordAttributes(context.index, entity)
      .filter(({ id }) => inputs.includes(id))
      .map((attribute) => attributeMember(context, entity, attribute)),
  );
  for (const { name } of sent) {
    if (names.has(name)) throw new Unfit(`Two things that are sent would be called ${name}.`);
    names.add(name);
  }
  if (keyOf(entity).attribute.key?.within != null && sent.some(({ type }) => type.kind === 'list'))
    throw new Unfit(`The key of ${entity.name} is unique under its owner only, so that it names none alone.`);
}
