import type { EngineRequest, EngineResponse } from './message.js';

const EXPOSED =
  'Location, Content-Location, Link, Link-Template, ETag, Total-Count, Preference-Applied, WWW-Authenticate, Retry-After, Deprecation, Sunset';

/**
 * Lets scripts of any origin read an answer (Fetch §3.2): front ends run on other ports than their API.
 * A preflight is answered with what the resource allows.
 */
export function withCors(request: EngineRequest, response: EngineResponse): EngineResponse {
  if (!request.headers.has('origin')) return response;
  const headers: [string, string][] = [
    ['Access-Control-Allow-Origin', '*'],
    ['Access-Control-Expose-Headers', EXPOSED],
  ];
  if (request.method === 'OPTIONS' && request.headers.has('access-control-request-method')) {
    const allow = response.headers.find(([name]) => name === 'Allow')?.[1] ?? '';
    headers.push(['Access-Control-Allow-Methods', allow]);
    const asked = request.headers.get('access-control-request-headers');
    if (asked !== undefined) headers.push(['Access-Control-Allow-Headers', asked]);
    headers.push(['Access-Control-Max-Age', '600']);
  }
  return { ...response, headers: [...response.headers, ...headers] };
}
