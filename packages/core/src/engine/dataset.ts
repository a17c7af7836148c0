import {
  constraintValue,
  eachInSteps,
  pointingOf,
  storageOf,
  type EntityStorage,
  type Model,
  type Row,
  type Steps,
  type UniqueConstraint,
} from '../model/index.js';
import { IdempotentResponses, type AnswerView, type IdempotentResponse } from './idempotency.js';
import { AccessTokens, type AccessToken, type TokenChange, type TokenView } from './accessTokens.js';

/** One step of a write. Changes are applied in order, all or none. */
export type RowChange =
  | { readonly kind: 'add'; readonly after: Row }
  | { readonly kind: 'update'; readonly before: Row; readonly after: Row }
  | { readonly kind: 'remove'; readonly before: Row };

/** What a write leaves beside records. */
export interface LeftBeside {
  readonly answers: readonly IdempotentResponse[];
  readonly tokens: readonly TokenChange[];
}

const NOTHING_BESIDE: LeftBeside = { answers: [], tokens: [] };

/** What every reader of records can ask, whether they are committed or pending. */
export interface RecordView {
  get(rid: number): Row | undefined;
  /** The record whose values satisfy a unique constraint with this value. */
  find(entity: EntityStorage, constraint: UniqueConstraint, value: string): Row | undefined;
  /** Records of the entity that hold `rid` under a reference or their ownership. */
  pointingAt(entity: EntityStorage, relationship: string, rid: number): readonly Row[];
  all(entity: EntityStorage): Iterable<Row>;
}

/** The record that a reference or the ownership of a record points at. */
export function pointedAt(view: RecordView, record: Row, relationship: string): Row | null {
  const rid = record.values[relationship];
  return typeof rid === 'number' ? (view.get(rid) ?? null) : null;
}

/** The numbers a dataset has given out. None is given twice, whatever is removed or restored. */
export interface Counters {
  readonly rid: number;
  /** By the identity of a counted attribute. */
  readonly attributes: Readonly<Record<string, number>>;
}

/** Something that is kept up to date with the records of one entity. */
export interface RecordIndex {
  add(row: Row): void;
  remove(row: Row): void;
}

/** So many orders are kept at once; the one that nobody asked for longest goes. */
const MOST_INDEXES = 32;

/** The committed records of one model, with indexes on keys, unique values and references. */
export class Dataset implements RecordView, AnswerView, TokenView {
  private readonly rows = new Map<number, Row>();
  private readonly byEntity = new Map<string, Map<number, Row>>();
  private readonly byUnique = new Map<string, Map<string, number>>();
  private readonly byReference = new Map<string, Map<number, Set<number>>>();
  /** By the identity of an entity, then by what they hold; the latest used last. */
  private readonly indexes = new Map<string, { readonly entity: string; readonly index: RecordIndex }>();
  private numbers: Counters;
  private applied = 0;

  constructor(
    readonly model: Model,
    rows: Iterable<Row>,
    counters: Counters,
    /** The answers that are kept for requests sent again. */
    readonly answers: IdempotentResponses = new IdempotentResponses(),
    readonly tokens: AccessTokens = new AccessTokens(),
  ) {
    this.numbers = counters;
    for (const row of rows) this.link(row);
  }

  /** The records as they are after some changes, made beside those there are, in steps. */
  static *changed(
    before: Dataset,
    changes: readonly RowChange[],
    counters: Counters,
    beside: LeftBeside = NOTHING_BESIDE,
  ): Steps<Dataset> {
    const rows = new Map<number, Row>();
    yield* eachInSteps('writing', before.everything(), (row) => rows.set(row.rid, row));
    yield* eachInSteps('writing', changes, (change) => {
      if (change.kind === 'remove') rows.delete(change.before.rid);
      else rows.set(change.after.rid, change.after);
    });
    before.takeBeside(beside, changes);
    return yield* Dataset.filled(before.model, rows.values(), counters, before.answers, before.tokens);
  }

