import { readContract, type Contract } from '@isomeros/core/contract';
import { useEffect, useState } from 'react';
import { api } from '../app/api/client.js';
import { useContract } from '../design/useContract.js';
import type { MockEndpoint } from './endpoints.js';

/** The contract that is served: of a release the one it keeps, else that of the arrangement that is looked at. */
export function useEndpointContract({ mock, kind, name }: MockEndpoint): Contract | null {
  const own = useContract();
  const [kept, setKept] = useState<{ readonly label: string; readonly contract: Contract } | null>(null);
  const isRelease = kind === 'release';
  const { design } = mock;
  useEffect(() => {
    if (!isRelease) return;
    let isWanted = true;
    void api.readReleaseContract(design, name).then((text) => {
      if (isWanted) setKept({ label: name, contract: readContract(text) });
    });
    return () => {
      isWanted = false;
    };
  }, [isRelease, design, name]);
  if (!isRelease) return own;
  return kept?.label === name ? kept.contract : null;
}
