import type { Finding, Reason, RuleId } from '../../contract/index.js';
import { memoize } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { resolveCustom, Unfit, type ResolvedCustom } from './resolve.js';

const NONE: readonly ResolvedCustom[] = [];
const allCustoms = memoize(resolveAll);

/** The operations of one's own about an entity, by its name; those the model does not allow are reported. */
export const customOperationsOf = (context: DerivationContext, entity: string): readonly ResolvedCustom[] =>
  allCustoms(context).get(entity) ?? NONE;

/** The operation that a resource carries out. */
export const customOf = (
  context: DerivationContext,
  { entity, custom }: { readonly entity: string | null; readonly custom: string | null },
): ResolvedCustom | null =>
  custom === null || entity === null
    ? null
    : (customOperationsOf(context, entity).find(({ operation }) => operation.id === custom) ?? null);

function resolveAll(context: DerivationContext): ReadonlyMap<string, readonly ResolvedCustom[]> {
  const all = new Map<string, ResolvedCustom[]>();
  for (const operation of context.arrangement.customOperations) {
    try {
      const resolved = resolveCustom(context, operation);
      const { name } = resolved.entity;
      const others = all.get(name);
      if (others === undefined) all.set(name, [resolved]);
      else others.push(resolved);
      if (isRepeated(context, resolved)) context.findings.push(repeats(resolved));
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      context.findings.push({
        id: 'custom.unfit',
        severity: 'error',
        message: `${operation.name} is left out. ${error.message}`,
        about: operation.id,
        reasons: [becauseCustom('finding.unfit', operation)],
      });
    }
  }
  return all;
}

/** Whether a derived operation does the same: a plain list, or a change that anybody may send. */
function isRepeated(context: DerivationContext, { operation: { effect }, inputs }: ResolvedCustom): boolean {
  switch (effect.kind) {
    case 'query':
      return effect.filters.length === 0 && effect.order.length === 0;
    case 'assign':
      return effect.when.length === 0 && effect.values.length > 0 && inputs.length === effect.values.length;
    case 'create': {
      const made = context.index.relationshipById.get(effect.relationship);
      return made?.kind === 'owns' && effect.when.length === 0 && inputs.length === effect.values.length;
    }
  }
}

const STANDARD: Readonly<Record<ResolvedCustom['custom']['kind'], string>> = {
  query: 'lists',
  assign: 'changes',
  create: 'creates',
};

const repeats = ({ operation, entity, custom }: ResolvedCustom): Finding => ({
  id: 'custom.repeats',
  severity: 'doubtful',
  message: `${operation.name} of ${entity.name} does what the operation that ${STANDARD[custom.kind]} does already.`,
  about: operation.id,
  reasons: [becauseCustom('finding.repeats', operation)],
});

/** A reason that cites an operation of one's own, after any statements. */
export const becauseCustom = (
  rule: RuleId,
  { id, name }: { readonly id: string; readonly name: string },
  ...statements: readonly { readonly id: string }[]
): Reason => ({
  rule,
  because: [
    ...statements.map((statement) => ({ kind: 'statement', id: statement.id }) as const),
    { kind: 'custom', id, name, level: 'arrangement' },
  ],
});

export type { ResolvedCustom } from './resolve.js';
