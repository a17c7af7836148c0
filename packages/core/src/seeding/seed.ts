import {
  bareObject,
  constraintValue,
  creationOrder,
  eachInSteps,
  entryOf,
  indexModel,
  ownsItself,
  pointingOf,
  runToEnd,
  storageOf,
  type Attribute,
  type AttributeType,
  type EntityStorage,
  type Json,
  type Model,
  type RefersTo,
  type Row,
  type ScalarType,
  type Steps,
} from '../model/index.js';
import { USUAL_PLAN, wantedCount, wantedWithin, type SeedPlan } from './plan.js';
import { Random } from './random.js';
import { putInSequence } from './sequence.js';
import { seedScalar, type SeedSubject } from './scalars.js';
import { spreadOver } from './spread.js';
import { isStamped, provisionalStamp, stampTimes } from './stamps.js';
import { missing, slotsTaken, UNFILLED, unfoundText, type Shortfall } from './shortfall.js';
import { unfilled } from './unfilled.js';

/** What is wanted, and when. */
export interface SeedOptions extends Partial<SeedPlan> {
  /** The same number gives the same records on every machine. */
  readonly seed: number;
  /** Milliseconds since 1970 that the dates and instants lie near to. */
  readonly now: number;
  /** More records than this are not made. */
  readonly most?: number;
}

export interface SeedResult {
  /** Whether the plan asked for more records than may be made. */
  readonly overflows: boolean;
  readonly rows: readonly Row[];
  /** The last number given to each counted attribute, by its identity. */
  readonly counters: Readonly<Record<string, number>>;
  readonly shortfalls: readonly Shortfall[];
}

const PAIRS_AT_MOST = 3;
const ATTEMPTS = 30;

/** Makes records that obey every rule of the model, from a number. */
export const seed = (model: Model, options: SeedOptions): SeedResult => runToEnd(seedSteps(model, options));

/** The same in steps. */
export const seedSteps = (model: Model, options: SeedOptions): Steps<SeedResult> =>
  new Seeder(model, options).run();

class Seeder {
  private readonly random: Random;
  private readonly rows: { rid: number; entity: string; values: Record<string, Json>; revision: number }[] =
    [];
  private readonly byEntity = new Map<string, number[]>();
  private readonly counters = bareObject<number>();
  private readonly taken = new Map<string, Set<string>>();
  private readonly shortfalls: Shortfall[] = [];
  private readonly plan: SeedPlan;
  private readonly most: number;
  private overflows = false;
  /** Why the last draft of a record came to nothing. */
  private unfound: string | null = null;

  constructor(
    private readonly model: Model,
    private readonly options: SeedOptions,
  ) {
    this.random = new Random(options.seed);
    this.plan = { ...USUAL_PLAN, ...options };
    this.most = options.most ?? Infinity;
  }

  *run(): Steps<SeedResult> {
    const creation = creationOrder(this.model);
    const storages = storageOf(this.model).byId;
    const [order, impossible] = [creation.order, creation.impossible].map((entities) =>
      entities.flatMap((entity) => storages.get(entity.id) ?? []),
    ) as [EntityStorage[], EntityStorage[]];
    for (const storage of order) yield* this.makeAll(storage);
    this.dropUnfilled(storages);
    for (const storage of order) this.fillOptional(storage);
    for (const relationship of indexModel(this.model).relationships) {
      const pairs = relationship.kind === 'pairs' ? storages.get(relationship.id) : undefined;
      if (pairs !== undefined) yield* this.makePairs(pairs);
    }
    for (const storage of impossible) {
      const why = 'What it needs first needs it in turn.';
      this.shortfalls.push({
        entity: storage.entity.name,
        wanted: wantedCount(this.plan, storage),
        made: 0,
        why,
      });
    }
    stampTimes(this.rows, storages, this.options.now, this.random);
    return {
      overflows: this.overflows,
      rows: this.rows,
      counters: this.counters,
      shortfalls: this.shortfalls,
    };
  }

  /** Takes back what has a slot that nothing could be made for; what is left is numbered anew. */
  private dropUnfilled(storages: ReadonlyMap<string, EntityStorage>): void {
    const gone = unfilled(this.rows, storages);
    if (gone.size === 0) return;
    const before = this.rows.splice(0);
    this.byEntity.clear();
    this.taken.clear();
    const numbers = new Map<number, number>();
    const lost = new Map<EntityStorage, number>();
    for (const { rid, entity, values } of before) {
      const storage = storages.get(entity);
      if (storage === undefined) continue;
      if (gone.has(rid)) {
        lost.set(storage, (lost.get(storage) ?? 0) + 1);
        continue;
      }
      for (const { id } of pointingOf(storage)) {
        const target = values[id];
        if (typeof target === 'number') values[id] = numbers.get(target) ?? null;
      }
      this.insert(storage, values);
      numbers.set(rid, this.rows.length);
    }
    for (const [{ entity }, count] of lost) {
      const made = this.rowsOf(entity.name).length;
      this.shortfalls.push({ entity: entity.name, wanted: made + count, made, why: UNFILLED });
    }
  }

