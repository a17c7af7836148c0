import type { RecordView } from '../engine/index.js';
import {
  memoize,
  storageOf,
  type Attribute,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import { keyPathOf } from '../transfer/index.js';

/** What people know things by, the best first. */
const TELLING = ['name', 'title', 'label', 'code', 'number', 'subject', 'email'];

/** The attribute that tells people which record it is, beside its key; `null` where none does. */
const tellingAttribute = memoize(({ attributes, key }: EntityStorage): Attribute | null => {
  const texts = attributes.filter(
    ({ type, writeOnly }) => !writeOnly && (type.kind === 'text' || type.kind === 'email'),
  );
  const rank = ({ name }: Attribute): number => {
    const lower = name.toLowerCase();
    const exact = TELLING.indexOf(lower);
    if (exact >= 0) return exact;
    const ending = TELLING.findIndex((word) => lower.endsWith(word));
    return ending >= 0 ? TELLING.length + ending : Infinity;
  };
  const [best] = texts
    .filter((one) => one !== key && rank(one) < Infinity)
    .sort((one, other) => rank(one) - rank(other));
  return best ?? texts.find((one) => one !== key && one.unique) ?? null;
});

/** Another record as a table names it. */
export interface RecordLink {
  readonly type: string;
  /** The number of the record in the mock, which never changes. */
  readonly number: number;
  /** The value of its key, or the values that lead to it. */
  readonly key: Json;
  /** Its name, code or title; empty where it has none. */
  readonly hint: string;
}

export function linkTo(model: Model, view: RecordView, row: Row): RecordLink | null {
  const storage = storageOf(model).byId.get(row.entity);
  if (storage === undefined) return null;
  const path = keyPathOf(model, view, storage, row) ?? [];
  const telling = tellingAttribute(storage);
  const hint = telling === null ? null : row.values[telling.id];
  return {
    type: storage.entity.name,
    number: row.rid,
    key: path.length === 1 ? (path[0] ?? null) : path,
    hint: typeof hint === 'string' ? hint : '',
  };
}
