import { describe, expect, test } from '@jest/globals';
import { indexContract, type Operation, type QueryParameter } from '@isomeros/core/contract';
import { exampleRequest, findViolations, type EngineRequest } from '@isomeros/core/engine';
import { openApiDocument } from '@isomeros/core/publication';
import fc from 'fast-check';
import { everythingPublished } from '../support/documentation.js';
import { NOW, TestMock } from '../support/mock.js';
import { anyArrangement } from '../support/arrangements.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { PublishedSchemas } from '../support/schemas.js';
import { rounds } from '../support/rounds.js';

/** Statuses that no operation documents: nothing of the contract was reached, or its limits were met first. */
const OUTSIDE = new Set([404, 405, 414, 501]);

const anyJson = fc.jsonValue({ maxDepth: 2 });

/** Headers with a meaning to every operation, or to some. */
const PROTOCOL: readonly (readonly [string, string])[] = [
  ['if-match', '*'],
  ['if-match', '"nothing", W/"weak"'],
  ['if-none-match', '*'],
  ['if-modified-since', 'Sun, 06 Nov 2094 08:49:37 GMT'],
  ['if-unmodified-since', 'Sunday, 06-Nov-94 08:49:37 GMT'],
  ['prefer', 'return=minimal'],
  ['prefer', 'respond-async, return="representation"'],
  ['idempotency-key', '"once"'],
  ['content-type', 'application/json-patch+json'],
  ['authorization', 'Bearer nobody'],
  ['accept', 'application/hal+json'],
];

/** What a careless or hostile client changes in a request that was right. */
const spoilers: readonly ((
  request: EngineRequest,
  value: fc.JsonValue,
  pick: number,
  operation: Operation | undefined,
) => EngineRequest)[] = [
  (request, _value, pick, operation) => ({ ...request, target: request.target + asked(operation, pick) }),
  (request) => request,
  (request) => request,
  (request, value) => withBody(request, value),
  (request, value, pick) => withBody(request, changed(bodyOf(request), value, pick)),
  (request, _value, pick) => withBody(request, without(bodyOf(request), pick)),
  (request, _value, pick) => ({ ...request, target: request.target.replace(/\d+/, String(pick % 60)) }),
  (request) => ({ ...request, target: `${request.target}/nowhere` }),
  (request, _value, pick) => ({
    ...request,
    target: `${request.target}?size=${pick % 120}&page=${pick % 7}`,
  }),
  (request, value) => ({
    ...request,
    target: `${request.target}?sort=${encodeURIComponent(JSON.stringify(value))}`,
  }),
  (request, _value, pick) => ({
    ...request,
    method: ['GET', 'PUT', 'PATCH', 'DELETE', 'POST'][pick % 5] ?? 'GET',
  }),
  (request) => ({ ...request, headers: new Map([...request.headers, ['content-type', 'text/plain']]) }),
  (request, _value, pick) => ({
    ...request,
    headers: new Map([...request.headers, PROTOCOL[pick % PROTOCOL.length] ?? ['accept', '*/*']]),
  }),
  (request) => ({ ...request, headers: new Map([['accept', '*/*']]) }),
];

/** A query that asks for something the operation offers. */
function asked(operation: Operation | undefined, pick: number): string {
  const parameters = operation?.query ?? [];
  const parameter = parameters[pick % Math.max(1, parameters.length)];
  return parameter === undefined ? '' : `?${encodeURIComponent(parameter.name)}=${valueFor(parameter, pick)}`;
}

function valueFor(parameter: QueryParameter, pick: number): string {
  switch (parameter.role) {
    case 'page':
    case 'offset':
    case 'size':
      return String(pick % 9);
    case 'cursor':
      return 'e30.AAAA';
    case 'order':
      return pick % 2 === 0 ? 'desc' : 'asc,desc';
    case 'sort':
      return parameter.keys[pick % parameter.keys.length]?.name ?? '';
    case 'fields':
      return parameter.names.slice(0, 1 + (pick % 3)).join(',');
    case 'expand': {
      const names = parameter.names.slice(pick % parameter.names.length);
      return pick % 4 === 0 ? `${names.join(',')}.${names[0] ?? ''}` : names.join(',');
    }
    case 'search':
      return 'a';
    case 'input':
    case 'filter':
      return String(pick);
  }
}

