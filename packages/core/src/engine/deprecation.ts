import type { Operation } from '../contract/index.js';
import type { EngineResponse } from './message.js';
import type { RequestContext } from './service.js';

/** The path of the page about an operation, under the root of the contract. */
export const operationPath = (root: string, operation: string): string => `${root}/-/operations/${operation}`;

/**
 * An answer of an operation that is coming to its end: `Deprecation` and `Sunset`, with links to where more is told
 * (RFC 9745 §2.1 and §3, RFC 8594 §3 and §6).
 */
export function withOperationEnd(
  response: EngineResponse,
  operation: Operation | null,
  { contract, origin }: RequestContext,
): EngineResponse {
  // Most operations have nothing said of them, and every answer comes by here.
  if (operation === null || operation.documentation === null) return response;
  const { deprecated, sunset, isPublished } = operation.documentation;
  if (deprecated === null && sunset === null) return response;
  const headers: [string, string][] = [];
  if (deprecated !== null) headers.push(['Deprecation', `@${Date.parse(deprecated) / 1_000}`]);
  if (sunset !== null) headers.push(['Sunset', new Date(Date.parse(sunset)).toUTCString()]);
  // What is not published has no page.
  if (isPublished) {
    const page = origin + operationPath(contract.root, operation.id);
    const relations = [
      ...(deprecated === null ? [] : ['deprecation']),
      ...(sunset === null ? [] : ['sunset']),
    ];
    const link = `<${page}>; rel="${relations.join(' ')}"; type="text/plain"`;
    return { ...response, headers: withLink([...response.headers, ...headers], link) };
  }
  return { ...response, headers: [...response.headers, ...headers] };
}

/** Headers with one more link: a field that is there already takes it in (RFC 9110 §5.3). */
function withLink(headers: EngineResponse['headers'], link: string): EngineResponse['headers'] {
  return headers.some(([name]) => name === 'Link')
    ? headers.map(([name, value]) => (name === 'Link' ? [name, `${value}, ${link}`] : [name, value]))
    : [...headers, ['Link', link]];
}

/** What a release says about its end. */
export interface Deprecation {
  /** Since when, or from when, it is not to be used any more; milliseconds since 1970. */
  readonly deprecatedAt: number;
  /** When it stops answering; milliseconds since 1970, or `null` where nobody knows. */
  readonly sunsetAt: number | null;
  /** Where what comes after it is served; `null` where nothing is. */
  readonly successor: string | null;
}

/**
 * An answer of a release that is coming to its end: `Deprecation` (RFC 9745 §2.1), `Sunset` (RFC 8594 §3) and a link
 * to its successor (RFC 5829 §3.3).
 */
export function withDeprecation(response: EngineResponse, lifespan: Deprecation | null): EngineResponse {
  if (lifespan === null) return response;
  const { deprecatedAt, sunsetAt, successor } = lifespan;
  // An operation may end before the release does.
  const known = new Set(response.headers.map(([name]) => name));
  const headers: [string, string][] = [];
  if (!known.has('Deprecation')) headers.push(['Deprecation', `@${Math.floor(deprecatedAt / 1_000)}`]);
  if (sunsetAt !== null && !known.has('Sunset')) headers.push(['Sunset', new Date(sunsetAt).toUTCString()]);
  const all = [...response.headers, ...headers];
  return {
    ...response,
    headers: successor === null ? all : withLink(all, `<${successor}>; rel="successor-version"`),
  };
}
