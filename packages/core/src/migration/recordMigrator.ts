import type { Counters, ProblemDetail } from '../engine/index.js';
import {
  bareObject,
  codePointLength,
  constraintValue,
  onRemoveOf,
  pointedEntity,
  pointingOf,
  scalarText,
  storageOf,
  type Attribute,
  type EntityStorage,
  type Json,
  type Model,
  type Owns,
  type RefersTo,
  type Row,
  type UniqueConstraint,
} from '../model/index.js';
import { toStored, pathAttributes, keyPathOf, readAttributes } from '../transfer/index.js';
import { converted } from './convert.js';
import type { Decision } from './decision.js';
import type { OpenStep } from './plan.js';

/** The clock and the dice, handed in. */
export interface MigrationRuntime {
  /** Milliseconds since 1970. */
  readonly now: number;
  readonly uuid: () => string;
}

/** Records while decisions are carried out on them. */
export class RecordMigrator {
  readonly rows: Map<number, Row>;
  readonly problems: ProblemDetail[] = [];
  private rid: number;
  private readonly numbers: Record<string, number>;

  constructor(
    private readonly model: Model,
    rows: ReadonlyMap<number, Row>,
    counters: Counters,
    private readonly tools: MigrationRuntime,
  ) {
    this.rows = new Map(rows);
    this.rid = counters.rid;
    this.numbers = Object.assign(bareObject<number>(), counters.attributes);
  }

  get counters(): Counters {
    return { rid: this.rid, attributes: this.numbers };
  }

  /** Does what was decided about a step. Returns whether a record is another one now. */
  carryOut(step: OpenStep, decision: Decision): boolean {
    const { about, rids } = step;
    switch (about.kind) {
      case 'lost':
        return about.isEntity ? this.remove(rids) : this.unset(rids, about.id);
      case 'unset':
      case 'misfit':
        return this.settleValues(step, about.attribute, decision, about.storage);
      case 'none':
        return decision.do === 'fill' && this.makeOne(step.id, about.storage, decision.value);
      case 'taken':
        if (decision.do === 'drop') return this.remove(rids);
        return decision.do === 'fill'
          ? this.keepOne(step.id, about.storage, decision.value)
          : this.number(rids, about.constraint, about.storage);
      case 'pointer':
        return this.settlePointers(step, about.relationship, about.instead, decision);
      case 'slot':
        return decision.do === 'fill'
          ? this.fillSlots(step, about.relationship, decision.value)
          : this.remove(rids);
      case 'circle':
        return this.unset(rids, about.relationship.id);
    }
  }

  private put(rid: number, id: string, value: Json): boolean {
    const row = this.rows.get(rid);
    if (row === undefined) return false;
    const values: Record<string, Json> = Object.assign(bareObject(), row.values);
    if (value === null) delete values[id];
    else values[id] = value;
    this.rows.set(rid, { ...row, values });
    return true;
  }

  private unset(rids: readonly number[], id: string): boolean {
    return rids.map((rid) => this.put(rid, id, null)).includes(true);
  }

  private settleValues(
    { id, rids, about }: OpenStep,
    attribute: Attribute,
    decision: Decision,
    { key }: EntityStorage,
  ): boolean {
    const { type } = attribute;
    switch (decision.do) {
      case 'drop':
        return about.kind === 'misfit' && !attribute.required && attribute !== key
          ? this.unset(rids, attribute.id)
          : this.remove(rids);
      case 'fill': {
        const value = toStored(this.model, type, decision.value, `/${id}`, (problem) => {
          this.problems.push(problem);
        });
        return value !== undefined && rids.map((rid) => this.put(rid, attribute.id, value)).includes(true);
      }
      case 'convert':
        return rids
          .map((rid) => {
            const old = this.rows.get(rid)?.values[attribute.id] ?? null;
            const value = old === null ? this.made(attribute) : converted(this.model, type, old);
            return value !== undefined && value !== null && this.put(rid, attribute.id, value);
          })
          .includes(true);
    }
  }

  /** A value that nobody gives. */
  private made({ id, type }: Attribute): Json {
    if (type.kind === 'uuid') return this.tools.uuid();
    if (type.kind === 'instant') return new Date(this.tools.now).toISOString();
    if (type.kind !== 'integer') return null;
    const next = Math.max(type.min ?? 1, (this.numbers[id] ?? 0) + 1);
    this.numbers[id] = next;
    return next;
  }

  /** Makes values differ that several records share: `Over`, `Over-2`, `Over-3`; numbers go on behind the highest. */
  private number(rids: readonly number[], constraint: UniqueConstraint, storage: EntityStorage): boolean {
    const attribute = storage.attributes.find(({ id }) => id === constraint.parts[0]);
    if (attribute === undefined) return false;
    const all = [...this.rows.values()].filter((row) => row.entity === storage.entity.id);
    const taken = new Set(all.flatMap((row) => constraintValue(constraint, row.values) ?? []));
    const highest = all.reduce((most, row) => Math.max(most, numberIn(row.values[attribute.id])), 0);
    let last = highest;
    return rids
      .map((rid) => {
        const row = this.rows.get(rid);
        const old = row?.values[attribute.id];
        if (row === undefined || old === undefined || typeof old === 'object') return false;
        for (let count = 2; count <= all.length + 1; count++) {
          const value = typeof old === 'number' ? ++last : numbered(attribute, old, count);
          const claimed = constraintValue(constraint, { ...row.values, [attribute.id]: value });
          if (claimed === null || taken.has(claimed)) continue;
          taken.add(claimed);
          return this.put(rid, attribute.id, value);
        }
        return false;
      })
      .includes(true);
  }

