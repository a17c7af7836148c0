import type { DesignFigures } from '@isomeros/api';
import type { Choices } from '@isomeros/core/arrangement';
import { figuresOf, type Contract } from '@isomeros/core/contract';
import { indexModel, type Model } from '@isomeros/core/model';

export function figuresOfDesign(model: Model, contract: Contract, { answered }: Choices): DesignFigures {
  const { entities, relationships } = indexModel(model);
  return { entities: entities.size, relationships: relationships.length, ...figuresOf(contract, answered) };
}
