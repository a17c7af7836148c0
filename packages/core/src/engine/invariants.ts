import {
  checkScalar,
  constraintValue,
  eachInSteps,
  indexModel,
  isJsonObject,
  ownsItself,
  runToEnd,
  storageOf,
  type Attribute,
  type AttributeType,
  type EntityStorage,
  type Json,
  type Model,
  type Owns,
  type RefersTo,
  type Row,
  type Steps,
  type UniqueConstraint,
} from '../model/index.js';

/** What of the model a record contradicts. */
export type Cause =
  | { readonly kind: 'entity' }
  /** It has no value, and must have one. */
  | { readonly kind: 'unset'; readonly attribute: Attribute }
  | { readonly kind: 'misfit'; readonly attribute: Attribute }
  | { readonly kind: 'taken'; readonly constraint: UniqueConstraint }
  /** It points at nothing, and must, or at what is not there. */
  | { readonly kind: 'pointer'; readonly relationship: Owns | RefersTo }
  /** It has nothing in a slot that is never empty. */
  | { readonly kind: 'slot'; readonly relationship: Owns }
  | { readonly kind: 'circle'; readonly relationship: Owns }
  /** There is none of what there must be one of. */
  | { readonly kind: 'none'; readonly storage: EntityStorage };

/** One way in which a record contradicts the model. */
export interface Violation {
  /** 0 where it is a record that is not there. */
  readonly rid: number;
  readonly entity: string;
  /** What is wrong, in a sentence. */
  readonly message: string;
  readonly cause: Cause;
}

/**
 * Every way in which records contradict a model: types, what is required, what is unique, references and
 * owners that are not there, empty required slots, circles of ownership. Empty when all invariants hold.
 */
export function findViolations(model: Model, rows: Iterable<Row>): readonly Violation[] {
  return runToEnd(violationsIn(model, new Map([...rows].map((row) => [row.rid, row]))));
}

/** The same in steps, for records by their numbers. */
export function* violationsIn(model: Model, rows: ReadonlyMap<number, Row>): Steps<readonly Violation[]> {
  const check = new Check(model, rows);
  yield* eachInSteps('checking', rows.values(), (row) => {
    check.row(row);
  });
  yield* check.slots();
  check.singles();
  return check.violations;
}

class Check {
  readonly violations: Violation[] = [];
  private readonly taken = new Map<string, Set<string>>();
  private readonly filled = new Map<string, Set<number>>();

  constructor(
    private readonly model: Model,
    private readonly rows: ReadonlyMap<number, Row>,
  ) {}

  row(row: Row): void {
    const storage = storageOf(this.model).byId.get(row.entity);
    if (storage === undefined) {
      const { rid, entity } = row;
      const cause = { kind: 'entity' } as const;
      this.violations.push({ rid, entity, message: 'The model has no such entity.', cause });
      return;
    }
    this.attributes(storage, row);
    this.uniques(storage, row);
    this.pointers(storage, row);
  }

  /** A record with a required slot has exactly one record in it. */
  *slots(): Steps<void> {
    yield* eachInSteps('checking', this.rows.values(), (row) => {
      const storage = storageOf(this.model).byId.get(row.entity);
      for (const slot of storage?.slots ?? []) {
        if (storage === undefined || this.filled.get(slot.id)?.has(row.rid)) continue;
        const cause = { kind: 'slot', relationship: slot } as const;
        this.report(storage, row, `It has no ${slot.to}, and must have one.`, cause);
      }
    });
  }

  /** There is a record of what there is one of. */
  singles(): void {
    for (const storage of storageOf(this.model).byId.values()) {
      if (storage.singleConstraint === null || this.taken.has(storage.singleConstraint.id)) continue;
      const { name } = storage.entity;
      const message = `There must be one ${name}, and there is none.`;
      this.violations.push({ rid: 0, entity: name, message, cause: { kind: 'none', storage } });
    }
  }

  private report(storage: EntityStorage, row: Row, message: string, cause: Cause): void {
    this.violations.push({ rid: row.rid, entity: storage.entity.name, message, cause });
  }

  private attributes(storage: EntityStorage, row: Row): void {
    for (const { message, cause } of attributeProblems(this.model, storage, row))
      this.report(storage, row, message, cause);
  }

  private uniques(storage: EntityStorage, row: Row): void {
    for (const unique of storage.uniques) {
      const value = constraintValue(unique, row.values);
      if (value === null) continue;
      const taken = this.taken.get(unique.id) ?? new Set<string>();
      this.taken.set(unique.id, taken);
      if (taken.has(value))
        this.report(storage, row, takenText(storage, unique), { kind: 'taken', constraint: unique });
      taken.add(value);
    }
  }

