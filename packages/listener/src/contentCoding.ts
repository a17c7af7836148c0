import { promisify } from 'node:util';
import { gzip, gzipSync } from 'node:zlib';
import type { EngineRequest, EngineResponse, Header } from '@isomeros/core/engine';

/** An answer as it travels: its body in the coding that its headers name. */
export interface CodedResponse extends Omit<EngineResponse, 'body'> {
  readonly body: string | Buffer | null;
}

/** Shorter bodies gain nothing. */
const LEAST_BYTES = 1_024;
/** Longer ones are compressed beside the loop. */
const MOST_BYTES_AT_ONCE = 65_536;
const LEVEL = { level: 4 };

const compress = promisify<string, typeof LEVEL, Buffer>(gzip);

/** Whether gzip may be answered (RFC 9110 §12.5.3). */
export function acceptsGzip(header: string | undefined): boolean {
  if (header === undefined) return false;
  const weights = new Map<string, number>();
  for (const part of header.split(',')) {
    const [coding = '', ...parameters] = part.split(';').map((text) => text.trim().toLowerCase());
    const weight = parameters.find((parameter) => parameter.startsWith('q='))?.slice(2);
    if (coding !== '') weights.set(coding, weight === undefined ? 1 : Number(weight));
  }
  return (weights.get('gzip') ?? weights.get('x-gzip') ?? weights.get('*') ?? 0) > 0;
}

/** The tags of what is answered in gzip end so: each coding has a strong tag of its own (RFC 9110 §8.8.3.3). */
const CODED_END = '+gzip"';

const codedTag = (tag: string): string => `${tag.slice(0, -1)}${CODED_END}`;

const CONDITIONS = ['if-match', 'if-none-match'];

/** A request whose conditions name the tags of what is not coded: a write may be made for either. */
export function withPlainTags(request: EngineRequest): EngineRequest {
  const coded = CONDITIONS.filter((name) => request.headers.get(name)?.includes(CODED_END) === true);
  if (coded.length === 0) return request;
  const headers = new Map(request.headers);
  for (const name of coded) headers.set(name, (headers.get(name) ?? '').replaceAll(CODED_END, '"'));
  return { ...request, headers };
}

/** The answer to a request in gzip, where that is accepted and worth it. */
export function coded(
  request: EngineRequest,
  response: EngineResponse,
): CodedResponse | Promise<CodedResponse> {
  const { headers, body, status } = response;
  if (!acceptsGzip(request.headers.get('accept-encoding'))) return response;
  if (status === 304) return { ...response, headers: headers.map((header) => knownTag(request, header)) };
  if (request.method === 'HEAD') {
    const length = headers.find(([name]) => name === 'Content-Length')?.[1];
    return Number(length ?? 0) < LEAST_BYTES ? response : { status, headers: codedHeaders(headers), body };
  }
  const bytes = body === null ? 0 : Buffer.byteLength(body);
  if (body === null || bytes < LEAST_BYTES) return response;
  if (bytes <= MOST_BYTES_AT_ONCE)
    return { status, headers: codedHeaders(headers), body: gzipSync(body, LEVEL) };
  return compress(body, LEVEL).then((zipped) => ({ status, headers: codedHeaders(headers), body: zipped }));
}

/** An answer that says nothing has changed names the tag that the client has. */
function knownTag(request: EngineRequest, header: Header): Header {
  const [name, tag] = header;
  const known = request.headers.get('if-none-match') ?? '';
  return name === 'ETag' && known.includes(codedTag(tag)) ? [name, codedTag(tag)] : header;
}

function codedHeaders(headers: readonly Header[]): readonly Header[] {
  const kept = headers.flatMap(([name, value]): Header[] => {
    if (name === 'Content-Length') return [];
    if (name === 'ETag') return [[name, codedTag(value)]];
    if (name === 'Vary')
      return [[name, value.includes('Accept-Encoding') ? value : `${value}, Accept-Encoding`]];
    return [[name, value]];
  });
  const vary: Header[] = kept.some(([name]) => name === 'Vary') ? [] : [['Vary', 'Accept-Encoding']];
  return [...kept, ...vary, ['Content-Encoding', 'gzip']];
}