  private settlePointers(
    { id, rids }: OpenStep,
    relationship: Owns | RefersTo,
    instead: string | null,
    decision: Decision,
  ): boolean {
    switch (decision.do) {
      case 'drop':
        return this.remove(rids);
      case 'convert':
        return rids
          .map((rid) => {
            const target = instead === null ? null : (this.rows.get(rid)?.values[instead] ?? null);
            return target !== null && this.put(rid, relationship.id, target);
          })
          .includes(true);
      case 'fill': {
        const target = this.named(pointedEntity(relationship), decision.value);
        if (target !== null) return rids.map((rid) => this.put(rid, relationship.id, target)).includes(true);
        this.problems.push({
          pointer: `/${id}`,
          code: 'reference',
          message: 'There is no such record to lead to.',
        });
        return false;
      }
    }
  }

  /** The record of an entity that a key, or an array of keys, leads to. */
  private named(entity: string, given: Json): number | null {
    const storage = storageOf(this.model).byName.get(entity);
    if (storage === undefined) return null;
    const keys = Array.isArray(given) ? (given as readonly Json[]) : [given];
    if (keys.length !== pathAttributes(this.model, storage).length) return null;
    const wanted = JSON.stringify(keys);
    for (const row of this.rows.values())
      if (
        row.entity === storage.entity.id &&
        JSON.stringify(keyPathOf(this.model, this.rows, storage, row)) === wanted
      )
        return row.rid;
    return null;
  }

  private fillSlots({ id, rids }: OpenStep, slot: Owns, given: Json): boolean {
    const storage = storageOf(this.model).byName.get(slot.to);
    const read = storage === undefined ? null : this.attributesIn(id, storage, given);
    if (storage === undefined || read === null) return false;
    for (const owner of rids) this.add(storage, { ...read, [slot.id]: owner });
    return true;
  }

  /** The one record there must be. */
  private makeOne(step: string, storage: EntityStorage, given: Json): boolean {
    const read = this.attributesIn(step, storage, given);
    if (read !== null) this.add(storage, read);
    return read !== null;
  }

  /** Of several records the one that is named stays. */
  private keepOne(step: string, storage: EntityStorage, given: Json): boolean {
    const kept = this.named(storage.entity.name, given);
    if (kept === null) {
      const message = `There is no ${storage.entity.name} of that ${storage.key.name}.`;
      this.problems.push({ pointer: `/${step}`, code: 'reference', message });
      return false;
    }
    const all = [...this.rows.values()].filter(({ entity }) => entity === storage.entity.id);
    return this.remove(all.map(({ rid }) => rid).filter((rid) => rid !== kept));
  }

  /** What is typed for a record that is to be made; `null` where it does not fit, which is reported. */
  private attributesIn(step: string, storage: EntityStorage, given: Json): Record<string, Json> | null {
    return readAttributes(this.model, storage, given, `/${step}`, (problem) => {
      this.problems.push(problem);
    });
  }

  private add(storage: EntityStorage, given: Readonly<Record<string, Json>>): void {
    const values: Record<string, Json> = Object.assign(bareObject(), given);
    for (const attribute of storage.attributes) {
      const { id, generated, touched, defaultValue } = attribute;
      const value = values[id] ?? (generated || touched ? this.made(attribute) : defaultValue);
      if (value !== null) values[id] = value;
    }
    const rid = ++this.rid;
    this.rows.set(rid, { rid, entity: storage.entity.id, values, revision: 1 });
  }

  /** Removes records with what they own; what only refers to them lets go of them. */
  private remove(rids: readonly number[]): boolean {
    const gone = new Set(rids.filter((rid) => this.rows.delete(rid)));
    if (gone.size > 0) this.follow(gone);
    return gone.size > 0;
  }

  /** What becomes of records that point at others which are gone. */
  private follow(gone: ReadonlySet<number>): void {
    const next: number[] = [];
    for (const row of this.rows.values()) {
      const storage = storageOf(this.model).byId.get(row.entity);
      if (storage === undefined) continue;
      for (const relationship of pointingOf(storage)) {
        const target = row.values[relationship.id];
        if (typeof target !== 'number' || !gone.has(target)) continue;
        if (relationship.kind === 'owns' || onRemoveOf(relationship) === 'cascade') next.push(row.rid);
        else this.put(row.rid, relationship.id, null);
      }
    }
    if (next.length > 0) this.remove(next);
  }
}

const numberIn = (value: Json | undefined): number =>
  typeof value === 'number' || typeof value === 'string' ? Number(value) || 0 : 0;

/** A text with a number behind it, cut where it would be too long. */
function numbered({ type }: Attribute, old: Json, count: number): Json {
  const suffix = `-${count}`;
  const text = scalarText(old);
  const most = type.kind === 'text' ? (type.max ?? Infinity) : Infinity;
  const room = Math.max(0, most - suffix.length);
  return (codePointLength(text) > room ? [...text].slice(0, room).join('') : text) + suffix;
}
