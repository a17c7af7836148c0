import type { Progress } from '@isomeros/core/model';
import { useEffect } from 'react';
import { api, ApiError } from '../app/api/client.js';
import type { ExchangeSummary, Mock } from '@isomeros/api';
import { useAppDispatch } from '../app/store.js';
import { exchangesArrived, mockChanged, mockRemoved, progressMade } from './mocksSlice.js';

/** Follows a mock: its exchanges and its state, as they happen. */
export function useMockEvents(id: string | null): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    if (id === null) return;
    let followed = true;
    const catchUp = (): void => {
      api.listExchanges(id).then(
        (exchanges) => {
          if (followed) dispatch(exchangesArrived({ mock: id, exchanges }));
        },
        (error: unknown) => {
          if (error instanceof ApiError) return;
          throw error;
        },
      );
    };
    const source = new EventSource(api.eventsAddress(id));
    source.addEventListener('open', catchUp);
    source.addEventListener('exchange', ({ data }: MessageEvent<string>) => {
      dispatch(exchangesArrived({ mock: id, exchanges: [JSON.parse(data) as ExchangeSummary] }));
    });
    source.addEventListener('mock', ({ data }: MessageEvent<string>) => {
      dispatch(mockChanged(JSON.parse(data) as Mock));
    });
    source.addEventListener('progress', ({ data }: MessageEvent<string>) => {
      dispatch(progressMade({ mock: id, progress: JSON.parse(data) as Progress }));
    });
    source.addEventListener('removed', () => {
      dispatch(mockRemoved(id));
      source.close();
    });
    return () => {
      followed = false;
      source.close();
    };
  }, [id, dispatch]);
}
