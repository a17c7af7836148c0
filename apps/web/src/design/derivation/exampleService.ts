import type { Contract } from '@isomeros/core/contract';
import type { Service } from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';

/** What examples are sent to. */
export const exampleService = (contract: Contract, model: Model): Service => ({
  contract,
  model,
  description: () => '',
  reference: () => '',
  secret: 'example',
});
