import {
  createServer,
  STATUS_CODES,
  type IncomingMessage,
  type Server,
  type ServerResponse,
} from 'node:http';
import type { AddressInfo, Socket } from 'node:net';
import {
  problem,
  renderProblem,
  type ProblemPages,
  type EngineRequest,
  type EngineResponse,
  type RequestBody,
} from '@isomeros/core/engine';
import { coded, withPlainTags, type CodedResponse } from './contentCoding.js';
import type { Head } from './head.js';
import { messageProblem } from './messageRules.js';
import { firstLineOf, MOST_HEADER_BYTES, rejection, type ParserError } from './rejection.js';
import { Breaking, hasBody, NO_BODY, receiveBody } from './requestBody.js';

/** An answer, and how fast its body is sent, in bytes a second; `null` for as fast as can be. */
export interface SentAnswer {
  readonly response: EngineResponse;
  readonly pace: number | null;
}

/** What is known of a request before it is read. */
export interface RequestHead {
  /** Its path and query. */
  readonly target: string;
  /** The value of a header, by its name in lower case. */
  readonly header: (name: string) => string | undefined;
}

/** What answers behind a port. */
export interface RequestHandler {
  /** By what problems are rendered. */
  readonly contract: ProblemPages;
  /** The largest body that is read, in bytes. */
  readonly bodyBytes: number;
  /** `null`: the connection is cut instead of answered. What need not wait is answered at once. */
  handle(request: EngineRequest, head: Head): SentAnswer | null | Promise<SentAnswer | null>;
  /** Whether a request is refused whatever its body says, so that the body need not be sent. */
  isRefused(request: EngineRequest): boolean;
  /** Told of requests that never became one: not HTTP, or a method the platform does not know. */
  rejected(line: string, response: EngineResponse): void;
}

/**
 * Opens a loopback port behind which somebody answers, who is chosen for each request; `null` stands for what is none. 0
 * for any free port. Rejects with `EADDRINUSE` or `EACCES` when
 * the port cannot be had.
 */
export function listen(
  handlerOf: (asked: RequestHead | null) => RequestHandler,
  port: number,
): Promise<Server> {
  const server = createServer({ maxHeaderSize: MOST_HEADER_BYTES, requireHostHeader: false });
  server.on('request', (request: IncomingMessage, response: ServerResponse) => {
    receive(handlerOf(askedBy(request)), request, response, false);
  });
  server.on('checkContinue', (request: IncomingMessage, response: ServerResponse) => {
    receive(handlerOf(askedBy(request)), request, response, true);
  });
  server.on('checkExpectation', (request: IncomingMessage, response: ServerResponse) => {
    receive(handlerOf(askedBy(request)), request, response, false);
  });
  server.on('clientError', (error: ParserError, socket: Socket) => {
    reject(handlerOf(null), error, socket);
  });
  return new Promise((resolve, fail) => {
    server.once('error', fail);
    server.listen(port, '127.0.0.1', () => {
      server.off('error', fail);
      resolve(server);
    });
  });
}

const askedBy = ({ url = '/', headers }: IncomingMessage): RequestHead => ({
  target: originForm(url),
  header: (name) => {
    const value = headers[name];
    return typeof value === 'string' ? value : undefined;
  },
});

export const portOf = (server: Server): number => (server.address() as AddressInfo).port;

export function close(server: Server): Promise<void> {
  return new Promise((resolve) => {
    server.close(() => {
      resolve();
    });
    server.closeIdleConnections();
    setTimeout(() => {
      server.closeAllConnections();
    }, 1_000).unref();
  });
}

/** What is still to be answered on each connection: answers go out in the order of their requests (RFC 9112 §9.3.2). */
const unanswered = new WeakMap<Socket, Promise<void>>();

/** The body that is being read on each connection: what breaks off in it is never answered but by the refusal. */
const reading = new WeakMap<Socket, Breaking>();

/** Connections that got their last answer: what else is wrong with what came is not told. */
const closing = new WeakSet<Socket>();

/** Does something once everything before it on a connection is answered. */
function inOrder(socket: Socket, work: () => Promise<void> | void): void {
  const before = unanswered.get(socket);
  const done = before === undefined ? work() : before.then(work);
  if (done === undefined) return;
  unanswered.set(socket, done);
  const forget = (): void => {
    if (unanswered.get(socket) === done) unanswered.delete(socket);
  };
  done.then(forget, forget);
}

/** Answers one request. A fault in it answers 500 and is nobody else's. */
function receive(
  handler: RequestHandler,
  request: IncomingMessage,
  response: ServerResponse,
  expectsContinue: boolean,
): void {
  const fail = (): void => {
    if (response.headersSent) {
      response.destroy();
      return;
    }
    const found = problem(500, 'unexpected', 'The mock failed inside.');
    const failed = renderProblem(handler.contract, found);
    handler.rejected(`${request.method ?? ''} ${request.url ?? ''}`, failed);
    void send(response, failed, null, true);
  };
  inOrder(request.socket, () => {
    const head = headOf(request);
    try {
      const answered = hasBody(request)
        ? answerBody(handler, request, head, response, expectsContinue)
        : answer(handler, request, head, response, NO_BODY);
      return answered?.catch(fail);
    } catch {
      fail();
    }
  });
}

