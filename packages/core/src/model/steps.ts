/** What is being done, and how many things of it are done. */
export interface Progress {
  readonly doing: 'reading' | 'finding' | 'comparing' | 'checking' | 'writing' | 'making';
  readonly count: number;
}

/**
 * Work that is done in steps: whoever runs it may do something else between two of them, or run it to its end at
 * once.
 */
export type Steps<T> = Generator<Progress, T, undefined>;

/** So many things one step goes through. */
const THINGS = 200;

/** Goes through things, and gives way now and then. */
export function* eachInSteps<T>(
  doing: Progress['doing'],
  things: Iterable<T>,
  act: (thing: T) => void,
): Steps<void> {
  let count = 0;
  for (const thing of things) {
    act(thing);
    if (++count % THINGS === 0) yield { doing, count };
  }
}

/** What becomes of each thing. */
export function* mapInSteps<T, U>(
  doing: Progress['doing'],
  things: Iterable<T>,
  become: (thing: T) => U,
): Steps<U[]> {
  const all: U[] = [];
  yield* eachInSteps(doing, things, (thing) => all.push(become(thing)));
  return all;
}

/** Runs work to its end at once. */
export function runToEnd<T>(steps: Steps<T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done === true) return step.value;
  }
}

/** The greatest of some numbers, and at least `least`. As arguments of one call there could be too many. */
export const greatest = (numbers: Iterable<number>, least: number): number => {
  let most = least;
  for (const number of numbers) if (number > most) most = number;
  return most;
};

/** Puts other items in the place of all. */
export function replaceItems<T>(list: T[], items: readonly T[]): void {
  list.length = 0;
  appendAll(list, items);
}

/** Adds everything to a list. As arguments of one call there could be too many. */
export function appendAll<T>(list: T[], more: Iterable<T>): void {
  for (const item of more) list.push(item);
}
