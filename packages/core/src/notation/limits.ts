import { MODEL_LIMITS } from './modelLimits.js';
import type { AttributeType, Transition } from '../model/index.js';
import type { Block } from './block.js';

/** Why a block takes no further attribute, or none of a type; `null` where it does. */
export function attributeProblem({ kind, attributes }: Block, type: AttributeType): string | null {
  const inner = type.kind === 'list' ? type.of : type;
  if (inner.kind === 'choice' && inner.options.length > MODEL_LIMITS.options)
    return `A choice has at most ${MODEL_LIMITS.options} options; this one has ${inner.options.length}.`;
  if (attributes.length < MODEL_LIMITS.attributes) return null;
  return `${kind === 'entity' ? 'An entity' : 'A value'} has at most ${MODEL_LIMITS.attributes} attributes.`;
}

export function uniqueRuleProblem({ uniques }: Block, names: readonly string[]): string | null {
  if (names.length > MODEL_LIMITS.uniqueNames)
    return `A unique rule names at most ${MODEL_LIMITS.uniqueNames} attributes and roles.`;
  return uniques.length < MODEL_LIMITS.uniqueRules
    ? null
    : `An entity has at most ${MODEL_LIMITS.uniqueRules} unique rules.`;
}

export const transitionProblem = (known: readonly Transition[]): string | null =>
  known.length < MODEL_LIMITS.transitions
    ? null
    : `A life cycle has at most ${MODEL_LIMITS.transitions} transitions.`;

/** Counts what a model has. Each method says why there may be no more, and counts where there may be. */
export class ModelSize {
  private blocks = 0;
  private relationships = 0;
  private readonly ofEntity = new Map<string, number>();

  block(): string | null {
    if (this.blocks >= MODEL_LIMITS.blocks)
      return `A model has at most ${MODEL_LIMITS.blocks} entities and values.`;
    this.blocks++;
    return null;
  }

  relationship({ from, to }: { readonly from: string; readonly to: string }): string | null {
    if (this.relationships >= MODEL_LIMITS.relationships)
      return `A model has at most ${MODEL_LIMITS.relationships} relationships.`;
    const ends = from === to ? [from] : [from, to];
    const most = MODEL_LIMITS.relationshipsOfEntity;
    const full = ends.find((name) => this.countOf(name) >= most);
    if (full !== undefined) return `At most ${most} relationships name one entity; ${full} has as many.`;
    for (const name of ends) this.ofEntity.set(name, this.countOf(name) + 1);
    this.relationships++;
    return null;
  }

  private countOf(entity: string): number {
    return this.ofEntity.get(entity) ?? 0;
  }
}
