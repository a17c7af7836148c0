import {
  EXAMPLE_HEADERS,
  MOST_EXAMPLE_RECORDS,
  operationKey,
  type NamedExample,
} from '../arrangement/index.js';
import { indexContract, memberSubject, type Operation, type Resource } from '../contract/index.js';
import {
  isJsonObject,
  isScalarType,
  readJson,
  storageOf,
  utf8Length,
  type Attribute,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
  type UniqueConstraint,
} from '../model/index.js';
import { Random, seedScalar } from '../seeding/index.js';
import type { AccessToken, TokenView } from './accessTokens.js';
import type { Counters, RecordView } from './dataset.js';
import { Draft } from './draft.js';
import { handle } from './handle.js';
import type { EngineRequest } from './message.js';
import { operationAt } from './operationAt.js';
import { exampleRuntime } from './runExample.js';
import type { Service } from './service.js';
import { readTarget } from './target.js';

/** An example, or why there can be none. */
export type KeptExampleResult =
  { readonly ok: true; readonly example: NamedExample } | { readonly ok: false; readonly why: string };

const refused = (why: string): KeptExampleResult => ({ ok: false, why });

/** Requests that hold secrets, or tokens that end with them. */
const SECRET_KINDS: ReadonlySet<string> = new Set(['verify', 'revoke', 'caller']);

/**
 * Keeps a request under a name, with the records it needs: those that the engine looks at to answer it, what they point
 * at, and what they cannot be without. `records`: as they are before it is carried out.
 */
export function keptExample(
  service: Service,
  records: RecordView & TokenView & { readonly counters: Counters },
  request: EngineRequest,
  { id, name, now }: Pick<NamedExample, 'id' | 'name' | 'now'>,
): KeptExampleResult {
  const { contract, model } = service;
  const index = indexContract(contract);
  const operation = index.operations.get(operationAt(contract, request) ?? '');
  const resource = index.resources.get(operation?.resource ?? '');
  const target = readTarget(request.target);
  if (operation === undefined || resource === undefined || !target.ok)
    return refused('No operation of the contract takes the request.');
  if (operation.custom !== null && SECRET_KINDS.has(operation.custom.kind))
    return refused('An example of it would hold a secret.');
  if (request.body.kind !== 'none' && request.body.kind !== 'text')
    return refused('Its body could not be read as text.');
  const sent = withoutSecretMembers(service, operation, request, now);
  const seen = new SeenRecords(records);
  const { response } = handle(service, new Draft(seen), sent, exampleRuntime(now));
  const rows = neededBeside(model, records, seen.rids);
  if (rows.length > MOST_EXAMPLE_RECORDS)
    return refused(`It needs ${rows.length} records, and an example holds ${MOST_EXAMPLE_RECORDS} at most.`);
  if (rows.some((row) => hasOpaqueSecret(model, row)))
    return refused('A record it needs has a secret that nothing can stand for.');
  return {
    ok: true,
    example: {
      id,
      name,
      operation: operationKey(operation.resource, operation.verb),
      ids: idsOf(service, resource, target.target.segments),
      query: target.target.query,
      headers: Object.fromEntries(
        EXAMPLE_HEADERS.flatMap((header) => {
          const value = request.headers.get(header);
          return value === undefined ? [] : [[header, value]];
        }),
      ),
      body: sent.body.kind === 'text' ? sent.body.text : null,
      members: namedMembers(service, operation),
      records: rows.map((row) => withoutSecrets(model, row, now)),
      now,
      status: response.status,
    },
  };
}

/** The ids in a path, each with the resource that has the records it is one of. */
function idsOf({ contract }: Service, resource: Resource, sent: readonly string[]): NamedExample['ids'] {
  const { canonical } = indexContract(contract);
  const before = contract.root.split('/').length - 1;
  return resource.segments.flatMap((segment, at) =>
    segment.kind === 'literal'
      ? []
      : [{ of: canonical.get(segment.entity)?.id ?? segment.entity, value: sent[before + at] ?? '' }],
  );
}

/** What the members of a body show, by their names. */
export function namedMembers(
  { contract }: Pick<Service, 'contract'>,
  { accepts }: Operation,
): NamedExample['members'] {
  const shape = indexContract(contract).shapes.get(accepts ?? '');
  return Object.fromEntries(
    (shape?.members ?? []).flatMap(({ name, source }) => {
      const subject = memberSubject(source);
      return subject === null ? [] : [[name, subject]];
    }),
  );
}

/** Of what is gone through as a whole, so many are enough to show it. */
const MOST_LISTED = 20;

/** Remembers which records are looked at. */
class SeenRecords implements RecordView {
  readonly rids = new Set<number>();

  constructor(private readonly base: RecordView & TokenView & { readonly counters: Counters }) {}

