import type { Choices } from '@isomeros/core/arrangement';
import { figuresOf, type Contract, type ContractFigures } from '@isomeros/core/contract';
import { indexModel, type Model } from '@isomeros/core/model';

/** What a design amounts to, in numbers. */
export interface DesignFigures extends ContractFigures {
  readonly entities: number;
  readonly relationships: number;
}

export function figuresOfDesign(model: Model, contract: Contract, { answered }: Choices): DesignFigures {
  const { entities, relationships } = indexModel(model);
  return { entities: entities.size, relationships: relationships.length, ...figuresOf(contract, answered) };
}
