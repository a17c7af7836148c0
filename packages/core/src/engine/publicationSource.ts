import type { NamedExample } from '../arrangement/index.js';
import { isPublished, type Contract, type Operation } from '../contract/index.js';
import { lazy, type Model } from '../model/index.js';
import type { PublicationSource, PublishedExample } from '../publication/index.js';
import { callsInOrder } from './callsInOrder.js';
import { derivedExchange, exampleRecords } from './derivedExample.js';
import { maskedAnswer, maskedBody } from './masking.js';
import type { EngineRequest, EngineResponse } from './message.js';
import { runExample } from './runExample.js';
import type { Service } from './service.js';

const LONGEST_BODY = 100_000;
/** Hosts of documentation (RFC 2606). */
const HOST = 'api.example.net';
const DERIVED = 'derived';

/** What documents of a contract are written from; `kept`: the named examples of its arrangement. */
export function publicationSource(
  contract: Contract,
  model: Model,
  kept: readonly NamedExample[],
): PublicationSource {
  const service: Service = { contract, model, description: () => '', reference: () => '', secret: 'example' };
  return {
    contract,
    model,
    examples: lazy(() => examplesOf(service, kept)),
    calls: lazy(() => callsInOrder(service)),
  };
}

/** Those that were kept, in their order, else the derived one. */
function examplesOf(
  service: Service,
  kept: readonly NamedExample[],
): ReadonlyMap<string, readonly PublishedExample[]> {
  const found = new Map<string, PublishedExample[]>();
  for (const example of kept) {
    const ran = runExample(service, example);
    // One that cannot be sent any more is a finding of its own.
    if (!ran.ok) continue;
    const { operation, request, response } = ran;
    const all = found.get(operation.id) ?? [];
    all.push(asPublished(service, operation, example.name, request, response));
    found.set(operation.id, all);
  }
  const records = exampleRecords(service.model);
  for (const operation of service.contract.operations) {
    if (!isPublished(operation) || found.has(operation.id)) continue;
    const ran = derivedExchange(service, records, operation, HOST);
    if (ran === null || ran.response.status >= 400) continue;
    found.set(operation.id, [asPublished(service, operation, DERIVED, ran.request, ran.response)]);
  }
  return found;
}

function asPublished(
  service: Service,
  operation: Operation,
  name: string,
  { method, target, headers, body }: EngineRequest,
  answered: EngineResponse,
): PublishedExample {
  const { contract } = service;
  const response = maskedAnswer(contract, operation.id, answered);
  const hidden = new Set(['host', 'authorization', contract.security.keyHeader.toLowerCase()]);
  const sent = maskedBody(service, operation.id, body, LONGEST_BODY);
  return {
    name,
    operation: operation.id,
    method,
    target,
    requestHeaders: new Map([...headers].filter(([header]) => !hidden.has(header))),
    requestBody: sent.kind === 'text' ? sent.text : null,
    status: response.status,
    responseHeaders: response.headers,
    responseBody: response.body,
    isMasked:
      sent.kind !== body.kind || (sent.kind === 'text' && body.kind === 'text' && sent.text !== body.text),
  };
}
