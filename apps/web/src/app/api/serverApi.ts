import { createApi, fakeBaseQuery } from '@reduxjs/toolkit/query/react';
import type { ProblemBody } from '@isomeros/api';
import { ApiError } from './client.js';

/** Nobody waits for it: whoever cancelled is told at once. */
const CANCELLED: ProblemBody = {
  type: 'about:blank',
  title: 'Cancelled',
  status: 0,
  detail: 'It was cancelled.',
};

type Answer<T> = { readonly data: T } | { readonly error: ProblemBody };

/**
 * An operation of the client as the store asks it: what the server refuses is an answer, too. The signal ends it once
 * nobody waits for it.
 */
export const askWith =
  <Asked, T>(ask: (asked: Asked, signal: AbortSignal) => Promise<T>) =>
  async (given: Asked, { signal }: { readonly signal: AbortSignal }): Promise<Answer<T>> => {
    try {
      return { data: await ask(given, signal) };
    } catch (error) {
      if (error instanceof ApiError) return { error: error.problem };
      if (signal.aborted) return { error: CANCELLED };
      throw error;
    }
  };

/** An operation that answers nothing. */
export const answersNothing =
  <Asked>(ask: (asked: Asked) => Promise<void>) =>
  async (given: Asked): Promise<null> => {
    await ask(given);
    return null;
  };

/**
 * What the server knows, asked once for everybody who shows it, and again once it is known to have changed. Each part of
 * the page adds the operations it asks.
 */
export const serverApi = createApi({
  reducerPath: 'server',
  baseQuery: fakeBaseQuery<ProblemBody>(),
  tagTypes: ['Designs', 'Mocks', 'Releases', 'Records', 'Snapshots', 'Migration', 'Journal'],
  endpoints: () => ({}),
});
