import { dataLossIn, violationsIn, type Cause, type DataLoss, type Violation } from '../engine/index.js';
import {
  capital,
  describeType,
  pointedEntity,
  pointingOf,
  scalarText,
  storageOf,
  type AttributeType,
  type EntityStorage,
  type Model,
  type Row,
  type Steps,
} from '../model/index.js';
import { pathAttributes, keyPathOf } from '../transfer/index.js';

export type ResolutionKind = 'fill' | 'convert' | 'drop';

/** What can be done about a step, and what that means. */
export interface Resolution {
  readonly do: ResolutionKind;
  readonly means: string;
}

/** What of a newer model records stand against. It waits until somebody says what is to be done. */
export interface MigrationStep {
  /** The same for the same thing, as long as the models are the same. */
  readonly id: string;
  readonly message: string;
  /** How many records it is about. */
  readonly records: number;
  /** The keys of the first of them. */
  readonly first: readonly string[];
  readonly resolutions: readonly Resolution[];
}

/** A step with all it is about. */
export interface OpenStep extends MigrationStep {
  readonly rids: readonly number[];
  readonly about:
    | { readonly kind: 'lost'; readonly id: string; readonly isEntity: boolean }
    | Extract<Cause, { kind: 'none' }>
    | (RecordCause & {
        readonly storage: EntityStorage;
        /** A relationship that goes, and led to the same kind of record. */
        readonly instead: string | null;
      });
}

/** What of a record stands against the model. */
type RecordCause = Exclude<Cause, { kind: 'entity' | 'none' }>;

const FIRST_SHOWN = 20;

/** What stands against records going on under another model: what would be lost, and what they contradict. */
export function* openSteps(
  before: Model,
  after: Model,
  rows: ReadonlyMap<number, Row>,
): Steps<readonly OpenStep[]> {
  return [
    ...lostSteps(before, rows, yield* dataLossIn(before, after, rows.values())),
    ...contradictions(before, after, rows, yield* violationsIn(after, rows)),
  ];
}

/** The part of a step that is told. */
export const describeStep = ({ id, message, records, first, resolutions }: OpenStep): MigrationStep => ({
  id,
  message,
  records,
  first,
  resolutions,
});

function lostSteps(
  before: Model,
  rows: ReadonlyMap<number, Row>,
  losses: readonly DataLoss[],
): readonly OpenStep[] {
  return losses.map(({ id, entity, what, records }) => {
    const isEntity = id === entity;
    const held = records.length === 1 ? '1 record holds it' : `${records.length} records hold it`;
    return {
      id: `lost ${id}`,
      message: isEntity
        ? `${capital(what)} goes, and ${records.length === 1 ? 'its 1 record' : `its ${records.length} records`}.`
        : `${what} goes, and ${held}.`,
      records: records.length,
      first: firstOf(before, rows, records),
      resolutions: [{ do: 'drop', means: isEntity ? 'its records go' : 'its values go' }],
      rids: records.map(({ rid }) => rid),
      about: { kind: 'lost', id, isEntity },
    };
  });
}

function firstOf(model: Model, rows: ReadonlyMap<number, Row>, records: readonly Row[]): readonly string[] {
  return records.slice(0, FIRST_SHOWN).map((row) => {
    const storage = storageOf(model).byId.get(row.entity);
    const path = storage === undefined ? null : keyPathOf(model, rows, storage, row);
    return path === null ? `record ${row.rid}` : path.map(scalarText).join(', ');
  });
}

function contradictions(
  before: Model,
  after: Model,
  rows: ReadonlyMap<number, Row>,
  violations: readonly Violation[],
): readonly OpenStep[] {
  const groups = new Map<string, { cause: RecordCause; storage: EntityStorage; rids: number[] }>();
  const none: OpenStep[] = [];
  for (const { rid, cause, message } of violations) {
    if (cause.kind === 'none') {
      none.push(stepToMake(cause, message));
      continue;
    }
    const row = rows.get(rid);
    const storage = row === undefined ? undefined : storageOf(after).byId.get(row.entity);
    if (cause.kind === 'entity' || storage === undefined) continue;
    const id = `${cause.kind} ${subjectOf(cause)} ${storage.entity.id}`;
    const known = groups.get(id);
    if (known === undefined) groups.set(id, { cause, storage, rids: [rid] });
    else known.rids.push(rid);
  }
  const steps = [...groups].map(([id, { cause, storage, rids }]): OpenStep => {
    const instead =
      cause.kind === 'pointer' ? replacedBy(before, after, storage, cause.relationship.id) : null;
    return {
      id,
      message: messageOf(cause, storage),
      records: rids.length,
      first: firstOf(
        after,
        rows,
        rids.slice(0, FIRST_SHOWN).flatMap((rid) => rows.get(rid) ?? []),
      ),
      resolutions: offersFor(after, cause, storage, instead),
      rids,
      about: { ...cause, storage, instead },
    };
  });
  return [...none, ...steps];
}

