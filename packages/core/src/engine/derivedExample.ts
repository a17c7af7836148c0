import { indexContract, type Operation } from '../contract/index.js';
import type { Model } from '../model/index.js';
import { seed } from '../seeding/index.js';
import { Dataset } from './dataset.js';
import { Draft } from './draft.js';
import { exampleRequest } from './example.js';
import { withExampleQuery } from './exampleQuery.js';
import { withExampleToken } from './exampleToken.js';
import { handle } from './handle.js';
import type { EngineRequest, EngineResponse } from './message.js';
import { isWrite } from './method.js';
import { exampleRuntime } from './runExample.js';
import type { Service } from './service.js';

export const EXAMPLE_SEED = 42;
/** A fixed moment, so that an example stays the same until the model changes. */
export const EXAMPLE_NOW = Date.parse('2026-06-14T09:12:00Z');

/** The records that examples are run on. */
export function exampleRecords(model: Model): Dataset {
  const { rows, counters } = seed(model, { seed: EXAMPLE_SEED, counts: {}, now: EXAMPLE_NOW });
  return new Dataset(model, rows, { rid: rows.length, attributes: counters });
}

/**
 * Runs one operation on some records, which stay as they are; `null` where there is none to show it on. `host`: where
 * it is sent to.
 */
export function derivedExchange(
  service: Service,
  records: Dataset,
  operation: Operation,
  host: string,
): { readonly request: EngineRequest; readonly response: EngineResponse } | null {
  const bare = exampleRequest(service, records, operation, EXAMPLE_NOW, 'told');
  if (bare === null) return null;
  const entity = indexContract(service.contract).resources.get(operation.resource)?.entity ?? null;
  const asked = {
    ...bare,
    target: withExampleQuery(bare.target, operation),
    headers: new Map([['host', host], ...bare.headers]),
  };
  const request = withExampleToken(service, records, operation, asked, entity, EXAMPLE_NOW);
  const draft = isWrite(operation.method) ? new Draft(records) : records;
  const { response } = handle(service, draft, request, exampleRuntime(EXAMPLE_NOW));
  return { request, response };
}
