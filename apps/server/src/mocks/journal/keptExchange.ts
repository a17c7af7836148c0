import type { Exchange, ExchangeSummary, Message, TimedStep } from '@isomeros/api';
import { STATUS_CODES } from 'node:http';
import type { Contract } from '@isomeros/core/contract';
import type { EngineResponse, KeptChange, RecordedBody, TraceStep } from '@isomeros/core/engine';

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
  | 'pinned'
  | 'page'
  | 'trace'
> {
  /** Given by the journal. */
  number: number;
  /** The contract it was matched by: what else might have matched is told by it. */
  readonly contract: Contract;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly trace: readonly TraceStep[];
  /** When it began, and when each step was done, in milliseconds that only go forward. */
  readonly started: number;
  readonly times: readonly number[];
  /** How long it took, as a whole number, which takes no object of its own. */
  readonly microseconds: number;
  /** The target as it was sent, in whatever form. */
  readonly sentTarget: string;
  readonly version: string;
  /** Names and values in turn, as they were sent but for secrets. */
  sentHeaders: readonly string[];
  /** Secrets masked. */
  body: RecordedBody;
  /** Its status is 0 where the connection was cut instead. Of a page it has the body of what the page shows. */
  response: EngineResponse;
  readonly isPage: boolean;
  records: readonly KeptChange[];
  /** About how many characters it keeps. */
  size: number;
  /** Whether its bodies have been let go. */
  isLean: boolean;
}

/** Of a body. */
export const MOST_BODY_CHARACTERS = 65_536;

const NOTHING: RecordedBody = { kind: 'none' };

/** Keeps what is known of an exchange but its bodies and records. */
export function letBodiesGo(exchange: KeptExchange): void {
  exchange.body = NOTHING;
  exchange.response = { ...exchange.response, body: null };
  exchange.records = [];
  exchange.isLean = true;
  exchange.size = sizeOf(exchange);
}

/** A header is about so long. */
const HEADER_CHARACTERS = 40;

export const sizeOf = ({ sentHeaders, target, body, response }: KeptExchange): number =>
  target.length +
  (sentHeaders.length / 2 + response.headers.length) * HEADER_CHARACTERS +
  (body.kind === 'text' ? body.text.length : 0) +
  (response.body?.length ?? 0);

/** Cuts bodies that are longer than what is kept of them. */
export function shorten(exchange: KeptExchange): void {
  const { body } = exchange;
  if (body.kind === 'text' && body.text.length > MOST_BODY_CHARACTERS)
    exchange.body = { ...body, text: body.text.slice(0, MOST_BODY_CHARACTERS) };
  const answer = exchange.response.body;
  if (answer !== null && answer.length > MOST_BODY_CHARACTERS)
    exchange.response = { ...exchange.response, body: answer.slice(0, MOST_BODY_CHARACTERS) };
}

const isCut = (text: string): boolean => text.length === MOST_BODY_CHARACTERS;

export function requestMessage({
  method,
  sentTarget,
  version,
  sentHeaders,
  body,
  isLean,
}: KeptExchange): Message {
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

export function responseMessage({ response: { status, headers, body }, isLean }: KeptExchange): Message {
  if (status === 0) return { head: '', body: '', cut: true, withheld: null };
  const lines = [`HTTP/1.1 ${status} ${STATUS_CODES[status] ?? ''}`];
  for (const [name, value] of headers) lines.push(`${name}: ${value}`);
  return { head: lines.join('\r\n'), body: body ?? '', cut: isLean || isCut(body ?? ''), withheld: null };
}

const asMilliseconds = (microseconds: number): number => Math.round(microseconds / 10) / 100;

/** The steps with how long each took. The last one has what is left: waiting, committing, sending. */
export function timedTrace({ trace, started, times, microseconds }: KeptExchange): readonly TimedStep[] {
  const last = trace.length - 1;
  return trace.map((step, place): TimedStep => {
    const done = place === last ? started + microseconds / 1_000 : times[place];
    const before = place === 0 ? started : times[place - 1];
    const isTimed = done !== undefined && before !== undefined;
    return { ...step, milliseconds: isTimed ? asMilliseconds((done - before) * 1_000) : null };
  });
}

/** What a list tells of an exchange. */
export function exchangeSummary(kept: KeptExchange): Omit<ExchangeSummary, 'pinned'> {
  const { number, at, arrangement, client, method, target, operation, microseconds, response } = kept;
  const milliseconds = asMilliseconds(microseconds);
  const { status } = response;
  const moment = new Date(at).toISOString();
  return { number, at: moment, arrangement, client, method, target, operation, status, milliseconds };
}
