import { randomBytes } from 'node:crypto';
import type { Server } from 'node:http';
import {
  Draft,
  handle,
  isWrite,
  keepChanges,
  maskedAnswer,
  maskedBody,
  maskedHeaders,
  operationAt,
  problem,
  renderProblem,
  type ProblemPages,
  simulatedFailure,
  withCors,
  withDeprecation,
  type EngineRequest,
  type EngineResponse,
  type RowChange,
  type FaultOutcome,
  type Handled,
  type KeptChange,
  type Deprecation,
  type RecordView,
  type Service,
  type Runtime,
} from '@isomeros/core/engine';
import { close, listen, portOf, type Head, type RequestHandler, type SentAnswer } from '@isomeros/listener';
import { Logger } from '@nestjs/common';
import { NotStored, type DurableDataset } from './durableDataset.js';
import { MOST_BODY_CHARACTERS, type Journal, type KeptExchange } from './journal.js';
import { servedText, type Served } from './served.js';
import { writeShared, type RecordSharing } from './recordSharing.js';
import type { FaultInjector } from './faults.js';

const SURROUNDINGS: Runtime = {
  now: () => Date.now(),
  random: () => Math.random(),
  token: () => randomBytes(32).toString('base64url'),
};

const NO_CHANGES: readonly KeptChange[] = [];

interface Outcome {
  readonly handled: Handled;
  readonly records: readonly KeptChange[];
}

/** What the arrangements and releases of one mock have in common. */
export interface EndpointContext {
  readonly records: DurableDataset;
  readonly partners: RecordSharing;
  /** More than these are not added by requests. */
  readonly mostRecords: number;
  readonly journal: Journal;
  readonly onExchange: (exchange: KeptExchange) => void;
  readonly faultInjector: FaultInjector;
}

/** One arrangement or release of a mock behind a loopback port: a contract over durable records, with a journal. */
export class Endpoint implements RequestHandler {
  private readonly logger = new Logger('Mock');
  private server: Server | null = null;

  constructor(
    public served: Served,
    /** Where it listens, or did when it listened last; 0 before it has a port. */
    public port: number,
    public service: Service,
    private shared: EndpointContext,
    /** What it says about its end. */
    private readonly lifespan: () => Deprecation | null = () => null,
  ) {}

  /** Serves other records from now on, with those that have them. */
  moveTo(shared: EndpointContext): void {
    this.shared = shared;
  }

  get contract(): ProblemPages {
    return this.service.contract;
  }

  get bodyBytes(): number {
    return this.service.contract.limits.bodyBytes;
  }

  get running(): boolean {
    return this.server !== null;
  }

  async start(port: number): Promise<void> {
    this.server = await listen(() => this, port);
    this.port = portOf(this.server);
  }

  async stop(): Promise<void> {
    const { server } = this;
    this.server = null;
    if (server !== null) await close(server);
  }

  handle(request: EngineRequest, head: Head): SentAnswer | null | Promise<SentAnswer | null> {
    const started = performance.now();
    const { problem: wrong } = head;
    if (wrong !== null) {
      const handled = this.stopped(wrong.detail, renderProblem(this.contract, wrong));
      return this.answered(request, head, { handled, records: NO_CHANGES }, started);
    }
    if (!this.shared.faultInjector.hasNoFaults) return this.handleInTrouble(request, head, started);
    if (isWrite(request.method))
      return this.write(request).then((outcome) => this.answered(request, head, outcome, started));
    return this.answered(request, head, this.read(request), started);
  }

  /** Answers, or fails, as the fault rules have it. */
  private async handleInTrouble(
    request: EngineRequest,
    head: Head,
    started: number,
  ): Promise<SentAnswer | null> {
    const operation = operationAt(this.service.contract, request);
    const fate = this.shared.faultInjector.draw(operation);
    const met = await this.meetTrouble(operation, fate);
    if (met === null) {
      const outcome = isWrite(request.method) ? await this.write(request) : this.read(request);
      return this.answered(request, head, outcome, started, fate.pace);
    }
    if (met.response.status !== 0)
      return this.answered(request, head, { handled: met, records: [] }, started, fate.pace);
    this.record(request, head, met, met.response, NO_CHANGES, started);
    return null;
  }

  private answered(
    request: EngineRequest,
    head: Head,
    { handled, records }: Outcome,
    started: number,
    pace: number | null = null,
  ): SentAnswer {
    const response = this.finished(request, handled.response);
    this.record(request, head, handled, response, records, started);
    return { response, pace };
  }

  private finished(request: EngineRequest, response: EngineResponse): EngineResponse {
    return withCors(request, withDeprecation(response, this.lifespan()));
  }

  /** Waits as long as it was told, and fails instead of answering where a fault rule was drawn. */
  private async meetTrouble(
    operation: string | null,
    { delay, outcome }: FaultOutcome,
  ): Promise<Handled | null> {
    if (delay > 0) await new Promise((resolve) => setTimeout(resolve, delay));
    switch (outcome.kind) {
      case 'answer':
        return null;
      case 'drop': {
        const cut = { status: 0, headers: [], body: null };
        return { ...this.stopped('The connection was cut, as the mock was told.', cut), operation };
      }
      case 'fail': {
        const failure = simulatedFailure(this.contract, outcome.status);
        return { ...this.stopped(`${outcome.status}, simulated as the mock was told.`, failure), operation };
      }
    }
  }

