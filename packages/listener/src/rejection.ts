import { problem, type Problem } from '@isomeros/core/engine';

/** What the HTTP parser of the platform says of a message it could not read. */
export interface ParserError extends NodeJS.ErrnoException {
  /** What arrived with it; messages before it may be in there, too. */
  readonly rawPacket?: Buffer;
  /** How much of that was read. */
  readonly bytesParsed?: number;
}

export const MOST_HEADER_BYTES = 32_768;

const TOKEN = /[!#$%&'*+\-.^_`|~0-9A-Za-z]/;
const MOST_METHOD = 100;

/** The first line of the message that was wrong: the one that was being read when it was. */
export function firstLineOf({ rawPacket, bytesParsed = 0, code }: ParserError): string {
  const text = rawPacket?.toString('latin1') ?? '';
  let start = 0;
  if (code === 'HPE_INVALID_METHOD') {
    start = Math.min(bytesParsed, text.length);
    while (start > 0 && bytesParsed - start < MOST_METHOD && TOKEN.test(text.charAt(start - 1))) start--;
  }
  return text.slice(start).split('\r\n', 1)[0] ?? '';
}

/** What is answered to a message that could not be read. */
export function rejection({ code }: ParserError, firstLine: string): Problem {
  switch (code) {
    case 'HPE_INVALID_METHOD':
      if (!/^[!#$%&'*+\-.^_`|~0-9A-Za-z]+ \S+ HTTP\//.test(firstLine)) return NOT_HTTP;
      return problem(
        501,
        'method-unknown',
        `No resource here knows the method ${firstLine.split(' ', 1)[0]?.slice(0, 40) ?? ''}.`,
      );
    case 'HPE_INVALID_TRANSFER_ENCODING':
      return problem(
        501,
        'transfer-coding',
        'The transfer coding is not read here; chunked is (RFC 9112 §6.1).',
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
      return NOT_HTTP;
  }
}

const NOT_HTTP = problem(400, 'bad-request', 'The request is not HTTP as RFC 9112 defines it.');
