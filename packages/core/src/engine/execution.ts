import type { Operand } from '../arrangement/index.js';
import type { Operation, Resource } from '../contract/index.js';
import type { Caller } from './access.js';
import { readBody } from './body.js';
import { evaluate, hasConditions, type Verdict } from './conditions.js';
import type { RecordView } from './dataset.js';
import { parseQuery, type ParsedQuery } from './list/query.js';
import type { Location } from './locate.js';
import type { EngineRequest, EngineResponse, Header, Problem, StepName, TraceStep } from './message.js';
import { mediaTypeOf } from './negotiate.js';
import { problem } from './problem.js';
import { statusFor, type RequestContext, type Runtime } from './service.js';
import { passed, stopped } from './trace.js';
import { hasTag, modifiedAt, type Rendering } from './validators.js';

/** What is known of a request once its operation and its records are found. */
export interface Matched {
  readonly resource: Resource;
  readonly operation: Operation;
  readonly location: Location;
  readonly who: Caller | null;
  readonly note: (step: TraceStep) => void;
}

/** A request on its way through an operation: what is known of it, and what stops it. */
export class Execution {
  constructor(
    protected service: RequestContext,
    protected readonly view: RecordView,
    protected readonly request: EngineRequest,
    protected readonly runtime: Runtime,
    protected readonly matched: Matched,
  ) {}

  protected note(step: TraceStep): void {
    this.matched.note(step);
  }

  protected stop(step: StepName, found: Problem): Problem {
    this.note(stopped(step, found.detail));
    return found;
  }

  /** The query of a request, or what of it does not fit. */
  protected parsed(
    operation: Operation,
    path: () => string,
    query: string,
    sent?: ReadonlyMap<string, Operand>,
  ): ParsedQuery | Problem {
    const read = parseQuery(this.service, operation, path, query, sent);
    if (!read.ok) {
      const detail =
        read.errors.length === 1
          ? (read.errors[0]?.message ?? '')
          : `${read.errors.length} parameters do not fit.`;
      return this.stop(
        'query',
        problem(statusFor(operation, 'bad-parameter'), 'bad-parameter', detail, read.errors),
      );
    }
    return read.asked;
  }

  protected verdict(shown: Rendering | null, tag: string | null): Verdict {
    if (!hasConditions(this.request)) return { kind: 'go' };
    return evaluate(this.request, {
      exists: shown !== null || tag !== null,
      hasTag: (given) => given === tag || (shown !== null && hasTag(this.service, this.view, shown, given)),
      modified: shown === null ? null : modifiedAt(this.service, shown.record),
    });
  }

  protected notModified(operation: Operation, headers: readonly Header[]): EngineResponse {
    this.note(passed('conditions', 'the client has it already'));
    return { status: statusFor(operation, 'not-modified'), headers, body: null };
  }

  protected failed(operation: Operation, detail: string): Problem {
    return this.stop('conditions', problem(statusFor(operation, 'precondition'), 'precondition', detail));
  }

  protected readBody(operation: Operation): ReturnType<typeof readBody> {
    if (operation.acceptedTypes.length === 0) return { value: null };
    const read = readBody(operation, this.request);
    const { body, headers } = this.request;
    if ('value' in read)
      this.note(
        passed(
          'body',
          `${mediaTypeOf(headers.get('content-type'))}, ${body.kind === 'text' ? body.bytes : 0} bytes`,
        ),
      );
    return read;
  }
}
