import { useEffect, useState } from 'react';
import { useAppDispatch } from '../../app/store.js';
import { derivationFailed } from '../derivedSlice.js';
import { whyOf, type DerivationService } from './service.js';
import { useDerivation } from './useDerivation.js';

export type Ask<T> = (derivation: DerivationService) => Promise<T>;

/**
 * What the derivation service answers to a question, which is the same as long as the function is. It is asked again
 * whenever `of`, which the answer follows from, is another; meanwhile the answer before stays. `null` until there is one.
 */
export function useAsked<T>(ask: Ask<T> | null, of: unknown): T | null {
  const derivation = useDerivation();
  const dispatch = useAppDispatch();
  const [told, setTold] = useState<{ readonly to: Ask<T>; readonly answer: T } | null>(null);
  useEffect(() => {
    if (ask === null) return;
    let isWanted = true;
    ask(derivation).then(
      (answer) => {
        if (isWanted) setTold({ to: ask, answer });
      },
      (error: unknown) => {
        if (isWanted) dispatch(derivationFailed(whyOf(error)));
      },
    );
    return () => {
      isWanted = false;
    };
  }, [ask, of, derivation, dispatch]);
  return told !== null && told.to === ask ? told.answer : null;
}
