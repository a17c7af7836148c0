import {
  isPublished,
  indexContract,
  isOneRecord,
  linksCarriedWith,
  type Contract,
  type Link,
  type LinkTarget,
  type LinkValue,
  type Operation,
  type Resource,
  type Segment,
  type Shape,
} from '../../contract/index.js';
import { escapePointer } from '../../arrangement/index.js';
import { bareObject, entryOf, memoize, type JsonObject } from '../../model/index.js';
import { isEnveloped } from './envelopes.js';

/** A link of an answer as a Link Object (OAS §4.8.20); `null` where no runtime expression reaches what it needs. */
export interface ExpressedLink {
  readonly relation: string;
  readonly object: JsonObject | null;
}

/** The links that a successful answer of an operation carries. */
function expressedLinks(contract: Contract, operation: Operation): readonly ExpressedLink[] {
  const reach = new Reach(contract, operation);
  return linksCarriedWith(contract, operation).flatMap((link): readonly ExpressedLink[] => {
    const leads = reach.leads(link);
    return leads === 'nowhere' ? [] : [{ relation: link.relation, object: leads }];
  });
}

const known = memoize<Contract, Map<string, readonly ExpressedLink[]>>(() => new Map());

/** The same, worked out once for all operations of a resource that answer alike. */
export const linksOfOperation = (contract: Contract, operation: Operation): readonly ExpressedLink[] =>
  entryOf(known(contract), `${operation.resource} ${operation.returns ?? ''}`, () =>
    expressedLinks(contract, operation),
  );

/** What runtime expressions (OAS §4.8.20.4) reach from the answer of an operation. */
class Reach {
  private readonly here: Resource | undefined;
  private readonly shape: Shape | undefined;
  private readonly home: Resource | undefined;
  private readonly pointer: string;

  constructor(
    private readonly contract: Contract,
    operation: Operation,
  ) {
    const { resources, shapes, canonical } = indexContract(contract);
    this.here = resources.get(operation.resource);
    const returned = shapes.get(operation.returns ?? '');
    this.shape = returned !== undefined && isOneRecord(returned) ? returned : undefined;
    this.home = this.shape?.of == null ? undefined : canonical.get(this.shape.of);
    const envelope = isEnveloped(contract, operation.returns ?? '') ? contract.representation.record : null;
    this.pointer = envelope === null ? '' : `/${escapePointer(envelope.member)}`;
  }

  /** `null`: somewhere that is not reached; `nowhere`: to no operation of the document. */
  leads({ target }: Link): JsonObject | null | 'nowhere' {
    switch (target.kind) {
      case 'about':
      case 'description':
      case 'address':
      case 'pair':
        return 'nowhere';
      case 'self':
        return this.home === undefined || this.home === this.here ? 'nowhere' : this.to(this.home, {}, {});
      case 'resource':
      case 'action':
      case 'custom':
      case 'owner':
      case 'read':
        return this.toResource(target.resource, {}, {});
      case 'reference':
        return this.toReferred(target);
      case 'filtered': {
        const id = this.ownId();
        return id === null ? null : this.toResource(target.resource, {}, { [target.parameter]: id });
      }
      case 'operation':
        return this.toOperation(target);
      case 'along':
      case 'template':
      case 'items':
      case 'page':
        return null;
    }
  }

  private toResource(
    id: string,
    ids: Readonly<Record<string, string>>,
    query: Readonly<Record<string, string>>,
  ): JsonObject | null | 'nowhere' {
    const resource = indexContract(this.contract).resources.get(id);
    return resource === undefined ? 'nowhere' : this.to(resource, ids, query);
  }

  /** The operation that follows a link: the one that reads, else the only one. */
  private to(
    resource: Resource,
    ids: Readonly<Record<string, string>>,
    query: Readonly<Record<string, string>>,
  ): JsonObject | null | 'nowhere' {
    const offered = publishedOf(this.contract, resource.id);
    const followed = offered.find(({ method }) => method === 'GET') ?? offered[0];
    if (followed === undefined) return 'nowhere';
    const parameters: Record<string, string> = bareObject();
    for (const segment of resource.segments) {
      if (segment.kind === 'literal') continue;
      const value = ownValue(ids, segment.parameter) ?? this.idFor(segment);
      if (value === null) return null;
      parameters[segment.parameter] = value;
    }
    return linkObject(followed.id, { ...parameters, ...query });
  }

  /** Where the id for a part of a path is: in the path of the request, else in the record that is answered. */
  private idFor(segment: Extract<Segment, { kind: 'id' }>): string | null {
    if (this.isOfPath(segment)) return `$request.path.${segment.parameter}`;
    if (this.home !== undefined && segment.entity === this.shape?.of) return this.ownId();
    const owner = this.shape?.members.find(
      ({ source }) => source.kind === 'owner' && source.entity === segment.entity,
    );
    return owner === undefined ? null : this.inBody(owner.name);
  }

