import type { Contract } from '@isomeros/core/contract';
import { losingCandidates, type Candidate, type RecordChange, type TraceStep } from '@isomeros/core/engine';

/** A message as it travelled. */
export interface Message {
  /** Request line or status line, then header lines. */
  readonly head: string;
  readonly body: string;
  /** True when the body was longer than what is kept, or has been let go to save memory. */
  readonly cut: boolean;
}

/** The head of a message as it comes: lines are made of it when somebody looks. */
export interface Head {
  readonly line: string;
  /** Names and values in turn. */
  readonly headers: readonly string[];
}

export interface KeptMessage extends Omit<Message, 'head'> {
  readonly head: Head;
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
  /** Other operations it might have been meant for, and why it was not. */
  readonly candidates: readonly Candidate[];
  readonly records: readonly RecordChange[];
}

export type ExchangeSummary = Omit<Exchange, 'request' | 'response' | 'trace' | 'candidates' | 'records'>;

/** An exchange as it is kept: most are never looked at, so as little as can be is made of each. */
export interface KeptExchange extends Omit<Exchange, 'at' | 'request' | 'response' | 'candidates'> {
  /** The contract it was matched by: what else might have matched is told by it. */
  readonly contract: Contract;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly request: KeptMessage;
  readonly response: KeptMessage;
}

export const MOST_EXCHANGES = 10_000;
const MOST_BODY_CHARACTERS = 65_536;
const MOST_CHARACTERS = 32 * 1_048_576;

/** The latest exchanges of a mock, in memory. Bodies of old ones are let go before the exchanges are. */
export class Journal {
  /** By their number, wrapped around. */
  private readonly kept: (KeptExchange | undefined)[] = [];
  private last = 0;
  private characters = 0;
  private firstWithBodies = 1;

  get count(): number {
    return this.last;
  }

  add(exchange: Omit<KeptExchange, 'number'>): KeptExchange {
    const number = ++this.last;
    const { request, response, ...rest } = exchange;
    const kept = { ...rest, number, request: shorten(request), response: shorten(response) };
    const dropped = this.kept[number % MOST_EXCHANGES];
    if (dropped !== undefined) this.characters -= sizeOf(dropped);
    this.kept[number % MOST_EXCHANGES] = kept;
    this.characters += sizeOf(kept);
    while (this.characters > MOST_CHARACTERS && this.firstWithBodies < number)
      this.letBodiesGo(this.firstWithBodies++);
    return kept;
  }

  get(number: number): Exchange | undefined {
    const kept = this.find(number);
    if (kept === undefined) return undefined;
    const { contract, ...exchange } = kept;
    return {
      ...exchange,
      at: new Date(kept.at).toISOString(),
      request: shown(kept.request),
      response: shown(kept.response),
      candidates: losingCandidates(contract, kept),
    };
  }

  /** At most `limit` exchanges before `before`, newest first. */
  page(before: number, limit: number): ExchangeSummary[] {
    const page: ExchangeSummary[] = [];
    for (let number = Math.min(before - 1, this.last); number > 0 && page.length < limit; number--) {
      const exchange = this.find(number);
      if (exchange === undefined) break;
      page.push(summaryOf(exchange));
    }
    return page;
  }

  private find(number: number): KeptExchange | undefined {
    const kept = this.kept[number % MOST_EXCHANGES];
    return kept?.number === number ? kept : undefined;
  }

  private letBodiesGo(number: number): void {
    const exchange = this.find(number);
    if (exchange === undefined) return;
    const without = (message: KeptMessage): KeptMessage => ({ ...message, body: '', cut: true });
    const lean = {
      ...exchange,
      request: without(exchange.request),
      response: without(exchange.response),
      records: [],
    };
    this.characters += sizeOf(lean) - sizeOf(exchange);
    this.kept[number % MOST_EXCHANGES] = lean;
  }
}

const sizeOf = ({ request, response }: KeptExchange): number =>
  headSize(request.head) + request.body.length + headSize(response.head) + response.body.length;

function headSize({ line, headers }: Head): number {
  let size = line.length;
  for (const text of headers) size += text.length + 2;
  return size;
}

const shorten = (message: KeptMessage): KeptMessage =>
  message.body.length <= MOST_BODY_CHARACTERS
    ? message
    : { ...message, body: message.body.slice(0, MOST_BODY_CHARACTERS), cut: true };

function shown({ head, body, cut }: KeptMessage): Message {
  const lines = [head.line];
  for (let index = 0; index < head.headers.length; index += 2)
    lines.push(`${head.headers[index]}: ${head.headers[index + 1]}`);
  return { head: head.line === '' ? '' : lines.join('\r\n'), body, cut };
}

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
}: KeptExchange): ExchangeSummary {
  return {
    number,
    at: new Date(at).toISOString(),
    arrangement,
    client,
    method,
    target,
    operation,
    status,
    milliseconds,
  };
}
