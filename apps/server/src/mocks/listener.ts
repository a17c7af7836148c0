import { isUtf8 } from 'node:buffer';
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
  type EngineRequest,
  type EngineResponse,
  type Problem,
  type RequestBody,
} from '@isomeros/core/engine';
import type { Head } from './journal.js';

/** An answer, and how fast its body is sent, in bytes a second; `null` for as fast as can be. */
export interface Answered {
  readonly response: EngineResponse;
  readonly pace: number | null;
}

/** What stands behind the port of a mock. */
export interface RequestHandler {
  /** The root of the contract: problem types are resolved against it. */
  readonly root: string;
  /** The largest body that is read, in bytes. */
  readonly bodyBytes: number;
  /** `null`: the connection is cut instead of answered. What need not wait is answered at once. */
  handle(request: EngineRequest, head: Head): Answered | null | Promise<Answered | null>;
  /** Told of requests that never became one: not HTTP, or a method the platform does not know. */
  rejected(line: string, response: EngineResponse): void;
}

const MOST_HEADER_BYTES = 32_768;

/** Opens a loopback port for a mock. Rejects when the port is taken. */
export function listen(handler: () => RequestHandler, port: number): Promise<Server> {
  const server = createServer(
    { maxHeaderSize: MOST_HEADER_BYTES, requireHostHeader: false },
    (request, response) => {
      if (hasBody(request)) void answerBody(handler(), request, response);
      else answer(handler(), request, response, NO_BODY);
    },
  );
  server.on('clientError', (error: NodeJS.ErrnoException & { rawPacket?: Buffer }, socket: Socket) => {
    reject(handler(), error, socket);
  });
  return new Promise((resolve, fail) => {
    server.once('error', fail);
    server.listen(port, '127.0.0.1', () => {
      server.off('error', fail);
      resolve(server);
    });
  });
}

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

async function answerBody(
  handler: RequestHandler,
  request: IncomingMessage,
  response: ServerResponse,
): Promise<void> {
  const body = await readBody(request, handler.bodyBytes);
  if (body !== null) answer(handler, request, response, body);
}

const HTTP_1_1 = 'HTTP/1.1';

function answer(
  handler: RequestHandler,
  request: IncomingMessage,
  response: ServerResponse,
  body: RequestBody,
): void {
  const method = request.method ?? 'GET';
  const url = request.url ?? '/';
  const engineRequest = { method, target: originForm(url), headers: headersOf(request), body };
  const version = request.httpVersion === '1.1' ? HTTP_1_1 : `HTTP/${request.httpVersion}`;
  const head = { target: url, version, headers: request.rawHeaders };
  const answered = handler.handle(engineRequest, head);
  const closing = body.kind === 'too-large';
  if (answered instanceof Promise)
    void answered.then((later) => {
      respond(response, later, closing);
    });
  else respond(response, answered, closing);
}

function respond(response: ServerResponse, answered: Answered | null, closing: boolean): void {
  if (answered === null) response.destroy();
  else send(response, answered, closing);
}

function send(
  response: ServerResponse,
  { response: { status, headers, body }, pace }: Answered,
  closing: boolean,
): void {
  // Names and values in turn: some names stand more than once, such as those of challenges.
  const lines: string[] = [];
  for (const [name, value] of headers) lines.push(name, value);
  if (closing) lines.push('Connection', 'close');
  if (body !== null) lines.push('Content-Length', String(Buffer.byteLength(body)));
  response.writeHead(status, lines);
  if (body === null) response.end();
  else if (pace === null) response.end(body);
  else void trickle(response, Buffer.from(body), pace);
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

function headersOf({ headers }: IncomingMessage): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const name of Object.keys(headers)) {
    const value = headers[name];
    if (value !== undefined) found.set(name, typeof value === 'string' ? value : value.join(', '));
  }
  return found;
}

const NO_BODY: RequestBody = { kind: 'none' };

/** Whether a request brings content (RFC 9112 §6). */
const hasBody = ({ headers }: IncomingMessage): boolean =>
  headers['transfer-encoding'] !== undefined || (headers['content-length'] ?? '0') !== '0';

/** Reads a body up to the limit, and passes over the rest of it; `null` when the client went away. */
function readBody(request: IncomingMessage, limit: number): Promise<RequestBody | null> {
  return new Promise((resolve) => {
    const parts: Buffer[] = [];
    let bytes = 0;
    request.on('data', (part: Buffer) => {
      bytes += part.length;
      if (bytes <= limit) parts.push(part);
      else resolve({ kind: 'too-large' });
    });
    request.on('end', () => {
      resolve(asBody(Buffer.concat(parts)));
    });
    request.on('close', () => {
      resolve(null);
    });
  });
}

function asBody(bytes: Buffer): RequestBody {
  if (bytes.length === 0) return { kind: 'none' };
  const text = decodeUtf8(bytes);
  return text === null ? { kind: 'unreadable' } : { kind: 'text', text, bytes: bytes.length };
}

/** Text from UTF-8, without a byte order mark; `null` from anything else. */
function decodeUtf8(bytes: Buffer): string | null {
  if (!isUtf8(bytes)) return null;
  const text = bytes.toString('utf8');
  return text.startsWith('\ufeff') ? text.slice(1) : text;
}

/** Answers what the HTTP parser of the platform could not read. */
function reject(
  handler: RequestHandler,
  error: NodeJS.ErrnoException & { rawPacket?: Buffer },
  socket: Socket,
): void {
  if (error.code === 'ECONNRESET' || !socket.writable) {
    socket.destroy();
    return;
  }
  const firstLine = error.rawPacket?.toString('latin1').split('\r\n', 1)[0] ?? '';
  const response = renderProblem(handler.root, rejection(error.code ?? '', firstLine));
  handler.rejected(firstLine, response);
  const body = response.body ?? '';
  const headers = response.headers.map(([name, value]) => `${name}: ${value}\r\n`).join('');
  const line = `HTTP/1.1 ${response.status} ${STATUS_CODES[response.status] ?? ''}`;
  socket.end(
    `${line}\r\n${headers}Content-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n${body}`,
  );
}

function rejection(code: string, firstLine: string): Problem {
  switch (code) {
    case 'HPE_INVALID_METHOD':
      if (!/^[!#$%&'*+\-.^_`|~0-9A-Za-z]+ \S+ HTTP\//.test(firstLine)) return notHttp();
      return problem(
        501,
        'method-unknown',
        `No resource here knows the method ${firstLine.split(' ', 1)[0]?.slice(0, 40) ?? ''}.`,
      );
    case 'HPE_HEADER_OVERFLOW':
      return problem(
        431,
        'bad-request',
        `The request line and headers are larger than ${MOST_HEADER_BYTES} bytes.`,
      );
    case 'ERR_HTTP_REQUEST_TIMEOUT':
      return problem(408, 'bad-request', 'The request did not arrive in time.');
    default:
      return notHttp();
  }
}

const notHttp = (): Problem => problem(400, 'bad-request', 'The request is not HTTP as RFC 9112 defines it.');
