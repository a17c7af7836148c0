import { typeProblem, violationsIn, type Cause } from '../engine/index.js';
import { typedValue, type IntakeRecord, type LeftOut } from '../intake/index.js';
import type { MigrationRuntime } from '../migration/index.js';
import {
  appendAll,
  bareObject,
  entryOf,
  runToEnd,
  scalarText,
  storageOf,
  type Attribute,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import { pointersOf, recordTypesOf, toStored, unsetValue, type Pointer } from '../transfer/index.js';
import { highestNumbers } from './highestNumbers.js';

/** Records of a source that keep every rule of a model. */
export interface FittedRecords {
  readonly rows: readonly Row[];
  /** What does not fit: records, and values that may be unset. The first of them, and how many more there are. */
  readonly leftOut: readonly LeftOut[];
}

const MOST_TOLD = 1_000;
const NOT_THERE = 'It refers to a record that is not there.';

/**
 * Records of a source as a model stores them: their ids are their keys, and their roles lead to each other. A value that
 * does not fit is unset where it may be; else its record is left out, with those that need it.
 */
export const fitRecords = (
  model: Model,
  records: readonly IntakeRecord[],
  runtime: MigrationRuntime,
): FittedRecords => new RecordFitter(model, records, runtime).fit();

interface OpenRow extends Row {
  readonly values: Record<string, Json>;
}

/** A record that cannot stay: its number, why, and which part of it is meant. */
type Lost = readonly [rid: number, why: string, part?: string];

class RecordFitter {
  private readonly types: ReadonlyMap<string, EntityStorage>;
  private readonly rows = new Map<number, OpenRow>();
  private readonly leftOut: LeftOut[] = [];
  private readonly pointers = new Map<EntityStorage, readonly Pointer[]>();
  private untold = 0;

  constructor(
    private readonly model: Model,
    /** The number of each is its index, counted from 1. */
    private readonly records: readonly IntakeRecord[],
    private readonly runtime: MigrationRuntime,
  ) {
    this.types = recordTypesOf(model);
  }

  fit(): FittedRecords {
    this.records.forEach((record, index) => {
      const storage = this.types.get(record.type);
      if (storage === undefined) this.tell(record, `The model has no ${record.type}.`);
      else this.read(storage, record, index + 1);
    });
    this.count();
    this.settlePointers();
    while (this.dropViolations());
    const last = this.records.at(-1);
    if (this.untold > 0 && last !== undefined)
      this.leftOut.push({
        ...linesOf(last),
        source: `${this.untold} more`,
        why: 'They do not fit either; the first are told.',
      });
    return { rows: [...this.rows.values()], leftOut: this.leftOut };
  }

  private tell(record: IntakeRecord, why: string, part = ''): void {
    if (this.leftOut.length < MOST_TOLD)
      this.leftOut.push({ ...linesOf(record), source: this.nameOf(record) + part, why });
    else this.untold++;
  }

  private nameOf({ type, values }: IntakeRecord): string {
    const key = this.types.get(type)?.key.name ?? '';
    const value = values[key] ?? null;
    return value === null || typeof value === 'object' ? type : `${type} ${scalarText(value)}`;
  }

  private pointersOf(storage: EntityStorage): readonly Pointer[] {
    return entryOf(this.pointers, storage, () => pointersOf(this.model, storage));
  }

  private record(rid: number): IntakeRecord | undefined {
    return this.records[rid - 1];
  }

  private read(storage: EntityStorage, record: IntakeRecord, rid: number): void {
    const values: Record<string, Json> = bareObject();
    for (const attribute of storage.attributes) {
      const stored = this.valueOf(storage, attribute, record);
      if (stored === undefined) return;
      if (stored !== null) values[attribute.id] = stored;
    }
    this.rows.set(rid, { rid, entity: storage.entity.id, values, revision: 1 });
  }

  /** A value as it is stored, `null` where it is unset; `undefined` where the record cannot be without it. */
  private valueOf({ key }: EntityStorage, attribute: Attribute, record: IntakeRecord): Json | undefined {
    const { name, type, required } = attribute;
    const raw = record.values[name] ?? null;
    // Numbers are counted once all records are read.
    if (raw === null)
      return name in record.values && !isMade(attribute)
        ? null
        : unsetValue(attribute, { ...this.runtime, next: () => null });
    const problems: string[] = [];
    const typed = typedValue(this.model, type, raw);
    const stored = toStored(this.model, type, typed, '', ({ message }) => problems.push(message));
    // Of lists and values the parts are looked at, too: how many there are, and which are missing.
    const wrong = problems[0] ?? (typeof stored === 'object' ? typeProblem(this.model, type, stored) : null);
    if (stored !== undefined && wrong === null) return stored;
    if (required || attribute === key) {
      this.tell(record, `${wrong ?? ''} Its ${name} is required.`.trim());
      return undefined;
    }
    this.tell(record, `${wrong ?? ''} It is unset.`.trim(), `: ${name}`);
    return null;
  }

  /** Numbers what is counted and has no number, above the highest that was given. */
  private count(): void {
    const numbers = { ...highestNumbers(this.model, this.rows.values()) };
    for (const row of this.rows.values())
      for (const { id, type, generated } of storageOf(this.model).byId.get(row.entity)?.attributes ?? []) {
        if (!generated || type.kind !== 'integer' || row.values[id] !== undefined) continue;
        numbers[id] = Math.max(type.min ?? 1, (numbers[id] ?? 0) + 1);
        row.values[id] = numbers[id];
      }
  }

  /** Lets roles lead where they are said to lead. */
  private settlePointers(): void {
    const gone: Lost[] = [];
    for (const row of this.rows.values()) {
      const storage = storageOf(this.model).byId.get(row.entity);
      const record = this.record(row.rid);
      if (storage === undefined || record === undefined) continue;
      for (const { name, id, target, isNeeded } of this.pointersOf(storage)) {
        const pointer = record.pointers.get(name);
        if (pointer === undefined) continue;
        if ('to' in pointer) row.values[id] = pointer.to + 1;
        else {
          // Many may be missing: what they have alike is why, which each it is stands with the record.
          const [why, part] = [NOT_THERE, `: ${name}, ${target.entity.name} ${pointer.missing}`];
          if (isNeeded) gone.push([row.rid, why, part]);
          else this.tell(record, `${why} It is unset.`, part);
        }
      }
    }
    this.drop([...gone, ...this.pointingNowhere()]);
  }

  /** Records that need something that was not read, and why. What only refers to it lets go. */
  private pointingNowhere(): readonly Lost[] {
    return [...this.rows.values()].flatMap((row) => this.letGo(row, (rid) => !this.rows.has(rid)));
  }

  /** Unsets what leads to records that are gone; says where a record needs one of them. */
  private letGo(row: OpenRow, isGone: (rid: number) => boolean): readonly Lost[] {
    const storage = storageOf(this.model).byId.get(row.entity);
    const record = this.record(row.rid);
    if (storage === undefined || record === undefined) return [];
    return this.pointersOf(storage).flatMap(({ name, id, isNeeded }): Lost[] => {
      const to = row.values[id];
      if (typeof to !== 'number' || !isGone(to)) return [];
      const why = `Its ${name} is left out.`;
      if (isNeeded) return [[row.rid, why]];
      delete row.values[id];
      this.tell(record, `${why} It is unset.`, `: ${name}`);
      return [];
    });
  }

  /** Leaves records out, with those that need them. */
  private drop(records: readonly Lost[]): void {
    const queue = [...records];
    if (queue.length === 0) return;
    const pointing = this.pointing();
    for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
      const [rid, why, part] = next;
      const record = this.record(rid);
      if (record === undefined || !this.rows.delete(rid)) continue;
      this.tell(record, why, part);
      for (const from of pointing.get(rid) ?? []) {
        const row = this.rows.get(from);
        if (row !== undefined)
          appendAll(
            queue,
            this.letGo(row, (to) => to === rid),
          );
      }
    }
  }

  /** The records that lead to each. */
  private pointing(): ReadonlyMap<number, readonly number[]> {
    const pointing = new Map<number, number[]>();
    for (const { rid, entity, values } of this.rows.values()) {
      const storage = storageOf(this.model).byId.get(entity);
      for (const { id } of storage === undefined ? [] : this.pointersOf(storage)) {
        const to = values[id];
        if (typeof to === 'number') entryOf(pointing, to, (): number[] => []).push(rid);
      }
    }
    return pointing;
  }

  /** Leaves out what contradicts the model. Returns whether anything is another thing now. */
  private dropViolations(): boolean {
    const gone: Lost[] = [];
    let changed = false;
    for (const { rid, message, cause } of runToEnd(violationsIn(this.model, this.rows))) {
      if (cause.kind === 'circle') changed = this.breakCircle(rid, cause) || changed;
      // Of what there must be one of, and is none, whoever keeps the records makes one.
      else if (cause.kind !== 'none') gone.push([rid, message]);
    }
    this.drop(gone);
    return changed || gone.length > 0;
  }

  private breakCircle(rid: number, { relationship }: Extract<Cause, { kind: 'circle' }>): boolean {
    const row = this.rows.get(rid);
    const record = this.record(rid);
    if (row === undefined || record === undefined || row.values[relationship.id] === undefined) return false;
    delete row.values[relationship.id];
    this.tell(record, 'It owns itself in a circle; it has no owner any more.');
    return true;
  }
}

const linesOf = ({ line, endLine }: IntakeRecord): Pick<LeftOut, 'line' | 'endLine'> => ({ line, endLine });

const isMade = ({ generated, touched }: Attribute): boolean => generated || touched;
