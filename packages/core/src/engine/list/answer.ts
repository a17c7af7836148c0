import type { Link, Resource } from '../../contract/index.js';
import { bareObject, type Json, type Row } from '../../model/index.js';
import type { RecordView } from '../dataset.js';
import { pairedWith, representPaired } from '../pairing.js';
import { pathOf, representListed } from '../represent.js';
import { indexOf, storageNamed, type Serving } from '../service.js';
import type { QueryEntry } from '../target.js';
import { filtered } from './filter.js';
import type { ListQuery } from './query.js';
import { sorted } from './sort.js';

/** One page of a list with its links, and how many records there are. */
export interface ListAnswer {
  readonly body: Record<string, Json>;
  readonly total: number;
}

/** A query parameter as a link writes it. */
type Parameter = Pick<QueryEntry, 'name' | 'value'>;

export function answerList(
  service: Serving,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  query: ListQuery,
  entries: readonly QueryEntry[],
): ListAnswer {
  const all = filtered(service, view, candidates(service, view, resource, above), query.filters);
  const rows = sorted(service, view, resource, all, query.sort);
  const { names, paging } = service.contract;
  const shown = query.size === null ? rows : rows.slice(query.offset, query.offset + query.size);
  const body = bareObject();
  body[names.items] = shown.map((row) =>
    resource.kind === 'pairing' && above !== null
      ? representPaired(service, view, resource, above, row)
      : representListed(service, view, row),
  );
  if (paging.style !== 'none') body[names.page] = pageObject(service, query, rows.length);
  body[names.links] = pageLinks(service, view, resource, above, query, entries, rows.length);
  return { body, total: rows.length };
}

function pageObject({ contract }: Serving, { offset, size }: ListQuery, total: number): Json {
  const { names, paging } = contract;
  const length = size ?? total;
  const page = bareObject();
  if (paging.style === 'offset') {
    page[names.offset] = offset;
    page[names.limit] = length;
  } else {
    page[names.number] = offset / length + 1;
    page[names.size] = length;
  }
  if (paging.totals !== 'body') return page;
  page[names.totalItems] = total;
  if (paging.style === 'number') page[names.totalPages] = Math.ceil(total / length);
  return page;
}

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

function pageLinks(
  service: Serving,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  query: ListQuery,
  entries: readonly QueryEntry[],
  total: number,
): Json {
  const path = pathOf(service, view, resource, above) ?? '';
  const offsets = query.size === null ? null : offsetsOf(query.offset, query.size, total);
  const links = bareObject();
  for (const link of resource.links) {
    const found = pageLink(service, view, resource, above, link, path, entries, query.size ?? 1, offsets);
    if (found !== null) links[link.relation] = found;
  }
  return links;
}

type Offsets = Readonly<Record<'first' | 'prev' | 'next' | 'last', number | null>>;

/** How many records come before each neighbour; `null` where there is none. */
function offsetsOf(offset: number, size: number, total: number): Offsets {
  const last = total === 0 ? 0 : Math.floor((total - 1) / size) * size;
  return {
    first: 0,
    prev: offset === 0 ? null : Math.max(0, Math.min(offset - size, last)),
    next: offset + size < total ? offset + size : null,
    last,
  };
}

function pageLink(
  service: Serving,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  { target }: Link,
  path: string,
  entries: readonly Parameter[],
  size: number,
  offsets: Offsets | null,
): Json {
  switch (target.kind) {
    case 'self':
      return { href: path + queryText(entries) };
    case 'page': {
      const offset = offsets?.[target.page] ?? null;
      if (offset === null) return null;
      return { href: path + queryText(atOffset(service, resource, entries, offset, size)) };
    }
    case 'resource': {
      const other = indexOf(service).resources.get(target.resource);
      const href = other === undefined ? null : pathOf(service, view, other, above);
      return href === null ? null : { href };
    }
    case 'template': {
      const other = indexOf(service).resources.get(target.resource);
      return other === undefined ? null : { href: service.contract.root + other.path, templated: true };
    }
    case 'reference':
    case 'read':
    case 'filtered':
    case 'owner':
    case 'action':
    case 'pair':
    case 'description':
      return null;
  }
}

/** The query of the page that begins after so many records. */
function atOffset(
  service: Serving,
  resource: Resource,
  entries: readonly Parameter[],
  offset: number,
  size: number,
): readonly Parameter[] {
  const list = indexOf(service)
    .operationsOf.get(resource.id)
    ?.find(({ verb }) => verb === 'list');
  const parameter = list?.query.find(({ role }) => role === 'page' || role === 'offset');
  if (parameter === undefined) return entries;
  const value = String(parameter.role === 'page' ? offset / size + 1 : offset);
  return [...entries.filter(({ name }) => name !== parameter.name), { name: parameter.name, value }];
}

const queryText = (entries: readonly Parameter[]): string =>
  entries.length === 0
    ? ''
    : `?${entries.map(({ name, value }) => `${encodeURIComponent(name)}=${encodeURIComponent(value)}`).join('&')}`;
