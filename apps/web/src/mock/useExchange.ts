import { useEffect, useState } from 'react';
import { api, ApiError } from '../app/api/client.js';
import type { Exchange } from '@isomeros/api';

/** One exchange in full; the one before stays while the next is read. */
export function useExchange(mock: string | null, number: number | null): Exchange | null {
  const [exchange, setExchange] = useState<Exchange | null>(null);
  useEffect(() => {
    if (mock === null || number === null) return;
    let wanted = true;
    api.readExchange(mock, number).then(
      (read) => {
        if (wanted) setExchange(read);
      },
      (error: unknown) => {
        if (!(error instanceof ApiError)) throw error;
        if (wanted) setExchange(null);
      },
    );
    return () => {
      wanted = false;
    };
  }, [mock, number]);
  return number === null ? null : exchange;
}
