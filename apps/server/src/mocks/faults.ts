import type { Faults } from '@isomeros/api';
import { drawOutcome, type FaultOutcome, type FaultRule } from '@isomeros/core/engine';
import { ApiProblem } from '../http/problem.js';
import { LATENCY_PARTS, type FaultsDto } from './faults.dto.js';
import { Random } from '@isomeros/core/seeding';

export const NO_FAULTS: Faults = { seed: 1, items: [] };

/** What was sent, once every latency has all it is told by. */
export function toFaults({ seed, items }: FaultsDto): Faults {
  const errors = items.flatMap(({ latency }, index) => {
    const missing =
      latency === undefined
        ? undefined
        : LATENCY_PARTS[latency.kind].find((part) => latency[part] === undefined);
    if (latency === undefined || missing === undefined) return [];
    const message = `Expected ${LATENCY_PARTS[latency.kind].join(' and ')} of a ${latency.kind} latency.`;
    return [{ pointer: `/items/${index}/latency/${missing}`, code: 'required', message }];
  });
  if (errors.length > 0) throw new ApiProblem('invalid', 'A latency is not told in full.', { errors });
  return { seed, items: items.map((item) => ({ ...item }) as FaultRule) };
}

/** Draws what becomes of each request to a mock, from the beginning whenever its rules are others. */
export class FaultInjector {
  private random: Random;

  constructor(private rules: Faults) {
    this.random = new Random(rules.seed);
  }

  get faults(): Faults {
    return this.rules;
  }

  configure(faults: Faults): void {
    this.rules = faults;
    this.random = new Random(faults.seed);
  }

  get hasNoFaults(): boolean {
    return this.rules.items.length === 0;
  }

  draw(operation: string | null): FaultOutcome {
    return drawOutcome(this.rules.items, operation, () => this.random.next());
  }
}
