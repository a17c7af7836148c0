import { readQueryTerms, type FixedFilter, type QueryTerms } from '../arrangement/index.js';
import { fixedFilter, type Filter, type Search, type SortBy } from '../engine/index.js';
import {
  checkScalar,
  describeType,
  type EntityStorage,
  type Model,
  type ScalarType,
} from '../model/index.js';
import { pointersOf } from '../transfer/index.js';
import { columnsOf, type RecordColumn } from './columns.js';

/** Which records are looked for, and in which order. */
export interface RecordFind {
  readonly filters: readonly Filter[];
  readonly search: Search | null;
  readonly sort: readonly SortBy[];
}

export type RecordFindRead =
  | { readonly ok: true; readonly find: RecordFind }
  /** `column`: where in the text, from 1. */
  | { readonly ok: false; readonly message: string; readonly column: number };

const QUERY = /^\s*(?:where|by)\b/;

/**
 * Reads what is looked for among the records of one type: `where status = planned by departsAt desc` in the language of
 * custom operations, or a text that one of their texts holds. `now`: milliseconds since 1970.
 */
export function readFind(model: Model, storage: EntityStorage, text: string, now: number): RecordFindRead {
  if (text.trim() === '') return { ok: true, find: { filters: [], search: null, sort: [] } };
  if (!QUERY.test(text))
    return { ok: true, find: { filters: [], search: searchOf(storage, text), sort: [] } };
  const read = readQueryTerms(model, storage.entity, text);
  return read.ok ? resolved(model, storage, read.terms, text, now) : read;
}

function resolved(
  model: Model,
  storage: EntityStorage,
  terms: QueryTerms,
  text: string,
  now: number,
): RecordFindRead {
  const refuse = (message: string, member: string): RecordFindRead => ({
    ok: false,
    message,
    column: placeOf(model, storage, text, member),
  });
  const filters: Filter[] = [];
  for (const term of terms.filters) {
    const found = filterOf(model, storage, term, now);
    if (typeof found === 'string') return refuse(found, term.member);
    filters.push(found);
  }
  const sort: SortBy[] = [];
  for (const { member, descending } of terms.order) {
    const found = comparedById(model, storage, member);
    if (typeof found === 'string') return refuse(found, member);
    sort.push({ field: found.field, type: found.type, descending });
  }
  return { ok: true, find: { filters, search: null, sort } };
}

/** Where a member is named first in a line, from 1. */
function placeOf(model: Model, storage: EntityStorage, text: string, member: string): number {
  const all = [...storage.attributes, ...storage.computed, ...pointersOf(model, storage)];
  const name = all.find(({ id }) => id === member)?.name ?? '';
  return Math.max(0, text.search(new RegExp(`\\b${name}\\b`))) + 1;
}

/** A filter that a line names, or what is wrong with it. */
function filterOf(
  model: Model,
  storage: EntityStorage,
  { member, operator, value }: FixedFilter,
  now: number,
): Filter | string {
  const found = comparedById(model, storage, member);
  if (typeof found === 'string') return found;
  const { name, field, type } = found;
  if (value.kind === 'input') return `Nothing is sent here: compare ${name} with a value, or now.`;
  if (value.kind === 'literal' && operator !== 'unset' && checkScalar(type, value.value) !== null)
    return `${name} is compared with ${describeType(type)}.`;
  if (value.kind === 'now' && type.kind !== 'instant' && type.kind !== 'date' && type.kind !== 'time')
    return `${name} is ${describeType(type)}, and no moment.`;
  return fixedFilter({ field, type, operator, value }, value, now);
}

interface Compared {
  readonly name: string;
  readonly field: SortBy['field'];
  readonly type: ScalarType;
}

/** What a sort by one column, named with a minus in front where it descends, is; `null` where there is no such column. */
export function sortBy(model: Model, storage: EntityStorage, text: string): SortBy | null {
  const descending = text.startsWith('-');
  const name = descending ? text.slice(1) : text;
  const column = columnsOf(model, storage).find((one) => one.name === name && one.isSorted);
  const found = column === undefined ? null : comparedByColumn(model, storage, column);
  return found === null ? null : { field: found.field, type: found.type, descending };
}

function comparedByColumn(model: Model, storage: EntityStorage, { name }: RecordColumn): Compared | null {
  const attribute = [...storage.attributes, ...storage.computed].find((one) => one.name === name);
  const pointer = pointersOf(model, storage).find((one) => one.name === name);
  const id = attribute?.id ?? pointer?.id;
  const found = id === undefined ? '' : comparedById(model, storage, id);
  return typeof found === 'string' ? null : found;
}

function comparedById(model: Model, storage: EntityStorage, id: string): Compared | string {
  const attribute = [...storage.attributes, ...storage.computed].find((one) => one.id === id);
  if (attribute !== undefined) {
    const { name, type, writeOnly, computed } = attribute;
    if (writeOnly) return `${name} is never returned, so nothing is looked for by it.`;
    if (type.kind === 'json' || type.kind === 'value' || type.kind === 'list')
      return `${name} is ${type.kind}, which cannot be compared.`;
    const field =
      computed === null
        ? ({ kind: 'attribute', attribute: id } as const)
        : ({ kind: 'computed', attribute: id, reads: 'record' } as const);
    return { name, field, type };
  }
  const pointer = pointersOf(model, storage).find((one) => one.id === id);
  const type = pointer?.target.key.type;
  if (
    pointer === undefined ||
    type === undefined ||
    type.kind === 'json' ||
    type.kind === 'value' ||
    type.kind === 'list'
  )
    return 'It cannot be compared.';
  const { name, target } = pointer;
  const kind = id === storage.owner?.id ? 'owner' : 'reference';
  return { name, field: { kind, relationship: id, entity: target.entity.name }, type };
}

/** A text that stands in any text of a record that is not write-only. */
const searchOf = ({ attributes }: EntityStorage, text: string): Search => ({
  text: text.trim().toLowerCase(),
  fields: attributes
    .filter(({ writeOnly }) => !writeOnly)
    .map(({ id }) => ({ kind: 'attribute', attribute: id })),
});
