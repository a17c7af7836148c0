import { baselineRelease } from '@isomeros/core/comparison';
import { createAsyncThunk, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { api } from '../app/api/client.js';
import type { Release } from '@isomeros/api';
import { derivationClient } from './derivationClient.js';
import type { DesignReleases } from './baselineReleases.js';

export interface ReleasesState {
  readonly design: string;
  /** In the order they were made. */
  readonly items: readonly Release[];
  /** What the workers compare with. */
  readonly held: DesignReleases;
}

const NOTHING_HELD: DesignReleases = { design: '', releases: [] };
const initialState: ReleasesState = { design: '', items: [], held: NOTHING_HELD };

interface Wanted {
  readonly design: string;
  /** A release to compare with, whether it has to go on being served or not. */
  readonly label?: string | undefined;
}

/** The design that was asked about last: what comes later about another is not wanted any more. */
let newest = '';

/** Reads the releases of a design anew, and hands the workers those they compare with. */
export const loadReleases = createAsyncThunk('releases/load', async (wanted: Wanted, { dispatch }) => {
  const { design, label: asked } = wanted;
  newest = design;
  const items = await api.listReleases(design);
  const compared = items.filter(
    (one) => one.label === asked || baselineRelease(items, one.arrangement, one.version) === one,
  );
  const releases = await Promise.all(
    compared.map(async ({ label, arrangement, version, madeAt }) => ({
      label,
      arrangement,
      version,
      json: await contractOf(design, label, madeAt),
    })),
  );
  if (newest !== design) return;
  dispatch(releasesArrived({ design, items, held: { design, releases } }));
  await derivationClient.hold({ design, releases });
});

/** A release never changes: its contract is fetched once. */
const fetched = new Map<string, Promise<string>>();

function contractOf(design: string, label: string, madeAt: string): Promise<string> {
  const key = `${design} ${label} ${madeAt}`;
  const known = fetched.get(key);
  if (known !== undefined) return known;
  const asked = api.readReleaseContract(design, label);
  fetched.set(key, asked);
  asked.catch(() => fetched.delete(key));
  return asked;
}

const slice = createSlice({
  name: 'releases',
  initialState,
  reducers: {
    releasesArrived: (_state, { payload }: PayloadAction<ReleasesState>) => Object.freeze(payload),
  },
});

const { releasesArrived } = slice.actions;
export const releasesReducer = slice.reducer;

const NONE: readonly Release[] = [];

/** The releases of a design, once they are known. */
export const releasesOf = (
  { releases }: { readonly releases: ReleasesState },
  design: string,
): readonly Release[] => (releases.design === design ? releases.items : NONE);
