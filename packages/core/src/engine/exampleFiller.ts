import type { Member, Shape } from '../contract/index.js';
import {
  bareObject,
  memoize,
  storageOf,
  type EntityStorage,
  type Json,
  type Model,
  type ScalarType,
  type UniqueConstraint,
} from '../model/index.js';
import { seedScalar, type Random } from '../seeding/index.js';
import type { RecordView } from './dataset.js';
import { shapeNamed, storageNamed, type RequestContext } from './service.js';
import { findByKey } from './validateBody.js';

/** Attributes that are unique by themselves, with the constraint that says so. */
const uniqueAlone = memoize(
  (
    model: Model,
  ): ReadonlyMap<string, { readonly storage: EntityStorage; readonly unique: UniqueConstraint }> =>
    new Map(
      [...storageOf(model).byId.values()].flatMap((storage) =>
        storage.uniques.flatMap((unique) => {
          const [part] = unique.parts;
          return part === undefined || unique.parts.length > 1 ? [] : [[part, { storage, unique }] as const];
        }),
      ),
    ),
);

/** Makes up values that fit and are not taken. */
export class Filler {
  constructor(
    private readonly service: RequestContext,
    private readonly records: RecordView,
    private readonly random: Random,
    private readonly now: number,
  ) {}

  object(shape: Shape): Record<string, Json> {
    const body = bareObject();
    for (const member of shape.members) {
      if (member.mode === 'ignored' || member.mode === 'returned') continue;
      const value = this.value(member, shape.of ?? '', null);
      if (value !== null) body[member.name] = value;
    }
    for (const { name, source } of shape.members)
      if (source.kind === 'input' && source.equals !== null) body[name] = body[source.equals] ?? null;
    return body;
  }

  value(member: Member, of: string, other: Json): Json {
    if (member.source.kind === 'reference' || member.source.kind === 'owner')
      return this.anyKey(member.source.entity);
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
    const some = [...this.records.all(storage)].slice(0, 12);
    return some.length === 0 ? null : (this.random.pick(some).values[storage.key.id] ?? null);
  }

  /** Whether another record has this value and none may share it: asked of keys and unique attributes alike. */
  private isTaken(member: Member, value: Json): boolean {
    if (member.source.kind !== 'attribute' || typeof value !== 'string') return false;
    const { attribute } = member.source;
    const found = uniqueAlone(this.service.model).get(attribute);
    if (found === undefined) return false;
    const { storage, unique } = found;
    if (unique === storage.keyConstraint)
      return findByKey(this.service, this.records, storage.entity.name, value) !== undefined;
    return this.records.find(storage, unique, `"${value}`) !== undefined;
  }
}
