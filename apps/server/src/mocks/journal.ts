import type { Exchange, ExchangeSummary, Message, RecordVersion } from '@isomeros/api';
import { STATUS_CODES } from 'node:http';
import type { Contract } from '@isomeros/core/contract';
import {
  cascadeOf,
  describeChange,
  narrowingOf,
  nearMisses,
  versionOf,
  type EngineResponse,
  type KeptChange,
  type RecordedBody,
} from '@isomeros/core/engine';

/**
 * An exchange as it is kept: most are never looked at, so what came and what went is kept as it is, and messages are
 * made of it when somebody looks.
 */
export interface KeptExchange extends Omit<
  Exchange,
  | 'number'
  | 'at'
  | 'milliseconds'
  | 'status'
  | 'request'
  | 'response'
  | 'narrowing'
  | 'nearMisses'
  | 'records'
  | 'removed'
> {
  /** Given by the journal. */
  number: number;
  /** The contract it was matched by: what else might have matched is told by it. */
  readonly contract: Contract;
  /** Milliseconds since 1970. */
  readonly at: number;
  /** How long it took, as a whole number, which takes no object of its own. */
  readonly microseconds: number;
  /** The target as it was sent, in whatever form. */
  readonly sentTarget: string;
  readonly version: string;
  /** Names and values in turn, as they were sent but for secrets. */
  sentHeaders: readonly string[];
  /** Secrets masked. */
  body: RecordedBody;
  /** Its status is 0 where the connection was cut instead. */
  response: EngineResponse;
  records: readonly KeptChange[];
  /** About how many characters it keeps. */
  size: number;
  /** Whether its bodies have been let go. */
  isLean: boolean;
}

/** Of a body. */
export const MOST_BODY_CHARACTERS = 65_536;
const MOST_CHARACTERS = 32 * 1_048_576;

/** The latest exchanges of a mock, in memory. Bodies of old ones are let go before the exchanges are. */
export class Journal {
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
      this.letBodiesGo(this.firstWithBodies++);
  }

  get(number: number): Exchange | undefined {
    const kept = this.find(number);
    if (kept === undefined) return undefined;
    const { contract, operation, client, arrangement, method, target, microseconds, trace, records } = kept;
    return {
      number,
      at: new Date(kept.at).toISOString(),
      arrangement,
      client,
      method,
      target,
      operation,
      status: kept.response.status,
      milliseconds: asMilliseconds(microseconds),
      request: shownRequest(kept),
      response: shownResponse(kept),
      trace,
      narrowing: narrowingOf(contract, kept),
      nearMisses: nearMisses(contract, kept),
      records: records.map(describeChange),
      removed: cascadeOf(records),
    };
  }

  /** At most `limit` exchanges before `before`, newest first. */
  page(before: number, limit: number): ExchangeSummary[] {
    const page: ExchangeSummary[] = [];
    for (let number = Math.min(before - 1, this.last); number > 0 && page.length < limit; number--) {
      const exchange = this.find(number);
      if (exchange === undefined) break;
      page.push(exchangeSummary(exchange));
    }
    return page;
  }

  /** The exchanges that made or changed a record, newest first. */
  versionsOf(rid: number): RecordVersion[] {
    const versions: RecordVersion[] = [];
    for (let number = this.last; number > 0; number--) {
      const exchange = this.find(number);
      if (exchange === undefined) break;
      for (const change of exchange.records) {
        const found = versionOf(change, rid);
        if (found === null) continue;
        const { at, operation } = exchange;
        versions.push({ ...found, exchange: number, at: new Date(at).toISOString(), operation });
      }
    }
    return versions;
  }

  /** An exchange as it is kept. */
  find(number: number): KeptExchange | undefined {
    const kept = this.kept[number % this.most];
    return kept?.number === number ? kept : undefined;
  }

  private letBodiesGo(number: number): void {
    const exchange = this.find(number);
    if (exchange === undefined) return;
    this.characters -= exchange.size;
    exchange.body = NOTHING;
    exchange.response = { ...exchange.response, body: null };
    exchange.records = [];
    exchange.isLean = true;
    exchange.size = sizeOf(exchange);
    this.characters += exchange.size;
  }
}

const NOTHING: RecordedBody = { kind: 'none' };

/** A header is about so long. */
const HEADER_CHARACTERS = 40;

const sizeOf = ({ sentHeaders, target, body, response }: KeptExchange): number =>
  target.length +
  (sentHeaders.length / 2 + response.headers.length) * HEADER_CHARACTERS +
  (body.kind === 'text' ? body.text.length : 0) +
  (response.body?.length ?? 0);

/** Cuts bodies that are longer than what is kept of them. */
function shorten(exchange: KeptExchange): void {
  const { body } = exchange;
  if (body.kind === 'text' && body.text.length > MOST_BODY_CHARACTERS)
    exchange.body = { ...body, text: body.text.slice(0, MOST_BODY_CHARACTERS) };
  const answer = exchange.response.body;
  if (answer !== null && answer.length > MOST_BODY_CHARACTERS)
    exchange.response = { ...exchange.response, body: answer.slice(0, MOST_BODY_CHARACTERS) };
}

const isSame = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((text, index) => text === b[index]);

const isCut = (text: string): boolean => text.length === MOST_BODY_CHARACTERS;

function shownRequest({ method, sentTarget, version, sentHeaders, body, isLean }: KeptExchange): Message {
  const lines = [[method, sentTarget, version].filter((part) => part !== '').join(' ')];
  for (let index = 0; index < sentHeaders.length; index += 2)
    lines.push(`${sentHeaders[index]}: ${sentHeaders[index + 1]}`);
  const text = body.kind === 'text' ? body.text : '';
  return {
    head: lines.join('\r\n'),
    body: text,
    cut: isLean || body.kind === 'too-large' || isCut(text),
    withheld: body.kind === 'withheld' ? body.bytes : null,
  };
}

function shownResponse({ response: { status, headers, body }, isLean }: KeptExchange): Message {
  if (status === 0) return { head: '', body: '', cut: true, withheld: null };
  const lines = [`HTTP/1.1 ${status} ${STATUS_CODES[status] ?? ''}`];
  for (const [name, value] of headers) lines.push(`${name}: ${value}`);
  return { head: lines.join('\r\n'), body: body ?? '', cut: isLean || isCut(body ?? ''), withheld: null };
}

const asMilliseconds = (microseconds: number): number => Math.round(microseconds / 10) / 100;

export function exchangeSummary(kept: KeptExchange): ExchangeSummary {
  const { number, at, arrangement, client, method, target, operation, microseconds, response } = kept;
  const milliseconds = asMilliseconds(microseconds);
  const { status } = response;
  const moment = new Date(at).toISOString();
  return { number, at: moment, arrangement, client, method, target, operation, status, milliseconds };
}
