import { useEffect, useState } from 'react';
import { useAppDispatch, useAppSelector, useAppStore } from '../app/store.js';
import type { Consequence, Step } from './derivation/protocol.js';
import { whyOf } from './derivation/service.js';
import { useDerivation } from './derivation/useDerivation.js';
import { derivationFailed } from './derivedSlice.js';
import { arrangementName } from './viewSlice.js';

/** What follows is worked out once the typing pauses. */
const QUIET_MS = 700;

const NOTHING: ReadonlyMap<string, Consequence | null> = new Map();

/** What would come and go by each of some steps, by the step as JSON. */
export function useConsequences(
  steps: readonly Step[],
  quiet = QUIET_MS,
): ReadonlyMap<string, Consequence | null> {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const derivation = useDerivation();
  const outline = useAppSelector((state) => state.derived.outline);
  const [known, setKnown] = useState(NOTHING);
  const wanted = JSON.stringify(steps);
  useEffect(() => {
    const asked = JSON.parse(wanted) as readonly Step[];
    if (asked.length === 0) return;
    let isWanted = true;
    const later = setTimeout(() => {
      const state = store.getState();
      const { text, design, choices } = state.document;
      if (design === null) return;
      const { id, identities } = design;
      const basis = { design: id, text, identities, choices, arrangement: arrangementName(state) };
      derivation.consequences(basis, asked).then(
        (consequences) => {
          if (isWanted)
            setKnown(new Map(asked.map((step, at) => [JSON.stringify(step), consequences[at] ?? null])));
        },
        (error: unknown) => {
          if (isWanted) dispatch(derivationFailed(whyOf(error)));
        },
      );
    }, quiet);
    return () => {
      isWanted = false;
      clearTimeout(later);
    };
  }, [wanted, outline, quiet, store, derivation, dispatch]);
  return known;
}
