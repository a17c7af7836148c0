import { fateOf, type Fate, type Trouble } from '@isomeros/core/engine';
import { ApiProblem } from '../http/problem.js';
import { LATENCY_PARTS, type TroublesDto } from './trouble.dto.js';
import { Random } from '@isomeros/core/seeding';

/** What goes wrong on purpose, and the number that makes a run of it repeatable. */
export interface Troubles {
  readonly seed: number;
  readonly items: readonly Trouble[];
}

export const NO_TROUBLES: Troubles = { seed: 1, items: [] };

/** What was sent, once every latency has all it is told by. */
export function asTroubles({ seed, items }: TroublesDto): Troubles {
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
  return { seed, items: items.map((item) => ({ ...item }) as Trouble) };
}

/** Throws the dice of one mock, from the beginning whenever it is told anew. */
export class Dice {
  private random: Random;

  constructor(private told: Troubles) {
    this.random = new Random(told.seed);
  }

  get troubles(): Troubles {
    return this.told;
  }

  tell(troubles: Troubles): void {
    this.told = troubles;
    this.random = new Random(troubles.seed);
  }

  get isCalm(): boolean {
    return this.told.items.length === 0;
  }

  throwFor(operation: string | null): Fate {
    return fateOf(this.told.items, operation, () => this.random.next());
  }
}
