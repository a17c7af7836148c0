import {
  bareObject,
  entryOf,
  onRemoveOf,
  roleOf,
  storageOf,
  type Model,
  type Relationship,
  type Row,
} from '../model/index.js';
import type { RowChange, RecordView } from './dataset.js';

export type RemovalPlan =
  | { readonly ok: true; readonly changes: readonly RowChange[] }
  /** Records that need what would go, with the role by which they do. */
  | { readonly ok: false; readonly blocking: readonly { readonly row: Row; readonly role: string }[] };

interface Pointing {
  readonly row: Row;
  readonly relationship: Relationship;
}

/**
 * What removing a record takes with it: the closure over cascades first, then a refusal when a restricting
 * record lies outside of it, then the references to detach. One atomic step.
 */
export function planRemoval(model: Model, view: RecordView, record: Row): RemovalPlan {
  const going = new Map<number, Row>([[record.rid, record]]);
  const restricting: Pointing[] = [];
  const detaching: Pointing[] = [];
  for (const row of going.values()) {
    for (const pointing of pointingAt(model, view, row)) {
      switch (onRemoveOf(pointing.relationship)) {
        case 'cascade':
          going.set(pointing.row.rid, pointing.row);
          break;
        case 'restrict':
          restricting.push(pointing);
          break;
        case 'detach':
          detaching.push(pointing);
          break;
      }
    }
  }
  const blocking = [...restricting.filter(({ row }) => !going.has(row.rid)), ...strandedSlots(model, going)];
  if (blocking.length > 0) {
    return {
      ok: false,
      blocking: blocking.map(({ row, relationship }) => ({ row, role: roleOf(relationship) })),
    };
  }
  return { ok: true, changes: [...detachments(detaching, going), ...removals(going)] };
}

function pointingAt(model: Model, view: RecordView, row: Row): Pointing[] {
  const storage = storageOf(model);
  const entity = storage.byId.get(row.entity)?.entity.name ?? '';
  return (storage.pointing.get(entity) ?? []).flatMap(({ storage: pointing, relationship }) =>
    view.pointingAt(pointing, relationship.id, row.rid).map((found) => ({ row: found, relationship })),
  );
}

/** What joins records to others: that they are owned, or a reference by its role. */
export interface JoinedBy {
  readonly kind: 'owns' | 'refers';
  readonly role: string;
}

export const joinedBy = (relationship: Relationship): JoinedBy => ({
  kind: relationship.kind === 'owns' ? 'owns' : 'refers',
  role: roleOf(relationship),
});

/** Records of one kind that go, or let go, with those above them. */
export interface RemovalNode {
  /** The entity, or the pairing. */
  readonly type: string;
  /** What joins them to those above; `null` at the top. */
  readonly by: JoinedBy | null;
  readonly effect: 'removed' | 'detached';
  readonly records: number;
  readonly below: readonly RemovalNode[];
}

/** So deep a tree goes; what lies deeper is counted with what is above it. */
const DEEPEST = 12;

/** What removing a record would take with it, and what would let go of it, counted by how they hang together. */
export function removalTree(model: Model, view: RecordView, record: Row): RemovalNode {
  const type = (row: Row): string => storageOf(model).byId.get(row.entity)?.entity.name ?? '';
  const seen = new Set([record.rid]);
  const grow = (rows: readonly Row[], depth: number): readonly RemovalNode[] => {
    const found = new Map<string, { relationship: Relationship; rows: Row[] }>();
    for (const row of rows)
      for (const { row: other, relationship } of pointingAt(model, view, row)) {
        if (onRemoveOf(relationship) === 'restrict' || seen.has(other.rid)) continue;
        if (onRemoveOf(relationship) === 'cascade') seen.add(other.rid);
        const id = `${other.entity} ${relationship.id}`;
        entryOf(found, id, () => ({ relationship, rows: [] as Row[] })).rows.push(other);
      }
    return [...found.values()].map(({ relationship, rows: own }): RemovalNode => {
      const isRemoved = onRemoveOf(relationship) === 'cascade';
      return {
        type: own[0] === undefined ? '' : type(own[0]),
        by: joinedBy(relationship),
        effect: isRemoved ? 'removed' : 'detached',
        records: own.length,
        below: isRemoved && depth < DEEPEST ? grow(own, depth + 1) : [],
      };
    });
  };
  return { type: type(record), by: null, effect: 'removed', records: 1, below: grow([record], 1) };
}

/** A required slot cannot go without its owner. */
function strandedSlots(model: Model, going: ReadonlyMap<number, Row>): Pointing[] {
  return [...going.values()].flatMap((row): Pointing[] => {
    const owner = storageOf(model).byId.get(row.entity)?.owner;
    if (owner?.cardinality !== 'one') return [];
    const rid = row.values[owner.id];
    return typeof rid === 'number' && !going.has(rid) ? [{ row, relationship: owner }] : [];
  });
}

function detachments(detaching: readonly Pointing[], going: ReadonlyMap<number, Row>): RowChange[] {
  const changed = new Map<number, { before: Row; after: Row }>();
  for (const { row, relationship } of detaching) {
    if (going.has(row.rid)) continue;
    const known = changed.get(row.rid) ?? { before: row, after: { ...row, revision: row.revision + 1 } };
    const values = Object.assign(bareObject(), known.after.values);
    delete values[relationship.id];
    changed.set(row.rid, { before: row, after: { ...known.after, values } });
  }
  return [...changed.values()].map(({ before, after }) => ({ kind: 'update', before, after }));
}

/** What was found last goes first: children before their owners. */
const removals = (going: ReadonlyMap<number, Row>): RowChange[] =>
  [...going.values()].reverse().map((before) => ({ kind: 'remove', before }));
