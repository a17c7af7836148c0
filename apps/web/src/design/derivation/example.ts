import type { NamedExample } from '@isomeros/core/arrangement';
import {
  indexContract,
  reasonPhrase,
  type Contract,
  type Finding,
  type Operation,
} from '@isomeros/core/contract';
import {
  derivedExchange,
  EXAMPLE_NOW,
  exampleFindings,
  exampleRequest,
  keptExample,
  maskedBody,
  runExample,
  type Dataset,
  type EngineRequest,
  type EngineResponse,
  type KeptExampleResult,
  type Service,
} from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import { exampleService } from './exampleService.js';
import type { ExampleExchange, NamedExchange } from './protocol.js';

const HOST = '127.0.0.1:4811';
const LONGEST_BODY = 100_000;

/** Runs one operation with the engine on seed data. The records stay as they are. */
export function exampleExchange(
  contract: Contract,
  model: Model,
  dataset: Dataset,
  operationId: string,
): ExampleExchange | null {
  const operation = indexContract(contract).operations.get(operationId);
  if (operation === undefined) return null;
  const service = exampleService(contract, model);
  const ran = derivedExchange(service, dataset, operation, HOST);
  if (ran === null) return null;
  const { request, response } = ran;
  return asItTravels(service, operation, request, response);
}

/** An exchange as it travels, secrets masked. */
function asItTravels(
  service: Service,
  operation: Operation,
  request: EngineRequest,
  response: EngineResponse,
): ExampleExchange {
  const names = [...request.headers].map(([name, value]) => `${capitals(name)}: ${value}`);
  const body = maskedBody(service, operation.id, request.body, LONGEST_BODY);
  return {
    requestHead: [`${request.method} ${request.target} HTTP/1.1`, ...names],
    requestBody: body.kind === 'text' ? body.text : null,
    statusLine: `HTTP/1.1 ${response.status} ${reasonPhrase(response.status)}`,
    responseHead: response.headers.map(([name, value]) => `${name}: ${value}`),
    responseBody: response.body,
  };
}

/** What is derived as the example of an operation, to be kept under a name. */
export function derivedExample(
  contract: Contract,
  model: Model,
  dataset: Dataset,
  operationId: string,
  kept: Pick<NamedExample, 'id' | 'name'>,
): KeptExampleResult {
  const operation = indexContract(contract).operations.get(operationId);
  const service = exampleService(contract, model);
  const request =
    operation === undefined ? null : exampleRequest(service, dataset, operation, EXAMPLE_NOW, 'told');
  return request === null
    ? { ok: false, why: 'The seed data has no record to show this on.' }
    : keptExample(service, dataset, request, { ...kept, now: EXAMPLE_NOW });
}

/** A named example as it travels now, or why it cannot be sent. */
export function namedExchange(contract: Contract, model: Model, example: NamedExample): NamedExchange {
  const service = exampleService(contract, model);
  const ran = runExample(service, example);
  if (!ran.ok) return { exchange: null, status: null, why: ran.why };
  const request = { ...ran.request, headers: new Map([['host', HOST], ...ran.request.headers]) };
  return {
    exchange: asItTravels(service, ran.operation, request, ran.response),
    status: ran.response.status,
    why: null,
  };
}

/** Findings about the examples of an arrangement. */
export const findingsOfExamples = (
  contract: Contract,
  model: Model,
  examples: readonly NamedExample[],
): readonly Finding[] =>
  examples.length === 0 ? [] : exampleFindings(exampleService(contract, model), examples);

const capitals = (name: string): string => name.replace(/(^|-)[a-z]/g, (start) => start.toUpperCase());
