import { load, type Load, type Message } from './load.js';

/** Those that are compared take turns, since a machine may be twice as quick from one minute to the next. */
export const ROUNDS = 25;
export const ROUND_SECONDS = 0.8;
/** Until everything is compiled, and what seeding left behind is collected. */
const WARMING_SECONDS = 3;

/** Something that answers, and what it is asked. */
export interface Contestant {
  readonly name: string;
  readonly port: number;
  readonly message: Message;
}

export async function warm({ port, message }: Pick<Contestant, 'port' | 'message'>): Promise<void> {
  // The first answers may wait for an index that is made for them.
  await load(port, message, 0.01);
  await load(port, message, WARMING_SECONDS);
}

/** A load in figures. */
export const text = ({ perSecond, median, p99 }: Load): string =>
  `${perSecond.toFixed(0).padStart(8)}/s  median ${median.toFixed(2).padStart(7)} ms  p99 ${p99.toFixed(2).padStart(7)} ms`;

export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) / 2)] ?? NaN;

/** The median of what each round gave. */
export const typical = (rounds: readonly Load[]): Load => ({
  perSecond: median(rounds.map(({ perSecond }) => perSecond)),
  median: median(rounds.map((round) => round.median)),
  p99: median(rounds.map(({ p99 }) => p99)),
});

/** What each contestant gave in each round, once all are warm. */
export async function inTurns<T extends Contestant>(
  contestants: readonly T[],
): Promise<ReadonlyMap<T, readonly Load[]>> {
  const rounds = new Map<T, Load[]>(contestants.map((contestant) => [contestant, []]));
  for (const contestant of contestants) await warm(contestant);
  for (let round = 0; round < ROUNDS; round++)
    for (const [{ port, message }, loads] of rounds) loads.push(await load(port, message, ROUND_SECONDS));
  return rounds;
}

/** How many times as much the first answered in the same round: the median of all rounds. */
export const ratioOf = (first: readonly Load[], second: readonly Load[]): number =>
  median(second.map(({ perSecond }, round) => (first[round]?.perSecond ?? NaN) / perSecond));