/** A record is to be made of what there must be one of. */
const stepToMake = (cause: Extract<Cause, { kind: 'none' }>, message: string): OpenStep => ({
  id: `none ${cause.storage.entity.id}`,
  message,
  records: 0,
  first: [],
  resolutions: [{ do: 'fill', means: 'one is made: an object with its attributes' }],
  rids: [],
  about: cause,
});

function subjectOf(cause: RecordCause): string {
  switch (cause.kind) {
    case 'unset':
    case 'misfit':
      return cause.attribute.id;
    case 'taken':
      return cause.constraint.id;
    case 'pointer':
    case 'slot':
    case 'circle':
      return cause.relationship.id;
  }
}

/** A relationship of the model before that goes, and from the same kind of record led to the same kind. */
function replacedBy(
  before: Model,
  after: Model,
  storage: EntityStorage,
  relationship: string,
): string | null {
  const targetOf = (model: Model, of: EntityStorage, id: string): string | undefined => {
    const found = pointingOf(of).find((known) => known.id === id);
    return found === undefined ? undefined : storageOf(model).byName.get(pointedEntity(found))?.entity.id;
  };
  const old = storageOf(before).byId.get(storage.entity.id);
  if (old === undefined) return null;
  const ids = pointingOf(old).map(({ id }) => id);
  const kept = new Set(pointingOf(storage).map(({ id }) => id));
  const wanted = targetOf(after, storage, relationship);
  return ids.find((id) => !kept.has(id) && targetOf(before, old, id) === wanted) ?? null;
}

function messageOf(cause: RecordCause, { entity: { name } }: EntityStorage): string {
  switch (cause.kind) {
    case 'unset':
      return `${name}.${cause.attribute.name} is required, and has no value.`;
    case 'misfit':
      return `${name}.${cause.attribute.name} has values that do not fit ${typeText(cause.attribute.type)}.`;
    case 'taken':
      return cause.constraint.parts.length === 0
        ? `There must be one ${name}, and there are several.`
        : `${name} has several records with the same ${cause.constraint.names.join(' and ')}.`;
    case 'pointer':
      return `${name} must lead to a ${pointedEntity(cause.relationship)}, and does not.`;
    case 'slot':
      return `${name} must have a ${cause.relationship.to}, and has none.`;
    case 'circle':
      return `${name} owns itself in a circle.`;
  }
}

function typeText(type: AttributeType): string {
  switch (type.kind) {
    case 'json':
      return 'JSON';
    case 'value':
      return `a ${type.name}`;
    case 'list':
      return 'a list';
    default:
      return describeType(type);
  }
}

function offersFor(
  model: Model,
  cause: RecordCause,
  { key, entity, attributes }: EntityStorage,
  instead: string | null,
): readonly Resolution[] {
  const dropRecords: Resolution = { do: 'drop', means: 'the records go, with what they own' };
  switch (cause.kind) {
    case 'unset': {
      const { generated, type } = cause.attribute;
      const isMade =
        generated && (type.kind === 'integer' || type.kind === 'uuid' || type.kind === 'instant');
      return [
        { do: 'fill', means: `all get ${typeText(type)}` },
        ...(isMade ? [{ do: 'convert', means: 'each gets one that is made' } as const] : []),
        dropRecords,
      ];
    }
    case 'misfit': {
      const { type, required } = cause.attribute;
      const mayUnset = !required && cause.attribute !== key;
      return [
        { do: 'convert', means: 'each gets the nearest value that fits' },
        { do: 'fill', means: `all get ${typeText(type)}` },
        mayUnset ? { do: 'drop', means: 'the values go' } : dropRecords,
      ];
    }
    case 'taken': {
      if (cause.constraint.parts.length === 0)
        return [
          { do: 'fill', means: `one stays, named by its ${key.name}` },
          { do: 'drop', means: 'all but the first go, with what they own' },
        ];
      const numbered = attributes.find(({ id }) => id === cause.constraint.parts[0])?.type.kind;
      return [
        ...(numbered === 'text' || numbered === 'integer'
          ? [{ do: 'convert', means: 'all but the first are numbered' } as const]
          : []),
        { do: 'drop', means: 'all but the first go, with what they own' },
      ];
    }
    case 'pointer': {
      const to = pointedEntity(cause.relationship);
      const target = storageOf(model).byName.get(to);
      const keys = target === undefined ? [] : pathAttributes(model, target).map(({ name }) => name);
      return [
        ...(instead === null ? [] : [{ do: 'convert', means: 'each leads to where it led before' } as const]),
        { do: 'fill', means: `all lead to one ${to}, named by ${keys.join(', ')}` },
        dropRecords,
      ];
    }
    case 'slot':
      return [
        { do: 'fill', means: `each gets a ${cause.relationship.to}: an object with its attributes` },
        { do: 'drop', means: `the records of ${entity.name} go, with what they own` },
      ];
    case 'circle':
      return [{ do: 'drop', means: 'they have no owner any more' }];
  }
}
