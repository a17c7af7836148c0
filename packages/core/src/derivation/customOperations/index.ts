import type { QueryTerms } from '../../arrangement/index.js';
import type { Finding } from '../../contract/index.js';
import { entryOf, memoize } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { becauseCustom } from './because.js';
import { unfit } from './accepted.js';
import { resolveFixed, type FixedAnswer } from './fixed.js';
import { Unfit } from './found.js';
import { resolveCustom, type ResolvedCustom } from './resolve.js';

const NONE: readonly ResolvedCustom[] = [];
const resolved = memoize(resolveAll);

/** The custom operations about an entity, by its name; those the model does not allow are left out. */
export const customOperationsOf = (context: DerivationContext, entity: string): readonly ResolvedCustom[] =>
  resolved(context).byEntity.get(entity) ?? NONE;

/** Operations that the model does not allow, and those that do what another one does. */
export const customFindings = (context: DerivationContext): readonly Finding[] => resolved(context).findings;

/** The operation that a resource carries out. */
export const customOf = (
  context: DerivationContext,
  { entity, custom }: { readonly entity: string | null; readonly custom: string | null },
): ResolvedCustom | null =>
  custom === null || entity === null
    ? null
    : (customOperationsOf(context, entity).find(({ operation }) => operation.id === custom) ?? null);

/** The answers that are the same for everybody. */
export const fixedAnswersOf = (context: DerivationContext): readonly FixedAnswer[] => resolved(context).fixed;

/** The fixed answer that a resource gives. */
export const fixedOf = (
  context: DerivationContext,
  { kind, custom }: { readonly kind: string; readonly custom: string | null },
): FixedAnswer | null =>
  kind === 'fixed'
    ? (fixedAnswersOf(context).find(({ operation }) => operation.id === custom) ?? null)
    : null;

interface ResolvedOperations {
  readonly fixed: readonly FixedAnswer[];
  readonly byEntity: ReadonlyMap<string, readonly ResolvedCustom[]>;
  readonly findings: readonly Finding[];
}

function resolveAll(context: DerivationContext): ResolvedOperations {
  const all = new Map<string, ResolvedCustom[]>();
  const fixed: FixedAnswer[] = [];
  const findings: Finding[] = [];
  for (const operation of context.arrangement.customOperations) {
    try {
      if (operation.entity === null) {
        fixed.push(resolveFixed(operation));
        continue;
      }
      // It stands in the bodies of other operations; what of it does not fit is found where they are made.
      if (operation.effect.kind === 'accept') continue;
      const found = resolveCustom(context, operation);
      entryOf(all, found.entity.name, () => []).push(found);
      if (isRepeated(context, found)) findings.push(repeats(found));
      const { effect } = operation;
      if (effect.kind === 'query' && effect.limit === 1) findings.push(listsOne(found, effect));
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      findings.push(unfit(operation, error));
    }
  }
  return { byEntity: all, fixed, findings };
}

/** Whether a derived operation does the same: a plain list, or a change that anybody may send. */
function isRepeated(context: DerivationContext, { operation: { effect }, inputs }: ResolvedCustom): boolean {
  switch (effect.kind) {
    case 'query':
      return effect.filters.length === 0 && effect.order.length === 0;
    case 'find':
    case 'aggregate':
    case 'many':
    case 'verify':
    case 'revoke':
    case 'caller':
    case 'fixed':
    case 'accept':
      return false;
    case 'assign':
      return effect.when.length === 0 && effect.values.length > 0 && inputs.length === effect.values.length;
    case 'create': {
      const made = context.index.relationshipById.get(effect.relationship);
      return made?.kind === 'owns' && effect.when.length === 0 && inputs.length === effect.values.length;
    }
  }
}

const STANDARD: Readonly<Partial<Record<ResolvedCustom['custom']['kind'], string>>> = {
  query: 'lists',
  assign: 'changes',
  create: 'creates',
};

const repeats = ({ operation, entity, custom }: ResolvedCustom): Finding => ({
  id: 'custom.repeats',
  severity: 'doubtful',
  message: `${operation.name} of ${entity.name} does what the operation that ${STANDARD[custom.kind] ?? ''} does already.`,
  about: operation.id,
  reasons: [becauseCustom('finding.repeats', operation)],
});

/** A list of one at most may be meant to be that one. */
const listsOne = ({ operation, entity }: ResolvedCustom, { filters, order }: QueryTerms): Finding => ({
  id: 'custom.one',
  severity: 'doubtful',
  message: `${operation.name} of ${entity.name} answers a list of one at most.`,
  about: operation.id,
  reasons: [becauseCustom('finding.one', operation)],
  quickFixes: [
    {
      title: 'Answer the one',
      answer: { kind: 'custom', operation: { ...operation, effect: { kind: 'find', filters, order } } },
    },
  ],
});

export { acceptedBeside, idleInputs, type StoredMember } from './accepted.js';
export { becauseCustom } from './because.js';
export { checkOperand, fieldOf, findMember, scalarOf, Unfit } from './found.js';
export { resolveWhen } from './values.js';
export type { ResolvedCustom } from './resolve.js';
export type { FixedAnswer } from './fixed.js';
