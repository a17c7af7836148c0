import type { Contract } from '@isomeros/core/contract';
import { useEffect } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { derivationClient } from './derivationClient.js';
import { contractArrived } from './designSlice.js';

/**
 * The whole contract of the last sound text, for pages that show it; `null` until there is one. While a newer
 * one is on its way the one before stays.
 */
export function useContract(): Contract | null {
  const { outline, contract } = useAppSelector((state) => state.design);
  const dispatch = useAppDispatch();
  const isCurrent = contract?.outline === outline;
  useEffect(() => {
    if (outline === null || isCurrent) return;
    let isWanted = true;
    void derivationClient.contract().then((whole) => {
      if (isWanted && whole !== null) dispatch(contractArrived(Object.freeze({ whole, outline })));
    });
    return () => {
      isWanted = false;
    };
  }, [outline, isCurrent, dispatch]);
  return contract?.whole ?? null;
}
