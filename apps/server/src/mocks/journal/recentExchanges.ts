import { letBodiesGo, shorten, sizeOf, type KeptExchange } from './keptExchange.js';

const MOST_CHARACTERS = 32 * 1_048_576;

/** The latest exchanges of a mock, in memory. Bodies of old ones are let go before the exchanges are. */
export class RecentExchanges {
  /** By their number, wrapped around. */
  private readonly kept: (KeptExchange | undefined)[] = [];
  private last = 0;
  private characters = 0;
  private firstWithBodies = 1;
  private lastHeaders: readonly string[] = [];

  /** `most`: how many exchanges are kept. */
  constructor(private readonly most: number) {}

  get count(): number {
    return this.last;
  }

  add(exchange: KeptExchange): void {
    const number = ++this.last;
    exchange.number = number;
    // A client sends the same ones again and again, so they are mostly kept once.
    if (isSame(exchange.sentHeaders, this.lastHeaders)) exchange.sentHeaders = this.lastHeaders;
    else this.lastHeaders = exchange.sentHeaders;
    const place = number % this.most;
    const dropped = this.kept[place];
    if (dropped !== undefined) this.characters -= dropped.size;
    shorten(exchange);
    exchange.size = sizeOf(exchange);
    this.kept[place] = exchange;
    this.characters += exchange.size;
    while (this.characters > MOST_CHARACTERS && this.firstWithBodies < number)
      this.lighten(this.firstWithBodies++);
  }

  /** Goes on with numbers behind one that was given before. */
  beginAfter(number: number): void {
    this.last = number;
    this.firstWithBodies = number + 1;
  }

  /** Forgets all of them; their numbers are not given again. */
  clear(): void {
    this.kept.length = 0;
    this.characters = 0;
    this.firstWithBodies = this.last + 1;
    this.lastHeaders = [];
  }

  /** Those that are kept, from a number on, newest first. */
  *newestFirst(from = this.last): Generator<KeptExchange> {
    for (let number = Math.min(from, this.last); number > 0; number--) {
      const exchange = this.find(number);
      if (exchange === undefined) return;
      yield exchange;
    }
  }

  /** An exchange as it is kept. */
  find(number: number): KeptExchange | undefined {
    const kept = this.kept[number % this.most];
    return kept?.number === number ? kept : undefined;
  }

  private lighten(number: number): void {
    const exchange = this.find(number);
    if (exchange === undefined) return;
    this.characters -= exchange.size;
    letBodiesGo(exchange);
    this.characters += exchange.size;
  }
}

const isSame = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((text, index) => text === b[index]);
