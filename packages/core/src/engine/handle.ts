import { indexContract, type Operation, type Resource } from '../contract/index.js';
import { utf8Length } from '../model/index.js';
import { authenticate, authorise, type Caller } from './access.js';
import { leftOutAt, nearMisses } from './nearMisses.js';
import { OperationExecutor } from './operationExecutor.js';
import type { RowChange, RecordView } from './dataset.js';
import { withOperationEnd } from './deprecation.js';
import { documentationPage } from './documentation.js';
import type { IdempotentResponse } from './idempotency.js';
import { locate, type Location } from './locate.js';
import type { EngineRequest, EngineResponse, Problem, StepName, TraceStep } from './message.js';
import { asHtml, wantsHtml } from './htmlView.js';
import { besideInWords, withSiblings, type Sibling } from './siblings.js';
import { problem, renderProblem } from './problem.js';
import { routerOf, type MatchedRoute } from './router.js';
import { requestContextAt, statusFor, type Service, type RequestContext, type Runtime } from './service.js';
import { readTarget } from './target.js';
import type { TokenChange, TokenView } from './accessTokens.js';
import { answered, matched, passed, stopped } from './trace.js';

/** One request with everything the engine found out about it. */
export interface Handled {
  readonly response: EngineResponse;
  /** The body of what a page shows, where it is answered as one; `null` where it is not. */
  readonly shown: string | null;
  /** What was wrong, as it is before it is put into words; `null` where nothing was. */
  readonly problem: Problem | null;
  /** The operation that handled it; `null` when none did. */
  readonly operation: string | null;
  readonly trace: readonly TraceStep[];
  /** When each step was done, by the clock; empty without one. */
  readonly times: readonly number[];
  /** What a write would change; the caller commits it, then answers. */
  readonly changes: readonly RowChange[];
  /** An answer that is to be stored with the changes, for when the request is sent again. */
  readonly kept: IdempotentResponse | null;
  /** What becomes of tokens, stored with the changes. */
  readonly tokens: readonly TokenChange[];
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

/**
 * Handles one request: target, match, locate, negotiate, body, store rules, apply, represent, answer.
 * Pure but for the numbers it takes from a draft. Writes need a draft as their view.
 */
export function handle(
  service: Service,
  view: RecordView & TokenView,
  request: EngineRequest,
  runtime: Runtime,
): Handled {
  const { root, representation } = service.contract;
  const isPage = wantsHtml(request, representation.mediaTypes);
  const asked = isPage ? withoutPage(request) : request;
  const context = servingOf(service, request, runtime);
  const exchange = new Exchange(context, view, asked, runtime);
  const answer = exchange.run();
  const json = withSiblings(
    withOperationEnd(
      'code' in answer ? renderProblem(service.contract, answer) : answer,
      exchange.operation,
      context,
    ),
    exchange.operation,
    context,
  );
  const title = exchange.operation?.summary ?? service.contract.title;
  const rendered = isPage ? asHtml(title, root, request, json) : json;
  const response =
    request.method === 'HEAD' ? { ...rendered, headers: withLength(rendered), body: null } : rendered;
  if (isPage) exchange.note(passed('represent', 'as a page to read in a browser'));
  exchange.note(lastStep(response.status, 'code' in answer ? answer.detail : null));
  return {
    response,
    shown: rendered === json ? null : json.body,
    problem: 'code' in answer ? answer : null,
    operation: exchange.operation?.id ?? null,
    trace: exchange.trace,
    times: exchange.times,
    changes: response.status < 400 ? exchange.changes : [],
    kept: response.status < 400 ? exchange.kept : null,
    tokens: response.status < 400 ? exchange.tokens : [],
  };
}

function lastStep(status: number, detail: string | null): TraceStep {
  if (detail === null) return answered(status);
  const text = `${status}: ${detail}`;
  return status < 400 ? passed('answer', text) : stopped('answer', text);
}

/** What a page is made of: any representation, whether the browser has it already or not. */
const withoutPage = (request: EngineRequest): EngineRequest => ({
  ...request,
  headers: new Map(
    [...request.headers]
      .filter(([name]) => !name.startsWith('if-'))
      .map(([name, value]) => [name, name === 'accept' ? '*/*' : value]),
  ),
});

/** A service at the moment of a request. */
function servingOf(service: Service, { headers }: EngineRequest, runtime: Runtime): RequestContext {
  const host = headers.get('host') ?? '';
  const asked = HOST.test(host) ? `http://${host}` : null;
  return requestContextAt(service, runtime.now(), 'application/json', asked);
}

/** Name or address, and port (RFC 9110 §7.2). */
const HOST = /^(?:[A-Za-z0-9.-]{1,253}|\[[0-9A-Fa-f:.]{2,45}\])(?::\d{1,5})?$/;

function withLength({ headers, body }: EngineResponse): EngineResponse['headers'] {
  return body === null ? headers : [...headers, ['Content-Length', String(utf8Length(body))]];
}

class Exchange {
  readonly trace: TraceStep[] = [];
  readonly times: number[] = [];
  operation: Operation | null = null;
  changes: readonly RowChange[] = [];
  kept: IdempotentResponse | null = null;
  tokens: readonly TokenChange[] = [];
  private who: Caller | null = null;

