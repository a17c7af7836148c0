import {
  Draft,
  keptExample,
  type Dataset,
  type EngineRequest,
  type KeptChange,
  type KeptExampleResult,
  type RowChange,
  type Service,
} from '@isomeros/core/engine';
import type { KeptExchange } from './journal.js';

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
  const before = new Draft(dataset);
  before.apply([...records].reverse().flatMap((change) => takenBack(dataset, change)));
  const request: EngineRequest = { method, target: sentTarget, headers: headerMap(sentHeaders), body };
  return keptExample(service, before, request, {
    id: `exchange-${number}`,
    name: `exchange ${number}`,
    now: at,
  });
}

/** What undoes a change, where the record is still there to be undone. */
function takenBack(dataset: Dataset, { before, after }: KeptChange): readonly RowChange[] {
  const rid = (after ?? before)?.row.rid ?? 0;
  const present = dataset.get(rid);
  if (before === null) return present === undefined ? [] : [{ kind: 'remove', before: present }];
  return present === undefined
    ? [{ kind: 'add', after: before.row }]
    : [{ kind: 'update', before: present, after: before.row }];
}

/** Names in lower case with their values, of names and values in turn. */
function headerMap(sent: readonly string[]): ReadonlyMap<string, string> {
  const headers = new Map<string, string>();
  for (let at = 0; at + 1 < sent.length; at += 2)
    headers.set((sent[at] ?? '').toLowerCase(), sent[at + 1] ?? '');
  return headers;
}
