import { utf8Length, type Json } from '../model/index.js';

/** A message as it travelled: request line or status line with header lines, then a body. */
export interface ArchivedMessage {
  readonly head: string;
  readonly body: string;
  /** Whether the body was longer than what is kept of it. */
  readonly cut: boolean;
  /** The bytes of a body that is not told; `null` where it is. */
  readonly withheld: number | null;
}

/** A request with its answer, for an archive. */
export interface ArchivedExchange {
  /** ISO 8601. */
  readonly at: string;
  readonly milliseconds: number;
  readonly operation: string | null;
  /** 0 where the connection was cut instead. */
  readonly status: number;
  readonly request: ArchivedMessage;
  readonly response: ArchivedMessage;
  /** Whether a page was sent; the body of the response is that of the resource which it shows. */
  readonly page: boolean;
}

type Object = { readonly [name: string]: Json };
type Header = readonly [name: string, value: string];

/** What an archive begins and ends with; its entries stand between, with commas (HAR 1.2, "log"). */
export const harFrame = (version: string): readonly [before: string, after: string] => {
  const creator = JSON.stringify({ name: 'Isomeros', version });
  return [`{"log":{"version":"1.2","creator":${creator},"pages":[],"entries":[`, ']}}'];
};

/**
 * One entry of an archive (HAR 1.2, "entries"). Sizes that are not known are -1; how long it took is measured where it was
 * answered, so that sending and receiving take no time. `origin`: where it was sent to, where
 * it does not say.
 */
export function harEntry(exchange: ArchivedExchange, origin: string): Object {
  const { at, milliseconds, operation } = exchange;
  return {
    startedDateTime: at,
    time: milliseconds,
    request: requestOf(exchange, origin),
    response: responseOf(exchange),
    cache: {},
    timings: {
      blocked: -1,
      dns: -1,
      connect: -1,
      send: 0,
      wait: milliseconds,
      receive: 0,
      ssl: -1,
      comment: 'Measured by the server.',
    },
    ...(operation === null ? {} : { comment: operation }),
  };
}

function requestOf({ request }: ArchivedExchange, origin: string): Object {
  const { first, headers } = parted(request.head);
  const [method = '', target = '', httpVersion = ''] = first.split(' ');
  const host = valueOf(headers, 'host');
  const asked = host === '' ? origin : `http://${host}`;
  const query = target.includes('?') ? target.slice(target.indexOf('?') + 1) : '';
  return {
    method,
    url: target.startsWith('/') ? asked + target : target === '*' || target === '' ? asked : target,
    httpVersion: httpVersion === '' ? 'unknown' : httpVersion,
    cookies: valueOf(headers, 'cookie')
      .split(';')
      .flatMap((pair): Json[] => (pair.includes('=') ? [namedValue(pair.trim())] : [])),
    headers: listed(headers),
    queryString: formPairs(query),
    ...postData(request, headers),
    headersSize: -1,
    bodySize: bodySize(request, headers),
  };
}

const FORM = 'application/x-www-form-urlencoded';

function postData(message: ArchivedMessage, headers: readonly Header[]): Object {
  const { body, withheld } = message;
  if (body === '' && withheld === null) return {};
  const mimeType = valueOf(headers, 'content-type');
  const isForm = mimeType.toLowerCase().startsWith(FORM);
  return {
    postData: {
      mimeType,
      params: isForm ? formPairs(body) : [],
      text: isForm ? '' : body,
      ...saidOf(message),
    },
  };
}

function responseOf({ response, status, page }: ArchivedExchange): Object {
  const { first, headers } = parted(response.head);
  const [httpVersion = '', , ...phrase] = first.split(' ');
  const size = bodySize(response, headers);
  return {
    status,
    statusText: phrase.join(' '),
    httpVersion: httpVersion === '' ? 'unknown' : httpVersion,
    cookies: headers.flatMap(([name, value]) =>
      name.toLowerCase() === 'set-cookie' ? [setCookie(value)] : [],
    ),
    headers: listed(headers),
    content: {
      size: response.cut || response.withheld !== null ? Math.max(size, 0) : utf8Length(response.body),
      mimeType: page ? 'application/json' : valueOf(headers, 'content-type') || 'x-unknown',
      ...(response.body === '' ? {} : { text: response.body }),
      ...saidOf(response),
      ...(page ? { comment: 'A page was sent that shows this.' } : {}),
    },
    redirectURL: valueOf(headers, 'location'),
    headersSize: -1,
    bodySize: status === 304 ? 0 : size,
  };
}

/** What is said where a body is not whole. */
const saidOf = ({ cut, withheld }: ArchivedMessage): Object =>
  withheld !== null
    ? { comment: `Withheld, since it may hold a secret: ${withheld} bytes.` }
    : cut
      ? { comment: 'Cut: only its beginning was kept, if anything.' }
      : {};

/** Bytes of a body as it travelled; -1 where that is not known. */
function bodySize({ body, cut, withheld }: ArchivedMessage, headers: readonly Header[]): number {
  const told = valueOf(headers, 'content-length');
  if (/^\d{1,15}$/.test(told)) return Number(told);
  if (withheld !== null) return withheld;
  return cut ? -1 : utf8Length(body);
}

/** A cookie as an answer sets it (RFC 6265 §4.1). */
function setCookie(text: string): Json {
  const [pair = '', ...attributes] = text.split(';').map((part) => part.trim());
  const told = new Map(
    attributes.map((attribute): [string, string] => {
      const { name, value } = namedValue(attribute);
      return [name.toLowerCase(), value];
    }),
  );
  const expires = Date.parse(told.get('expires') ?? '');
  return {
    ...namedValue(pair),
    ...(told.has('path') ? { path: told.get('path') ?? '' } : {}),
    ...(told.has('domain') ? { domain: told.get('domain') ?? '' } : {}),
    ...(Number.isNaN(expires) ? {} : { expires: new Date(expires).toISOString() }),
    httpOnly: told.has('httponly'),
    secure: told.has('secure'),
  };
}

function namedValue(pair: string): { readonly name: string; readonly value: string } {
  const at = pair.indexOf('=');
  return at < 0 ? { name: pair, value: '' } : { name: pair.slice(0, at), value: pair.slice(at + 1) };
}

const formPairs = (text: string): Json[] =>
  [...new URLSearchParams(text)].map(([name, value]) => ({ name, value }));

/** The first line of a message, and its headers as they came. */
function parted(head: string): { readonly first: string; readonly headers: readonly Header[] } {
  const [first = '', ...lines] = head.split('\r\n');
  const headers = lines.flatMap((line): Header[] => {
    const at = line.indexOf(':');
    return at < 0 ? [] : [[line.slice(0, at), line.slice(at + 1).trim()]];
  });
  return { first, headers };
}

const valueOf = (headers: readonly Header[], wanted: string): string =>
  headers.find(([name]) => name.toLowerCase() === wanted)?.[1] ?? '';

const listed = (headers: readonly Header[]): Json[] => headers.map(([name, value]) => ({ name, value }));
