import { baselineRelease } from '@isomeros/core/comparison';
import { useEffect } from 'react';
import { useSearchParams } from 'react-router';
import { useAppDispatch } from '../app/store.js';
import { whyOf } from './derivation/service.js';
import { useDerivation } from './derivation/useDerivation.js';
import { derivationFailed } from './derivedSlice.js';
import { releasesApi, useListReleasesQuery } from './releasesApi.js';

/**
 * Hands the service that derives the releases of a design it compares with: those that have to go on being served, and
 * the one that is looked at.
 */
export function useComparedReleases(design: string): void {
  const dispatch = useAppDispatch();
  const derivation = useDerivation();
  const [search] = useSearchParams();
  const shown = search.get('release');
  const { data: items } = useListReleasesQuery(design, { refetchOnMountOrArgChange: true });
  useEffect(() => {
    if (items === undefined) return;
    let isWanted = true;
    const compared = items.filter(
      (one) => one.label === shown || baselineRelease(items, one.arrangement, one.version) === one,
    );
    const fetchAll = async (): Promise<void> => {
      const releases = await Promise.all(
        compared.map(async ({ label, arrangement, version, madeAt }) => {
          const { readReleaseContract } = releasesApi.endpoints;
          const asked = readReleaseContract.initiate({ design, label, madeAt }, { subscribe: false });
          return { label, arrangement, version, json: await dispatch(asked).unwrap() };
        }),
      );
      if (isWanted) await derivation.compareWith({ design, releases });
    };
    fetchAll().catch((error: unknown) => {
      if (isWanted) dispatch(derivationFailed(`the releases could not be read. ${whyOf(error)}`));
    });
    return () => {
      isWanted = false;
    };
  }, [design, items, shown, derivation, dispatch]);
}
