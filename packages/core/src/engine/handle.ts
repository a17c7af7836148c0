import type { Operation, Resource } from '../contract/index.js';
import { readJson, utf8Length, type Json } from '../model/index.js';
import { changesInWords } from './changesInWords.js';
import { Draft, type Change, type RecordView } from './dataset.js';
import { documentationPage } from './documentation.js';
import { renderBody } from './form.js';
import { locate, type Location } from './locate.js';
import type { EngineRequest, EngineResponse, Problem, StepName, TraceStep } from './message.js';
import { mediaTypeOf, negotiate } from './negotiate.js';
import { problem, renderProblem } from './problem.js';
import { readListQuery, type ListQuery } from './list/query.js';
import { canonicalPath } from './represent.js';
import { routerOf, type Route } from './router.js';
import { statusFor, type Service, type Serving, type Surroundings } from './service.js';
import { readQuery, readTarget, type QueryEntry } from './target.js';
import { performRead, performWrite } from './perform.js';

/** One request with everything the engine found out about it. */
export interface Handled {
  readonly response: EngineResponse;
  /** The operation that handled it; `null` when none did. */
  readonly operation: string | null;
  readonly trace: readonly TraceStep[];
  /** What a write would change; the caller commits it, then answers. */
  readonly changes: readonly Change[];
}

const KNOWN_METHODS: ReadonlySet<string> = new Set([
  'GET',
  'HEAD',
  'POST',
  'PUT',
  'PATCH',
  'DELETE',
  'OPTIONS',
]);

/** Whether a request can change records, so that it must be handled against a draft. */
export const isWrite = (method: string): boolean =>
  method === 'POST' || method === 'PUT' || method === 'PATCH' || method === 'DELETE';

/**
 * Handles one request: target, match, locate, negotiate, body, store rules, apply, represent, answer.
 * Pure but for the numbers it takes from a draft. Writes need a draft as their view.
 */
export function handle(
  service: Service,
  view: RecordView,
  request: EngineRequest,
  surroundings: Surroundings,
): Handled {
  const exchange = new Exchange(
    { ...service, now: surroundings.now(), mediaType: 'application/json' },
    view,
    request,
    surroundings,
  );
  const answer = exchange.run();
  const rendered = 'code' in answer ? renderProblem(service.contract.root, answer) : answer;
  const response =
    request.method === 'HEAD' ? { ...rendered, headers: withLength(rendered), body: null } : rendered;
  exchange.note(
    'answer',
    response.status < 400,
    `${response.status}${'code' in answer ? `: ${answer.detail}` : ''}`,
  );
  return {
    response,
    operation: exchange.operation?.id ?? null,
    trace: exchange.trace,
    changes: response.status < 400 ? exchange.changes : [],
  };
}

function withLength({ headers, body }: EngineResponse): EngineResponse['headers'] {
  return body === null ? headers : [...headers, ['Content-Length', String(utf8Length(body))]];
}

class Exchange {
  readonly trace: TraceStep[] = [];
  operation: Operation | null = null;
  changes: readonly Change[] = [];

  constructor(
    private service: Serving,
    private readonly view: RecordView,
    private readonly request: EngineRequest,
    private readonly surroundings: Surroundings,
  ) {}

  note(step: StepName, passed: boolean, text: string): void {
    this.trace.push({ step, outcome: passed ? 'passed' : 'stopped', text });
  }

  run(): EngineResponse | Problem {
    const read = readTarget(this.request.target);
    if (!read.ok) return this.stop('target', read.problem);
    const { segments, query } = read.target;
    this.note('target', true, `/${segments.join('/')}${query === '' ? '' : `, query ${query}`}`);
    if (read.target.trailingSlash && segments.length > 0) {
      const answer = this.trailingSlash(segments, query);
      if (answer !== null) return answer;
    }
    return this.documentation(segments) ?? this.match(segments, query);
  }

  /** What a slash at the end leads to, where it is not the same as without. */
  private trailingSlash(segments: readonly string[], query: string): EngineResponse | Problem | null {
    switch (this.service.contract.trailingSlash) {
      case 'same':
        return null;
      case 'missing':
        return this.stop('match', problem(404, 'not-found', 'No path of the contract ends in a slash.'));
      case 'redirected': {
        // Only to a path of the contract: an empty first segment would make the target another host.
        if (routerOf(this.service.contract).match(segments) === null) return null;
        const path = `/${segments.map(encodeURIComponent).join('/')}`;
        this.note('match', true, 'redirected to the path without the slash at its end');
        const location = query === '' ? path : `${path}?${query}`;
        return { status: 308, headers: [['Location', location]], body: null };
      }
    }
  }

