import type { Field, Operation, QueryParameter, Resource } from '../contract/index.js';
import {
  bareObject,
  compareScalars,
  describeType,
  sameScalar,
  scalarFromText,
  type Json,
  type Row,
  type ScalarType,
} from '../model/index.js';
import { findByKey } from './accept.js';
import type { RecordView } from './dataset.js';
import type { ProblemDetail } from './message.js';
import { pairedWith, representPaired } from './pairing.js';
import { pathOf, pointedAt, representRecord } from './represent.js';
import { indexOf, storageNamed, type Serving } from './service.js';
import type { QueryEntry } from './target.js';

/** A list query, typed and checked. */
export interface ListQuery {
  readonly page: number;
  readonly size: number;
  readonly sort: readonly {
    readonly field: Field;
    readonly type: ScalarType;
    readonly descending: boolean;
  }[];
  readonly filters: readonly {
    readonly field: Field;
    readonly type: ScalarType;
    readonly value: string | number | boolean;
  }[];
}

type Parameter<Role> = Extract<QueryParameter, { role: Role }>;
export type QueryResult =
  | { readonly ok: true; readonly query: ListQuery }
  | { readonly ok: false; readonly errors: readonly ProblemDetail[] };

/** Reads the query parameters of an operation; every parameter that is wrong is reported. */
export function readListQuery(
  operation: Operation,
  entries: readonly QueryEntry[],
  unreadable: readonly string[],
): QueryResult {
  const errors: ProblemDetail[] = unreadable.map((pair) => ({
    parameter: pair.slice(0, 80),
    code: 'encoding',
    message: 'Expected percent-encoded UTF-8.',
  }));
  const byName = new Map(operation.query.map((parameter) => [parameter.name, parameter]));
  const size = operation.query.find((parameter) => parameter.role === 'size');
  const query = {
    page: 1,
    size: size?.role === 'size' ? size.default : 0,
    sort: [] as ListQuery['sort'],
    filters: [] as ListQuery['filters'][number][],
  };
  const seen = new Set<string>();
  for (const { name, value } of entries) {
    const parameter = byName.get(name);
    if (parameter === undefined && operation.unknownParameters === 'ignored') continue;
    if (parameter === undefined) {
      const known = [...byName.keys()];
      const hint = known.length === 0 ? 'This operation has none.' : `There are ${known.join(', ')}.`;
      errors.push({ parameter: name, code: 'unknown', message: `There is no parameter ${name}. ${hint}` });
      continue;
    }
    if (seen.has(name)) {
      errors.push({ parameter: name, code: 'repeated', message: `The parameter ${name} stands twice.` });
      continue;
    }
    seen.add(name);
    switch (parameter.role) {
      case 'page':
        query.page = readCount(parameter, value, Number.MAX_SAFE_INTEGER, errors);
        break;
      case 'size':
        query.size = readCount(parameter, value, parameter.max, errors);
        break;
      case 'sort':
        query.sort = readSort(parameter, value, errors);
        break;
      case 'filter': {
        const filter = readFilter(parameter, value, errors);
        if (filter !== null) query.filters.push(filter);
        break;
      }
    }
  }
  return errors.length === 0 ? { ok: true, query } : { ok: false, errors };
}

function readCount(parameter: QueryParameter, text: string, max: number, errors: ProblemDetail[]): number {
  const value = /^[1-9]\d{0,15}$/.test(text) ? Number(text) : NaN;
  if (value <= max) return value;
  const limit = max === Number.MAX_SAFE_INTEGER ? '' : ` to ${max}`;
  errors.push({
    parameter: parameter.name,
    code: 'range',
    message: `Expected a whole number from 1${limit}.`,
  });
  return 1;
}

function readSort(parameter: Parameter<'sort'>, text: string, errors: ProblemDetail[]): ListQuery['sort'] {
  const keys = new Map(parameter.keys.map((key) => [key.name, key]));
  return text.split(',').flatMap((part) => {
    const descending = part.startsWith('-');
    const key = keys.get(descending ? part.slice(1) : part);
    if (key !== undefined) return [{ field: key.field, type: key.type, descending }];
    const message = `Cannot sort by ${part === '' ? 'nothing' : part}. Keys are ${[...keys.keys()].join(', ')}, each with - in front for descending.`;
    errors.push({ parameter: parameter.name, code: 'key', message });
    return [];
  });
}

function readFilter(
  parameter: Parameter<'filter'>,
  text: string,
  errors: ProblemDetail[],
): ListQuery['filters'][number] | null {
  const value = scalarFromText(parameter.type, text);
  if (value !== undefined) return { field: parameter.field, type: parameter.type, value };
  errors.push({
    parameter: parameter.name,
    code: 'type',
    message: `Expected ${describeType(parameter.type)}.`,
  });
  return null;
}

