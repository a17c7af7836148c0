import { base64, utf8 } from '@scure/base';
import type { Access, Contract, Operation, SecurityScheme } from '../contract/index.js';
import { scalarText, type Row } from '../model/index.js';
import type { RecordView } from './dataset.js';
import { tokenDigestOf } from './digest.js';
import type { EngineRequest, EngineResponse, Problem } from './message.js';
import { problem } from './problem.js';
import { sameSecret } from './sameSecret.js';
import { statusFor, storages, type RequestContext } from './service.js';
import type { AccessToken, TokenView } from './accessTokens.js';

/** Somebody a mock knows. The secret is a password, a token, or a key, whatever the contract asks for. */
export interface Credential {
  readonly name: string;
  readonly secret: string;
  readonly roles: readonly string[];
}

/** Whom a mock knows: somebody without a role, and somebody for each role that the contract asks for. */
export function credentialsOf({ security }: Contract): readonly Credential[] {
  if (security.schemes.length === 0) return [];
  const names = security.roles.filter((role) => role !== 'user');
  return [
    { name: 'user', secret: 'user-secret', roles: security.roles.filter((role) => role === 'user') },
    ...names.map((role) => ({ name: role, secret: `${role}-secret`, roles: [role] })),
  ];
}

/** Who sent a request. */
export interface Caller extends Pick<Credential, 'name' | 'roles'> {
  /** What it presented, where that was handed out, and the record it stands for; `null` for whom a mock knows for good. */
  readonly token: { readonly digest: string; readonly record: Row } | null;
}

/** `who`: `null` is anybody. */
export type Authenticated =
  { readonly ok: true; readonly who: Caller | null } | { readonly ok: false; readonly problem: Problem };

/** Finds out who sent a request, where the operation wants to know. */
export function authenticate(
  service: RequestContext,
  view: RecordView & TokenView,
  operation: Operation,
  request: EngineRequest,
): Authenticated {
  const { contract } = service;
  if (operation.access.kind === 'anonymous') return { ok: true, who: null };
  const { schemes, keyHeader } = contract.security;
  const given = schemes.flatMap((scheme) => presented(scheme, keyHeader, request) ?? []);
  const [first] = given;
  const who = first === undefined ? null : callerOf(service, view, first);
  if (who !== null) return { ok: true, who };
  const expected = schemes.map((scheme) => inWords(scheme, keyHeader)).join(', or ');
  const known = credentialHeader(contract, operation.access)?.join(': ') ?? 'none that would do';
  const detail =
    first === undefined
      ? `Expected credentials by ${expected}; this mock knows ${known}.`
      : `The credentials are not known here; this mock knows ${known}.`;
  const status = statusFor(operation, 'unauthenticated');
  const headers = challengesOf(contract, first !== undefined);
  return { ok: false, problem: problem(status, 'unauthenticated', detail, [], headers) };
}

/** What a 401 says is wanted (RFC 9110 §11.6.1). */
export const challengesOf = (contract: Contract, wasWrong: boolean): EngineResponse['headers'] =>
  contract.security.schemes.map((scheme) => ['WWW-Authenticate', challenge(contract, scheme, wasWrong)]);

/** Whom credentials stand for: somebody the mock knows, or a record that a token was handed out for. */
function callerOf(service: RequestContext, view: RecordView & TokenView, given: Presented): Caller | null {
  const known = credentialsOf(service.contract).find((one) => fits(one, given));
  if (known !== undefined) return { name: known.name, roles: known.roles, token: null };
  const digest = tokenDigestOf(given.secret);
  const token = view.tokenOf(digest, service.now);
  const record = token === undefined ? undefined : view.get(token.rid);
  if (token?.scheme !== given.scheme || record === undefined) return null;
  return { name: nameOfRecord(service, record), roles: rolesOf(record, token), token: { digest, record } };
}

const nameOfRecord = (service: RequestContext, { entity, values }: Row): string => {
  const storage = storages(service).byId.get(entity);
  return `${storage?.entity.name ?? ''} ${scalarText(values[storage?.key.id ?? ''])}`;
};

/** The role of a token, as it is now. */
function rolesOf(record: Row, { role }: AccessToken): readonly string[] {
  if (role === null) return [];
  const named = role.kind === 'fixed' ? role.role : record.values[role.attribute];
  return typeof named === 'string' ? [named] : [];
}

