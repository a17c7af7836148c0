import {
  bareObject,
  constraintValue,
  type EntityStorage,
  type Row,
  type UniqueConstraint,
} from '../model/index.js';
import type { AccessToken, TokenView } from './accessTokens.js';
import type { Counters, RecordView, RowChange } from './dataset.js';
import type { AnswerView, IdempotentResponse } from './idempotency.js';

/** Writes that wait to be committed, seen as if they had been. Later writes are checked against it. */
export class Draft implements RecordView, AnswerView, TokenView {
  private readonly touched = new Map<number, Row | null>();
  private readonly pendingAnswers = new Set<string>();
  private readonly pending: RowChange[] = [];
  private rid: number;
  /** The numbers that were given out before, and those that were given out here: there may be many, and few are. */
  private readonly before: Counters['attributes'];
  private given: Record<string, number> | null = null;

  /** `base`: what is committed, or a draft that this one may be taken over by. */
  constructor(private readonly base: RecordView & AnswerView & TokenView & { readonly counters: Counters }) {
    const { rid, attributes } = base.counters;
    this.rid = rid;
    this.before = attributes;
  }

  answerTo(id: string, now: number): IdempotentResponse | 'pending' | undefined {
    return this.pendingAnswers.has(id) ? 'pending' : this.base.answerTo(id, now);
  }

  tokenOf(digest: string, now: number): AccessToken | undefined {
    return this.base.tokenOf(digest, now);
  }

  /** From now on the answer is pending, until the write it belongs to is settled. */
  keep({ id }: IdempotentResponse): void {
    this.pendingAnswers.add(id);
  }

  get changes(): readonly RowChange[] {
    return this.pending;
  }

  get counters(): Counters {
    const { rid, before, given } = this;
    return { rid, attributes: given === null ? before : Object.assign(bareObject(), before, given) };
  }

  /** The numbers that were given out here, and none of those before. */
  get numbers(): Counters {
    return { rid: this.rid, attributes: this.given ?? NO_NUMBERS };
  }

  nextRid(): number {
    return ++this.rid;
  }

  /** The next number of a counted attribute that starts at `first`. */
  nextNumber(attribute: string, first: number): number {
    const next = Math.max(first, (this.lastNumber(attribute) ?? first - 1) + 1);
    this.give(attribute, next);
    return next;
  }

  private lastNumber(attribute: string): number | undefined {
    return this.given?.[attribute] ?? this.before[attribute];
  }

  private give(attribute: string, number: number): void {
    this.given ??= bareObject<number>();
    this.given[attribute] = number;
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

  /** Another record than `rid` whose values satisfy a unique constraint with this value. */
  findOther(
    entity: EntityStorage,
    constraint: UniqueConstraint,
    value: string,
    rid: number | null,
  ): Row | undefined {
    for (const row of this.touchedOf(entity))
      if (row.rid !== rid && constraintValue(constraint, row.values) === value) return row;
    const committed = this.base.find(entity, constraint, value);
    return committed === undefined || committed.rid === rid || this.touched.has(committed.rid)
      ? undefined
      : committed;
  }

  /** Takes over a draft of this one: its changes, and the numbers it has given out. */
  merge(changes: readonly RowChange[], { rid, attributes }: Counters): void {
    this.apply(changes);
    this.rid = Math.max(this.rid, rid);
    for (const [attribute, number] of Object.entries(attributes))
      if (number > (this.lastNumber(attribute) ?? -Infinity)) this.give(attribute, number);
  }

  apply(changes: readonly RowChange[]): void {
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
  confirm(committed: readonly RowChange[], answers: readonly IdempotentResponse[] = []): void {
    for (const { id } of answers) this.pendingAnswers.delete(id);
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

const NO_NUMBERS: Counters['attributes'] = {};

const ridOf = (change: RowChange): number =>
  change.kind === 'remove' ? change.before.rid : change.after.rid;
