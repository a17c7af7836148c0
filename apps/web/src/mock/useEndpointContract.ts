import { readContract, type Contract } from '@isomeros/core/contract';
import { skipToken } from '@reduxjs/toolkit/query';
import { useMemo } from 'react';
import { useAppSelector } from '../app/store.js';
import { releasesOf } from '../design/releases.js';
import { useReadReleaseContractQuery } from '../design/releasesApi.js';
import { useContract } from '../design/useContract.js';
import type { MockEndpoint } from './endpoints.js';

/** The contract that is served: of a release the one it keeps, else that of the arrangement that is looked at. */
export function useEndpointContract({ mock: { design }, kind, name }: MockEndpoint): Contract | null {
  const own = useContract();
  const release = useAppSelector((state) => releasesOf(state, design).find(({ label }) => label === name));
  const { currentData } = useReadReleaseContractQuery(
    kind === 'release' && release !== undefined ? { design, label: name, madeAt: release.madeAt } : skipToken,
  );
  const kept = useMemo(() => (currentData === undefined ? null : readContract(currentData)), [currentData]);
  return kind === 'release' ? kept : own;
}