  constructor(
    private readonly service: RequestContext,
    private readonly view: RecordView & TokenView,
    private readonly request: EngineRequest,
    private readonly runtime: Runtime,
  ) {}

  note(step: TraceStep): void {
    this.trace.push(step);
    if (this.runtime.clock !== undefined) this.times.push(this.runtime.clock());
  }

  run(): EngineResponse | Problem {
    if (this.request.method === 'OPTIONS' && this.request.target === '*') {
      this.note(passed('match', 'OPTIONS *: what the mock as a whole can do'));
      return { status: 204, headers: [['Allow', [...KNOWN_METHODS].join(', ')]], body: null };
    }
    const read = readTarget(this.request.target);
    if (!read.ok) return this.stop('target', read.problem);
    const { segments, path, query } = read.target;
    this.note(passed('target', query === '' ? path : `${path}, query ${query}`));
    if (read.target.trailingSlash && segments.length > 0) {
      const answer = this.trailingSlash(segments, query);
      if (answer !== null) return answer;
    }
    return this.documentation(path) ?? this.match(path, segments, query);
  }

  /** What else is served at the same origin. */
  private get beside(): readonly Sibling[] {
    return this.service.beside?.() ?? [];
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
        this.note(passed('match', 'redirected to the path without the slash at its end'));
        const location = query === '' ? path : `${path}?${query}`;
        return { status: 308, headers: [['Location', this.service.origin + location]], body: null };
      }
    }
  }

  /** `why` is told to whoever looks at the exchange, not to the client. */
  private stop(step: StepName, found: Problem, why: string | null = null): Problem {
    this.note(stopped(step, why === null ? found.detail : `${found.detail} ${why}`));
    return found;
  }

  /** The pages of the mock about itself, beside the contract. */
  private documentation(path: string): EngineResponse | null {
    if (this.request.method !== 'GET' && this.request.method !== 'HEAD') return null;
    const page = documentationPage(this.service, path);
    if (page === null) return null;
    this.note(passed('match', page.about));
    return { status: 200, headers: [['Content-Type', page.mediaType]], body: page.text };
  }

  private match(path: string, segments: readonly string[], query: string): EngineResponse | Problem {
    const route = routerOf(this.service.contract).match(segments);
    if (route === null) return this.noPath(path, segments, query);
    const { method } = this.request;
    if (!KNOWN_METHODS.has(method)) {
      return this.stop(
        'match',
        problem(501, 'method-unknown', `No resource here knows the method ${method}.`),
      );
    }
    if (method === 'OPTIONS') return this.options(route, allowed(route));
    const operation = route.operations.get(method === 'HEAD' ? 'GET' : method);
    if (operation === undefined) {
      const allow = allowed(route);
      const detail = `${route.resource.path === '' ? 'The entry' : route.resource.path} does not take ${method}; it takes ${allow}.`;
      const refused = problem(405, 'method-not-allowed', detail, [], [['Allow', allow]]);
      return this.stop('match', refused, whyLeftOut(route.resource, method));
    }
    this.operation = operation;
    const wanted = this.wantedVersion();
    if (wanted !== null) {
      const { version, versionHeader } = this.service.contract;
      const detail = `${versionHeader ?? ''} asks for ${wanted}; here is ${version}.${besideInWords(this.beside)}`;
      return this.stop('match', problem(statusFor(operation, 'version'), 'version', detail));
    }
    this.note(matched(this.service.contract, route.resource.path, operation));
    return this.authenticate(route, operation, query);
  }

  /** Outside the contract: from `/` a reader is led to the entry, elsewhere told what is near. */
  private noPath(path: string, segments: readonly string[], query: string): EngineResponse | Problem {
    const { contract, origin } = this.service;
    const { method } = this.request;
    if (segments.length === 0 && query === '' && (method === 'GET' || method === 'HEAD')) {
      this.note(passed('match', 'redirected to the entry'));
      return { status: 307, headers: [['Location', origin + contract.root]], body: null };
    }
    const near = nearMisses(contract, this.request).map(({ address }) => address);
    const nearest = near.length === 0 ? '' : ` Nearest: ${near.join(', ')}.`;
    const leftOut = leftOutAt(contract, segments);
    return this.stop(
      'match',
      problem(
        404,
        'not-found',
        `No path of the contract matches ${path}.${nearest}${besideInWords(this.beside)}`,
      ),
      leftOut === null ? null : whyLeftOut(leftOut, null),
    );
  }

  private authenticate(route: MatchedRoute, operation: Operation, query: string): EngineResponse | Problem {
    const found = authenticate(this.service, this.view, operation, this.request);
    if (!found.ok) return this.stop('authenticate', found.problem);
    this.who = found.who;
    if (found.who !== null) this.note(passed('authenticate', `${found.who.name}${rolesInWords(found.who)}`));
    return this.locate(route, operation, query);
  }

  /** Where PUT makes an item that is not there; `null` where it does not, or the caller may not create. */
  private placeOfNew(
    route: MatchedRoute,
    operation: Operation,
    unknown: Location | undefined,
  ): Location | null {
    if (unknown === undefined || !makesItems(operation)) return null;
    const create = indexContract(this.service.contract)
      .operationsOf.get(route.resource.parent ?? '')
      ?.find(({ verb }) => verb === 'create');
    return create !== undefined && authorise(create, this.who) === null ? unknown : null;
  }

  /** The version that the request asks for, where that is another one. */
  private wantedVersion(): string | null {
    const { version, versionHeader } = this.service.contract;
    const wanted = versionHeader === null ? undefined : this.request.headers.get(versionHeader.toLowerCase());
    return wanted === undefined || wanted === version ? null : wanted;
  }

  private options(route: MatchedRoute, allow: string): EngineResponse {
    this.note(passed('match', 'OPTIONS: what this resource can do'));
    const patch = route.operations.get('PATCH')?.acceptedTypes ?? [];
    const acceptPatch: EngineResponse['headers'] =
      patch.length === 0 ? [] : [['Accept-Patch', patch.join(', ')]];
    return { status: 204, headers: [['Allow', allow], ...acceptPatch], body: null };
  }

  private locate(route: MatchedRoute, operation: Operation, query: string): EngineResponse | Problem {
    const { contract, model } = this.service;
    const found = locate(contract, model, this.view, route.resource, route.ids);
    const location = found.ok ? found.location : this.placeOfNew(route, operation, found.unknown);
    if (location === null) {
      const { detail = '', isWrongType = false } = found.ok ? {} : found;
      return this.stop('locate', notLocated(operation, detail, isWrongType));
    }
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
    if (location.newKey !== undefined)
      this.note(passed('locate', 'nothing has the key in the path; PUT makes it'));
    else if (route.ids.length > 0)
      this.note(passed('locate', emptySlot ? 'the slot is empty' : `found ${idsInWords(route)}`));
    const forbidden = authorise(operation, this.who);
    if (forbidden !== null) return this.stop('authorise', forbidden);
    const { resource } = route;
    const carrying = new OperationExecutor(this.service, this.view, this.request, this.runtime, {
      resource,
      operation,
      location,
      who: this.who,
      note: (step): void => {
        this.note(step);
      },
    });
    const answer = carrying.run(query);
    this.changes = carrying.changes;
    this.kept = carrying.kept;
    this.tokens = carrying.tokens;
    return answer;
  }
}