  rejected(line: string, response: EngineResponse): void {
    const [method = '', target = '', ...version] = line.split(' ');
    const request: EngineRequest = {
      method: method.slice(0, 40),
      target,
      headers: new Map(),
      body: { kind: 'none' },
    };
    const trace = [
      { step: 'answer', outcome: 'stopped', text: 'The request could not be read as HTTP.' },
    ] as const;
    const handled = { operation: null, trace };
    const head = { target, version: version.join(' '), headers: [], problem: null };
    this.record(request, head, handled, response, NO_CHANGES, performance.now());
  }

  private read(request: EngineRequest): Outcome {
    try {
      const handled = handle(this.service, this.shared.records.dataset, request, SURROUNDINGS);
      return { handled, records: NO_CHANGES };
    } catch (error) {
      return { handled: this.failed(error), records: [] };
    }
  }

  private async write(request: EngineRequest): Promise<Outcome> {
    try {
      return await this.writeOne(request);
    } catch (error) {
      return { handled: this.failed(error), records: [] };
    }
  }

  private async writeOne(request: EngineRequest): Promise<Outcome> {
    const attempt = (draft: Draft): Outcome & Pick<Handled, 'changes' | 'kept' | 'tokens'> => {
      const before: RecordView = this.shared.records.dataset;
      const handled = this.withinLimit(draft, request);
      const records = keepChanges(this.service.model, before, draft, handled.changes);
      const { changes, kept, tokens } = handled;
      return { handled, records, changes, kept, tokens };
    };
    return writeShared(
      () => this.shared,
      attempt,
      ({ handled }) => handled.response.status < 400,
    );
  }

  /** Near the most records there may be, what would add more is tried apart. */
  private withinLimit(draft: Draft, request: EngineRequest): Handled {
    const { records, mostRecords } = this.shared;
    const room = mostRecords - records.dataset.size - growth(draft.changes);
    if (room > NEAR) return handle(this.service, draft, request, SURROUNDINGS);
    const trial = new Draft(draft);
    const handled = handle(this.service, trial, request, SURROUNDINGS);
    if (handled.response.status >= 400) return handled;
    if (growth(handled.changes) > Math.max(0, room)) {
      const found = problem(507, 'full', `A mock holds at most ${mostRecords} records; remove some first.`);
      return this.stopped(found.detail, renderProblem(this.contract, found));
    }
    draft.merge(handled.changes, trial.numbers);
    if (handled.kept !== null) draft.keep(handled.kept);
    return handled;
  }

  isRefused(request: EngineRequest): boolean {
    const { response } = handle(this.service, new Draft(this.shared.records.dataset), request, SURROUNDINGS);
    return REFUSED_EARLY.has(response.status);
  }

  private stopped(text: string, response: EngineResponse): Handled {
    return {
      response,
      operation: null,
      trace: [{ step: 'answer', outcome: 'stopped', text }],
      changes: [],
      kept: null,
      tokens: [],
    };
  }

  private failed(error: unknown): Handled {
    if (error instanceof NotStored) {
      const found = problem(503, 'unavailable', error.message, [], [['Retry-After', '1']]);
      return this.stopped(error.message, renderProblem(this.contract, found));
    }
    const text = error instanceof Error ? (error.stack ?? error.message) : String(error);
    this.logger.error(text);
    const found = problem(500, 'unexpected', 'The mock failed inside. Its journal holds the details.');
    return this.stopped(text, renderProblem(this.contract, found));
  }

  private record(
    request: EngineRequest,
    head: Head,
    { operation, trace }: Pick<Handled, 'operation' | 'trace'>,
    response: EngineResponse,
    records: readonly KeptChange[],
    started: number,
  ): void {
    const exchange: KeptExchange = {
      number: 0,
      at: Date.now(),
      arrangement: servedText(this.served),
      contract: this.service.contract,
      client: clientOf(request.headers.get('user-agent')),
      operation,
      microseconds: Math.round((performance.now() - started) * 1_000),
      method: request.method,
      target: request.target,
      sentTarget: head.target,
      version: head.version,
      sentHeaders: maskedHeaders(this.service.contract, head.headers),
      body: maskedBody(this.service, operation, request.body, MOST_BODY_CHARACTERS),
      response: maskedAnswer(this.service.contract, operation, response),
      trace,
      records,
      size: 0,
      isLean: false,
    };
    this.shared.journal.add(exchange);
    this.shared.onExchange(exchange);
  }
}

/** What is answered whatever a body says; anything else waits for it. */
const REFUSED_EARLY: ReadonlySet<number> = new Set([401, 403, 404, 405, 406, 412, 413, 415, 428, 501]);

/** So many records at once a request adds at most without being tried apart. */
const NEAR = 10_000;

/** How many records more there are after some changes. */
const growth = (changes: readonly RowChange[]): number =>
  changes.reduce((sum, { kind }) => sum + (kind === 'add' ? 1 : kind === 'remove' ? -1 : 0), 0);

/** Name the application gives itself when it sends a message for its user. */
export const OWN_CLIENT = 'isomeros-here';

function clientOf(userAgent: string | undefined): string {
  const product = (userAgent ?? '').split(/[\s/(]/, 1)[0] ?? '';
  if (product === OWN_CLIENT) return 'here';
  return product === '' ? 'unknown' : product.slice(0, 24);
}
