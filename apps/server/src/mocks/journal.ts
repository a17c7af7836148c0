import type { RecordChange, TraceStep } from '@isomeros/core/engine';

/** A message as it travelled. */
export interface Message {
  /** Request line or status line, then header lines. */
  readonly head: string;
  readonly body: string;
  /** True when the body was longer than what is kept, or has been let go to save memory. */
  readonly cut: boolean;
}

/** One request with its response and how it was handled. */
export interface Exchange {
  readonly number: number;
  readonly at: string;
  /** The name of the arrangement it was sent to. */
  readonly arrangement: string;
  /** Who sent it: the product of its User-Agent, or `here` for the application itself. */
  readonly client: string;
  readonly method: string;
  readonly target: string;
  /** The operation that handled it, or `null`. */
  readonly operation: string | null;
  readonly status: number;
  readonly milliseconds: number;
  readonly request: Message;
  readonly response: Message;
  readonly trace: readonly TraceStep[];
  readonly records: readonly RecordChange[];
}

export type ExchangeSummary = Omit<Exchange, 'request' | 'response' | 'trace' | 'records'>;

export const MOST_EXCHANGES = 10_000;
const MOST_BODY_CHARACTERS = 65_536;
const MOST_CHARACTERS = 32 * 1_048_576;

/** The latest exchanges of a mock, in memory. Bodies of old ones are let go before the exchanges are. */
export class Journal {
  private readonly kept = new Map<number, Exchange>();
  private last = 0;
  private characters = 0;
  private firstWithBodies = 1;

  get count(): number {
    return this.last;
  }

  add(exchange: Omit<Exchange, 'number'>): Exchange {
    const number = ++this.last;
    const kept: Exchange = {
      ...exchange,
      number,
      request: shorten(exchange.request),
      response: shorten(exchange.response),
    };
    this.kept.set(number, kept);
    this.characters += sizeOf(kept);
    while (this.characters > MOST_CHARACTERS && this.firstWithBodies < number)
      this.letBodiesGo(this.firstWithBodies++);
    const oldest = number - MOST_EXCHANGES;
    const dropped = this.kept.get(oldest);
    if (dropped !== undefined) {
      this.characters -= sizeOf(dropped);
      this.kept.delete(oldest);
    }
    return kept;
  }

  get(number: number): Exchange | undefined {
    return this.kept.get(number);
  }

  /** At most `limit` exchanges before `before`, newest first. */
  page(before: number, limit: number): ExchangeSummary[] {
    const page: ExchangeSummary[] = [];
    for (let number = Math.min(before - 1, this.last); number > 0 && page.length < limit; number--) {
      const exchange = this.kept.get(number);
      if (exchange === undefined) break;
      page.push(summaryOf(exchange));
    }
    return page;
  }

  private letBodiesGo(number: number): void {
    const exchange = this.kept.get(number);
    if (exchange === undefined) return;
    const without = (message: Message): Message => ({ ...message, body: '', cut: true });
    const lean = {
      ...exchange,
      request: without(exchange.request),
      response: without(exchange.response),
      records: [],
    };
    this.characters += sizeOf(lean) - sizeOf(exchange);
    this.kept.set(number, lean);
  }
}

const sizeOf = ({ request, response }: Exchange): number =>
  request.head.length + request.body.length + response.head.length + response.body.length;

const shorten = (message: Message): Message =>
  message.body.length <= MOST_BODY_CHARACTERS
    ? message
    : { ...message, body: message.body.slice(0, MOST_BODY_CHARACTERS), cut: true };

export function summaryOf({
  number,
  at,
  arrangement,
  client,
  method,
  target,
  operation,
  status,
  milliseconds,
}: Exchange): ExchangeSummary {
  return { number, at, arrangement, client, method, target, operation, status, milliseconds };
}
