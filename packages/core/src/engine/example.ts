import type { Member, Operation, Resource, Shape } from '../contract/index.js';
import { bareObject, utf8Length, type Json, type Row, type ScalarType } from '../model/index.js';
import { Random, seedScalar } from '../seeding/index.js';
import { findByKey } from './accept.js';
import type { Dataset } from './dataset.js';
import { trailOf } from './locate.js';
import type { EngineRequest } from './message.js';
import { planRemoval } from './removal.js';
import { memberValue, pathOf, pointedAt } from './represent.js';
import { indexOf, shapeNamed, storageNamed, storages, type Service } from './service.js';

/**
 * A request that shows an operation at work on the records there are: ids that exist, a body that fits.
 * `null` when there is no record to show it on.
 */
export function exampleRequest(
  service: Service,
  dataset: Dataset,
  operation: Operation,
  now: number,
): EngineRequest | null {
  const resource = indexOf(service).resources.get(operation.resource);
  if (resource === undefined) return null;
  const record = exampleRecord(service, dataset, operation, resource);
  if (record === undefined) return null;
  const target = pathOf(service, dataset, resource, record);
  if (target === null) return null;
  const body = exampleBody(service, dataset, operation, record, now);
  const headers = new Map([['accept', 'application/json']]);
  if (body === null) return { method: operation.method, target, headers, body: { kind: 'none' } };
  headers.set('content-type', operation.acceptedTypes[0] ?? 'application/json');
  const text = JSON.stringify(body);
  return { method: operation.method, target, headers, body: { kind: 'text', text, bytes: utf8Length(text) } };
}

/** The record whose ids fill the path; `null` where the path has none, `undefined` where none is there. */
function exampleRecord(
  service: Service,
  dataset: Dataset,
  operation: Operation,
  resource: Resource,
): Row | null | undefined {
  if (resource.entity === null || !resource.segments.some((segment) => segment.kind === 'id')) return null;
  const storage = storageNamed(service, resource.entity);
  const candidates = [...dataset.all(storage)];
  if (resource.kind === 'item' || resource.kind === 'singleton') {
    return operation.verb === 'remove'
      ? (candidates.find((row) => planRemoval(service.model, dataset, row).ok) ?? candidates[0])
      : richest(candidates);
  }
  const listed = richest(
    candidates.filter((row) => pointedAt(dataset, row, resource.via?.relationship ?? '') !== null),
  );
  if (listed !== undefined) return pointedAt(dataset, listed, resource.via?.relationship ?? '') ?? undefined;
  const above = trailOf(service.contract, resource).at(-2);
  return above?.entity == null ? undefined : [...dataset.all(storageNamed(service, above.entity))][0];
}

/** The record of the first few with the most values set: it shows most. */
const richest = (rows: readonly Row[]): Row | undefined =>
  rows
    .slice(0, 12)
    .reduce<Row | undefined>(
      (best, row) =>
        best === undefined || Object.keys(row.values).length > Object.keys(best.values).length ? row : best,
      undefined,
    );

function exampleBody(
  service: Service,
  dataset: Dataset,
  operation: Operation,
  record: Row | null,
  now: number,
): Json {
  if (operation.accepts === null) return null;
  const shape = shapeNamed(service, operation.accepts);
  const filler = new Filler(service, dataset, new Random(7), now);
  switch (operation.verb) {
    case 'create':
      return filler.object(shape);
    case 'replace':
      return record === null ? filler.object(shape) : replacement(service, dataset, filler, shape, record);
    case 'change':
      return record === null ? null : oneChange(service, dataset, filler, shape, record);
    case 'entry':
    case 'list':
    case 'read':
    case 'remove':
      return null;
  }
}

/** What a read gave, sent back with one member changed. */
function replacement(service: Service, dataset: Dataset, filler: Filler, shape: Shape, record: Row): Json {
  const body = bareObject();
  const storage = storages(service).byId.get(record.entity);
  for (const member of shape.members) {
    if (member.mode !== 'accepted') continue;
    const { source } = member;
    const attribute =
      source.kind === 'attribute' ? storage?.attributes.find(({ id }) => id === source.attribute) : undefined;
    const value = attribute?.writeOnly === true ? undefined : memberValue(service, dataset, member, record);
    if (value !== undefined) body[member.name] = value;
  }
  return Object.assign(body, oneChange(service, dataset, filler, shape, record));
}

function oneChange(service: Service, dataset: Dataset, filler: Filler, shape: Shape, record: Row): Json {
  const body = bareObject();
  const accepted = shape.members.filter(
    (member) => member.mode === 'accepted' && member.source.kind === 'attribute',
  );
  const changing = accepted.find(({ type }) => type.kind === 'text' || type.kind === 'choice') ?? accepted[0];
  if (changing === undefined) return body;
  const now = memberValue(service, dataset, changing, record) ?? null;
  body[changing.name] = filler.value(changing, shape.of ?? '', now);
  return body;
}

/** Makes up values that fit and are not taken. */
class Filler {
  constructor(
    private readonly service: Service,
    private readonly dataset: Dataset,
    private readonly random: Random,
    private readonly now: number,
  ) {}

  object(shape: Shape): Record<string, Json> {
    const body = bareObject();
    for (const member of shape.members) {
      const value = this.value(member, shape.of ?? '', null);
      if (value !== null) body[member.name] = value;
    }
    return body;
  }

  value(member: Member, of: string, other: Json): Json {
    if (member.source.kind === 'reference') return this.anyKey(member.source.entity);
    if (other === null && member.example !== null && !this.isTaken(member, member.example))
      return member.example;
    for (let attempt = 0; attempt < 40; attempt++) {
      const value = this.ofType(member.type, member.name, of, attempt);
      if (value !== other && !this.isTaken(member, value)) return value;
    }
    return other;
  }

  private ofType(type: Member['type'], name: string, of: string, attempt: number): Json {
    switch (type.kind) {
      case 'json':
        return {};
      case 'shape':
        return this.object(shapeNamed(this.service, type.shape));
      case 'list':
        return Array.from({ length: Math.max(1, type.min ?? 0) }, (_, index) =>
          this.ofType(type.of, name, of, attempt + index),
        );
      case 'links':
      case 'page':
        return null;
      default:
        return seedScalar(
          type satisfies ScalarType,
          { name, of, ordinal: 900 + attempt, attempt },
          this.random,
          this.now,
        );
    }
  }

  private anyKey(entity: string): Json {
    const storage = storageNamed(this.service, entity);
    const some = [...this.dataset.all(storage)].slice(0, 12);
    return some.length === 0 ? null : (this.random.pick(some).values[storage.key.id] ?? null);
  }

  /** Whether another record has this value and none may share it: asked of keys and unique attributes alike. */
  private isTaken(member: Member, value: Json): boolean {
    if (member.source.kind !== 'attribute' || typeof value !== 'string') return false;
    const { attribute } = member.source;
    for (const storage of storages(this.service).byId.values()) {
      const unique = storage.uniques.find(({ parts }) => parts.length === 1 && parts[0] === attribute);
      if (unique === undefined) continue;
      if (unique === storage.keyConstraint)
        return findByKey(this.service, this.dataset, storage.entity.name, value) !== undefined;
      return this.dataset.find(storage, unique, `"${value}`) !== undefined;
    }
    return false;
  }
}
