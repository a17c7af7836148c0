import { derive } from '@isomeros/core/derivation';
import {
  Dataset,
  Draft,
  handle,
  isWrite,
  publicationSource,
  type EngineRequest,
  type Handled,
  type Service,
} from '@isomeros/core/engine';
import { utf8Length, type Model, type Row } from '@isomeros/core/model';
import { openApiDocument, publish } from '@isomeros/core/publication';
import { Random, seed } from '@isomeros/core/seeding';
import { modelOf } from './models.js';
import { MAIN } from './arrangement.js';

export const NOW = Date.parse('2026-06-14T09:12:00Z');

export interface Answer {
  readonly status: number;
  readonly headers: ReadonlyMap<string, string>;
  readonly body: unknown;
  readonly handled: Handled;
}

/** JSON by its value, any other text as it is. */
function bodyOf(headers: Handled['response']['headers'], body: string | null): unknown {
  const type = headers.find(([name]) => name === 'Content-Type')?.[1] ?? '';
  return body === null || !type.includes('json') ? body : (JSON.parse(body) as unknown);
}

function answerOf(handled: Handled): Answer {
  const { status, headers, body } = handled.response;
  return {
    status,
    headers: new Map(headers.map(([name, value]) => [name.toLowerCase(), value])),
    body: bodyOf(headers, body),
    handled,
  };
}

/** A mock without sockets: every request is handled and committed at once. */
export class TestMock {
  readonly service: Service;
  readonly dataset: Dataset;
  now = NOW;
  private readonly random = new Random(5);
  private tokens = 0;

  constructor(model: Model, counts: Readonly<Record<string, number>> = {}, arrangement = MAIN) {
    const contract = derive(model, arrangement);
    this.service = {
      contract,
      model,
      description: () => JSON.stringify(openApiDocument(contract)),
      reference: () => publish(publicationSource(contract, model, []), 'reference.html', { mock: null }),
      secret: 'test',
    };
    const { rows, counters } = seed(model, { seed: 42, counts, now: NOW });
    this.dataset = new Dataset(model, rows, { rid: rows.length, attributes: counters });
  }

  static of(text: string, counts: Readonly<Record<string, number>> = {}): TestMock {
    return new TestMock(modelOf(text), counts);
  }

  get rows(): readonly Row[] {
    return [...this.dataset.everything()];
  }

  send(
    method: string,
    target: string,
    body?: unknown,
    headers: Readonly<Record<string, string>> = {},
  ): Answer {
    return this.exchange(this.request(method, target, body, headers));
  }

  request(
    method: string,
    target: string,
    body?: unknown,
    headers: Readonly<Record<string, string>> = {},
  ): EngineRequest {
    const text = body === undefined ? null : typeof body === 'string' ? body : JSON.stringify(body);
    const type =
      text === null
        ? {}
        : { 'content-type': method === 'PATCH' ? 'application/merge-patch+json' : 'application/json' };
    return {
      method,
      target,
      headers: new Map(Object.entries({ ...type, ...headers })),
      body: text === null ? { kind: 'none' } : { kind: 'text', text, bytes: utf8Length(text) },
    };
  }

  /** The body of an answer that is a text. */
  text(method: string, target: string): string | null {
    return this.handle(this.dataset, this.request(method, target)).response.body;
  }

  draft(): Draft {
    return new Draft(this.dataset);
  }

  /** Handles a request and commits nothing. */
  handle(view: Dataset | Draft, request: EngineRequest, service = this.service): Handled {
    return handle(service, view, request, {
      now: () => this.now,
      random: () => this.random.next(),
      token: () => `token-${++this.tokens}`,
    });
  }

  exchange(request: EngineRequest): Answer {
    return this.exchangeBy(this.service, request);
  }

  /** The same by another service over the same records. */
  exchangeBy(service: Service, request: EngineRequest): Answer {
    const draft = this.draft();
    const handled = this.handle(isWrite(request.method) ? draft : this.dataset, request, service);
    const { changes, kept, tokens } = handled;
    this.dataset.apply(changes, draft.counters, { answers: kept === null ? [] : [kept], tokens });
    return answerOf(handled);
  }

  /** What would be answered; nothing of it is committed. */
  wouldAnswer(request: EngineRequest, service = this.service): Answer {
    return answerOf(this.handle(this.draft(), request, service));
  }
}
