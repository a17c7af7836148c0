import { isUtf8 } from 'node:buffer';
import type { IncomingMessage } from 'node:http';
import type { Readable } from 'node:stream';
import { createGunzip } from 'node:zlib';
import type { RequestBody } from '@isomeros/core/engine';

export const NO_BODY: RequestBody = { kind: 'none' };

/** Whether a request brings content (RFC 9112 §6). */
export const hasBody = ({ headers }: IncomingMessage): boolean =>
  headers['transfer-encoding'] !== undefined || (headers['content-length'] ?? '0') !== '0';

/** The content coding of a body (RFC 9110 §8.4); `null` where there is none. */
function codingOf({ headers }: IncomingMessage): string | null {
  const sent = headers['content-encoding'];
  if (sent === undefined) return null;
  const coding = sent.trim().toLowerCase();
  return coding === '' || coding === 'identity' ? null : coding;
}

/** How whoever reads the bodies of a connection is told that no more can be read; an AbortSignal costs more than a body. */
export class Breaking {
  onBreak: (() => void) | null = null;
}

/**
 * Reads a body up to the limit, which counts what was decoded, and passes over the rest of it; `null` when the client
 * went away, or no more of it can be read.
 */
export function receiveBody(
  request: IncomingMessage,
  limit: number,
  breaking: Breaking,
): Promise<RequestBody | null> {
  const coding = codingOf(request);
  if (coding === null) return readStream(request, request, limit, breaking);
  if (coding === 'gzip' || coding === 'x-gzip') return readGzip(request, limit, breaking);
  request.resume();
  return Promise.resolve({ kind: 'coded', coding });
}

async function readGzip(
  request: IncomingMessage,
  limit: number,
  breaking: Breaking,
): Promise<RequestBody | null> {
  const decoded = createGunzip();
  request.pipe(decoded);
  const body = await readStream(request, decoded, limit, breaking);
  // What is left of the message is passed over undecoded.
  request.unpipe(decoded);
  decoded.destroy();
  request.resume();
  return body;
}

function readStream(
  request: IncomingMessage,
  stream: Readable,
  limit: number,
  breaking: Breaking,
): Promise<RequestBody | null> {
  return new Promise((resolve) => {
    breaking.onBreak = (): void => {
      // A body that arrived whole is read to its end, whatever came behind it.
      if (!request.complete) resolve(null);
    };
    const parts: Buffer[] = [];
    let bytes = 0;
    stream.on('data', (part: Buffer) => {
      bytes += part.length;
      if (bytes <= limit) parts.push(part);
      else resolve({ kind: 'too-large' });
    });
    stream.on('end', () => {
      resolve(asBody(Buffer.concat(parts)));
    });
    if (stream !== request)
      stream.on('error', () => {
        resolve({ kind: 'unreadable' });
      });
    request.on('close', () => {
      // A body that arrived whole may still be being decoded.
      if (!request.complete || stream === request) resolve(null);
    });
  });
}

function asBody(bytes: Buffer): RequestBody {
  if (bytes.length === 0) return NO_BODY;
  const text = decodeUtf8(bytes);
  return text === null ? { kind: 'unreadable' } : { kind: 'text', text, bytes: bytes.length };
}

/** Text from UTF-8, without a byte order mark; `null` from anything else. */
function decodeUtf8(bytes: Buffer): string | null {
  if (!isUtf8(bytes)) return null;
  const text = bytes.toString('utf8');
  return text.startsWith('\ufeff') ? text.slice(1) : text;
}
