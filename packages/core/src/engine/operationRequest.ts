import { takesEnveloped, type Operation, type Resource } from '../contract/index.js';
import { utf8Length, type Json, type Row } from '../model/index.js';
import { credentialHeader } from './access.js';
import type { RecordView } from './dataset.js';
import { maskedToken } from './exampleToken.js';
import { pairAt } from './locate.js';
import type { EngineRequest } from './message.js';
import { JSON_PATCH } from './patch.js';
import { WHOLE } from './represent.js';
import type { RequestContext } from './service.js';
import { recordTag, type Rendering } from './validators.js';

/** What an operation is asked about: the record that its path names or lies below, and the other one of a pair. */
export interface OperationSubject {
  readonly resource: Resource;
  readonly record: Row | null;
  readonly paired: Row | null;
}

/** What is sent: where to, a body without its envelope, `null` for none, and a key of its own (Idempotency-Key). */
export interface Sent {
  readonly target: string;
  readonly body: Json;
  readonly mediaType: string;
  readonly idempotencyKey: string;
}

/** A request as an operation wants it: with credentials, the state it is made for, and its body as it travels. */
export function operationRequest(
  service: RequestContext,
  view: RecordView,
  operation: Operation,
  about: OperationSubject,
  { target, body, mediaType, idempotencyKey }: Sent,
): EngineRequest {
  const { method, access, custom, ifMatch, idempotency } = operation;
  const headers = new Map<string, string>([['accept', service.mediaType]]);
  const credentials =
    custom?.kind === 'caller' || custom?.kind === 'revoke'
      ? maskedToken(service)
      : credentialHeader(service.contract, access);
  if (credentials !== null) headers.set(credentials[0].toLowerCase(), credentials[1]);
  if (idempotency === 'required') headers.set('idempotency-key', `"${idempotencyKey}"`);
  const shown = ifMatch === 'required' ? renderingOf(service, view, about) : null;
  if (shown !== null) headers.set('if-match', recordTag(service, view, shown, WHOLE));
  if (body === null) return { method, target, headers, body: { kind: 'none' } };
  headers.set('content-type', mediaType);
  const text = JSON.stringify(mediaType === JSON_PATCH ? body : enveloped(service, operation, body));
  return { method, target, headers, body: { kind: 'text', text, bytes: utf8Length(text) } };
}

/** A body as the operation takes it: the record in a member, where all bodies have it so. */
function enveloped({ contract }: RequestContext, operation: Operation, body: Json): Json {
  const { record } = contract.representation;
  return record === null || takesEnveloped(contract, operation) !== 'always'
    ? body
    : { [record.member]: body };
}

function renderingOf(
  service: RequestContext,
  view: RecordView,
  { resource, record, paired }: OperationSubject,
): Rendering | null {
  if (record === null) return null;
  if (paired === null) return { resource, record, above: null, pair: null };
  const pair = pairAt(service.model, view, resource, record, paired);
  return { resource, record: paired, above: record, pair };
}
