import type { Operation, Resource } from '../contract/index.js';
import { bareObject, type Json, type ScalarType } from '../model/index.js';
import { headersOf } from './access.js';
import type { Dataset, RecordView } from './dataset.js';
import { tokenDigestOf } from './digest.js';
import { anyInput } from './exampleQuery.js';
import { MASK } from './masking.js';
import type { EngineRequest } from './message.js';
import { shapeNamed, storageNamed, type RequestContext, type Service } from './service.js';

/** What some record is verified by; secrets are not told where nobody needs them. */
export function exampleOfVerify(
  service: RequestContext,
  records: RecordView,
  { custom, accepts }: Operation,
  { entity }: Resource,
  secrets: 'told' | 'masked',
): Json {
  const body = bareObject();
  if (custom?.kind !== 'verify') return body;
  const rows = [...records.all(storageNamed(service, entity))];
  const record = rows.find(({ values }) =>
    custom.compared.every(({ attribute }) => (values[attribute] ?? null) !== null),
  );
  for (const { name, type, source, required } of shapeNamed(service, accepts).members) {
    if (source.kind !== 'input') continue;
    const compared = custom.compared.find(({ input }) => input === name);
    if (secrets === 'masked' && source.isSecret) body[name] = MASK;
    else if (compared !== undefined) body[name] = record?.values[compared.attribute] ?? MASK;
    else if (source.equals !== null) body[name] = body[source.equals] ?? MASK;
    else if (required) body[name] = anyInput(service, { name, of: entity ?? '' }, type as ScalarType);
  }
  return body;
}

type HeaderLine = readonly [name: string, value: string];

/** Where a token stands, without one. */
export const maskedToken = (service: RequestContext): HeaderLine | null => presenting(service, MASK);

/** The header that presents a token; `null` where the API takes none. */
export function presenting({ contract }: Service, secret: string): HeaderLine | null {
  const at = contract.security.schemes.findIndex((scheme) => scheme !== 'basic');
  return headersOf(contract, { name: '', secret, roles: [] })[at] ?? null;
}

const EXAMPLE = 'an-example';

/** A request with a token of some record, for an operation that wants one; the token is added to the dataset. */
export function withExampleToken(
  service: Service,
  dataset: Dataset,
  { custom }: Operation,
  request: EngineRequest,
  entity: string | null,
  now: number,
): EngineRequest {
  if (custom?.kind !== 'caller' && custom?.kind !== 'revoke') return request;
  const scheme = service.contract.security.schemes.find((one) => one !== 'basic');
  const header = presenting(service, EXAMPLE);
  const [record] = dataset.all(storageNamed(service, entity));
  if (scheme === undefined || header === null || record === undefined) return request;
  const token = { digest: tokenDigestOf(EXAMPLE), scheme, rid: record.rid, ends: now + 1_000, role: null };
  dataset.tokens.apply([{ kind: 'issue', token }]);
  return { ...request, headers: new Map([...request.headers, [header[0].toLowerCase(), header[1]]]) };
}
