import type { ExchangeSummary } from '@isomeros/api';

/** Two runs of exchanges as one, in order, each number once. */
export function mergeByNumber(
  known: readonly ExchangeSummary[],
  arrived: readonly ExchangeSummary[],
): readonly ExchangeSummary[] {
  const last = known.at(-1)?.number ?? 0;
  if (arrived.every(({ number }, index) => number > (arrived[index - 1]?.number ?? last)))
    return [...known, ...arrived];
  const all = new Map([...known, ...arrived].map((exchange) => [exchange.number, exchange]));
  return [...all.values()].sort((a, b) => a.number - b.number);
}
