import {
  bareObject,
  constraintValue,
  storageOf,
  type EntityStorage,
  type Model,
  type Row,
  type UniqueConstraint,
} from '../model/index.js';

/** One step of a write. Changes are applied in order, all or none. */
export type Change =
  | { readonly kind: 'add'; readonly after: Row }
  | { readonly kind: 'update'; readonly before: Row; readonly after: Row }
  | { readonly kind: 'remove'; readonly before: Row };

/** What every reader of records can ask, whether they are committed or pending. */
export interface RecordView {
  get(rid: number): Row | undefined;
  /** The record whose values satisfy a unique constraint with this value. */
  find(entity: EntityStorage, constraint: UniqueConstraint, value: string): Row | undefined;
  /** Records of the entity that hold `rid` under a reference or their ownership. */
  pointingAt(entity: EntityStorage, relationship: string, rid: number): readonly Row[];
  all(entity: EntityStorage): Iterable<Row>;
}

/** The numbers a dataset has given out. None is given twice, whatever is removed or restored. */
export interface Counters {
  readonly rid: number;
  /** By the identity of a counted attribute. */
  readonly attributes: Readonly<Record<string, number>>;
}

/** The committed records of one model, with indexes on keys, unique values and references. */
export class Dataset implements RecordView {
  private readonly rows = new Map<number, Row>();
  private readonly byEntity = new Map<string, Map<number, Row>>();
  private readonly byUnique = new Map<string, Map<string, number>>();
  private readonly byReference = new Map<string, Map<number, Set<number>>>();
  private numbers: Counters;

  constructor(
    readonly model: Model,
    rows: Iterable<Row>,
    counters: Counters,
  ) {
    this.numbers = counters;
    for (const row of rows) this.link(row);
  }

  get counters(): Counters {
    return this.numbers;
  }

  get size(): number {
    return this.rows.size;
  }

  countOf(entity: EntityStorage): number {
    return this.byEntity.get(entity.entity.id)?.size ?? 0;
  }

  get(rid: number): Row | undefined {
    return this.rows.get(rid);
  }

  find(_entity: EntityStorage, constraint: UniqueConstraint, value: string): Row | undefined {
    const rid = this.byUnique.get(constraint.id)?.get(value);
    return rid === undefined ? undefined : this.rows.get(rid);
  }

  pointingAt(_entity: EntityStorage, relationship: string, rid: number): readonly Row[] {
    const rids = this.byReference.get(relationship)?.get(rid);
    return rids === undefined ? [] : [...rids].flatMap((pointing) => this.rows.get(pointing) ?? []);
  }

  all(entity: EntityStorage): Iterable<Row> {
    return this.byEntity.get(entity.entity.id)?.values() ?? [];
  }

  everything(): Iterable<Row> {
    return this.rows.values();
  }

  /** Takes over what has been committed. */
  apply(changes: readonly Change[], counters: Counters): void {
    for (const change of changes) {
      switch (change.kind) {
        case 'add':
          this.link(change.after);
          break;
        case 'update':
          this.unlink(change.before);
          this.link(change.after);
          break;
        case 'remove':
          this.unlink(change.before);
          break;
      }
    }
    this.numbers = counters;
  }

  private link(row: Row): void {
    this.rows.set(row.rid, row);
    within(this.byEntity, row.entity, () => new Map<number, Row>()).set(row.rid, row);
    const storage = storageOf(this.model).byId.get(row.entity);
    if (storage === undefined) return;
    for (const unique of storage.uniques) {
      const value = constraintValue(unique, row.values);
      if (value !== null)
        within(this.byUnique, unique.id, () => new Map<string, number>()).set(value, row.rid);
    }
    for (const [relationship, target] of pointers(storage, row)) {
      const targets = within(this.byReference, relationship, () => new Map<number, Set<number>>());
      within(targets, target, () => new Set<number>()).add(row.rid);
    }
  }

