import { indexContract, shapeIn, type Contract } from '../contract/index.js';
import { isJsonObject, memoize, readJson, type Json, type Model } from '../model/index.js';
import { credentialsOf, presentedBy } from './access.js';
import type { EngineResponse, RequestBody } from './message.js';
import type { Service } from './service.js';

/** What stands in the place of a secret that nobody can put back. */
export const MASK = '***';

/** A body as a journal keeps it. Withheld: it may hold a secret that cannot be masked, so its length alone is kept. */
export type RecordedBody = RequestBody | { readonly kind: 'withheld'; readonly bytes: number };

/** Header lines (names and values in turn) with secrets masked; the same array where there are none. */
export function maskedHeaders(contract: Contract, headers: readonly string[]): readonly string[] {
  const { keyHeader, schemes } = contract.security;
  const key = schemes.includes('key') ? keyHeader.toLowerCase() : '';
  let masked: string[] | null = null;
  for (let index = 0; index < headers.length; index += 2) {
    const name = headers[index] ?? '';
    // Most headers are told apart by the length of their names alone.
    if (!LENGTHS.has(name.length) && name.length !== key.length) continue;
    const value = maskedHeader(contract, name.toLowerCase(), key, headers[index + 1] ?? '');
    if (value === null) continue;
    masked ??= [...headers];
    masked[index + 1] = value;
  }
  return masked ?? headers;
}

const CREDENTIAL_HEADERS: ReadonlySet<string> = new Set(['authorization', 'proxy-authorization']);
const COOKIE_HEADERS: ReadonlySet<string> = new Set(['cookie', 'set-cookie']);
const LENGTHS: ReadonlySet<number> = new Set(
  [...CREDENTIAL_HEADERS, ...COOKIE_HEADERS].map(({ length }) => length),
);

/** The value that stands for one with a secret in it, the scheme of credentials kept; `null` where there is none. */
function maskedHeader(contract: Contract, name: string, key: string, value: string): string | null {
  if (COOKIE_HEADERS.has(name)) return MASK;
  if (CREDENTIAL_HEADERS.has(name)) {
    const known = nameOf(contract, value);
    const [, scheme] = /^([A-Za-z]+) /.exec(value) ?? [];
    return scheme === undefined ? MASK : `${scheme} ${known ?? MASK}`;
  }
  return name === key ? (nameOf(contract, value) ?? MASK) : null;
}

/** The name of the credential of the mock that a header presents, as it is recorded: `(admin)`. */
function nameOf(contract: Contract, value: string): string | null {
  const known = credentialsOf(contract).find((credential) =>
    contract.security.schemes.some((scheme) => presentedBy(scheme, credential) === value),
  );
  return known === undefined ? null : `(${known.name})`;
}

/** A header with the credential that its recorded value names, so that a recorded message can be sent again. */
export function withCredential(contract: Contract, name: string, value: string): string {
  const [, scheme = '', who] = /^(?:([A-Za-z]+) +)?\((\S+)\)$/.exec(value.trim()) ?? [];
  const known = credentialsOf(contract).find((credential) => credential.name === who);
  if (known === undefined) return value;
  const { schemes, keyHeader } = contract.security;
  const isKey = name.toLowerCase() === keyHeader.toLowerCase();
  const presented = schemes.find((one) => one === (isKey ? 'key' : scheme.toLowerCase()));
  return presented === undefined ? value : presentedBy(presented, known);
}

/**
 * A body with the values of write-only members masked, for an operation or for any that it might have been meant for.
 * `most`: characters that are kept at all; a longer one with a secret is not read for it.
 */
export function maskedBody(
  { contract, model }: Pick<Service, 'contract' | 'model'>,
  operation: string | null,
  body: RequestBody,
  most: number,
): RecordedBody {
  if (body.kind !== 'text') return body;
  const all = secretsOf(contract, model);
  const secrets = operation === null ? all.ofAny : (all.byOperation.get(operation) ?? NO_SECRETS);
  if (secrets.size === 0) return body;
  const read = body.text.length > most ? null : readJson(body.text);
  if (read?.ok !== true) return { kind: 'withheld', bytes: body.bytes };
  const masking = new Masking(secrets);
  const value = masking.value(read.value);
  const indent = body.text.includes('\n') ? 2 : undefined;
  return masking.found ? { ...body, text: JSON.stringify(value, null, indent) } : body;
}