const withBody = (request: EngineRequest, value: unknown): EngineRequest => {
  const text = JSON.stringify(value);
  return {
    ...request,
    headers: new Map([...request.headers, ['content-type', 'application/json']]),
    body: { kind: 'text', text, bytes: Buffer.byteLength(text) },
  };
};

function bodyOf({ body }: EngineRequest): Record<string, unknown> {
  const value: unknown = body.kind === 'text' ? JSON.parse(body.text) : {};
  return typeof value === 'object' && value !== null ? { ...value } : {};
}

function changed(body: Record<string, unknown>, value: unknown, pick: number): Record<string, unknown> {
  const names = [...Object.keys(body), '__proto__', 'constructor'];
  return Object.defineProperty(body, names[pick % names.length] ?? 'x', {
    value,
    enumerable: true,
    configurable: true,
  });
}

function without(body: Record<string, unknown>, pick: number): Record<string, unknown> {
  const names = Object.keys(body);
  return Object.fromEntries(
    Object.entries(body).filter(([name]) => name !== names[pick % Math.max(1, names.length)]),
  );
}

const steps = fc.array(
  fc.record({ operation: fc.nat(), spoil: fc.nat(spoilers.length - 1), value: anyJson, pick: fc.nat(5_000) }),
  { minLength: 20, maxLength: 60 },
);

function run(
  mock: TestMock,
  schemas: PublishedSchemas,
  walk: readonly { operation: number; spoil: number; value: fc.JsonValue; pick: number }[],
): void {
  const { operations } = mock.service.contract;
  for (const { operation, spoil, value, pick } of walk) {
    const chosen = operations[operation % operations.length];
    const request = chosen === undefined ? null : exampleRequest(mock.service, mock.dataset, chosen, NOW);
    if (request === null) continue;
    const sent = spoilers[spoil]?.(request, value, pick, chosen) ?? request;
    const answer = mock.exchange(sent);
    expect([sent, answer.status < 500 || answer.status === 501]).toEqual([sent, true]);
    const handledBy = answer.handled.operation;
    if (handledBy !== null && sent.method !== 'HEAD' && !OUTSIDE.has(answer.status)) {
      expect(schemas.problemWith(handledBy, answer)).toBeNull();
    }
  }
  expect(findViolations(mock.service.model, mock.rows)).toEqual([]);
}

describe('whatever is sent', () => {
  test('the records of the sample obey the model, and every answer fits what is published', () => {
    const model = modelOf(kestrelText);
    const schemas = new PublishedSchemas(openApiDocument(new TestMock(model).service.contract));
    fc.assert(
      fc.property(steps, (walk) => {
        run(new TestMock(model), schemas, walk);
      }),
      rounds(20),
    );
  });

  test('the records of any model, however it is arranged, obey it, and every answer fits what is published', () => {
    fc.assert(
      fc.property(anyArrangement, steps, ({ model, arrangement }, walk) => {
        const mock = new TestMock(model, {}, arrangement);
        run(mock, new PublishedSchemas(openApiDocument(everythingPublished(mock.service.contract))), walk);
      }),
      rounds(30),
    );
  });

  test('refused writes change nothing', () => {
    const model = modelOf(kestrelText);
    fc.assert(
      fc.property(steps, (walk) => {
        const mock = new TestMock(model);
        for (const { operation, spoil, value, pick } of walk) {
          const chosen =
            mock.service.contract.operations[operation % mock.service.contract.operations.length];
          const request =
            chosen === undefined ? null : exampleRequest(mock.service, mock.dataset, chosen, NOW);
          if (request === null) continue;
          const answer = mock.exchange(spoilers[spoil]?.(request, value, pick, chosen) ?? request);
          if (answer.status >= 400) expect(answer.handled.changes).toEqual([]);
        }
      }),
      rounds(20),
    );
  });

  test('each operation of the sample has an example that succeeds', () => {
    const mock = TestMock.of(kestrelText);
    const outcomes = mock.service.contract.operations.map((operation) => {
      const request = exampleRequest(mock.service, mock.dataset, operation, NOW);
      const status = request === null ? 0 : mock.wouldAnswer(request).status;
      return [operation.id, status] as const;
    });
    const refused = outcomes.filter(([, status]) => status < 200 || status >= 300);
    expect(refused).toEqual([]);
    expect(indexContract(mock.service.contract).operations.size).toBe(outcomes.length);
  });
});