  /** Whether the path of the request names the same record: it and the address of the record begin alike. */
  private isOfPath(segment: Extract<Segment, { kind: 'id' }>): boolean {
    const own = this.here?.segments ?? [];
    const index = own.findIndex((one) => one.kind === 'id' && one.parameter === segment.parameter);
    const found = own[index];
    if (found?.kind !== 'id' || found.entity !== segment.entity) return false;
    if (this.home === undefined) return true;
    return index < beginAlike(own, this.home.segments);
  }

  private ownId(): string | null {
    const { home, shape } = this;
    if (home === undefined || shape === undefined) return null;
    const last = home.segments.at(-1);
    if (last?.kind === 'id' && this.isOfPath(last)) return `$request.path.${last.parameter}`;
    const key = shape.members.find(({ reasons }) =>
      reasons.some(({ rule }) => rule === 'member.key' || rule === 'member.implicit-id'),
    );
    return key === undefined ? null : this.inBody(key.name);
  }

  private toReferred({
    relationship,
    resource: id,
  }: Extract<LinkTarget, { kind: 'reference' }>): JsonObject | null | 'nowhere' {
    const member = this.shape?.members.find(
      ({ source }) => source.kind === 'reference' && source.relationship === relationship,
    );
    const segments = indexContract(this.contract).resources.get(id)?.segments ?? [];
    const asked = segments.flatMap((segment) => (segment.kind === 'id' ? [segment.parameter] : []));
    const [only] = asked;
    if (member === undefined || only === undefined || asked.length > 1) return null;
    return this.toResource(id, { [only]: this.inBody(member.name) }, {});
  }

  private toOperation(target: Extract<LinkTarget, { kind: 'operation' }>): JsonObject | null | 'nowhere' {
    const { resources, operations } = indexContract(this.contract);
    const resource = resources.get(target.resource);
    const operation = operations.get(target.operation);
    if (resource === undefined || operation === undefined || !isPublished(operation)) return 'nowhere';
    if (target.open.path.length > 0) return null;
    const parameters: Record<string, string> = bareObject();
    for (const segment of resource.segments) {
      if (segment.kind === 'literal') continue;
      const bound = ownValue(target.ids, segment.parameter);
      const value = bound === undefined ? this.idFor(segment) : this.bound(bound);
      if (value === null) return null;
      parameters[segment.parameter] = value;
    }
    for (const { name, before, value } of target.query) {
      const said = before === '' ? this.bound(value) : null;
      if (said === null) return null;
      parameters[decodeURIComponent(name)] = said;
    }
    return linkObject(operation.id, parameters);
  }

  private bound(value: LinkValue): string | null {
    if (value.kind === 'literal') return value.text.startsWith('$') ? null : value.text;
    if (value.kind === 'now' || value.along.length > 0) return null;
    const { field } = value;
    const member = this.shape?.members.find(({ source }) =>
      field.kind === 'attribute' || field.kind === 'computed'
        ? (source.kind === 'attribute' || source.kind === 'computed') && source.attribute === field.attribute
        : source.kind === field.kind && source.relationship === field.relationship,
    );
    return member === undefined ? null : this.inBody(member.name);
  }

  private inBody(member: string): string {
    return `$response.body#${this.pointer}/${escapePointer(member)}`;
  }
}

/** Parameters may be called as objects have members by themselves. */
const ownValue = <T>(values: Readonly<Record<string, T>>, name: string): T | undefined =>
  Object.hasOwn(values, name) ? values[name] : undefined;

/** How many parts two paths have in common from their start. */
function beginAlike(one: readonly Segment[], other: readonly Segment[]): number {
  const differs = one.findIndex((segment, index) => !sameSegment(segment, other[index]));
  return differs === -1 ? one.length : differs;
}

const sameSegment = (one: Segment, other: Segment | undefined): boolean =>
  other !== undefined &&
  (one.kind === 'literal'
    ? other.kind === 'literal' && one.text === other.text
    : other.kind === 'id' && one.parameter === other.parameter && one.entity === other.entity);

const published = memoize<Contract, Map<string, readonly Operation[]>>(() => new Map());

/** The operations of a resource that stand in published documents. */
export const publishedOf = (contract: Contract, resource: string): readonly Operation[] =>
  entryOf(published(contract), resource, () =>
    (indexContract(contract).operationsOf.get(resource) ?? []).filter(isPublished),
  );

const linkObject = (operationId: string, parameters: Readonly<Record<string, string>>): JsonObject => ({
  operationId,
  ...(Object.keys(parameters).length === 0 ? {} : { parameters }),
});
