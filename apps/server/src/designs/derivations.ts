import { arrangementOf, completeModel, type Choices } from '@isomeros/core/arrangement';
import type { Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import type { Identities, Model } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import { openApiDocument } from '@isomeros/core/publication';

/** A sound model with the contract its default arrangement implies. */
export interface Derivation {
  readonly model: Model;
  readonly contract: Contract;
  /** The OpenAPI document of the contract, as a JSON text. */
  readonly description: () => string;
}

/** Derives the contract of a text without errors. */
export function deriveFrom(
  text: string,
  identities: Identities,
  choices: Choices,
  arrangement: string,
): Derivation {
  const model = completeModel(parse(text, identities).model, choices);
  const contract = derive(model, arrangementOf(arrangement, choices));
  let description: string | null = null;
  return {
    model,
    contract,
    description: () => (description ??= JSON.stringify(openApiDocument(contract), null, 2)),
  };
}

/** Keeps the latest derivations, so that one revision of a design is derived once. */
export class DerivationCache {
  private readonly kept = new Map<string, Derivation>();

  constructor(private readonly most: number) {}

  get(key: string, make: () => Derivation): Derivation {
    const known = this.kept.get(key);
    if (known !== undefined) {
      this.kept.delete(key);
      this.kept.set(key, known);
      return known;
    }
    const made = make();
    this.kept.set(key, made);
    const oldest = this.kept.keys().next().value;
    if (this.kept.size > this.most && oldest !== undefined) this.kept.delete(oldest);
    return made;
  }
}
