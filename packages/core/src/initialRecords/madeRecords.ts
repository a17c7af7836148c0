import {
  bareObject,
  indexModel,
  lazy,
  mustLead,
  pointedEntity,
  pointingOf,
  runToEnd,
  storageOf,
  type Attribute,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import type { MigrationRuntime } from '../migration/index.js';
import { seedSteps } from '../seeding/index.js';
import { readAttributes, unsetValue, writeRecord } from '../transfer/index.js';

/** With this number the values are made that a newer model wants and records do not have. */
const SEED = 42;

const firstNumber = ({ type }: Attribute): number => (type.kind === 'integer' ? type.min : null) ?? 1;

/** What seed records of a model have, by which what others lack is filled. */
export class MadeRecords {
  private readonly seeded = lazy(() => {
    // One of each is enough, and is made at once.
    const counts = Object.fromEntries([...indexModel(this.model).entities.keys()].map((name) => [name, 1]));
    const { rows } = runToEnd(seedSteps(this.model, { seed: SEED, now: this.runtime.now, counts }));
    return new Map(rows.map((row) => [row.rid, row]));
  });

  constructor(
    private readonly model: Model,
    private readonly runtime: MigrationRuntime,
  ) {}

  /** A record of an entity by the names of the model; `null` where none can be made. */
  record(storage: EntityStorage): Readonly<Record<string, Json>> | null {
    const rows = this.seeded();
    for (const row of rows.values())
      if (row.entity === storage.entity.id)
        return writeRecord(this.model, rows, storage, row, { secrets: true });
    return null;
  }

  /** The first record there is of an entity, as it is stored, leading nowhere yet; `null` where none can be made. */
  first(storage: EntityStorage): Record<string, Json> | null {
    const values = readAttributes(this.model, storage, this.attributes(storage) ?? {}, '', () => undefined);
    if (values === null) return null;
    for (const attribute of storage.attributes) {
      const value = values[attribute.id] ?? unsetValue(attribute, { ...this.runtime, next: firstNumber });
      if (value !== null) values[attribute.id] = value;
    }
    return values;
  }

  /** What such a record has of its own; what is generated comes by itself. */
  attributes(storage: EntityStorage): Record<string, Json> | null {
    const record = this.record(storage);
    if (record === null) return null;
    const attributes = bareObject();
    for (const { name, generated } of storage.attributes) {
      const value = record[name] ?? null;
      if (!generated && value !== null) attributes[name] = value;
    }
    return attributes;
  }
}

export interface MadeTargets {
  readonly rows: readonly Row[];
  /** What was made, a sentence each. */
  readonly said: readonly string[];
}

/** One record of each entity that others must lead to, and that has none. */
export function missingTargets(model: Model, rows: readonly Row[], made: MadeRecords): MadeTargets {
  const storages = storageOf(model);
  const first = new Map<string, number>();
  for (const { entity, rid } of rows) if (!first.has(entity)) first.set(entity, rid);
  const targets: { rid: number; entity: string; values: Record<string, Json>; revision: number }[] = [];
  const said: string[] = [];
  let last = rows.reduce((most, { rid }) => Math.max(most, rid), 0);
  const queue = [...first.keys()];
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    const storage = storages.byId.get(id);
    for (const target of storage === undefined ? [] : neededBy(model, storage)) {
      const { id: wanted, name } = target.entity;
      if (first.has(wanted)) continue;
      const values = made.first(target);
      if (values === null) continue;
      const rid = ++last;
      first.set(wanted, rid);
      targets.push({ rid, entity: wanted, values, revision: 1 });
      said.push(`${storage?.entity.name ?? ''} must lead to a ${name}, and there is none: one is made.`);
      queue.push(wanted);
    }
  }
  for (const { entity, values } of targets) {
    const storage = storages.byId.get(entity);
    for (const relationship of storage === undefined ? [] : pointingOf(storage)) {
      const to = storages.byName.get(pointedEntity(relationship));
      const rid = to === undefined || to === storage ? undefined : first.get(to.entity.id);
      if (rid !== undefined) values[relationship.id] = rid;
    }
  }
  return { rows: targets, said };
}

/** The entities that records of one must lead to. */
const neededBy = (model: Model, storage: EntityStorage): readonly EntityStorage[] =>
  pointingOf(storage).flatMap((relationship) => {
    return mustLead(relationship) ? (storageOf(model).byName.get(pointedEntity(relationship)) ?? []) : [];
  });
