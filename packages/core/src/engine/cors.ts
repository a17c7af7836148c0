import type { EngineRequest, EngineResponse } from './message.js';

/** Headers that answers may have, whether this one has them or not. */
const EXPOSED: readonly string[] = [
  'Location',
  'Content-Location',
  'Link',
  'Link-Template',
  'ETag',
  'Preference-Applied',
  'WWW-Authenticate',
  'Retry-After',
  'Deprecation',
  'Sunset',
];

/**
 * Lets scripts of any origin read an answer (Fetch §3.2): front ends run on other ports than their API.
 * A preflight is answered with what the resource allows.
 */
export function withCors(request: EngineRequest, response: EngineResponse): EngineResponse {
  if (!request.headers.has('origin')) return response;
  const preflight = preflightMethod(request);
  // A preflight that fails hides the answer that the request itself would get.
  const answer = preflight === null || response.status < 400 ? response : ALLOWED;
  const headers: [string, string][] = [
    ['Access-Control-Allow-Origin', '*'],
    ['Access-Control-Expose-Headers', exposed(response).join(', ')],
  ];
  if (preflight !== null) {
    const allow = answer.headers.find(([name]) => name === 'Allow')?.[1] ?? preflight;
    headers.push(['Access-Control-Allow-Methods', allow]);
    const asked = request.headers.get('access-control-request-headers');
    if (asked !== undefined) headers.push(['Access-Control-Allow-Headers', asked]);
    headers.push(['Access-Control-Max-Age', '600']);
  }
  return { ...answer, headers: [...answer.headers, ...headers] };
}

/** Those, and what an arrangement gave a name of its own. */
const exposed = ({ headers }: EngineResponse): readonly string[] => [
  ...new Set([...EXPOSED, ...headers.map(([name]) => name)]),
];

const ALLOWED: EngineResponse = { status: 204, headers: [], body: null };

/** The method that a preflight asks for; `null` for any other request. */
const preflightMethod = ({ method, headers }: EngineRequest): string | null =>
  method === 'OPTIONS' ? (headers.get('access-control-request-method') ?? null) : null;
