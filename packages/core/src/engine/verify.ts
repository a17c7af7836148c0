import type { Custom, TokenAnswer } from '../contract/index.js';
import {
  constraintValue,
  isJsonObject,
  scalarText,
  type EntityStorage,
  type Json,
  type Row,
} from '../model/index.js';
import { challengesOf } from './access.js';
import type { Draft } from './draft.js';
import { tokenDigestOf } from './digest.js';
import type { EngineResponse, Header } from './message.js';
import { invalidBody, refuse, type WriteOutcome, type WriteRequest } from './outcome.js';
import { CONTENT_TYPE, renderBody } from './form.js';
import { readablePath } from './paths.js';
import { problem } from './problem.js';
import { representRecord } from './represent.js';
import { NOBODYS_SECRET, sameSecret } from './sameSecret.js';
import { shapeNamed, statusFor, storageNamed, type RequestContext, type Runtime } from './service.js';
import type { AccessToken } from './accessTokens.js';
import { acceptInputs, bodyValidationOf, refuseUnknown } from './validateBody.js';

type Verify = Extract<Custom, { kind: 'verify' }>;

/** Finds the record that everything sent is true of, and answers it, or a token that stands for it. */
export function executeVerify(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  { operation, resource, body }: WriteRequest,
  custom: Verify,
): WriteOutcome {
  const storage = storageNamed(service, resource.entity);
  const shape = shapeNamed(service, operation.accepts);
  const validation = bodyValidationOf(service, draft);
  const inputs = acceptInputs(validation, shape, body);
  if (isJsonObject(body)) refuseUnknown(validation, shape, body, '');
  if (validation.errors.length > 0) return invalidBody(operation, validation.errors);
  const record = matching(draft, storage, custom, inputs);
  if (record === null) {
    const status = statusFor(operation, 'unmatched');
    const headers = status === UNAUTHENTICATED ? challengesOf(service.contract, false) : [];
    const detail = `What was sent matches no ${storage.entity.name}.`;
    const code = status === UNAUTHENTICATED ? 'unauthenticated' : 'not-found';
    return refuse('store', problem(status, code, detail, [], headers));
  }
  const status = statusFor(operation, 'ok');
  if (custom.answers.kind === 'record')
    return { ok: true, response: recordAnswer(service, draft, record, status), changes: [] };
  const secret = runtime.token();
  const token: AccessToken = {
    digest: tokenDigestOf(secret),
    scheme: custom.answers.scheme,
    rid: record.rid,
    ends: service.now + custom.answers.seconds * 1_000,
    role: custom.answers.role,
  };
  const response = { status, headers: TOKEN_HEADERS, body: tokenBody(custom.answers, secret) };
  return { ok: true, response, changes: [], tokens: [{ kind: 'issue', token }] };
}

const UNAUTHENTICATED = 401;

/** The record that all inputs are true of. However little fits, everything is compared. */
function matching(
  draft: Draft,
  storage: EntityStorage,
  { compared }: Verify,
  inputs: ReadonlyMap<string, Json>,
): Row | null {
  const found = candidate(draft, storage, compared, inputs);
  let differences = found === undefined ? 1 : 0;
  for (const { attribute, input } of compared) {
    const known = found?.values[attribute] ?? null;
    const same = sameSecret(
      scalarText(inputs.get(input) ?? null),
      known === null ? NOBODYS_SECRET : scalarText(known),
    );
    if (!same || known === null) differences++;
  }
  return differences === 0 ? (found ?? null) : null;
}

/** The one record that has what is unique among the inputs. */
function candidate(
  draft: Draft,
  storage: EntityStorage,
  compared: Verify['compared'],
  inputs: ReadonlyMap<string, Json>,
): Row | undefined {
  for (const { attribute, input } of compared) {
    const unique = storage.uniques.find(({ parts }) => parts.length === 1 && parts[0] === attribute);
    if (unique === undefined) continue;
    const value = constraintValue(unique, { [attribute]: inputs.get(input) ?? null });
    return value === null ? undefined : draft.find(storage, unique, value);
  }
  throw new Error(`Nothing that is compared is unique in ${storage.entity.name}.`);
}

const NO_STORE: readonly Header[] = [
  ['Cache-Control', 'no-store'],
  ['Pragma', 'no-cache'],
];
const TOKEN_HEADERS: readonly Header[] = [CONTENT_TYPE['application/json'], ...NO_STORE];

/** RFC 6749 §5.1; a key is told alike. */
const tokenBody = ({ scheme, seconds }: TokenAnswer, secret: string): string =>
  JSON.stringify(
    scheme === 'bearer'
      ? { access_token: secret, token_type: 'Bearer', expires_in: seconds }
      : { key: secret, expires_in: seconds },
  );

function recordAnswer(service: RequestContext, draft: Draft, record: Row, status: number): EngineResponse {
  const { headers, text } = renderBody(service, 'record', representRecord(service, draft, record));
  const path = readablePath(service, draft, record);
  const elsewhere: readonly Header[] = path === null ? [] : [['Content-Location', service.origin + path]];
  return { status, headers: [...headers, ...elsewhere, ...NO_STORE], body: text };
}

/** Ends the token that the request was sent with. */
export function executeRevoke({ operation, who }: WriteRequest): WriteOutcome {
  const token = who?.token ?? null;
  if (token === null) {
    const detail = `${who?.name ?? 'Nobody'} has no token that could end.`;
    return refuse('authorise', problem(statusFor(operation, 'forbidden'), 'forbidden', detail));
  }
  const response = { status: statusFor(operation, 'ok'), headers: [], body: null };
  return { ok: true, response, changes: [], tokens: [{ kind: 'end', digest: token.digest }] };
}
