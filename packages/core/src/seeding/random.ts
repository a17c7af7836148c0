/** A small deterministic generator (mulberry32): one number gives the same run on every machine. */
export class Random {
  private state: number;

  constructor(seed: number) {
    this.state = seed >>> 0;
  }

  /** A number from 0 up to but not including 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0;
    let mixed = this.state;
    mixed = Math.imul(mixed ^ (mixed >>> 15), mixed | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  }

  /** A whole number from `min` to `max`, both included. */
  integer(min: number, max: number): number {
    return min + Math.floor(this.next() * (max - min + 1));
  }

  pick<T>(items: readonly T[]): T {
    const item = items[Math.floor(this.next() * items.length)];
    if (item === undefined) throw new Error('Nothing to pick from.');
    return item;
  }

  /** So many of some things, in their order; all of them where more are wanted. */
  some<T>(items: readonly T[], wanted: number): T[] {
    let left = items.length;
    let needed = Math.min(wanted, left);
    return items.filter(() => {
      const isTaken = this.next() * left < needed;
      left--;
      if (isTaken) needed--;
      return isTaken;
    });
  }

  /** One of the names, each as often as its share among all of them. */
  share(shares: Readonly<Record<string, number>>): string {
    const all = Object.entries(shares).filter(([, share]) => share > 0);
    let left = this.next() * all.reduce((sum, [, share]) => sum + share, 0);
    const met = all.find(([, share]) => (left -= share) < 0) ?? all.at(-1);
    if (met === undefined) throw new Error('Nothing has a share.');
    return met[0];
  }

  chance(probability: number): boolean {
    return this.next() < probability;
  }
}

/** A UUID of version 4 (RFC 9562 §5.4) out of a source of numbers from 0 up to 1. */
export function randomUuid(next: () => number): string {
  const hex = Array.from({ length: 32 }, () => Math.floor(next() * 16).toString(16));
  hex[12] = '4';
  hex[16] = (8 + Math.floor(next() * 4)).toString(16);
  const text = hex.join('');
  return `${text.slice(0, 8)}-${text.slice(8, 12)}-${text.slice(12, 16)}-${text.slice(16, 20)}-${text.slice(20)}`;
}
