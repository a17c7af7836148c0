import {
  onRemoveOf,
  pointedEntity,
  sameJson,
  storageOf,
  type Attribute,
  type AttributeType,
  type EntityStorage,
  type Json,
  type Model,
  type Owns,
  type RefersTo,
  type Row,
} from '../model/index.js';
import type { RowChange } from './dataset.js';
import { withDefaults } from './dataLoss.js';
import { attributeProblems } from './invariants.js';

/**
 * Whether records of two models can be the same ones: both have the same kinds of record, keys, unique rules and
 * relationships, and order values alike. Attributes may differ; whether a record satisfies both is told by
 * `misfit`.
 */
export function canShareRecords(one: Model, other: Model): boolean {
  if (one === other) return true;
  const [mine, theirs] = [storageOf(one).byId, storageOf(other).byId];
  if (mine.size !== theirs.size) return false;
  for (const [id, storage] of mine) {
    const counterpart = theirs.get(id);
    if (counterpart === undefined) return false;
    if (!sameJson(structureOf(one, storage), structureOf(other, counterpart))) return false;
    if (!ordersAlike(storage.attributes, counterpart.attributes)) return false;
    if (storesWhatIsComputed(storage, counterpart) || storesWhatIsComputed(counterpart, storage))
      return false;
  }
  return sameJson(valuesOf(one), valuesOf(other));
}

function structureOf(model: Model, storage: EntityStorage): Json {
  const entityId = (name: string): string => storageOf(model).byName.get(name)?.entity.id ?? name;
  const told = (relationship: Owns | RefersTo): Json => [
    relationship.id,
    entityId(pointedEntity(relationship)),
    relationship.cardinality,
    onRemoveOf(relationship),
  ];
  return {
    singleton: storage.singleton,
    key: storage.key.id,
    uniques: storage.uniques.map(({ id, parts }) => [id, ...parts]),
    owner: storage.owner === null ? null : told(storage.owner),
    references: storage.references.map(told),
    slots: storage.slots.map(({ id }) => id),
  };
}

/** Whether one model stores what the other computes: a record has the value, or it does not. */
function storesWhatIsComputed({ attributes }: EntityStorage, { computed }: EntityStorage): boolean {
  const ids = new Set(computed.map(({ id }) => id));
  return attributes.some(({ id }) => ids.has(id));
}

function ordersAlike(mine: readonly Attribute[], theirs: readonly Attribute[]): boolean {
  const known = new Map(theirs.map((attribute) => [attribute.id, attribute]));
  return mine.every(({ id, type, generated }) => {
    const other = known.get(id);
    return other === undefined || (generated === other.generated && comparesAlike(type, other.type));
  });
}

function comparesAlike(one: AttributeType, other: AttributeType): boolean {
  if (one.kind === 'choice' && other.kind === 'choice') {
    const shared = one.options.filter((option) => other.options.includes(option));
    return sameJson(
      shared,
      other.options.filter((option) => one.options.includes(option)),
    );
  }
  return one.kind === other.kind;
}

/** Structured values of two models are compared whole. */
const valuesOf = ({ declarations }: Model): Json =>
  JSON.parse(
    JSON.stringify(
      declarations.filter(({ kind }) => kind === 'value').map(({ description, comments, ...value }) => value),
    ),
  ) as Json;

/** Changes with the defaults that other models, which the same records are served under, would fill in. */
export function withDefaultsOf(
  models: readonly Model[],
  changes: readonly RowChange[],
): readonly RowChange[] {
  return changes.map((change) => {
    if (change.kind === 'remove') return change;
    const after = models.reduce((row, model) => withDefaults(model, row), change.after);
    return after === change.after ? change : { ...change, after };
  });
}

/** How the records that a write leaves contradict a model; `null` where they satisfy it. */
export function firstViolation(model: Model, changes: readonly RowChange[]): string | null {
  for (const change of changes) {
    const problem = change.kind === 'remove' ? null : rowMisfit(model, change.after);
    if (problem !== null) return problem;
  }
  return null;
}

function rowMisfit(model: Model, row: Row): string | null {
  const storage = storageOf(model).byId.get(row.entity);
  if (storage === undefined) return 'The model has no such entity.';
  const [problem] = attributeProblems(model, storage, row);
  return problem === undefined ? null : `${storage.entity.name}: ${problem.message}`;
}