/** One page of a list, with its totals and its links. */
export function answerList(
  service: Serving,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  query: ListQuery,
  entries: readonly QueryEntry[],
): Json {
  const rows = sorted(
    service,
    view,
    resource,
    filtered(service, view, candidates(service, view, resource, above), query),
    query,
  );
  const totalPages = Math.ceil(rows.length / query.size);
  const from = (query.page - 1) * query.size;
  const { names } = service.contract;
  const body = bareObject();
  body[names.items] = rows
    .slice(from, from + query.size)
    .map((row) => representListed(service, view, resource, above, row));
  body[names.page] = Object.assign(bareObject(), {
    [names.number]: query.page,
    [names.size]: query.size,
    [names.totalItems]: rows.length,
    [names.totalPages]: totalPages,
  });
  body[names.links] = pageLinks(service, view, resource, above, query, entries, totalPages);
  return body;
}

const representListed = (
  service: Serving,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  row: Row,
): Json =>
  resource.kind === 'pairing' && above !== null
    ? representPaired(service, view, resource, above, row)
    : representRecord(service, view, row);

function candidates(
  service: Serving,
  view: RecordView,
  resource: Resource,
  above: Row | null,
): Iterable<Row> {
  const storage = storageNamed(service, resource.entity);
  if (resource.kind === 'pairing') return above === null ? [] : pairedWith(service, view, resource, above);
  if (resource.via === null) return view.all(storage);
  return above === null ? [] : view.pointingAt(storage, resource.via.relationship, above.rid);
}

/** Keeps the records for which every filter holds. What is unset equals nothing. */
function filtered(service: Serving, view: RecordView, rows: Iterable<Row>, query: ListQuery): Row[] {
  const tests = query.filters.map(({ field, type, value }) => {
    if (field.kind === 'attribute') {
      return (row: Row): boolean => {
        const own = row.values[field.attribute];
        return isScalarValue(own) && sameScalar(type, own, value);
      };
    }
    const target = findByKey(service, view, field.entity, value);
    return (row: Row): boolean => target !== undefined && row.values[field.relationship] === target.rid;
  });
  return [...rows].filter((row) => tests.every((test) => test(row)));
}

const isScalarValue = (value: Json | undefined): value is string | number | boolean =>
  value !== undefined && value !== null && typeof value !== 'object';

/** Orders by the sort keys, unset last ascending and first descending; the key of the record breaks ties. */
function sorted(
  service: Serving,
  view: RecordView,
  resource: Resource,
  rows: Row[],
  query: ListQuery,
): Row[] {
  const { key } = storageNamed(service, resource.entity);
  const byKey = {
    field: { kind: 'attribute', attribute: key.id } as const,
    type: key.type as ScalarType,
    descending: false,
  };
  const keys = [...query.sort, byKey];
  const read = (row: Row, field: Field): Json | undefined => {
    if (field.kind === 'attribute') return row.values[field.attribute];
    const target = pointedAt(view, row, field.relationship);
    return target?.values[storageNamed(service, field.entity).key.id];
  };
  return rows.sort((a, b) => {
    for (const { field, type, descending } of keys) {
      const order = compareValues(type, read(a, field), read(b, field));
      if (order !== 0) return descending ? -order : order;
    }
    return a.rid - b.rid;
  });
}

function compareValues(type: ScalarType, a: Json | undefined, b: Json | undefined): number {
  if (isScalarValue(a)) return isScalarValue(b) ? compareScalars(type, a, b) : -1;
  return isScalarValue(b) ? 1 : 0;
}

function pageLinks(
  service: Serving,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  query: ListQuery,
  entries: readonly QueryEntry[],
  totalPages: number,
): Json {
  const path = pathOf(service, view, resource, above) ?? '';
  const pageName = pageParameter(service, resource);
  const numbers = {
    first: 1,
    prev: query.page > 1 ? Math.max(1, Math.min(query.page - 1, totalPages)) : null,
    next: query.page < totalPages ? query.page + 1 : null,
    last: Math.max(1, totalPages),
  };
  const links = bareObject();
  for (const link of resource.links) {
    switch (link.target.kind) {
      case 'self':
        links[link.relation] = { href: path + queryText(entries) };
        break;
      case 'page': {
        const number = numbers[link.target.page];
        if (number === null) break;
        const others = entries.filter((entry) => entry.name !== pageName);
        links[link.relation] = {
          href: path + queryText([...others, { name: pageName, value: String(number) }]),
        };
        break;
      }
      case 'resource': {
        const target = indexOf(service).resources.get(link.target.resource);
        const href = target === undefined ? null : pathOf(service, view, target, above);
        if (href !== null) links[link.relation] = { href };
        break;
      }
      case 'template': {
        const target = indexOf(service).resources.get(link.target.resource);
        if (target !== undefined)
          links[link.relation] = { href: service.contract.root + target.path, templated: true };
        break;
      }
      case 'reference':
      case 'read':
      case 'filtered':
      case 'owner':
      case 'action':
      case 'pair':
      case 'description':
        break;
    }
  }
  return links;
}

function pageParameter(service: Serving, resource: Resource): string {
  const list = indexOf(service)
    .operationsOf.get(resource.id)
    ?.find(({ verb }) => verb === 'list');
  return list?.query.find((parameter) => parameter.role === 'page')?.name ?? 'page';
}

const queryText = (entries: readonly QueryEntry[]): string =>
  entries.length === 0
    ? ''
    : `?${entries.map(({ name, value }) => `${encodeURIComponent(name)}=${encodeURIComponent(value)}`).join('&')}`;
