import { shortestWay, type Contract, type LinkStep } from '@isomeros/core/contract';
import { EXAMPLE_NOW, followWay, type Dataset, type WayRequest } from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import { exampleService } from './exampleService.js';

/** The shortest way from one resource to another, as links lead and as the engine answers on seed records. */
export interface Way {
  readonly steps: readonly LinkStep[];
  /** As far as there are records for it. */
  readonly requests: readonly WayRequest[];
}

/** `null` where no links lead there. */
export function wayBetween(
  contract: Contract,
  model: Model,
  dataset: Dataset,
  from: string,
  to: string,
): Way | null {
  const steps = shortestWay(contract, from, to);
  if (steps === null) return null;
  const service = exampleService(contract, model);
  const runtime = { now: () => EXAMPLE_NOW, random: () => 0.5, token: () => 'an-example' };
  return { steps, requests: followWay(service, dataset, from, steps, runtime) ?? [] };
}