/** The body of an answer with the token masked that it hands out; the same where it hands out none. */
export function maskedAnswer(
  contract: Contract,
  operation: string | null,
  response: EngineResponse,
): EngineResponse {
  const { operations, shapes } = indexContract(contract);
  const { custom = null, returns = null } = operations.get(operation ?? '') ?? {};
  // Asked of every exchange, and mostly none is handed out.
  if (custom?.kind !== 'verify' || custom.answers.kind !== 'token') return response;
  const handedOut = (shapes.get(returns ?? '')?.members ?? []).filter(
    ({ source }) => source.kind === 'token' && source.part === 'secret',
  );
  if (handedOut.length === 0 || response.body === null || response.status >= 400) return response;
  const read = readJson(response.body);
  if (!read.ok || !isJsonObject(read.value)) return { ...response, body: MASK };
  const masked = Object.fromEntries(handedOut.map(({ name }) => [name, MASK]));
  return { ...response, body: JSON.stringify({ ...read.value, ...masked }) };
}

class Masking {
  found = false;

  constructor(private readonly secrets: ReadonlySet<string>) {}

  value(given: Json): Json {
    if (Array.isArray(given)) return given.map((item: Json) => this.value(item));
    if (!isJsonObject(given)) return given;
    const isPatch = typeof given['op'] === 'string' && this.isAtSecret(given['path'] ?? null);
    const members = Object.entries(given).map(([name, inner]): [string, Json] => {
      if (!this.secrets.has(name) && !(isPatch && name === 'value')) return [name, this.value(inner)];
      this.found = true;
      return [name, inner === null ? null : MASK];
    });
    return Object.fromEntries(members);
  }

  /** Whether an operation of a JSON Patch (RFC 6902) is about a secret: its path leads to one or into it. */
  private isAtSecret(path: Json): boolean {
    if (typeof path !== 'string') return false;
    const tokens = path.split('/').map((token) => token.replaceAll('~1', '/').replaceAll('~0', '~'));
    return tokens.some((token) => this.secrets.has(token));
  }
}

const NO_SECRETS: ReadonlySet<string> = new Set();

/** Names of the members that hold a secret in what an operation accepts. */
interface Secrets {
  readonly byOperation: ReadonlyMap<string, ReadonlySet<string>>;
  readonly ofAny: ReadonlySet<string>;
}

/** A contract is always served with the same model. */
const secretsOf = memoize((contract: Contract, model: Model): Secrets =>
  findSecrets(contract, writeOnlyOf(model)),
);

/** The identities of all write-only attributes, of entities and of values. */
const writeOnlyOf = memoize(
  ({ declarations }: Model): ReadonlySet<string> =>
    new Set(
      declarations.flatMap((declaration) =>
        declaration.kind === 'entity' || declaration.kind === 'value'
          ? declaration.attributes.filter(({ writeOnly }) => writeOnly).map(({ id }) => id)
          : [],
      ),
    ),
);

function findSecrets(contract: Contract, writeOnly: ReadonlySet<string>): Secrets {
  const { shapes } = indexContract(contract);
  const byOperation = new Map<string, ReadonlySet<string>>();
  for (const { id, accepts } of contract.operations) {
    const names = new Set<string>();
    const seen = new Set<string>();
    const waiting = accepts === null ? [] : [accepts];
    for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
      if (seen.has(name)) continue;
      seen.add(name);
      for (const member of shapes.get(name)?.members ?? []) {
        const { source } = member;
        const isSecret =
          source.kind === 'input'
            ? source.isSecret
            : source.kind === 'attribute' && writeOnly.has(source.attribute);
        if (isSecret) names.add(member.name);
        const inside = shapeIn(member.type);
        if (inside !== null) waiting.push(inside);
      }
    }
    if (names.size > 0) byOperation.set(id, names);
  }
  return { byOperation, ofAny: new Set([...byOperation.values()].flatMap((names) => [...names])) };
}
