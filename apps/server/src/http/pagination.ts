import { ApiProblem } from './problem.js';

const PAGE_SIZE = 50;
const MAX_PAGE_SIZE = 200;

/** Reads `limit`: how many items a page holds. */
export function readLimit(text: string | undefined): number {
  if (text === undefined) return PAGE_SIZE;
  const limit = /^[1-9]\d{0,3}$/.test(text) ? Number(text) : NaN;
  if (limit <= MAX_PAGE_SIZE) return limit;
  const message = `Expected a whole number from 1 to ${MAX_PAGE_SIZE}.`;
  throw outOfRange('limit', message);
}

/** How many items come before those that are asked for. */
export function readOffset(text: string | undefined): number {
  if (text === undefined) return 0;
  if (/^(?:0|[1-9]\d{0,7})$/.test(text)) return Number(text);
  const message = 'Expected a whole number from 0 to 99999999.';
  throw outOfRange('offset', message);
}

const outOfRange = (parameter: string, message: string): ApiProblem =>
  new ApiProblem('bad-parameter', message, { errors: [{ parameter, code: 'range', message }] });

/** An opaque place in an ordered list: the sort values of its last item. */
export const writePageCursor = (values: readonly string[]): string =>
  Buffer.from(JSON.stringify(values)).toString('base64url');

/** Reads a cursor whose values are as told, one after the other. Anything else is a problem. */
export function readPageCursor(
  text: string,
  parts: readonly ((value: string) => boolean)[],
): readonly string[] {
  const values = parseCursor(text);
  if (values?.length === parts.length && values.every((value, index) => parts[index]?.(value) === true))
    return values;
  const message = 'Expected a cursor that an earlier page gave.';
  throw new ApiProblem('bad-parameter', message, {
    errors: [{ parameter: 'cursor', code: 'cursor', message }],
  });
}

function parseCursor(text: string): string[] | null {
  try {
    const values: unknown = JSON.parse(Buffer.from(text, 'base64url').toString('utf8'));
    return Array.isArray(values) && values.every((value) => typeof value === 'string') ? values : null;
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}

/** What the values of a cursor may be. */
export const isMoment = (value: string): boolean => !Number.isNaN(Date.parse(value));
export const isNumber = (value: string): boolean => /^[1-9]\d{0,14}$/.test(value);
export const isId = (value: string): boolean => /^[0-9a-f-]{36}$/.test(value);

/** A `next` link (RFC 8288) to the page after this one. */
export function nextLink(path: string, parameters: Readonly<Record<string, string | undefined>>): string {
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(parameters)) if (value !== undefined) query.set(name, value);
  return `<${path}?${query.toString()}>; rel="next"`;
}
