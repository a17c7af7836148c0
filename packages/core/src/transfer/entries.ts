import {
  entryOf,
  appendAll,
  bareObject,
  eachInSteps,
  sameJson,
  scalarText,
  type Attribute,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
  type Steps,
} from '../model/index.js';
import { pointerTo, type Draft } from '../engine/index.js';
import type { SourceRecords, SourceRecord } from './sourceRecords.js';
import { pathAttributes, keyPathOf, pointersOf, scopeOf, type Pointer } from './recordTypes.js';
import type { ImportOptions } from './importOptions.js';
import { unsetValue } from './unsetValue.js';
import { toStored, unknownMember, withHiddenParts, type ProblemReporter } from './values.js';

/** One record of a source: found among those that are there, or new. */
export interface Entry {
  readonly given: SourceRecord;
  readonly rid: number;
  /** The record that is there already. */
  readonly before: Row | null;
  /** By identities, as they are to be stored. */
  readonly values: Record<string, Json>;
}

/** An entry before its to-one roles lead anywhere. */
interface Reading {
  readonly storage: EntityStorage;
  readonly given: SourceRecord;
  /** Attributes by identity; `null` unsets. What is not named is absent. */
  readonly attributes: Record<string, Json>;
  /** The keys that each role leads by, as one text; `null` unsets. What is not named is absent. */
  readonly pointers: ReadonlyMap<string, string | null>;
  /** The keys that lead to the record itself; `null` while its key is to be made. */
  path: string | null;
}

/** An entry with the number it will have, and the record of that number that is there already. */
interface Numbered {
  readonly reading: Reading;
  readonly rid: number;
  readonly before: Row | null;
}

const pathText = (path: readonly Json[]): string => JSON.stringify(path);

/** The records of a source, each found or numbered, and what they point at. */
export class Entries {
  readonly byKind = new Map<EntityStorage, readonly Entry[]>();
  private readonly passedOver = new Map<EntityStorage, Set<string>>();
  readonly byRid = new Map<number, Entry>();
  /** Records that are there, by kind and the keys that lead to them. */
  private readonly known = new Map<EntityStorage, ReadonlyMap<string, Row>>();
  /** The number of each record of the source, by kind and the keys that lead to it. */
  private readonly numbers = new Map<EntityStorage, Map<string, number>>();
  private replaced: ReadonlySet<EntityStorage> = new Set();

  private constructor(
    private readonly model: Model,
    private readonly draft: Draft,
    private readonly options: ImportOptions,
    private readonly report: ProblemReporter,
  ) {}

  /** Reads a source to its end, in steps. */
  static *read(
    model: Model,
    draft: Draft,
    given: Iterable<SourceRecords>,
    options: ImportOptions,
    report: ProblemReporter,
  ): Steps<Entries> {
    const entries = new Entries(model, draft, options, report);
    const readings = new Map<EntityStorage, Reading[]>();
    yield* eachInSteps('reading', given, ({ storage, record }) => {
      const all = readings.get(storage) ?? [];
      readings.set(storage, all);
      const reading = record === null ? null : entries.read(storage, record);
      if (reading !== null) all.push(reading);
    });
    if (options.mode === 'replace') entries.replaced = new Set(readings.keys());
    for (const [storage, all] of readings) yield* entries.countOn(storage, all);
    const numbered = new Map<EntityStorage, readonly Numbered[]>();
    for (const [storage, all] of readings) numbered.set(storage, yield* entries.number(storage, all));
    yield* entries.findTargets(readings.keys());
    for (const [storage, all] of numbered) yield* entries.make(storage, all);
    return entries;
  }

  private *make(storage: EntityStorage, numbered: readonly Numbered[]): Steps<void> {
    const entries: Entry[] = [];
    this.byKind.set(storage, entries);
    yield* eachInSteps('comparing', numbered, (one) => {
      const entry = this.entry(one);
      entries.push(entry);
      this.byRid.set(entry.rid, entry);
    });
  }

  /** The names of what is computed, and was given all the same, of records of a kind. */
  readonly passed = (storage: EntityStorage): ReadonlySet<string> =>
    this.passedOver.get(storage) ?? new Set();

  /** The records of a kind that are there and not in the source. */
  readonly gone = (storage: EntityStorage): readonly Row[] =>
    [...this.draft.all(storage)].filter(({ rid }) => !this.byRid.has(rid));

