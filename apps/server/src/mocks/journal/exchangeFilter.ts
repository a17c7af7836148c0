import type { StoredSummary } from './storedExchange.js';

/** Which exchanges are looked for. What is left out holds for all. */
export interface ExchangeFilter {
  readonly operation?: string | undefined;
  /** The first digit of the status; 0 where the connection was cut. */
  readonly statusClass?: number | undefined;
  /** A part of the target. */
  readonly path?: string | undefined;
  readonly client?: string | undefined;
  /** The number of a record that it changed. */
  readonly record?: number | undefined;
}

export const ALL_EXCHANGES: ExchangeFilter = {};

export const isLookedFor = (
  { operation, statusClass, path, client, record }: ExchangeFilter,
  exchange: StoredSummary,
): boolean =>
  (operation === undefined || exchange.operation === operation) &&
  (statusClass === undefined || Math.floor(exchange.status / 100) === statusClass) &&
  (path === undefined || exchange.target.includes(path)) &&
  (client === undefined || exchange.client === client) &&
  (record === undefined || exchange.rids.includes(record));
