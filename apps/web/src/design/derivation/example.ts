import { indexContract, type Contract } from '@isomeros/core/contract';
import {
  Dataset,
  Draft,
  exampleRequest,
  handle,
  maskedBody,
  withExampleQuery,
  withExampleToken,
} from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import { Random, seed } from '@isomeros/core/seeding';
import { reasonPhrase } from '../../app/parts/statusNames.js';
import type { ExampleExchange } from './protocol.js';

/** A contract with the seed records its examples are run on, made when the first one is asked for. */
export interface ExampleStage {
  readonly model: Model;
  readonly contract: Contract;
  readonly dataset: Dataset | null;
}

const SEED = 42;
const HOST = '127.0.0.1:4811';
const LONGEST_BODY = 100_000;
/** A fixed moment, so that an example stays the same until the model changes. */
const NOW = Date.parse('2026-06-14T09:12:00Z');

/** Runs one operation with the engine on seed data. The records stay as they are. */
export function exampleExchange(
  { model, contract, dataset: kept }: ExampleStage,
  operationId: string,
): { readonly exchange: ExampleExchange; readonly dataset: Dataset } | null {
  const operation = indexContract(contract).operations.get(operationId);
  if (operation === undefined) return null;
  const dataset = kept ?? seeded(model);
  const service = { contract, model, description: (): string => '', secret: 'example' };
  const bare = exampleRequest(service, dataset, operation, NOW, 'told');
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
    NOW,
  );
  const random = new Random(SEED);
  const { response } = handle(service, new Draft(dataset), request, {
    now: () => NOW,
    random: () => random.next(),
    token: () => 'an-example',
  });
  const names = [...request.headers].map(([name, value]) => `${capitals(name)}: ${value}`);
  const body = maskedBody(service, operation.id, request.body, LONGEST_BODY);
  return {
    dataset,
    exchange: {
      requestHead: [`${request.method} ${request.target} HTTP/1.1`, ...names],
      requestBody: body.kind === 'text' ? body.text : null,
      statusLine: `HTTP/1.1 ${response.status} ${reasonPhrase(response.status)}`,
      responseHead: response.headers.map(([name, value]) => `${name}: ${value}`),
      responseBody: response.body,
    },
  };
}

function seeded(model: Model): Dataset {
  const { rows, counters } = seed(model, { seed: SEED, counts: {}, now: NOW });
  return new Dataset(model, rows, { rid: rows.length, attributes: counters });
}

const capitals = (name: string): string => name.replace(/(^|-)[a-z]/g, (start) => start.toUpperCase());
