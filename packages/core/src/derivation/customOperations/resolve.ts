import type { CustomOperation } from '../../arrangement/index.js';
import type { Custom, OrderKey } from '../../contract/index.js';
import { recordAttributes, roleOf, type Entity } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { resolveAggregate } from './aggregate.js';
import { resolveFound, type InputParameter } from './filters.js';
import { Unfit } from './found.js';
import { resolveMany } from './many.js';
import { bodyInputs, inputsOf, resolveValues, resolveWhen } from './values.js';
import { resolveCaller, resolveRevoke, resolveVerify } from './credentials.js';
import type { SentInput } from './sentInput.js';
import { isMissingFromCreate } from '../shapes/uncreatable.js';

/** An operation of one's own, checked against the model. */
export interface ResolvedCustom {
  readonly operation: CustomOperation;
  readonly entity: Entity;
  readonly custom: Custom;
  readonly order: readonly OrderKey[];
  /** The identities of the members that a request sends. */
  readonly inputs: readonly string[];
  /** What a query is asked for. */
  readonly asked: readonly InputParameter[];
  /** What a request sends that no record stores. */
  readonly sent: readonly SentInput[];
}

/** Resolves an operation of one's own; throws `Unfit` with what the model does not allow. */
export function resolveCustom(context: DerivationContext, operation: CustomOperation): ResolvedCustom {
  const entity = [...context.index.entities.values()].find(({ id }) => id === operation.entity);
  if (entity === undefined) throw new Unfit('The entity it is about is not there any more.');
  const { effect } = operation;
  const plain = { operation, entity, order: [], inputs: [], asked: [], sent: [] };
  switch (effect.kind) {
    case 'query': {
      const { filters, ...found } = resolveFound(context, entity, operation, effect);
      return { ...plain, ...found, custom: { kind: 'query', filters, limit: effect.limit } };
    }
    case 'find': {
      const { filters, ...found } = resolveFound(context, entity, operation, effect);
      return { ...plain, ...found, custom: { kind: 'find', filters } };
    }
    case 'aggregate':
      return { ...plain, ...resolveAggregate(context, entity, operation, effect) };
    case 'many':
      return { ...plain, ...resolveMany(context, entity, operation, effect) };
    case 'verify':
      return { ...plain, ...resolveVerify(context, entity, effect) };
    case 'accept':
      throw new Unfit('It is carried out with another operation.');
    case 'revoke':
      return { ...plain, custom: resolveRevoke(context) };
    case 'caller':
      return { ...plain, custom: resolveCaller(context, operation) };
    case 'fixed':
      throw new Unfit('A fixed answer stands at the entry, and is about no entity.');
    case 'assign':
      return {
        ...plain,
        custom: {
          kind: 'assign',
          when: resolveWhen(context, entity, effect.when),
          values: resolveValues(context, entity, effect.values, 'assign'),
        },
        inputs: inputsOf(effect.values),
        sent: bodyInputs(context, entity, effect.values, effect.accepts ?? []),
      };
    case 'create': {
      const { made, isOwned } = madeBy(context, entity, effect.relationship);
      const values = resolveValues(context, made, effect.values, 'create');
      const given = [...effect.values.map(({ member }) => member), effect.relationship];
      checkComplete(context, made, given, isOwned);
      return {
        ...plain,
        custom: {
          kind: 'create',
          when: resolveWhen(context, entity, effect.when),
          entity: made.name,
          relationship: effect.relationship,
          values,
        },
        inputs: inputsOf(effect.values),
        sent: bodyInputs(context, made, effect.values, effect.accepts ?? []),
      };
    }
  }
}

/** The entity whose records are made, by an ownership of many or a reference to this one. */
function madeBy(
  context: DerivationContext,
  entity: Entity,
  relationship: string,
): { readonly made: Entity; readonly isOwned: boolean } {
  const found = context.index.relationshipById.get(relationship);
  const made =
    found?.kind === 'owns' && found.cardinality === 'many' && found.from === entity.name
      ? found.to
      : found?.kind === 'refers' && found.to === entity.name
        ? found.from
        : null;
  const of = made === null ? undefined : context.index.entities.get(made);
  if (of === undefined)
    throw new Unfit(`There is no relationship ${relationship} that leads to many from a ${entity.name}.`);
  return { made: of, isOwned: found?.kind === 'owns' };
}

/** Whatever a record must have is given, sent, or made by the server. */
function checkComplete(
  context: DerivationContext,
  made: Entity,
  given: readonly string[],
  isOwned: boolean,
): void {
  const owner = context.index.ownerOf.get(made.name);
  if (owner !== undefined && !isOwned && owner.from !== owner.to)
    throw new Unfit(`A ${made.name} is made below its ${owner.from}, not by what it refers to.`);
  if ((context.index.ownedBy.get(made.name) ?? []).some(({ cardinality }) => cardinality === 'one'))
    throw new Unfit(`A ${made.name} is made together with what it owns, which cannot be told here.`);
  const attributes = recordAttributes(context.index, made).filter(
    ({ required, key, defaultValue, generated, touched }) =>
      (required || key !== null) && defaultValue === null && !generated && !touched,
  );
  const references = (context.index.refersFrom.get(made.name) ?? []).filter(
    ({ cardinality }) => cardinality === 'one',
  );
  if (isMissingFromCreate(context, made))
    throw new Unfit(
      `Something a ${made.name} needs has the name of another member, so that it cannot be sent.`,
    );
  const missing = [
    ...attributes.map(({ id, name }) => ({ id, name })),
    ...references.map((refers) => ({ id: refers.id, name: roleOf(refers) })),
  ].find(({ id }) => !given.includes(id));
  if (missing !== undefined)
    throw new Unfit(`A ${made.name} needs ${missing.name}: give it a value, or have it sent.`);
}
