import type { Server } from 'node:http';
import { arrangementOf, NO_CHOICES, plainArrangement, type SettingValues } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import {
  Dataset,
  Draft,
  handle,
  isWrite,
  renderProblem,
  type ProblemPages,
  withCors,
  type EngineRequest,
  type Handled,
  type Service,
} from '@isomeros/core/engine';
import { parse } from '@isomeros/core/notation';
import { seed } from '@isomeros/core/seeding';
import { close, listen, portOf, type Head, type RequestHandler, type SentAnswer } from '@isomeros/listener';

interface Wanted {
  readonly counts?: Readonly<Record<string, number>>;
  readonly settings?: SettingValues;
  /** Milliseconds that each write takes. */
  readonly delay?: number;
}

/** A contract served from memory: no more is needed to serve one. */
export class ServedContract implements RequestHandler {
  private server: Server | null = null;

  private constructor(
    private readonly service: Service,
    private readonly records: Dataset,
    private readonly delay: number,
  ) {}

  static async start(
    text: string,
    { counts = {}, settings = {}, delay = 0 }: Wanted = {},
  ): Promise<ServedContract> {
    const { model } = parse(text, {});
    const arrangement = arrangementOf('main', {
      ...NO_CHOICES,
      arrangements: [{ ...plainArrangement('main'), settings }],
    });
    const contract = derive(model, arrangement);
    const { rows, counters } = seed(model, { seed: 42, counts, now: Date.now() });
    const service = { contract, model, description: () => '{}', reference: () => '', secret: 'test' };
    const records = new Dataset(model, rows, { rid: rows.length, attributes: counters });
    const served = new ServedContract(service, records, delay);
    served.server = await listen(() => served, 0);
    return served;
  }

  get port(): number {
    if (this.server === null) throw new Error('It does not listen.');
    return portOf(this.server);
  }

  get contract(): ProblemPages {
    return this.service.contract;
  }

  get bodyBytes(): number {
    return this.service.contract.limits.bodyBytes;
  }

  async stop(): Promise<void> {
    if (this.server !== null) await close(this.server);
  }

  async handle(request: EngineRequest, { problem }: Head): Promise<SentAnswer> {
    if (problem !== null) return { response: renderProblem(this.contract, problem), pace: null };
    if (!isWrite(request.method)) {
      const { response } = this.answer(this.records, request);
      return { response: withCors(request, response), pace: null };
    }
    await new Promise((resolve) => setTimeout(resolve, this.delay));
    const draft = new Draft(this.records);
    const { response, changes, kept, tokens } = this.answer(draft, request);
    this.records.apply(changes, draft.counters, { answers: kept === null ? [] : [kept], tokens });
    return { response, pace: null };
  }

  isRefused(request: EngineRequest): boolean {
    return [401, 413, 415].includes(this.answer(new Draft(this.records), request).response.status);
  }

  rejected(): void {
    // Nothing keeps a journal here.
  }

  private answer(view: Draft | Dataset, request: EngineRequest): Handled {
    return handle(this.service, view, request, {
      now: () => Date.now(),
      random: () => Math.random(),
      token: () => 'a-token',
    });
  }
}