  private stop(step: StepName, found: Problem): Problem {
    this.note(step, false, found.detail);
    return found;
  }

  /** The pages of the mock about itself, beside the contract. */
  private documentation(segments: readonly string[]): EngineResponse | null {
    if (this.request.method !== 'GET' && this.request.method !== 'HEAD') return null;
    const page = documentationPage(this.service, `/${segments.join('/')}`);
    if (page === null) return null;
    this.note('match', true, page.about);
    return { status: 200, headers: [['Content-Type', page.mediaType]], body: page.text };
  }

  private match(segments: readonly string[], query: string): EngineResponse | Problem {
    const route = routerOf(this.service.contract).match(segments);
    if (route === null)
      return this.stop(
        'match',
        problem(404, 'not-found', `No path of the contract matches /${segments.join('/')}.`),
      );
    const { method } = this.request;
    const allow = allowed(route);
    if (!KNOWN_METHODS.has(method)) {
      return this.stop(
        'match',
        problem(501, 'method-unknown', `No resource here knows the method ${method}.`),
      );
    }
    if (method === 'OPTIONS') return this.options(route, allow);
    const operation = route.operations.get(method === 'HEAD' ? 'GET' : method);
    if (operation === undefined) {
      const detail = `${route.resource.path === '' ? 'The entry' : route.resource.path} does not take ${method}; it takes ${allow}.`;
      return this.stop('match', problem(405, 'method-not-allowed', detail, [], [['Allow', allow]]));
    }
    this.operation = operation;
    const wanted = this.wantedVersion();
    if (wanted !== null) {
      const { version, versionHeader } = this.service.contract;
      const detail = `${versionHeader ?? ''} asks for ${wanted}; here is ${version}.`;
      return this.stop('match', problem(statusFor(operation, 'version'), 'version', detail));
    }
    this.note(
      'match',
      true,
      `${operation.id}, ${operation.method} ${this.service.contract.root}${route.resource.path}`,
    );
    return this.locate(route, operation, query);
  }

  /** The version that the request asks for, where that is another one. */
  private wantedVersion(): string | null {
    const { version, versionHeader } = this.service.contract;
    const wanted = versionHeader === null ? undefined : this.request.headers.get(versionHeader.toLowerCase());
    return wanted === undefined || wanted === version ? null : wanted;
  }

  private options(route: Route, allow: string): EngineResponse {
    this.note('match', true, 'OPTIONS: what this resource can do');
    const patch = route.operations.get('PATCH')?.acceptedTypes ?? [];
    const acceptPatch: EngineResponse['headers'] =
      patch.length === 0 ? [] : [['Accept-Patch', patch.join(', ')]];
    return { status: 204, headers: [['Allow', allow], ...acceptPatch], body: null };
  }

  private locate(route: Route, operation: Operation, query: string): EngineResponse | Problem {
    const { contract, model } = this.service;
    const found = locate(contract, model, this.view, route.resource, route.ids);
    if (!found.ok) return this.stop('locate', problem(404, 'not-found', found.detail));
    const { location } = found;
    const emptySlot = route.resource.kind === 'singleton' && location.record === null;
    if (route.resource.kind === 'pair' && location.pair === null && operation.verb !== 'attach') {
      return this.stop(
        'locate',
        problem(statusFor(operation, 'missing'), 'not-found', 'They are not paired.'),
      );
    }
    if (emptySlot && operation.verb !== 'replace') {
      return this.stop(
        'locate',
        problem(statusFor(operation, 'missing'), 'not-found', `${route.resource.path} is empty.`),
      );
    }
    if (route.ids.length > 0)
      this.note('locate', true, emptySlot ? 'the slot is empty' : `found ${idsInWords(route)}`);
    return this.negotiate(route.resource, operation, location, query);
  }

  private negotiate(
    resource: Resource,
    operation: Operation,
    location: Location,
    query: string,
  ): EngineResponse | Problem {
    const offered = this.service.contract.representation.mediaTypes;
    const mediaType = offered.find((type) => type === negotiate(this.request.headers.get('accept'), offered));
    if (mediaType === undefined) {
      const detail = `Accept rules out everything that is offered: ${offered.join(', ')}.`;
      return this.stop(
        'negotiate',
        problem(statusFor(operation, 'not-acceptable'), 'not-acceptable', detail),
      );
    }
    this.service = { ...this.service, mediaType };
    this.note('negotiate', true, mediaType);
    const { entries, unreadable } = readQuery(query);
    const read = readListQuery(this.service.contract, operation, entries, unreadable);
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
    return this.perform(resource, operation, location, read.query, entries);
  }