  /** Reads names and types. Nothing is looked up yet. */
  private read(storage: EntityStorage, given: SourceRecord): Reading | null {
    const { place, pointer, value } = given;
    const attributes = bareObject();
    const pointers = new Map<string, string | null>();
    const roles = pointersOf(this.model, storage);
    const report: ProblemReporter = (problem) => {
      this.report({ ...problem, message: place + problem.message });
    };
    for (const [name, member] of Object.entries(value)) {
      const at = pointerTo(pointer, name);
      const attribute = storage.attributes.find((candidate) => candidate.name === name);
      const role = roles.find((candidate) => candidate.name === name);
      if (attribute !== undefined) {
        const stored = member === null ? null : toStored(this.model, attribute.type, member, at, report);
        if (stored !== undefined) attributes[attribute.id] = stored;
      } else if (role !== undefined) {
        const path = member === null ? null : this.readPath(role, member, at, report);
        if (path !== undefined) pointers.set(role.id, path);
      } else if (storage.computed.some((candidate) => candidate.name === name)) {
        entryOf(this.passedOver, storage, () => new Set<string>()).add(name);
      } else {
        const known = [...storage.attributes, ...roles].map((candidate) => candidate.name);
        report({ pointer: at, ...unknownMember(name, known) });
      }
    }
    const reading: Reading = { storage, given, attributes, pointers, path: null };
    return this.addressed(reading, report) ? reading : null;
  }

  /** The keys that a role leads by: one value, or an array where the key is unique only below an owner. */
  private readPath(
    { name, target }: Pointer,
    member: Json,
    at: string,
    report: ProblemReporter,
  ): string | undefined {
    const wanted = pathAttributes(this.model, target);
    const keys = Array.isArray(member) ? (member as readonly Json[]) : [member];
    if (keys.length !== wanted.length) {
      const expected =
        wanted.length === 1
          ? `the ${wanted[0]?.name ?? 'key'} of a ${target.entity.name}`
          : `an array of ${wanted.length} keys that lead to a ${target.entity.name}`;
      report({ pointer: at, code: 'type', message: `Expected ${expected} as ${name}.` });
      return undefined;
    }
    const stored = wanted.map(({ type }, index) =>
      toStored(this.model, type, keys[index] ?? null, keys.length === 1 ? at : pointerTo(at, index), report),
    );
    return stored.every((key) => key !== undefined) ? pathText(stored) : undefined;
  }

  /** Finds the keys that lead to a record. One with a key that is made for it has none yet. */
  private addressed(reading: Reading, report: ProblemReporter): boolean {
    const { storage, given, attributes, pointers } = reading;
    const path: Json[] = [];
    for (const { id, name } of scopeOf(this.model, storage)) {
      const above = pointers.get(id) ?? null;
      if (above === null) {
        // Where it is named and wrong, that is reported already.
        if (given.value[name] === undefined || given.value[name] === null)
          report({
            pointer: given.pointer,
            code: 'required',
            message: `Expected ${name}: it tells which record this is.`,
          });
        return false;
      }
      appendAll(path, JSON.parse(above) as readonly Json[]);
    }
    if (storage.singleton) {
      reading.path = pathText(path);
      return true;
    }
    const { id, name, generated } = storage.key;
    const key = attributes[id] ?? null;
    if (key !== null) reading.path = pathText([...path, key]);
    else if (!generated) {
      if (given.value[name] === undefined || given.value[name] === null)
        report({ pointer: given.pointer, code: 'required', message: `Expected ${name}: it is the key.` });
      return false;
    }
    return true;
  }

  /** Numbers that are made go on behind those that are given. */
  private *countOn(storage: EntityStorage, readings: readonly Reading[]): Steps<void> {
    for (const attribute of storage.attributes) {
      if (!isCounted(attribute)) continue;
      let highest = 0;
      yield* eachInSteps('finding', readings, ({ attributes }) => {
        highest = Math.max(highest, Number(attributes[attribute.id] ?? 0));
      });
      if (highest > (this.draft.counters.attributes[attribute.id] ?? 0))
        this.draft.nextNumber(attribute.id, highest);
    }
  }