  /** A few pairs for each record of the near side, as long as there are others to pair it with. */
  private *makePairs(storage: EntityStorage): Steps<void> {
    const [from, to] = storage.references;
    if (from === undefined || to === undefined) return;
    const targets = this.rowsOf(to.to);
    const near = this.rowsOf(from.to);
    yield* eachInSteps('making', near.entries(), ([ordinal, rid]) => {
      const wanted = Math.min(targets.length, ordinal === 0 ? 2 : this.random.integer(0, PAIRS_AT_MOST));
      for (let made = 0; made < wanted; made++)
        this.makePair(storage, { [from.id]: rid, [to.id]: this.random.pick(targets) }, ordinal);
    });
  }

  private makePair(storage: EntityStorage, sides: Readonly<Record<string, number>>, ordinal: number): void {
    const values: Record<string, Json> = Object.assign(bareObject(), sides);
    for (const attribute of storage.attributes) {
      const value = this.attributeValue(attribute, { of: storage.entity.name, ordinal, attempt: 0 });
      if (value === null) return;
      values[attribute.id] = value;
    }
    if (this.isFree(storage, values)) this.insert(storage, values);
  }

  private *makeAll(storage: EntityStorage): Steps<void> {
    const owners = this.ownersFor(storage);
    this.overflows ||= this.rows.length + owners.length > this.most;
    if (this.overflows) return;
    let made = 0;
    yield* eachInSteps('making', owners, (owner) => {
      if (this.make(storage, owner, made)) made++;
    });
    const wanted =
      owners.length === 0 ? this.wantedUnderNone(storage) : wantedWithin(this.plan, storage, owners.length);
    if (made < wanted) {
      const why =
        missing(storage, (name) => this.rowsOf(name).length > 0) ??
        this.unfound ??
        slotsTaken(storage, owners.length) ??
        'No more values were found that are unique and fit.';
      this.shortfalls.push({ entity: storage.entity.name, wanted, made, why });
    }
    this.unfound = null;
  }

  /** How many records there would be, had an owner of theirs been made. */
  private wantedUnderNone(storage: EntityStorage): number {
    const above = storage.owner?.from;
    return this.shortfalls.some(({ entity, made }) => entity === above && made === 0)
      ? wantedCount(this.plan, storage)
      : 0;
  }

  /** One entry a record to make: the owner's rid, or `null`. */
  private ownersFor(storage: EntityStorage): (number | null)[] {
    const { owner } = storage;
    const wanted = wantedCount(this.plan, storage);
    if (owner === null || ownsItself(owner)) return Array.from({ length: wanted }, () => null);
    const owners = this.rowsOf(owner.from);
    if (owner.cardinality === 'one') return owners;
    if (owner.cardinality === 'optional') {
      const asked = this.plan.counts[storage.entity.name];
      return asked === undefined
        ? owners.filter(() => this.random.chance(0.7))
        : this.random.some(owners, asked);
    }
    return spreadOver(owners, storage.entity.name, wanted, this.plan, this.most, this.random);
  }

  private rowsOf(entityName: string): number[] {
    const entity = indexModel(this.model).entities.get(entityName);
    return (entity === undefined ? undefined : this.byEntity.get(entity.id)) ?? [];
  }