  private perform(
    resource: Resource,
    operation: Operation,
    location: Location,
    query: ListQuery,
    entries: readonly QueryEntry[],
  ): EngineResponse | Problem {
    const { service, view } = this;
    if (!isWrite(operation.method)) {
      const { body, kind, total } = performRead(service, view, resource, location, query, entries);
      const rendered = renderBody(service, kind, body);
      this.note(
        'represent',
        true,
        operation.verb === 'list' ? 'a page of the list' : 'the record with its links',
      );
      return {
        status: statusFor(operation, 'ok'),
        headers: [
          ...rendered.headers,
          ...READ_HEADERS,
          ...this.elsewhere(resource, location),
          ...this.totalCount(total),
        ],
        body: rendered.text,
      };
    }
    if (!(view instanceof Draft)) throw new Error('A write needs a draft.');
    const body = this.readBody(operation);
    if ('problem' in body) return this.stop('body', body.problem);
    const outcome = performWrite(service, view, this.surroundings, {
      resource,
      operation,
      location,
      body: body.value,
    });
    if (!outcome.ok) return this.stop(outcome.step, outcome.problem);
    this.changes = outcome.changes;
    this.note('apply', true, changesInWords(outcome.changes));
    return outcome.response;
  }

  private totalCount(total: number | null): EngineResponse['headers'] {
    const { paging, representation } = this.service.contract;
    const isBare = representation.envelope === 'bare' && this.service.mediaType === 'application/json';
    const isTold = total !== null && (paging.totals === 'header' || (paging.totals === 'body' && isBare));
    return isTold ? [['Total-Count', String(total)]] : [];
  }

  /** Content-Location (RFC 9110 §8.7), where the path is not the one address of the record. */
  private elsewhere({ kind, canonical }: Resource, { record }: Location): EngineResponse['headers'] {
    if (canonical || record === null || (kind !== 'item' && kind !== 'reference')) return [];
    const path = canonicalPath(this.service, this.view, record);
    return path === null ? [] : [['Content-Location', path]];
  }

  private readBody(operation: Operation): { readonly value: Json } | { readonly problem: Problem } {
    if (operation.acceptedTypes.length === 0) return { value: null };
    const { body, headers } = this.request;
    const offered = operation.acceptedTypes.join(', ');
    if (
      body.kind === 'too-large' ||
      (body.kind === 'text' && body.bytes > this.service.contract.limits.bodyBytes)
    ) {
      const detail = `The body is larger than ${this.service.contract.limits.bodyBytes} bytes.`;
      return { problem: problem(statusFor(operation, 'too-large'), 'too-large', detail) };
    }
    const sent = mediaTypeOf(headers.get('content-type'));
    if (!operation.acceptedTypes.includes(sent)) {
      const header = operation.verb === 'change' ? 'Accept-Patch' : 'Accept';
      const detail = `${sent === '' ? 'The body has no Content-Type' : `${sent} is not accepted`}; accepted are ${offered}.`;
      return {
        problem: problem(statusFor(operation, 'media-type'), 'media-type', detail, [], [[header, offered]]),
      };
    }
    const status = statusFor(operation, 'malformed');
    if (body.kind === 'unreadable')
      return { problem: problem(status, 'malformed', 'The body is not UTF-8.') };
    const read = readJson(body.kind === 'text' ? body.text : '');
    if (read.ok) {
      this.note('body', true, `${sent}, ${body.kind === 'text' ? body.bytes : 0} bytes`);
      return { value: read.value };
    }
    const { message, line, column, code } = read.problem;
    const detail = `${message} Line ${line}, column ${column}.`;
    return { problem: problem(status, 'malformed', detail, [{ pointer: '', code, message: detail }]) };
  }
}

/** Answers may differ by Accept, and are checked again before they are used from a cache. */
const READ_HEADERS: EngineResponse['headers'] = [
  ['Vary', 'Accept'],
  ['Cache-Control', 'no-cache'],
];

/** The ids of a path with what they are of: `Route 1, Sailing 7`. */
function idsInWords({ resource, ids }: Route): string {
  const entities = resource.segments.flatMap((segment) => (segment.kind === 'id' ? [segment.entity] : []));
  return ids.map((id, index) => `${entities[index] ?? ''} ${id}`).join(', ');
}

function allowed(route: Route): string {
  const methods = [...route.operations.keys()].flatMap((method) =>
    method === 'GET' ? ['GET', 'HEAD'] : [method],
  );
  return [...methods, 'OPTIONS'].join(', ');
}
