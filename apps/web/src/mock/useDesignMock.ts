import type { Mock } from '../app/api/types.js';
import { useAppSelector } from '../app/store.js';

/** The mock of a design, when it has one. */
export const useDesignMock = (design: string): Mock | null =>
  useAppSelector(({ mocks }) => Object.values(mocks.byId).find((mock) => mock.design === design) ?? null);
