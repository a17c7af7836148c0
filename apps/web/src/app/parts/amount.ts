const IRREGULAR: Readonly<Record<string, string>> = { entity: 'entities' };

/** A number with its noun: `1 path`, `2 paths`. */
export const amount = (count: number, noun: string): string =>
  `${count} ${count === 1 ? noun : (IRREGULAR[noun] ?? `${noun}s`)}`;
