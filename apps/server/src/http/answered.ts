import { Injectable, type CallHandler, type ExecutionContext, type NestInterceptor } from '@nestjs/common';
import type { Response } from 'express';
import { map, type Observable } from 'rxjs';
import { etagOf } from './etag.js';

interface AnswerHeaders {
  /** What its ETag is made of. */
  readonly revision?: number;
  /** Where what was made is. */
  readonly location?: string;
  /** A link to the next page; `null` on the last one. */
  readonly next?: string | null;
  /** Set where something is there that was not: the status is 201. */
  readonly created?: boolean;
}

/** An answer with what its headers say. */
export class Answered<Body> {
  constructor(
    readonly body: Body,
    readonly headers: AnswerHeaders,
  ) {}
}

/** An answer with the entity tag of the revision it shows. */
export const withETag = <Body extends { readonly revision: number }>(
  body: Body,
  headers: AnswerHeaders = {},
): Answered<Body> => new Answered(body, { revision: body.revision, ...headers });

/** Writes ETag, Location and Link of answers. */
@Injectable()
export class AnswerInterceptor implements NestInterceptor {
  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const response = context.switchToHttp().getResponse<Response>();
    return next.handle().pipe(
      map((answer: unknown) => {
        if (!(answer instanceof Answered)) return answer;
        writeHeaders(response, answer.headers);
        return answer.body as unknown;
      }),
    );
  }
}

function writeHeaders(response: Response, { revision, location, next, created }: AnswerHeaders): void {
  if (revision !== undefined) response.setHeader('ETag', etagOf(revision));
  if (location !== undefined) response.setHeader('Location', location);
  if (next != null) response.setHeader('Link', next);
  if (created !== undefined) response.status(created ? 201 : 200);
}