  private *number(storage: EntityStorage, readings: readonly Reading[]): Steps<readonly Numbered[]> {
    yield* this.findKnown(storage);
    const known = this.knownOf(storage);
    const numbers = new Map<string, number>();
    this.numbers.set(storage, numbers);
    const numbered: Numbered[] = [];
    yield* eachInSteps('finding', readings, (reading) => {
      const { path, given } = reading;
      if (path !== null && numbers.has(path)) {
        const message = `${given.place}A record before it has the same key.`;
        this.report({ pointer: given.pointer, code: 'duplicate', message });
        return;
      }
      const before = path === null ? null : (known.get(path) ?? null);
      const rid = before?.rid ?? this.draft.nextRid();
      if (path !== null) numbers.set(path, rid);
      numbered.push({ reading, rid, before });
    });
    return numbered;
  }

  /** Finds the records that are there, of all kinds that some kinds point at. */
  private *findTargets(storages: Iterable<EntityStorage>): Steps<void> {
    for (const storage of storages)
      for (const { target } of pointersOf(this.model, storage)) yield* this.findKnown(target);
  }

  private *findKnown(storage: EntityStorage): Steps<void> {
    if (this.known.has(storage)) return;
    const known = new Map<string, Row>();
    this.known.set(storage, known);
    yield* eachInSteps('finding', this.draft.all(storage), (row) => {
      const path = keyPathOf(this.model, this.draft, storage, row);
      if (path !== null) known.set(pathText(path), row);
    });
  }

  private knownOf(storage: EntityStorage): ReadonlyMap<string, Row> {
    return this.known.get(storage) ?? new Map<string, Row>();
  }

  private entry({ reading, rid, before }: Numbered): Entry {
    const values: Record<string, Json> = bareObject();
    const set = (id: string, value: Json): void => {
      if (value !== null) values[id] = value;
    };
    const { storage, given, attributes, pointers } = reading;
    for (const attribute of storage.attributes)
      set(attribute.id, this.valueOf(attribute, attributes, before));
    for (const pointer of pointersOf(this.model, storage)) {
      const path = pointers.get(pointer.id);
      if (path !== undefined) set(pointer.id, path === null ? null : this.resolve(pointer, path, given));
      else if (before !== null && this.options.mode === 'merge')
        set(pointer.id, before.values[pointer.id] ?? null);
    }
    const isTouched = storage.attributes.filter(({ id, touched }) => touched && attributes[id] === undefined);
    for (const { id } of isTouched) set(id, this.touchedAt(id, values, before));
    return { given, rid, before, values };
  }

  /** What is named, else what is kept, else what is made or filled in for a new record. */
  private valueOf(attribute: Attribute, named: Readonly<Record<string, Json>>, before: Row | null): Json {
    const { id, type, writeOnly, generated, key } = attribute;
    const value = named[id];
    const old = before?.values[id] ?? null;
    if (value !== undefined && !(value === null && generated))
      return withHiddenParts(this.model, type, value, old);
    const keeps = this.options.mode === 'merge' || writeOnly || generated || key !== null;
    if (before !== null) return keeps ? old : null;
    return this.made(attribute);
  }

  private made(attribute: Attribute): Json {
    const { now, uuid } = this.options;
    const next = ({ id, type }: Attribute): number =>
      this.draft.nextNumber(id, (type.kind === 'integer' ? type.min : null) ?? 1);
    return unsetValue(attribute, { now, uuid, next });
  }

  private touchedAt(id: string, values: Readonly<Record<string, Json>>, before: Row | null): Json {
    const old = before?.values[id] ?? null;
    const isSame =
      before !== null &&
      Object.keys({ ...before.values, ...values }).every(
        (name) => name === id || sameJson(before.values[name], values[name]),
      );
    return isSame ? old : new Date(this.options.now).toISOString();
  }

  /** The number of the record that a role leads to: one of the source, or one that is there and stays. */
  private resolve({ name, target }: Pointer, path: string, { pointer, place }: SourceRecord): Json {
    const rid = this.numbers.get(target)?.get(path);
    if (rid !== undefined) return rid;
    const row = this.replaced.has(target) ? undefined : this.knownOf(target).get(path);
    if (row !== undefined) return row.rid;
    const keys = (JSON.parse(path) as readonly Json[]).map(scalarText).join(', ');
    const message = `${place}Expected the ${name} of a ${target.entity.name} that is there; there is none with ${keys}.`;
    this.report({ pointer: pointerTo(pointer, name), code: 'reference', message });
    return null;
  }
}

const isCounted = ({ generated, type }: Attribute): boolean => generated && type.kind === 'integer';
