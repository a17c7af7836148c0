import { indexContract, type Contract, type Resource } from '../contract/index.js';
import {
  constraintValue,
  describeType,
  scalarFromText,
  storageOf,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
  type ScalarType,
  entryOf,
  memoize,
} from '../model/index.js';
import type { RecordView } from './dataset.js';

/** Where a path leads, once its ids are looked up. */
export interface Location {
  /** The record that the resource shows; `null` for lists, the entry, and an empty slot. */
  readonly record: Row | null;
  /** The record above: the owner of a list or slot, or what a reverse list points at. */
  readonly above: Row | null;
  /** The pair of the two, where the path leads to one; `null` also while they are not paired. */
  readonly pair: Row | null;
  /** The key of an item that is not there and is to be made. */
  readonly newKey?: Json;
}

export type LocateResult =
  | { readonly ok: true; readonly location: Location }
  /** What is missing, in words: "There is no sailing 118 of this route." */
  | {
      readonly ok: false;
      readonly detail: string;
      readonly isWrongType?: boolean;
      /** Everything above is there, and the item is not. */
      readonly unknown?: Location;
    };

/**
 * Looks up the records along a path. A child that does not belong to the record above it is not there,
 * and neither is an id of the wrong type.
 */
export function locate(
  contract: Contract,
  model: Model,
  view: RecordView,
  resource: Resource,
  ids: readonly string[],
): LocateResult {
  let location: Location = { record: null, above: null, pair: null };
  let used = 0;
  for (const step of trailOf(contract, resource)) {
    const above: Row | null = location.record ?? location.above;
    if (step.kind === 'action' || (step.kind === 'aggregate' && isOnItem(contract, step))) {
      if (location.record === null) return { ok: false, detail: missingSlot(location, step) };
      continue;
    }
    if (LEADS_NOWHERE_ELSE.has(step.kind)) continue;
    if (step.kind === 'collection' || step.kind === 'reverse' || step.kind === 'pairing') {
      if (step.via !== null && location.record === null)
        return { ok: false, detail: missingSlot(location, step) };
      location = { record: null, above, pair: null };
      continue;
    }
    if (step.kind === 'reference') {
      const rid = location.record?.values[step.via?.relationship ?? ''];
      const target = typeof rid === 'number' ? (view.get(rid) ?? null) : null;
      if (target === null) return { ok: false, detail: `There is no ${step.entity} here.` };
      location = { record: target, above: location.record, pair: null };
      continue;
    }
    const storage = storageOf(model).byName.get(step.entity ?? '');
    if (storage === undefined)
      return { ok: false, detail: 'The contract names an entity that the dataset does not have.' };
    if (step.kind === 'singleton') {
      const slot = slotAt(view, storage, step, location);
      if (slot === null) return { ok: false, detail: missingSlot(location, step) };
      location = slot;
      continue;
    }
    const text = ids[used++] ?? '';
    const last = step.segments.at(-1);
    if (last?.kind !== 'id') throw new Error(`${step.id} does not end in an id.`);
    const key = scalarFromText(last.type, text);
    if (key === undefined) return { ok: false, detail: wrongType(step, last.type, text), isWrongType: true };
    const newKey = normalKey(last.type.kind, key);
    const record = findItem(storage, view, step, newKey, above);
    if (record === null) {
      const detail = `There is no ${step.entity} ${text}${above === null ? '' : ' here'}.`;
      return step === resource && step.kind === 'item'
        ? { ok: false, detail, unknown: { record: null, above, pair: null, newKey } }
        : { ok: false, detail };
    }
    const pair = step.kind === 'pair' && above !== null ? pairAt(model, view, step, above, record) : null;
    location = { record, above, pair };
  }
  return { ok: true, location };
}

/** Whether an aggregate is about the record above it, not about a list. */
function isOnItem(contract: Contract, { parent }: Resource): boolean {
  const kind = indexContract(contract).resources.get(parent ?? '')?.kind;
  return kind === 'item' || kind === 'singleton';
}

/** A query, an aggregate of a list, or an action on many, is about the list above it. */
const LEADS_NOWHERE_ELSE: ReadonlySet<Resource['kind']> = new Set<Resource['kind']>([
  'entry',
  'query',
  'collection-action',
  'aggregate',
  'fixed',
]);

/** What stands where nothing needs an id: the one record there is, or that in a slot, which may be empty. */
function slotAt(
  view: RecordView,
  storage: EntityStorage,
  { via }: Resource,
  { record: above }: Location,
): Location | null {
  if (via === null) {
    const [only = null] = view.all(storage);
    return { record: only, above: null, pair: null };
  }
  if (above === null) return null;
  const [record = null] = view.pointingAt(storage, via.relationship, above.rid);
  return { record, above, pair: null };
}

/** Why a text cannot be an id of a resource. */
const wrongType = ({ entity }: Resource, type: ScalarType, text: string): string =>
  `There is no ${entity ?? ''} ${text.slice(0, 80)}: an id of one is ${describeType(type)}.`;

const missingSlot = (location: Location, step: Resource): string =>
  location.above === null ? `There is nothing above ${step.path}.` : `The slot above ${step.path} is empty.`;

function findItem(
  storage: EntityStorage,
  view: RecordView,
  step: Resource,
  key: Json,
  above: Row | null,
): Row | null {
  const values: Record<string, Json> = { [storage.key.id]: key };
  if (above !== null && storage.owner !== null) values[storage.owner.id] = above.rid;
  const value = constraintValue(storage.keyConstraint, values);
  const record = value === null ? undefined : view.find(storage, storage.keyConstraint, value);
  if (record === undefined) return null;
  if (step.kind === 'pair') return record;
  if (step.via !== null && (above === null || record.values[step.via.relationship] !== above.rid))
    return null;
  return record;
}

/** The pair of the record above and the one at the end of a path, whichever side the path begins from. */
export function pairAt(
  model: Model,
  view: RecordView,
  { via }: Resource,
  above: Row,
  record: Row,
): Row | null {
  const [from, to] = via?.direction === 'paired-back' ? [record, above] : [above, record];
  return findPair(model, view, via?.relationship ?? '', from, to);
}

/** The pair of two records; `null` while they are not paired. */
function findPair(model: Model, view: RecordView, pairing: string, from: Row, to: Row): Row | null {
  const storage = storageOf(model).byId.get(pairing);
  if (storage === undefined) return null;
  const [fromPart = '', toPart = ''] = storage.keyConstraint.parts;
  const value = constraintValue(storage.keyConstraint, { [fromPart]: from.rid, [toPart]: to.rid });
  return value === null ? null : (view.find(storage, storage.keyConstraint, value) ?? null);
}

/** UUIDs are the same in either case (RFC 9562 §4); they are stored in lower case. */
export const normalKey = <T>(kind: string, value: T): T | string =>
  kind === 'uuid' && typeof value === 'string' ? value.toLowerCase() : value;

const trails = memoize<Contract, Map<string, readonly Resource[]>>(() => new Map());

/** The resources from the entry down to one resource. */
export const trailOf = (contract: Contract, resource: Resource): readonly Resource[] =>
  entryOf(trails(contract), resource.id, () => {
    const steps: Resource[] = [];
    const { resources } = indexContract(contract);
    for (
      let step: Resource | undefined = resource;
      step !== undefined;
      step = resources.get(step.parent ?? '')
    )
      steps.unshift(step);
    return steps;
  });