/** Why somebody may not carry out an operation; `null` where they may. */
export function authorise(operation: Operation, who: Caller | null): Problem | null {
  const { access } = operation;
  if (isAllowed(access, who)) return null;
  const role = access.kind === 'role' ? access.role : '';
  const detail = `${who?.name ?? 'Nobody'} does not have the role ${role}, which ${operation.id} wants.`;
  return problem(statusFor(operation, 'forbidden'), 'forbidden', detail);
}

const isAllowed = (access: Access, who: Caller | null): boolean =>
  access.kind !== 'role' || (who?.roles.includes(access.role) ?? false);

interface Presented {
  readonly scheme: SecurityScheme;
  /** Basic alone names somebody. */
  readonly name: string | null;
  readonly secret: string;
}

const fits = ({ name, secret }: Credential, given: Presented): boolean =>
  sameSecret(given.secret, secret) && (given.name === null || given.name === name);

/** What a request presents by a scheme, if it does. */
function presented(scheme: SecurityScheme, keyHeader: string, { headers }: EngineRequest): Presented | null {
  if (scheme === 'key') {
    const secret = headers.get(keyHeader.toLowerCase());
    return secret === undefined ? null : { scheme, name: null, secret };
  }
  const [, used = '', value = ''] = /^([A-Za-z]+) +(\S+) *$/.exec(headers.get('authorization') ?? '') ?? [];
  if (used.toLowerCase() !== scheme) return null;
  if (scheme === 'bearer') return { scheme, name: null, secret: value };
  const text = decodedBasic(value);
  const colon = text.indexOf(':');
  return colon === -1
    ? { scheme, name: '', secret: '' }
    : { scheme, name: text.slice(0, colon), secret: text.slice(colon + 1) };
}

/** User and password (RFC 7617 §2), or nothing where they are not base64. */
function decodedBasic(value: string): string {
  try {
    return utf8.encode(base64.decode(value));
  } catch {
    // Whatever it is, it names nobody.
    return '';
  }
}

/** How credentials are sent by a scheme, as the value of its header. */
export function presentedBy(scheme: SecurityScheme, { name, secret }: Credential): string {
  switch (scheme) {
    case 'basic':
      return `Basic ${base64.encode(utf8.decode(`${name}:${secret}`))}`;
    case 'bearer':
      return `Bearer ${secret}`;
    case 'key':
      return secret;
  }
}

/** The headers somebody proves with who they are, one for each scheme; any one of them will do. */
export const headersOf = (
  { security: { schemes, keyHeader } }: Contract,
  who: Credential,
): readonly (readonly [name: string, value: string])[] =>
  schemes.map((scheme) => [scheme === 'key' ? keyHeader : 'Authorization', presentedBy(scheme, who)]);

/** The header a request needs to be let through, and a value the mock knows; `null` where anybody may send it. */
export function credentialHeader(
  contract: Contract,
  access: Access,
): readonly [name: string, value: string] | null {
  const who = credentialFor(contract, access);
  return who === null ? null : (headersOf(contract, who)[0] ?? null);
}

/** Somebody the mock knows who may; `null` where anybody may, or nobody it knows. */
export const credentialFor = (contract: Contract, access: Access): Credential | null =>
  access.kind === 'anonymous'
    ? null
    : (credentialsOf(contract).find(({ roles }) => access.kind !== 'role' || roles.includes(access.role)) ??
      null);

function inWords(scheme: SecurityScheme, keyHeader: string): string {
  switch (scheme) {
    case 'basic':
      return 'Basic';
    case 'bearer':
      return 'Bearer';
    case 'key':
      return `a key in ${keyHeader}`;
  }
}

/** A challenge (RFC 9110 §11.6.1). */
function challenge({ title, security }: Contract, scheme: SecurityScheme, wasWrong: boolean): string {
  const realm = `realm="${title.replace(/[^ !#-[\]-~]/g, '-')}"`;
  switch (scheme) {
    case 'basic':
      return `Basic ${realm}, charset="UTF-8"`;
    case 'bearer':
      return `Bearer ${realm}${wasWrong ? ', error="invalid_token"' : ''}`;
    case 'key':
      return `ApiKey ${realm}, header="${security.keyHeader}"`;
  }
}
