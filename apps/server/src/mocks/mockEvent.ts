import type { ExchangeSummary, Mock } from '@isomeros/api';
import type { Progress } from '@isomeros/core/model';

/** What those who look at a mock are told. */
export type MockEvent =
  | { readonly kind: 'exchange'; readonly mock: string; readonly exchange: ExchangeSummary }
  | { readonly kind: 'mock'; readonly mock: string; readonly state: Mock }
  /** How far a large write is. */
  | { readonly kind: 'progress'; readonly mock: string; readonly progress: Progress }
  /** Of so many exchanges that many were told; the number of the last. */
  | {
      readonly kind: 'sampled';
      readonly mock: string;
      readonly told: number;
      readonly of: number;
      readonly last: number;
    }
  | { readonly kind: 'removed'; readonly mock: string };
