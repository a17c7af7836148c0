import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, Response } from 'express';
import { AppModule } from './app.module.js';
import type { Config } from './config.js';
import { BodyPipe } from './http/body.pipe.js';
import { admission } from './http/admission.js';
import { jsonBody } from './http/jsonBody.js';
import { ProblemFilter } from './http/problem.filter.js';

const CONTENT_POLICY =
  "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";

/** The whole server, not yet listening. */
export async function createApplication(config: Config): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config), {
    bodyParser: false,
    forceCloseConnections: true,
    logger: ['error', 'warn', 'fatal'],
  });
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.set('etag', false);
  app.use(admission(config));
  app.use((_request: Request, response: Response, next: NextFunction) => {
    response.setHeader('X-Content-Type-Options', 'nosniff');
    response.setHeader('Referrer-Policy', 'no-referrer');
    response.setHeader('Content-Security-Policy', CONTENT_POLICY);
    next();
  });
  app.use('/api', jsonBody);
  if (config.webFolder !== null) servePages(app, config.webFolder);
  app.useGlobalPipes(new BodyPipe());
  app.useGlobalFilters(new ProblemFilter());
  app.enableShutdownHooks();
  return app;
}

/** Serves the built pages; addresses of views lead to the one page that shows them. */
function servePages(app: NestExpressApplication, folder: string): void {
  const page = join(folder, 'index.html');
  if (!existsSync(page)) return;
  app.useStaticAssets(folder, { index: false, maxAge: '1h' });
  app.use((request: Request, response: Response, next: NextFunction) => {
    const isView =
      request.method === 'GET' && !request.path.startsWith('/api') && request.accepts('html') === 'html';
    if (!isView) {
      next();
      return;
    }
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(page);
  });
}