/** The choice by which a method is not offered, or by which none is; `null` where nobody left it out. */
function whyLeftOut({ leftOut }: Resource, method: string | null): string | null {
  const asked = method === 'HEAD' ? 'GET' : method;
  const unoffered = leftOut.filter((one) => asked === null || one.method === asked);
  const [first] = unoffered;
  const chosen = first?.reasons[0]?.because.find((source) => source.kind === 'setting');
  if (first === undefined || chosen === undefined) return null;
  return `Left out for the ${chosen.level}: ${unoffered.map(({ verb }) => verb).join(', ')}.`;
}

/** An item is made by PUT where the contract says so. */
const makesItems = (operation: Operation): boolean =>
  operation.verb === 'replace' && operation.responses.some(({ code }) => code === 'created');

const rolesInWords = ({ roles }: Caller): string =>
  roles.length === 0 ? ', without a role' : `, as ${roles.join(' and ')}`;

/** Nothing is there; an id that could not be one may be a mistake of its own. */
function notLocated(operation: Operation, detail: string, isWrongType: boolean): Problem {
  const isMistake = isWrongType && operation.responses.some(({ code }) => code === 'bad-id');
  return isMistake
    ? problem(statusFor(operation, 'bad-id'), 'bad-id', detail)
    : problem(statusFor(operation, 'missing'), 'not-found', detail);
}

/** The ids of a path with what they are of: `Route 1, Sailing 7`. */
function idsInWords({ resource, ids }: MatchedRoute): string {
  let words = '';
  let used = 0;
  for (const segment of resource.segments) {
    if (segment.kind !== 'id') continue;
    words += `${used === 0 ? '' : ', '}${segment.entity} ${ids[used] ?? ''}`;
    used++;
  }
  return words;
}

function allowed(route: MatchedRoute): string {
  const methods = [...route.operations.keys()].flatMap((method) =>
    method === 'GET' ? ['GET', 'HEAD'] : [method],
  );
  return [...methods, 'OPTIONS'].join(', ');
}
