import { timingSafeEqual } from 'node:crypto';
import { isIP } from 'node:net';
import { hostname } from 'node:os';
import { Inject, Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import type { Request, Response } from 'express';
import { isLoopback } from '../config.js';
import { SERVER_SETTINGS, type ServerSettings } from '../settings.js';
import { ApiProblem } from './problem.js';

const COOKIE = 'isomeros_token';

/** Lets a request in when it comes from this machine's own pages, or shows the token. */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(@Inject(SERVER_SETTINGS) private readonly settings: ServerSettings) {}

  canActivate(context: ExecutionContext): boolean {
    const http = context.switchToHttp();
    const request = http.getRequest<Request>();
    const { token, host } = this.settings;
    const refused =
      refuseUnclearHost(request) ??
      refuseOtherHost(request, host, token !== null) ??
      (token === null ? null : refuseWithoutToken(request, token)) ??
      refuseForeignOrigin(request);
    if (refused !== null) throw refused;
    if (token !== null && isToken(request.query['token'], token)) {
      const value = encodeURIComponent(token);
      const cookie = `${COOKIE}=${value}; HttpOnly; SameSite=Strict; Path=/`;
      http.getResponse<Response>().setHeader('Set-Cookie', cookie);
    }
    return true;
  }
}

/** One Host header that names a host, and a target that names no other (RFC 9112 §3.2). */
function refuseUnclearHost({ rawHeaders, headers, url }: Request): ApiProblem | null {
  const hosts = rawHeaders.filter((name, index) => index % 2 === 0 && name.toLowerCase() === 'host');
  if (hosts.length > 1) return new ApiProblem('bad-request', 'The request has more than one Host header.');
  const { host = '' } = headers;
  if (hostName(host) === null) return new ApiProblem('bad-request', 'The Host header names no host.');
  const authority = /^[a-z][a-z0-9+.-]*:\/\/([^/?#]*)/i.exec(url)?.[1];
  return authority === undefined || authority.toLowerCase() === host.toLowerCase()
    ? null
    : new ApiProblem('foreign-host', 'The target names another host than the Host header.');
}

/**
 * Only names of this machine are served, since others may lead here by a foreign name server. An address is no name
 * that somebody could make lead here; where a token is demanded, others may call by it.
 */
function refuseOtherHost({ headers }: Request, ownHost: string, hasToken: boolean): ApiProblem | null {
  const host = hostName(headers.host ?? '') ?? '';
  const isOwn = isLoopback(host) || (hasToken && (isIP(host) !== 0 || host === ownHost || host === MACHINE));
  return isOwn
    ? null
    : new ApiProblem('foreign-host', 'The Host header names another host than this machine.');
}

const MACHINE = hostname().toLowerCase();

/** Pages of other origins may not call this server, token or not. */
function refuseForeignOrigin(request: Request): ApiProblem | null {
  const { origin } = request.headers;
  if (origin === undefined) return null;
  const from = originHost(origin);
  return from !== null && from === request.headers.host
    ? null
    : new ApiProblem('foreign-origin', `Pages of ${origin} may not call this server.`);
}

function refuseWithoutToken(request: Request, token: string): ApiProblem | null {
  const [scheme, given] = (request.headers.authorization ?? '').split(/ +/);
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
  for (const pair of (request.headers.cookie ?? '').split(';')) {
    const [name, ...value] = pair.trim().split('=');
    if (name === COOKIE) return decoded(value.join('='));
  }
  return undefined;
}

function decoded(value: string): string | undefined {
  try {
    return decodeURIComponent(value);
  } catch (error) {
    if (error instanceof URIError) return undefined;
    throw error;
  }
}

/** The host of a Host header without its port; `null` when it is not one. */
export function hostName(header: string): string | null {
  const match = /^(?:\[([0-9A-Fa-f:.]+)\]|([^:[\]/@]+))(?::\d{1,5})?$/.exec(header);
  return match === null ? null : (match[1] ?? match[2] ?? '').toLowerCase();
}

function originHost(origin: string): string | null {
  return /^https?:\/\/([^/]+)$/.exec(origin)?.[1] ?? null;
}
