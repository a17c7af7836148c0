import type { WrittenEdits } from '@isomeros/api';
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
  entriesOf,
  varyingBy,
  withDeprecation,
  type EngineRequest,
  type EngineResponse,
  type FaultOutcome,
  type Handled,
  type KeptChange,
  type Deprecation,
  type RecordView,
  type Sibling,
  type Service,
} from '@isomeros/core/engine';
import type { Head, RequestHandler, SentAnswer } from '@isomeros/listener';
import type { RecordEdit } from '@isomeros/core/records';
import { Logger } from '@nestjs/common';
import { NotStored } from './durableDataset.js';
import { attemptEdits, headOf } from './editAttempt.js';
import type { Journal } from './journal/journal.js';
import { MOST_BODY_CHARACTERS, type KeptExchange } from './journal/keptExchange.js';
import { handleWithin, stoppedWith, MOCK_RUNTIME, type RecordsWithLimit } from './handleWithin.js';
import type { Origin, OriginMember, Origins } from './origin.js';
import { OWN_CLIENT } from './ownClient.js';
import { servedText, type Served } from './served.js';
import { writeShared, type RecordSharing } from './recordSharing.js';
import type { FaultInjector } from './faults.js';

const NO_CHANGES: readonly KeptChange[] = [];

interface Outcome {
  readonly handled: Handled;
  readonly records: readonly KeptChange[];
}

/** What the arrangements and releases of one mock have in common. */
export interface EndpointContext extends RecordsWithLimit {
  readonly origins: Origins;
  readonly partners: RecordSharing;
  readonly journal: Journal;
  readonly onExchange: (exchange: KeptExchange) => void;
  readonly faultInjector: FaultInjector;
}

/** One arrangement or release of a mock behind a loopback port: a contract over durable records, with a journal. */
export class Endpoint implements OriginMember {
  private readonly logger = new Logger('Mock');
  private origin: Origin | null = null;
  private serving!: Service;
  /** Whether it answers requests that name no version, where a header tells it from others. */
  unversioned = false;

  constructor(
    public served: Served,
    /** Where it listens, or did when it listened last; 0 before it has a port. */
    public port: number,
    service: Service,
    private shared: EndpointContext,
    /** What it says about its end. */
    private readonly lifespan: () => Deprecation | null = () => null,
  ) {
    this.service = service;
  }

  get service(): Service {
    return this.serving;
  }

