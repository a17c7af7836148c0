import {
  EXAMPLE_NAME,
  EXPECTED_EXAMPLE_NAME,
  findArrangement,
  operationKey,
  type NamedExample,
} from '@isomeros/core/arrangement';
import type { Contract, Operation } from '@isomeros/core/contract';
import { namedMembers } from '@isomeros/core/engine';
import { useCallback, useState } from 'react';
import { useAppSelector } from '../app/store.js';
import type { NamedExchange } from '../design/derivation/protocol.js';
import { useAsked, type Ask } from '../design/derivation/useAsked.js';
import { useDerivation } from '../design/derivation/useDerivation.js';
import { useDecide } from '../design/useDecide.js';
import { arrangementName } from '../design/viewSlice.js';

/** The named examples of an operation, and what can be done with them. */
export interface NamedExamples {
  readonly named: readonly NamedExample[];
  /** The one that is looked at; `null` for the one that is derived. */
  readonly current: NamedExample | null;
  /** As it is answered now. */
  readonly ran: NamedExchange | null;
  /** What was wrong with what was wanted last. */
  readonly wrong: string | null;
  readonly choose: (id: string | null) => void;
  /** Gives the one that is looked at a name; keeps the derived one under it. Tells whether the name could be taken. */
  readonly keep: (name: string) => Promise<boolean>;
  /** Takes over what is to be sent; the status follows. */
  readonly write: (next: NamedExample) => Promise<void>;
  readonly remove: () => void;
}

const NONE: readonly NamedExample[] = [];

export function useNamedExamples(contract: Contract, operation: Operation): NamedExamples {
  const all = useAppSelector(
    (state) => findArrangement(state.document.choices, arrangementName(state))?.examples ?? NONE,
  );
  const key = operationKey(operation.resource, operation.verb);
  const named = all.filter((one) => one.operation === key);
  const [chosen, setChosen] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const decide = useDecide();
  const derivation = useDerivation();
  const current = named.find(({ id }) => id === chosen) ?? null;
  const choose = (id: string | null): void => {
    setChosen(id);
    setWrong(null);
  };
  return {
    named,
    current,
    ran: useNamedExchange(current, contract),
    wrong,
    choose,
    keep: async (name) => {
      const problem = problemOfName(named, name, chosen);
      setWrong(problem);
      if (problem !== null) return false;
      if (current !== null) {
        decide('examples', { id: current.id, example: { ...current, name } });
        return true;
      }
      const kept = await derivation.keptExample(operation.id, freeId(all, name), name);
      if (kept?.ok === true) {
        decide('examples', { id: kept.example.id, example: kept.example });
        choose(kept.example.id);
      } else setWrong(kept?.why ?? 'There is no contract yet.');
      return true;
    },
    write: async (next) => {
      const known = { ...next, members: namedMembers({ contract }, operation) };
      const told = await derivation.namedExample(known);
      decide('examples', { id: next.id, example: { ...known, status: told?.status ?? next.status } });
    },
    remove: () => {
      if (current !== null) decide('examples', { id: current.id, example: null });
      choose(null);
    },
  };
}

/** What is wrong with a name for an example; `null` where nothing is. `own`: the id of the one that is to have it. */
export function problemOfName(
  others: readonly NamedExample[],
  name: string,
  own: string | null,
): string | null {
  if (!EXAMPLE_NAME.test(name)) return `Expected ${EXPECTED_EXAMPLE_NAME}.`;
  return others.some((other) => other.name === name && other.id !== own)
    ? `There is an example ${name} already.`
    : null;
}

/** A named example, sent to the records it holds, and again when the contract is another. */
function useNamedExchange(example: NamedExample | null, contract: Contract): NamedExchange | null {
  const ask = useCallback<Ask<NamedExchange | null>>(
    (derivation) => (example === null ? Promise.resolve(null) : derivation.namedExample(example)),
    [example],
  );
  return useAsked(example === null ? null : ask, contract);
}

/** An id that no example has, made of a name. */
function freeId(examples: readonly NamedExample[], name: string): string {
  const known = new Set(examples.map(({ id }) => id));
  const base = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 40);
  for (let count = 1; ; count++) {
    const id = count === 1 ? base : `${base}-${count}`;
    if (!known.has(id)) return id;
  }
}
