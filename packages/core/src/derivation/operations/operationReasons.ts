import type { Reason, RuleId, Verb } from '../../contract/index.js';
import { entryOf, memoize, type Entity } from '../../model/index.js';
import { because, becauseSet, becauseSetAt, type DerivationContext } from '../context.js';
import { becauseCustom, customOf, fixedOf, type ResolvedCustom } from '../customOperations/index.js';
import type { PlacedResource } from '../place/index.js';
import type { OperationName } from './names.js';

/** Why an operation is there, and called as it is. */
export function operationReasons(
  context: DerivationContext,
  verb: Verb,
  resource: PlacedResource,
  entity: Entity | null,
  by: OperationName['by'],
  creates: boolean,
): readonly Reason[] {
  const statements = entity === null ? [] : [entity];
  const name =
    by === 'own'
      ? becauseSetAt(context, 'operation.own-name', ['operationName'], { resource: resource.id, verb })
      : nameReason(context, entity, by);
  const placed: Reason[] = [...resource.reasons.slice(0, 1)];
  if (verb === 'entry') return [...placed, name];
  const fixed = fixedOf(context, resource);
  if (fixed !== null) return [becauseCustom('operation.fixed', fixed.operation), ...placed, name];
  const own = customOf(context, resource);
  const why =
    own === null
      ? because(`operation.${verb}`, ...statements)
      : becauseCustom(ruleOf(own), own.operation, ...statements);
  const reasons = [why, ...placed, name];
  if (verb === 'replace' && creates) reasons.push(because('operation.put-creates', ...statements));
  return reasons;
}

/** The rule by which an operation of one's own does what it does. */
function ruleOf({ custom: { kind } }: ResolvedCustom): RuleId {
  switch (kind) {
    case 'query':
    case 'find':
      return 'list.query';
    case 'aggregate':
    case 'many':
    case 'verify':
    case 'revoke':
    case 'caller':
    case 'fixed':
      return `operation.${kind}`;
    case 'assign':
    case 'create':
      return 'operation.custom';
  }
}

/** Why operations of an entity are called as they are. */
const nameReasons = memoize<DerivationContext, Map<string, Reason>>(() => new Map());

const nameReason = (context: DerivationContext, entity: Entity | null, by: 'verb' | 'owner'): Reason =>
  entryOf(nameReasons(context), `${by} ${entity?.id ?? ''}`, () =>
    becauseSet(
      context,
      by === 'owner' ? 'operation.unnameable' : 'operation.name',
      ['operationNames'],
      ...(entity === null ? [] : [entity]),
    ),
  );
