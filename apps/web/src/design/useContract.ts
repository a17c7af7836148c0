import type { Contract } from '@isomeros/core/contract';
import { useEffect } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { whyOf } from './derivation/service.js';
import { useDerivation } from './derivation/useDerivation.js';
import { contractArrived, derivationFailed } from './derivedSlice.js';

/**
 * The whole contract of the last valid text, for pages that show it; `null` until there is one. While a newer
 * one is on its way the one before stays. Pages share it: it is large.
 */
export function useContract(): Contract | null {
  const outline = useAppSelector((state) => state.derived.outline);
  const contract = useAppSelector((state) => state.derived.contract);
  const derivation = useDerivation();
  const dispatch = useAppDispatch();
  const isCurrent = contract?.outline === outline;
  useEffect(() => {
    if (outline === null || isCurrent) return;
    let isWanted = true;
    derivation.contract().then(
      (whole) => {
        if (isWanted && whole !== null) dispatch(contractArrived(Object.freeze({ whole, outline })));
      },
      (error: unknown) => {
        if (isWanted) dispatch(derivationFailed(whyOf(error)));
      },
    );
    return () => {
      isWanted = false;
    };
  }, [outline, isCurrent, derivation, dispatch]);
  return contract?.whole ?? null;
}