  private unlink(row: Row): void {
    this.rows.delete(row.rid);
    this.byEntity.get(row.entity)?.delete(row.rid);
    const storage = storageOf(this.model).byId.get(row.entity);
    if (storage === undefined) return;
    for (const unique of storage.uniques) {
      const value = constraintValue(unique, row.values);
      const values = this.byUnique.get(unique.id);
      if (value !== null && values?.get(value) === row.rid) values.delete(value);
    }
    for (const [relationship, target] of pointers(storage, row)) {
      const targets = this.byReference.get(relationship);
      const rids = targets?.get(target);
      rids?.delete(row.rid);
      if (rids?.size === 0) targets?.delete(target);
    }
  }
}

/** Each relationship by which a record points at another one, with what it points at. */
export function pointers(storage: EntityStorage, row: Row): [relationship: string, target: number][] {
  const relationships = storage.owner === null ? storage.references : [storage.owner, ...storage.references];
  return relationships.flatMap(({ id }) => {
    const target = row.values[id];
    return typeof target === 'number' ? [[id, target] as [string, number]] : [];
  });
}

function within<K, V>(map: Map<K, V>, key: K, make: () => V): V {
  let value = map.get(key);
  if (value === undefined) {
    value = make();
    map.set(key, value);
  }
  return value;
}

/** Writes that wait to be committed, seen as if they had been. Later writes are checked against it. */
export class Draft implements RecordView {
  private readonly touched = new Map<number, Row | null>();
  private readonly pending: Change[] = [];
  private rid: number;
  private readonly attributes: Record<string, number>;

  constructor(private readonly base: Dataset) {
    this.rid = base.counters.rid;
    this.attributes = Object.assign(bareObject() as Record<string, number>, base.counters.attributes);
  }

  get changes(): readonly Change[] {
    return this.pending;
  }

  get counters(): Counters {
    return { rid: this.rid, attributes: { ...this.attributes } };
  }

  nextRid(): number {
    return ++this.rid;
  }

  /** The next number of a counted attribute that starts at `first`. */
  nextNumber(attribute: string, first: number): number {
    const next = Math.max(first, (this.attributes[attribute] ?? first - 1) + 1);
    this.attributes[attribute] = next;
    return next;
  }

  get(rid: number): Row | undefined {
    const touched = this.touched.get(rid);
    return touched === undefined ? this.base.get(rid) : (touched ?? undefined);
  }

  find(entity: EntityStorage, constraint: UniqueConstraint, value: string): Row | undefined {
    for (const row of this.touchedOf(entity))
      if (constraintValue(constraint, row.values) === value) return row;
    const committed = this.base.find(entity, constraint, value);
    return committed === undefined || this.touched.has(committed.rid) ? undefined : committed;
  }

  pointingAt(entity: EntityStorage, relationship: string, rid: number): readonly Row[] {
    const committed = this.base
      .pointingAt(entity, relationship, rid)
      .filter((row) => !this.touched.has(row.rid));
    const pending = this.touchedOf(entity).filter((row) => row.values[relationship] === rid);
    return [...committed, ...pending];
  }

  all(entity: EntityStorage): Iterable<Row> {
    const committed = [...this.base.all(entity)].filter((row) => !this.touched.has(row.rid));
    return [...committed, ...this.touchedOf(entity)];
  }

  apply(changes: readonly Change[]): void {
    for (const change of changes) {
      this.pending.push(change);
      if (change.kind === 'remove') this.touched.set(change.before.rid, null);
      else this.touched.set(change.after.rid, change.after);
    }
  }

  /**
   * Forgets writes that the base has taken over meanwhile. `committed` are the first changes of this draft;
   * what later ones touched again stays.
   */
  settle(committed: readonly Change[]): void {
    this.pending.splice(0, committed.length);
    const later = new Set(this.pending.map(ridOf));
    for (const change of committed) {
      const rid = ridOf(change);
      if (!later.has(rid)) this.touched.delete(rid);
    }
  }

  private touchedOf(entity: EntityStorage): Row[] {
    const rows: Row[] = [];
    for (const row of this.touched.values())
      if (row !== null && row.entity === entity.entity.id) rows.push(row);
    return rows;
  }
}

const ridOf = (change: Change): number => (change.kind === 'remove' ? change.before.rid : change.after.rid);