  private pointers(storage: EntityStorage, row: Row): void {
    const { owner } = storage;
    if (owner !== null) {
      const rid = row.values[owner.id];
      this.pointer(storage, row, owner, owner.from, ownsItself(owner) ? 'optional' : 'one');
      if (typeof rid === 'number' && owner.cardinality !== 'many') this.fill(owner.id, rid);
      if (ownsItself(owner) && this.isOwnAncestor(row, owner.id))
        this.report(storage, row, 'It owns itself in a circle.', { kind: 'circle', relationship: owner });
    }
    for (const reference of storage.references) {
      this.pointer(storage, row, reference, reference.to, reference.cardinality);
    }
  }

  private pointer(
    storage: EntityStorage,
    row: Row,
    relationship: Owns | RefersTo,
    to: string,
    cardinality: 'one' | 'optional',
  ): void {
    const rid = row.values[relationship.id] ?? null;
    const cause = { kind: 'pointer', relationship } as const;
    if (rid === null) {
      if (cardinality === 'one') this.report(storage, row, `It points at no ${to}, and must.`, cause);
      return;
    }
    const target = typeof rid === 'number' ? this.rows.get(rid) : undefined;
    const wanted = indexModel(this.model).entities.get(to)?.id;
    if (target === undefined || target.entity !== wanted)
      this.report(storage, row, `It points at a ${to} that is not there.`, cause);
  }

  private fill(slot: string, owner: number): void {
    const filled = this.filled.get(slot) ?? new Set<number>();
    this.filled.set(slot, filled);
    filled.add(owner);
  }

  private isOwnAncestor(row: Row, relationship: string): boolean {
    const seen = new Set<number>();
    for (let step: Row | undefined = row; step !== undefined;) {
      if (seen.has(step.rid)) return true;
      seen.add(step.rid);
      const above: Json | undefined = step.values[relationship];
      step = typeof above === 'number' ? this.rows.get(above) : undefined;
    }
    return false;
  }
}

const takenText = ({ entity, singleConstraint }: EntityStorage, unique: UniqueConstraint): string =>
  unique === singleConstraint
    ? `There is one ${entity.name}, and no other.`
    : `Another record has the same ${unique.names.join(' and ')}.`;

/** What is wrong with the values of the attributes of one record. */
export function attributeProblems(
  model: Model,
  storage: EntityStorage,
  { values }: Row,
): readonly Pick<Violation, 'message' | 'cause'>[] {
  return storage.attributes.flatMap((attribute): Pick<Violation, 'message' | 'cause'>[] => {
    const { id, name, type, required, key } = attribute;
    const value = values[id] ?? null;
    if (value === null)
      return required || (key !== null && !storage.singleton)
        ? [{ message: `${name} is required and has no value.`, cause: { kind: 'unset', attribute } }]
        : [];
    const wrong = typeProblem(model, type, value);
    return wrong === null
      ? []
      : [{ message: `${name} does not fit. ${wrong}`, cause: { kind: 'misfit', attribute } }];
  });
}

/** What is wrong with a stored value, or `null` when it fits its type. */
export function typeProblem(model: Model, type: AttributeType, value: Json): string | null {
  switch (type.kind) {
    case 'json':
      return null;
    case 'list':
      return listProblem(model, type, value);
    case 'value':
      return structureProblem(model, type.name, value);
    default:
      return checkScalar(type, value)?.message ?? null;
  }
}

function listProblem(
  model: Model,
  type: Extract<AttributeType, { kind: 'list' }>,
  value: Json,
): string | null {
  if (!Array.isArray(value)) return 'Expected a list.';
  const items = value as readonly Json[];
  if (items.length < (type.min ?? 0) || items.length > (type.max ?? Infinity))
    return `There are ${items.length} entries.`;
  for (const item of items) {
    const wrong =
      item === null && type.of.kind !== 'json' ? 'An entry is unset.' : typeProblem(model, type.of, item);
    if (wrong !== null) return wrong;
  }
  return null;
}

function structureProblem(model: Model, name: string, value: Json): string | null {
  const definition = indexModel(model).values.get(name);
  if (definition === undefined || !isJsonObject(value)) return `Expected a ${name}.`;
  for (const attribute of definition.attributes) {
    const part = value[attribute.id] ?? null;
    if (part === null && attribute.required) return `Its ${attribute.name} is required and has no value.`;
    const wrong = part === null ? null : typeProblem(model, attribute.type, part);
    if (wrong !== null) return `Its ${attribute.name}: ${wrong}`;
  }
  return null;
}
