import type { SeedPlan, Shortfall } from '@isomeros/core/seeding';
import type { Progress } from '@isomeros/core/model';
import type { ExchangeSummary } from './journal.js';

/** A mock as the interface shows it. */
export interface MockView {
  readonly id: string;
  readonly design: string;
  readonly arrangements: readonly string[];
  readonly baseUrls: Readonly<Record<string, string>>;
  /** Labels of releases that are served from the same records. */
  readonly releases: readonly string[];
  readonly releaseUrls: Readonly<Record<string, string>>;
  readonly port: number;
  readonly running: boolean;
  readonly seed: number;
  readonly records: number;
  readonly exchanges: number;
  /** Revision of the design that is served. */
  readonly servesRevision: number;
  /** For how many operations, or for all of them, something goes wrong on purpose. */
  readonly faults: number;
  /** Why a newer model is not served: what its records would lose or contradict. Empty when all is served. */
  readonly obstacles: readonly string[];
  /** Entities that got fewer seed records than wanted when the mock was made or reset. */
  readonly shortfalls: readonly Shortfall[];
}

/** What is wanted of seed records. */
export interface SeedSettings extends SeedPlan {
  readonly seed: number;
}

export type MockEvent =
  | { readonly kind: 'exchange'; readonly mock: string; readonly exchange: ExchangeSummary }
  | { readonly kind: 'mock'; readonly mock: string; readonly state: MockView }
  /** How far a large write is. */
  | { readonly kind: 'progress'; readonly mock: string; readonly progress: Progress }
  | { readonly kind: 'removed'; readonly mock: string };
