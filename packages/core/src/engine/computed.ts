import {
  bareObject,
  computedValue,
  entryOf,
  mapInSteps,
  memoize,
  roleOfStep,
  rolesOfModel,
  storageOf,
  type Along,
  type Attribute,
  type EntityStorage,
  type Json,
  type Model,
  type RecordReading,
  type Row,
  type ScalarType,
  type Steps,
} from '../model/index.js';
import { Dataset, pointedAt, type RecordView } from './dataset.js';
import { pairedRows } from './pairedRows.js';
import { storageNamed, storages, type OfModel } from './service.js';

/** The value of a computed attribute of a record, by its identity. */
export function computedOf(service: OfModel, view: RecordView, row: Row, id: string): Json {
  const attribute = storages(service)
    .byId.get(row.entity)
    ?.computed.find((one) => one.id === id);
  if (attribute === undefined) return null;
  const compute = (): Json => computedValue(attribute, readingOf(service, view, row));
  return view instanceof Dataset
    ? entryOf(valuesOf(view, service.model), `${row.rid}-${row.revision} ${id}`, compute)
    : compute();
}

/** So many values are kept of a dataset. */
const MOST_VALUES = 50_000;

interface Kept {
  version: number;
  readonly values: Map<string, Json>;
}

const kept = memoize<Dataset, (model: Model) => Kept>(() =>
  memoize(() => ({ version: -1, values: new Map() })),
);

/** What was computed since the records changed last: reads are many, and writes are few. */
function valuesOf(dataset: Dataset, model: Model): Map<string, Json> {
  const known = kept(dataset)(model);
  if (known.version !== dataset.version || known.values.size >= MOST_VALUES) known.values.clear();
  known.version = dataset.version;
  return known.values;
}

/** The attributes of a kind of record that are single values, by their names. */
const scalarsOf = memoize(
  ({ attributes, computed }: EntityStorage): ReadonlyMap<string, Attribute & { readonly type: ScalarType }> =>
    new Map(
      [...attributes, ...computed].flatMap((attribute) =>
        isScalarAttribute(attribute) ? [[attribute.name, attribute] as const] : [],
      ),
    ),
);

const isScalarAttribute = (attribute: Attribute): attribute is Attribute & { readonly type: ScalarType } =>
  attribute.type.kind !== 'json' && attribute.type.kind !== 'list' && attribute.type.kind !== 'value';

function readingOf(service: OfModel, view: RecordView, row: Row): RecordReading {
  const storage = storages(service).byId.get(row.entity);
  const scalars = storage === undefined ? null : scalarsOf(storage);
  const reading: RecordReading = {
    attribute(name) {
      const attribute = scalars?.get(name);
      if (attribute === undefined) return null;
      const { type, computed, id } = attribute;
      const value = computed === null ? (row.values[id] ?? null) : computedValue(attribute, reading);
      return { type, value };
    },
    along: (role) =>
      rowsAlong(service, view, storage?.entity.name ?? '', row, role).map((one) =>
        readingOf(service, view, one),
      ),
  };
  return reading;
}

/** The records that steps lead to from a record, one after another. */
export function rowsAtEnd(
  service: OfModel,
  view: RecordView,
  row: Row,
  steps: readonly { readonly relationship: string; readonly direction: Along['direction'] }[],
): readonly Row[] {
  return steps.reduce<readonly Row[]>(
    (rows, step) =>
      rows.flatMap((one) => {
        const entity = storages(service).byId.get(one.entity)?.entity.name ?? '';
        const found = roleOfStep(rolesOfModel(service.model).get(entity), step);
        return found === undefined ? [] : rowsThrough(service, view, one, found[1]);
      }),
    [row],
  );
}

/** The records that a role leads to. */
function rowsAlong(
  service: OfModel,
  view: RecordView,
  entity: string,
  row: Row,
  role: string,
): readonly Row[] {
  const along = rolesOfModel(service.model).get(entity)?.get(role);
  return along === undefined ? [] : rowsThrough(service, view, row, along);
}

function rowsThrough(
  service: OfModel,
  view: RecordView,
  row: Row,
  { relationship, direction, to }: Along,
): readonly Row[] {
  if (relationship.kind === 'pairs')
    return pairedRows(service, view, relationship, direction === 'back' ? 'paired-back' : 'paired', row);
  // What is owned points at its owner, and what refers to something at that.
  const isPointedAt = (relationship.kind === 'owns') === (direction === 'onwards');
  if (isPointedAt) return view.pointingAt(storageNamed(service, to), relationship.id, row.rid);
  const target = pointedAt(view, row, relationship.id);
  return target === null ? [] : [target];
}

/**
 * Records as they are under another model, which stores what was computed: with the values that it had. Everything
 * else stays as it was.
 */
export function* withStored(before: Model, after: Model, rows: readonly Row[]): Steps<readonly Row[]> {
  const becoming = new Map(
    [...storageOf(after).byId].flatMap(([entity, { attributes }]) => {
      const computed = new Set(
        storageOf(before)
          .byId.get(entity)
          ?.computed.map(({ id }) => id),
      );
      const ids = attributes.map(({ id }) => id).filter((id) => computed.has(id));
      return ids.length === 0 ? [] : [[entity, ids] as const];
    }),
  );
  if (becoming.size === 0) return rows;
  const dataset = new Dataset(before, rows, { rid: 0, attributes: {} });
  return yield* mapInSteps('comparing', rows, (row) => {
    const ids = becoming.get(row.entity) ?? [];
    const known = ids.flatMap((id) => {
      const value = computedOf({ model: before }, dataset, row, id);
      return value === null ? [] : [[id, value] as const];
    });
    if (known.length === 0) return row;
    const values: Record<string, Json> = Object.assign(bareObject(), row.values, Object.fromEntries(known));
    return { ...row, values };
  });
}