  get counters(): Counters {
    return this.base.counters;
  }

  answerTo(): undefined {
    return undefined;
  }

  tokenOf(digest: string, now: number): AccessToken | undefined {
    return this.base.tokenOf(digest, now);
  }

  get(rid: number): Row | undefined {
    return this.seen(this.base.get(rid));
  }

  find(entity: EntityStorage, constraint: UniqueConstraint, value: string): Row | undefined {
    return this.seen(this.base.find(entity, constraint, value));
  }

  pointingAt(entity: EntityStorage, relationship: string, rid: number): readonly Row[] {
    const rows = this.base.pointingAt(entity, relationship, rid);
    for (const row of rows.slice(0, MOST_LISTED)) this.rids.add(row.rid);
    return rows;
  }

  *all(entity: EntityStorage): Iterable<Row> {
    let count = 0;
    for (const row of this.base.all(entity)) {
      if (count++ < MOST_LISTED) this.rids.add(row.rid);
      yield row;
    }
  }

  private seen(row: Row | undefined): Row | undefined {
    if (row !== undefined) this.rids.add(row.rid);
    return row;
  }
}

/** Records with what they point at, and what they cannot be without, in the order of their numbers. */
function neededBeside(model: Model, view: RecordView, seen: ReadonlySet<number>): readonly Row[] {
  const found = new Map<number, Row>();
  const add = (rid: number): void => {
    const row = found.has(rid) ? undefined : view.get(rid);
    const storage = row === undefined ? undefined : storageOf(model).byId.get(row.entity);
    if (row === undefined || storage === undefined) return;
    found.set(rid, row);
    const { owner, references, slots } = storage;
    for (const { id } of [...(owner === null ? [] : [owner]), ...references]) {
      const to = row.values[id];
      if (typeof to === 'number') add(to);
    }
    for (const { id, to, cardinality } of slots) {
      const inside = cardinality === 'one' ? storageOf(model).byName.get(to) : undefined;
      for (const { rid: other } of inside === undefined ? [] : view.pointingAt(inside, id, rid)) add(other);
    }
  };
  for (const rid of seen) add(rid);
  for (const storage of storageOf(model).byId.values())
    if (storage.singleConstraint !== null) for (const { rid } of view.all(storage)) add(rid);
  return [...found.values()].sort((a, b) => a.rid - b.rid);
}

/** Whether a record must have something that it never returns, and that is no plain value. */
const hasOpaqueSecret = (model: Model, { entity, values }: Row): boolean =>
  (storageOf(model).byId.get(entity)?.attributes ?? []).some(
    ({ id, type, writeOnly, required }) => writeOnly && required && !isScalarType(type) && values[id] != null,
  );

/** A record with something else in the place of what it never returns. */
function withoutSecrets(model: Model, row: Row, now: number): Row {
  const storage = storageOf(model).byId.get(row.entity);
  const secrets =
    storage?.attributes.filter(({ id, writeOnly }) => writeOnly && row.values[id] != null) ?? [];
  if (storage === undefined || secrets.length === 0) return row;
  const values: Record<string, Json> = { ...row.values };
  for (const attribute of secrets)
    values[attribute.id] = invented(attribute, storage.entity.name, row.rid, now);
  return { ...row, values };
}

/** A body with something else in the place of what no answer returns. */
function withoutSecretMembers(
  { contract, model }: Service,
  { accepts }: Operation,
  request: EngineRequest,
  now: number,
): EngineRequest {
  const { body } = request;
  const read = body.kind === 'text' ? readJson(body.text) : null;
  const shape = indexContract(contract).shapes.get(accepts ?? '');
  const storage = storageOf(model).byName.get(shape?.of ?? '');
  if (read?.ok !== true || !isJsonObject(read.value) || storage === undefined) return request;
  const secrets = (shape?.members ?? []).flatMap(({ name, source }) => {
    const of = source.kind === 'attribute' ? source.attribute : '';
    const attribute = storage.attributes.find(({ id, writeOnly }) => writeOnly && id === of);
    return attribute === undefined ? [] : [[name, invented(attribute, storage.entity.name, 0, now)] as const];
  });
  const sent = { ...read.value };
  const held = secrets.filter(([name]) => Object.hasOwn(sent, name));
  if (held.length === 0) return request;
  const text = JSON.stringify({ ...sent, ...Object.fromEntries(held) }, null, 2);
  return { ...request, body: { kind: 'text', text, bytes: utf8Length(text) } };
}

function invented({ name, type }: Attribute, of: string, ordinal: number, now: number): Json {
  return isScalarType(type)
    ? seedScalar(type, { name, of, ordinal, attempt: 0 }, new Random(ordinal), now)
    : null;
}
