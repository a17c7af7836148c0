import { indexContract, type Contract } from '@isomeros/core/contract';
import {
  Draft,
  exampleRequest,
  handle,
  maskedBody,
  withExampleQuery,
  withExampleToken,
  type Dataset,
} from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import { Random } from '@isomeros/core/seeding';
import { reasonPhrase } from '../../app/parts/statusNames.js';
import { EXAMPLE_NOW, EXAMPLE_SEED } from './exampleStage.js';
import type { ExampleExchange } from './protocol.js';

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
  const service = { contract, model, description: (): string => '', secret: 'example' };
  const bare = exampleRequest(service, dataset, operation, EXAMPLE_NOW, 'told');
  if (bare === null) return null;
  const entity = indexContract(contract).resources.get(operation.resource)?.entity ?? null;
  const request = withExampleToken(
    service,
    dataset,
    operation,
    {
      ...bare,
      target: withExampleQuery(bare.target, operation),
      headers: new Map([['host', HOST], ...bare.headers]),
    },
    entity,
    EXAMPLE_NOW,
  );
  const random = new Random(EXAMPLE_SEED);
  const { response } = handle(service, new Draft(dataset), request, {
    now: () => EXAMPLE_NOW,
    random: () => random.next(),
    token: () => 'an-example',
  });
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

const capitals = (name: string): string => name.replace(/(^|-)[a-z]/g, (start) => start.toUpperCase());
