import type { ExchangeSummary, Mock } from '@isomeros/api';
import type { Progress } from '@isomeros/core/model';

/** What those who look at a mock are told. */
export type MockEvent =
  | { readonly kind: 'exchange'; readonly mock: string; readonly exchange: ExchangeSummary }
  | { readonly kind: 'mock'; readonly mock: string; readonly state: Mock }
  /** How far a large write is. */
  | { readonly kind: 'progress'; readonly mock: string; readonly progress: Progress }
  | { readonly kind: 'removed'; readonly mock: string };
