import { createContext, useContext } from 'react';
import type { DerivationService } from './service.js';

export const DerivationServiceContext = createContext<DerivationService | null>(null);

/** What derives for this page. */
export function useDerivation(): DerivationService {
  const derivation = useContext(DerivationServiceContext);
  if (derivation === null) throw new Error('No derivation service stands around this part.');
  return derivation;
}