  /** Serves it from now on, and knows what is served at the same origin. */
  set service(service: Service) {
    this.serving = { ...service, beside: () => this.beside };
  }

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
    return this.origin !== null;
  }

  get address(): Sibling {
    const { root, version, versionHeader } = this.service.contract;
    return { root, version, versionHeader, name: servedText(this.served) };
  }

  /** What is served at the same origin. */
  get beside(): readonly Sibling[] {
    return this.origin?.beside(this) ?? [];
  }

  /** Whether requests to it cannot be told apart from those to something else at its origin. */
  get isStray(): boolean {
    return this.origin?.strays().includes(this) ?? false;
  }

  async start(port: number): Promise<void> {
    this.origin = await this.shared.origins.join(this, port);
    this.port = this.origin.port;
  }

  async stop(): Promise<void> {
    const { origin } = this;
    this.origin = null;
    if (origin !== null) await this.shared.origins.leave(this, origin);
  }

  /** Answers at the root of an origin where several contracts begin. */
  get entries(): RequestHandler {
    return {
      contract: this.contract,
      bodyBytes: 0,
      handle: (request, head) => {
        const response = entriesOf(request, [this.address, ...this.beside]);
        const handled = stoppedWith('The entries of all that is served here.', response);
        return this.answered(request, head, { handled, records: NO_CHANGES }, performance.now());
      },
      isRefused: () => true,
      rejected: (line, response) => this.rejected(line, response),
    };
  }

  handle(request: EngineRequest, head: Head): SentAnswer | null | Promise<SentAnswer | null> {
    const started = performance.now();
    const { problem: wrong } = head;
    if (wrong !== null) {
      const handled = stoppedWith(wrong.detail, renderProblem(this.contract, wrong));
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
    const { root, versionHeader } = this.service.contract;
    const isToldByHeader = versionHeader !== null && this.beside.some((sibling) => sibling.root === root);
    const varying = isToldByHeader ? varyingBy(response, versionHeader) : response;
    return withCors(request, withDeprecation(varying, this.lifespan()));
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
        return { ...stoppedWith('The connection was cut, as the mock was told.', cut), operation };
      }
      case 'fail': {
        const failure = simulatedFailure(this.contract, outcome.status);
        return { ...stoppedWith(`${outcome.status}, simulated as the mock was told.`, failure), operation };
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
    const handled = { operation: null, trace, times: [], shown: null };
    const head = { target, version: version.join(' '), headers: [], problem: null };
    this.record(request, head, handled, response, NO_CHANGES, performance.now());
  }

  private read(request: EngineRequest): Outcome {
    try {
      const handled = handle(this.service, this.shared.records.dataset, request, MOCK_RUNTIME);
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

  /** Writes edits by requests through the contract, all of them as one write. Exchanges are told in the journal. */
  async writeEdits(edits: readonly RecordEdit[]): Promise<WrittenEdits> {
    const { exchanges, problems } = await writeShared(
      () => this.shared,
      (draft) => attemptEdits(this.service, this.shared, this.port, draft, edits),
      (attempt) => attempt.problems.length === 0,
    );
    // Where one is refused nothing is written, and the others are as if they had not been.
    const told = exchanges.filter(({ handled }) => problems.length === 0 || handled.response.status >= 400);
    const numbers = told.map(({ request, handled, records, started, ended }) => {
      const response = this.finished(request, handled.response);
      return this.record(request, headOf(request), handled, response, records, started, ended);
    });
    return { written: problems.length === 0, exchanges: numbers, problems };
  }

  private async writeOne(request: EngineRequest): Promise<Outcome> {
    const attempt = (draft: Draft): Outcome & Pick<Handled, 'changes' | 'kept' | 'tokens'> => {
      const before: RecordView = this.shared.records.dataset;
      const handled = handleWithin(this.service, this.shared, draft, request);
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

  isRefused(request: EngineRequest): boolean {
    const { response } = handle(this.service, new Draft(this.shared.records.dataset), request, MOCK_RUNTIME);
    return REFUSED_EARLY.has(response.status);
  }

  private failed(error: unknown): Handled {
    if (error instanceof NotStored) {
      const found = problem(503, 'unavailable', error.message, [], [['Retry-After', '1']]);
      return stoppedWith(error.message, renderProblem(this.contract, found));
    }
    const text = error instanceof Error ? (error.stack ?? error.message) : String(error);
    this.logger.error(text);
    const found = problem(500, 'unexpected', 'The mock failed inside. Its journal holds the details.');
    return stoppedWith(text, renderProblem(this.contract, found));
  }

  private record(
    request: EngineRequest,
    head: Head,
    { operation, trace, times, shown }: Pick<Handled, 'operation' | 'trace' | 'times' | 'shown'>,
    response: EngineResponse,
    records: readonly KeptChange[],
    started: number,
    ended = performance.now(),
  ): number {
    const exchange: KeptExchange = {
      number: 0,
      at: Date.now(),
      arrangement: servedText(this.served),
      contract: this.service.contract,
      client: clientOf(request.headers.get('user-agent')),
      operation,
      started,
      microseconds: Math.round((ended - started) * 1_000),
      method: request.method,
      target: request.target,
      sentTarget: head.target,
      version: head.version,
      sentHeaders: maskedHeaders(this.service.contract, head.headers),
      body: maskedBody(this.service, operation, request.body, MOST_BODY_CHARACTERS),
      // Whoever looks at it wants the resource, not the source of a page.
      response: maskedAnswer(
        this.service.contract,
        operation,
        shown === null ? response : { ...response, body: shown },
      ),
      isPage: shown !== null,
      trace,
      times,
      records,
      size: 0,
      isLean: false,
    };
    this.shared.journal.add(exchange);
    this.shared.onExchange(exchange);
    return exchange.number;
  }
}

/** What is answered whatever a body says; anything else waits for it. */
const REFUSED_EARLY: ReadonlySet<number> = new Set([401, 403, 404, 405, 406, 412, 413, 415, 428, 501]);

function clientOf(userAgent: string | undefined): string {
  const product = (userAgent ?? '').split(/[\s/(]/, 1)[0] ?? '';
  if (product === OWN_CLIENT) return 'here';
  return product === '' ? 'unknown' : product.slice(0, 24);
}