  private make(storage: EntityStorage, owner: number | null, ordinal: number): boolean {
    for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
      const values = this.draft(storage, owner, { of: storage.entity.name, ordinal, attempt });
      if (values === null || !this.isFree(storage, values)) continue;
      this.insert(storage, values);
      return true;
    }
    return false;
  }

  private draft(
    storage: EntityStorage,
    owner: number | null,
    subject: Omit<SeedSubject, 'name'>,
  ): Record<string, Json> | null {
    const values = bareObject();
    for (const attribute of storage.attributes) {
      const value = this.attributeValue(attribute, subject);
      if (value === null) {
        if (!attribute.required && attribute.key === null) continue;
        this.unfound = unfoundText(attribute);
        return null;
      }
      values[attribute.id] = value;
    }
    putInSequence(storage.attributes, values, this.random);
    if (storage.owner !== null && owner !== null) values[storage.owner.id] = owner;
    for (const reference of storage.references) {
      if (reference.cardinality !== 'one') continue;
      const targets = this.rowsOf(reference.to);
      if (targets.length === 0) return null;
      values[reference.id] = this.random.pick(targets);
    }
    return values;
  }

  private attributeValue(attribute: Attribute, subject: Omit<SeedSubject, 'name'>): Json {
    if (isStamped(attribute)) return provisionalStamp(this.options.now, this.rows.length);
    if (attribute.generated && attribute.type.kind === 'integer') {
      const { min } = attribute.type;
      return (this.counters[attribute.id] ?? (min ?? 1) - 1) + 1;
    }
    const shares = this.sharesOf(attribute, subject.of);
    if (shares !== null) return this.random.share(shares);
    const must = attribute.required || attribute.key !== null || attribute.generated;
    // What is unset has its default, as after a write.
    if (!must && !this.random.chance(0.8)) return attribute.defaultValue;
    if (attribute.example !== null && subject.ordinal === 0 && subject.attempt === 0)
      return attribute.example;
    return this.typeValue(attribute.type, { ...subject, name: attribute.name });
  }

  private sharesOf({ name }: Attribute, entity: string): Readonly<Record<string, number>> | null {
    const wish = `${entity}.${name}`;
    return Object.hasOwn(this.plan.shares, wish) ? (this.plan.shares[wish] ?? null) : null;
  }

  private typeValue(type: AttributeType, subject: SeedSubject): Json {
    switch (type.kind) {
      case 'json':
        return Object.assign(bareObject(), { note: this.random.pick(['first', 'second', 'third']) });
      case 'list':
        return this.listValue(type, subject);
      case 'value':
        return this.structuredValue(type.name, subject);
      default:
        return seedScalar(type satisfies ScalarType, subject, this.random, this.options.now);
    }
  }

  private listValue(type: Extract<AttributeType, { kind: 'list' }>, subject: SeedSubject): Json {
    const min = type.min ?? 0;
    const length = this.random.integer(min, Math.max(min, Math.min(type.max ?? 3, min + 3)));
    const items: Json[] = [];
    for (let index = 0; index < length; index++) {
      const item = this.typeValue(type.of, { ...subject, ordinal: subject.ordinal + index });
      if (item === null) return null;
      if (type.of.kind !== 'choice' || !items.includes(item) || items.length < min) items.push(item);
    }
    return items;
  }

  private structuredValue(name: string, subject: SeedSubject): Json {
    const definition = indexModel(this.model).values.get(name);
    const value = bareObject();
    for (const attribute of definition?.attributes ?? []) {
      const part = this.attributeValue(attribute, { ...subject, of: name });
      if (part !== null) value[attribute.id] = part;
      else if (attribute.required) return null;
    }
    return value;
  }

  private isFree({ uniques }: Pick<EntityStorage, 'uniques'>, values: Row['values']): boolean {
    return uniques.every((unique) => {
      const value = constraintValue(unique, values);
      return value === null || !this.takenValues(unique.id).has(value);
    });
  }

  private take({ uniques }: Pick<EntityStorage, 'uniques'>, values: Row['values']): void {
    for (const unique of uniques) {
      const value = constraintValue(unique, values);
      if (value !== null) this.takenValues(unique.id).add(value);
    }
  }

  private insert(storage: EntityStorage, values: Record<string, Json>): void {
    this.take(storage, values);
    for (const attribute of storage.attributes) {
      const value = values[attribute.id];
      if (attribute.generated && typeof value === 'number') this.counters[attribute.id] = value;
    }
    const rid = this.rows.length + 1;
    this.rows.push({ rid, entity: storage.entity.id, values, revision: 1 });
    entryOf(this.byEntity, storage.entity.id, (): number[] => []).push(rid);
  }

  private readonly takenValues = (id: string): Set<string> => entryOf(this.taken, id, () => new Set());

  /** Optional references, and owners among their own kind, once everything exists. Never forms a circle. */
  private fillOptional(storage: EntityStorage): void {
    const optional = storage.references.filter((reference) => reference.cardinality === 'optional');
    const tree = storage.owner !== null && ownsItself(storage.owner) ? storage.owner : null;
    for (const rid of this.byEntity.get(storage.entity.id) ?? []) {
      for (const reference of optional) if (this.random.chance(0.7)) this.pointAt(storage, rid, reference);
      if (tree !== null && this.random.chance(0.6)) this.pointAt(storage, rid, tree);
    }
  }

  private pointAt(
    storage: EntityStorage,
    rid: number,
    relationship: { id: string } & Pick<RefersTo, 'from' | 'to'>,
  ): void {
    const row = this.rows[rid - 1];
    const targets = this.rowsOf(relationship.to).filter(
      (target) => relationship.from !== relationship.to || target < rid,
    );
    if (row === undefined || targets.length === 0) return;
    const changed = { ...row.values, [relationship.id]: this.random.pick(targets) };
    const uniques = storage.uniques.filter(({ parts }) => parts.includes(relationship.id));
    if (!this.isFree({ uniques }, changed)) return;
    this.take({ uniques }, changed);
    row.values[relationship.id] = changed[relationship.id] ?? null;
  }
}
