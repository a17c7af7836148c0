import { existsSync } from 'node:fs';
import { join, sep } from 'node:path';
import { All, Controller, Inject, Req, Res } from '@nestjs/common';
import compression from 'compression';
import express, { type Request, type RequestHandler, type Response } from 'express';
import { methodsOf } from './http/route.js';
import { newAddress } from './http/oldAddresses.js';
import { ApiProblem } from './http/problem.js';
import { SERVER_SETTINGS, type ServerSettings } from './settings.js';

/**
 * Everything that is no operation of the interface: the built pages, whose views all lead to the one page that shows
 * them, and what is not there.
 */
@Controller()
export class PagesController {
  private readonly page: string | null;
  private readonly assets: RequestHandler | null;
  /** Applies to what the page loads, and to nothing of the interface: events would wait in it. */
  private readonly compress = compression();

  constructor(@Inject(SERVER_SETTINGS) { webFolder }: ServerSettings) {
    const page = webFolder === null ? null : join(webFolder, 'index.html');
    this.page = page !== null && existsSync(page) ? page : null;
    this.assets =
      this.page === null || webFolder === null
        ? null
        : express.static(webFolder, { index: false, setHeaders: keepForGood });
  }

  @All('{*path}')
  async serve(@Req() request: Request, @Res() response: Response): Promise<void> {
    const moved = newAddress(request.originalUrl);
    if (moved !== null) {
      response.redirect(308, moved);
      return;
    }
    if (request.path.startsWith('/api')) throw nothingThere(request);
    if (await this.sentAsset(request, response)) return;
    if (this.page === null || request.method !== 'GET' || request.accepts('html') !== 'html')
      throw nothingThere(request);
    response.setHeader('Cache-Control', ASKED_EACH_TIME);
    response.sendFile(this.page);
  }

  private sentAsset(request: Request, response: Response): Promise<boolean> {
    const { assets } = this;
    if (assets === null) return Promise.resolve(false);
    return new Promise((resolve, reject) => {
      response.once('close', () => resolve(true));
      this.compress(request, response, () => {
        void assets(request, response, (error?: unknown) => {
          if (error === undefined) resolve(false);
          else reject(error instanceof Error ? error : new Error('A page could not be read.'));
        });
      });
    });
  }
}

const ASKED_EACH_TIME = 'no-cache';

/** A file whose name tells its content never changes (RFC 8246); any other is asked for again. */
function keepForGood(response: Response, path: string): void {
  const isHashed = path.includes(`${sep}assets${sep}`);
  response.setHeader('Cache-Control', isHashed ? 'public, max-age=31536000, immutable' : ASKED_EACH_TIME);
}

/** A path that is described, asked with another method, is 405; any other is 404 (RFC 9110 §15.5.6). */
function nothingThere({ method, path }: Request): ApiProblem {
  const allow = methodsOf(path);
  if (allow.length === 0) return new ApiProblem('not-found', `Nothing answers to ${method} ${path}.`);
  const headers = { Allow: allow.join(', ') };
  return new ApiProblem('method-not-allowed', `${path} takes ${allow.join(', ')}.`, { headers });
}
