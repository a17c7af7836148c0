import { timingSafeEqual } from 'node:crypto';
import type { NextFunction, Request, Response } from 'express';
import { isLoopback } from '../config.js';
import { ApiProblem, sendProblem } from './problem.js';

const COOKIE = 'isomeros_token';

/** Lets a request in when it comes from this machine's own pages, or shows the token. */
export function admission(
  token: string | null,
): (request: Request, response: Response, next: NextFunction) => void {
  return (request, response, next) => {
    const refused = token === null ? refuseForeign(request) : refuseWithoutToken(request, token);
    if (refused !== null) {
      sendProblem(response, refused);
      return;
    }
    if (token !== null && isToken(request.query['token'], token)) {
      response.setHeader('Set-Cookie', `${COOKIE}=${token}; HttpOnly; SameSite=Strict; Path=/`);
    }
    next();
  };
}

function refuseForeign(request: Request): ApiProblem | null {
  const host = hostName(request.headers.host ?? '');
  if (host === null || !isLoopback(host)) {
    return new ApiProblem('foreign-host', 'The Host header names another host than this machine.');
  }
  const { origin } = request.headers;
  if (origin === undefined) return null;
  const from = originHost(origin);
  return from !== null && from === request.headers.host
    ? null
    : new ApiProblem('foreign-origin', `Pages of ${origin} may not call this server.`);
}

function refuseWithoutToken(request: Request, token: string): ApiProblem | null {
  const [scheme, given] = (request.headers.authorization ?? '').split(' ');
  if (scheme?.toLowerCase() === 'bearer' && isToken(given, token)) return null;
  if (isToken(cookieOf(request), token) || isToken(request.query['token'], token)) return null;
  const headers = { 'WWW-Authenticate': 'Bearer realm="Isomeros"' };
  return new ApiProblem('unauthorized', 'Expected the token that the start command printed.', { headers });
}

function isToken(given: unknown, token: string): boolean {
  if (typeof given !== 'string') return false;
  const [a, b] = [Buffer.from(given), Buffer.from(token)];
  return a.length === b.length && timingSafeEqual(a, b);
}

function cookieOf(request: Request): string | undefined {
  const pairs = (request.headers.cookie ?? '').split(';').map((pair) => pair.trim().split('='));
  return pairs.find(([name]) => name === COOKIE)?.[1];
}

/** The host of a Host header without its port; `null` when it is not one. */
export function hostName(header: string): string | null {
  const match = /^(?:\[([0-9A-Fa-f:.]+)\]|([^:[\]/@]+))(?::\d{1,5})?$/.exec(header);
  return match === null ? null : (match[1] ?? match[2] ?? '').toLowerCase();
}

function originHost(origin: string): string | null {
  return /^http:\/\/([^/]+)$/.exec(origin)?.[1] ?? null;
}
