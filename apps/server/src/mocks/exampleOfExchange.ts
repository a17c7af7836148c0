import {
  keptExample,
  recordsBefore,
  type Dataset,
  type EngineRequest,
  type KeptExampleResult,
  type Service,
} from '@isomeros/core/engine';
import type { KeptExchange } from './journal/keptExchange.js';

/**
 * The request of an exchange as an example, on the records as they are now but for what the exchange did. What the
 * journal withheld of it stays withheld.
 */
export function exampleOfExchange(
  service: Service,
  dataset: Dataset,
  exchange: KeptExchange,
): KeptExampleResult {
  const { number, at, method, sentTarget, sentHeaders, body, records } = exchange;
  if (body.kind === 'withheld') return { ok: false, why: 'The body of the exchange was withheld.' };
  const request: EngineRequest = { method, target: sentTarget, headers: headerMap(sentHeaders), body };
  return keptExample(service, recordsBefore(dataset, records), request, {
    id: `exchange-${number}`,
    name: `exchange ${number}`,
    now: at,
  });
}

/** Names in lower case with their values, of names and values in turn. */
function headerMap(sent: readonly string[]): ReadonlyMap<string, string> {
  const headers = new Map<string, string>();
  for (let at = 0; at + 1 < sent.length; at += 2)
    headers.set((sent[at] ?? '').toLowerCase(), sent[at + 1] ?? '');
  return headers;
}