  /** The same as the constructor, in steps. */
  static *filled(
    model: Model,
    rows: Iterable<Row>,
    ...rest: [counters: Counters, answers?: IdempotentResponses, tokens?: AccessTokens]
  ): Steps<Dataset> {
    const dataset = new Dataset(model, [], ...rest);
    yield* eachInSteps('writing', rows, (row) => {
      dataset.link(row);
    });
    return dataset;
  }

  get counters(): Counters {
    return this.numbers;
  }

  /** Another number after each change. */
  get version(): number {
    return this.applied;
  }

  get size(): number {
    return this.rows.size;
  }

  countOf(entity: EntityStorage): number {
    return this.byEntity.get(entity.entity.id)?.size ?? 0;
  }

  answerTo(id: string, now: number): IdempotentResponse | undefined {
    return this.answers.get(id, now);
  }

  tokenOf(digest: string, now: number): AccessToken | undefined {
    return this.tokens.get(digest, now);
  }

  get(rid: number): Row | undefined {
    return this.rows.get(rid);
  }

  find(_entity: EntityStorage, constraint: UniqueConstraint, value: string): Row | undefined {
    const rid = this.byUnique.get(constraint.id)?.get(value);
    return rid === undefined ? undefined : this.rows.get(rid);
  }

  pointingAt(_entity: EntityStorage, relationship: string, rid: number): readonly Row[] {
    const pointing: Row[] = [];
    for (const other of this.byReference.get(relationship)?.get(rid) ?? []) {
      const row = this.rows.get(other);
      if (row !== undefined) pointing.push(row);
    }
    return pointing;
  }

  all(entity: EntityStorage): Iterable<Row> {
    return this.byEntity.get(entity.entity.id)?.values() ?? [];
  }

  /** An index of an entity under a name that says all about it; made when it is asked for first. */
  index<T extends RecordIndex>(entity: EntityStorage, name: string, make: (rows: Iterable<Row>) => T): T {
    const known = this.indexes.get(name);
    const index = (known?.index as T | undefined) ?? make(this.all(entity));
    this.indexes.delete(name);
    this.indexes.set(name, { entity: entity.entity.id, index });
    const [oldest] = this.indexes.keys();
    if (this.indexes.size > MOST_INDEXES && oldest !== undefined) this.indexes.delete(oldest);
    return index;
  }

  everything(): Iterable<Row> {
    return this.rows.values();
  }

  /** Takes over what has been committed. */
  apply(changes: readonly RowChange[], counters: Counters, beside: LeftBeside = NOTHING_BESIDE): void {
    this.takeBeside(beside, changes);
    // An index reads what records point at, so what is to go goes while everything is still there.
    for (const change of changes)
      if (change.kind !== 'add') this.eachIndex(change.before, (index, row) => index.remove(row));
    const last = new Map<number, Row>();
    for (const change of changes) {
      if (change.kind !== 'add') this.unlink(change.before);
      if (change.kind === 'remove') last.delete(change.before.rid);
      else {
        this.link(change.after);
        last.set(change.after.rid, change.after);
      }
    }
    for (const row of last.values()) this.eachIndex(row, (index, added) => index.add(added));
    this.numbers = counters;
    this.applied++;
  }

  /** A token ends with the record that it stands for. */
  private takeBeside({ answers, tokens }: LeftBeside, changes: readonly RowChange[]): void {
    this.answers.add(answers);
    this.tokens.apply(tokens);
    for (const change of changes) if (change.kind === 'remove') this.tokens.endOf(change.before.rid);
  }

  private eachIndex(row: Row, act: (index: RecordIndex, row: Row) => void): void {
    for (const { entity, index } of this.indexes.values()) if (entity === row.entity) act(index, row);
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
  return pointingOf(storage).flatMap(({ id }) => {
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