function answerBody(
  handler: RequestHandler,
  request: IncomingMessage,
  head: Head,
  response: ServerResponse,
  expectsContinue: boolean,
): Promise<void> | void {
  if (head.problem !== null) return answer(handler, request, head, response, NO_BODY, true);
  if (expectsContinue) {
    const isLarge = Number(request.headers['content-length'] ?? 0) > handler.bodyBytes;
    const body: RequestBody = isLarge ? { kind: 'too-large' } : NO_BODY;
    if (handler.isRefused(withPlainTags(requestOf(request, body))))
      return answer(handler, request, head, response, body, true);
    response.writeContinue();
  }
  const { socket } = request;
  const breaking = reading.get(socket) ?? new Breaking();
  reading.set(socket, breaking);
  return receiveBody(request, handler.bodyBytes, breaking).then((body) =>
    body === null ? undefined : answer(handler, request, head, response, body),
  );
}

const HTTP_1_1 = 'HTTP/1.1';

const requestOf = (request: IncomingMessage, body: RequestBody): EngineRequest => ({
  method: request.method ?? 'GET',
  target: originForm(request.url ?? '/'),
  headers: headersOf(request),
  body,
});

function headOf({ url = '/', httpVersion, rawHeaders }: IncomingMessage): Head {
  const version = httpVersion === '1.1' ? HTTP_1_1 : `HTTP/${httpVersion}`;
  return { target: url, version, headers: rawHeaders, problem: messageProblem(version, rawHeaders) };
}

function answer(
  handler: RequestHandler,
  request: IncomingMessage,
  head: Head,
  response: ServerResponse,
  body: RequestBody,
  closes = body.kind === 'too-large',
): Promise<void> | void {
  const sent = requestOf(request, body);
  const answered = handler.handle(withPlainTags(sent), head);
  return answered instanceof Promise
    ? answered.then((later) => respond(response, sent, later, closes))
    : respond(response, sent, answered, closes);
}

function respond(
  response: ServerResponse,
  request: EngineRequest,
  answered: SentAnswer | null,
  closes: boolean,
): Promise<void> | void {
  if (answered === null) {
    response.destroy();
    return;
  }
  const travelling = coded(request, answered.response);
  return 'status' in travelling
    ? send(response, travelling, answered.pace, closes)
    : travelling.then((later) => send(response, later, answered.pace, closes));
}

function send(
  response: ServerResponse,
  { status, headers, body }: CodedResponse,
  pace: number | null,
  closes: boolean,
): Promise<void> | void {
  // Names and values in turn: some names stand more than once, such as those of challenges.
  const lines: string[] = [];
  for (const [name, value] of headers) lines.push(name, value);
  if (closes) {
    lines.push('Connection', 'close');
    if (response.socket !== null) closing.add(response.socket);
  }
  if (body !== null) lines.push('Content-Length', String(Buffer.byteLength(body)));
  response.writeHead(status, lines);
  if (body === null) response.end();
  else if (pace === null) response.end(body);
  else return trickle(response, Buffer.from(body), pace);
}

const STEPS_A_SECOND = 10;

/** Ends with a body at a pace, once all of it is written or the client goes away. */
async function trickle(response: ServerResponse, bytes: Buffer, pace: number): Promise<void> {
  const step = Math.max(1, Math.ceil(pace / STEPS_A_SECOND));
  for (let at = 0; at < bytes.length && !response.destroyed; at += step) {
    response.write(bytes.subarray(at, at + step));
    await new Promise((resolve) => setTimeout(resolve, (step / pace) * 1_000));
  }
  response.end();
}

/** A target in absolute-form (RFC 9112 §3.2.2) as its path and query. */
const originForm = (target: string): string => target.replace(/^https?:\/\/[^/?#]*/i, '') || '/';

function headersOf({ headers, socket }: IncomingMessage): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  // HTTP/1.0 need not say whom it asks.
  if (headers.host === undefined) found.set('host', `${socket.localAddress}:${socket.localPort}`);
  for (const name of Object.keys(headers)) {
    const value = headers[name];
    if (value !== undefined) found.set(name, typeof value === 'string' ? value : value.join(', '));
  }
  return found;
}

/** Answers what the HTTP parser of the platform could not read, once everything before it is answered. */
function reject(handler: RequestHandler, error: ParserError, socket: Socket): void {
  reading.get(socket)?.onBreak?.();
  inOrder(socket, () => {
    if (closing.has(socket)) return;
    if (error.code === 'ECONNRESET' || !socket.writable) {
      socket.destroy();
      return;
    }
    const firstLine = firstLineOf(error);
    const response = renderProblem(handler.contract, rejection(error, firstLine));
    handler.rejected(firstLine, response);
    const body = response.body ?? '';
    const headers = response.headers.map(([name, value]) => `${name}: ${value}\r\n`).join('');
    const line = `HTTP/1.1 ${response.status} ${STATUS_CODES[response.status] ?? ''}`;
    socket.end(
      `${line}\r\n${headers}Content-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n${body}`,
    );
  });
}
