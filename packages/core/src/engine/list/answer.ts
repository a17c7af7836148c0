import { listFormAt, type DerivedTarget, type PageForm, type Resource } from '../../contract/index.js';
import { bareObject, type Json, type Row } from '../../model/index.js';
import { Dataset, type RecordView } from '../dataset.js';
import { withLinks } from '../links.js';
import { isOwnTarget, ownLink } from '../ownLinks.js';
import { pairedWith, representPaired } from '../pairing.js';
import { listedTexts, type ListedTexts } from '../recordText.js';
import { canonicalPath, pathTo, templateOf } from '../paths.js';
import { representListed } from '../represent.js';
import { indexOf, storageNamed, type RequestContext } from '../service.js';
import type { QueryEntry } from '../target.js';
import { type Cursor } from './listQuery.js';
import { cursorScope, writeCursor } from './cursor.js';
import { listAt } from './listAt.js';
import { filtered, type Filter } from './filter.js';
import { indexed } from './indexScan.js';
import { pageRangeOf, type PageRange } from './pagination.js';
import type { ListQuery } from './listQuery.js';
import { isFound } from './search.js';
import { decidingKeys, ranked, type Position, type SortBy } from './sort.js';
import { IndexRange } from './indexRange.js';

/** One page of a list with its links, and how many records there are. */
export interface ListAnswer {
  readonly body: Record<string, Json>;
  /** The records as texts, where these were made before; then the body has none. */
  readonly texts: ListedTexts | null;
  /** `null` where nobody is told. */
  readonly total: number | null;
  /** Whether there are more than a list without pages shows; `null` where it has pages, or everything. */
  readonly isMore: boolean | null;
}

/** A query parameter as a link writes it. */
type Parameter = Pick<QueryEntry, 'name' | 'value'>;

export function answerList(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  query: ListQuery,
  entries: readonly QueryEntry[],
): ListAnswer {
  const keys = decidingKeys(service, resource, query.sort);
  const all = spanOf(service, view, resource, above, query, keys);
  const slice = pageRangeOf(keys, all, query.page);
  const { names } = service.contract;
  const path = pathTo(service, view, resource, above) ?? '';
  const form = listFormAt(service.contract, resource.id);
  const neighbours = neighboursOf(service, form, path, query, slice, all.length);
  const body = bareObject();
  const rows = slice.shown;
  const texts = resource.kind === 'pairing' ? null : listedTexts(service, view, rows, query);
  body[names.items] = texts === null ? represented(service, view, resource, above, rows, query) : [];
  const page = pageObject(service, form, query, neighbours, all.length);
  if (page !== null) body[names.page] = page;
  const listed = { resource, above, rows, path, entries, neighbours };
  withLinks(service, body, resource, ({ target }) =>
    isOwnTarget(target) ? ownLink(service, view, target, above) : listLink(service, view, target, listed),
  );
  return {
    body,
    texts,
    total: query.page.kind === 'first' ? null : all.length,
    isMore: query.page.kind === 'ceiling' ? all.length > query.page.size : null,
  };
}

/** The first record of a list as it is asked for; `null` where there is none. */
export function firstListed(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  query: ListQuery,
): Row | null {
  const keys = decidingKeys(service, resource, query.sort);
  return spanOf(service, view, resource, above, query, keys).at(0)?.row ?? null;
}

/** The records of a list that every filter keeps, in no order. */
export const matchingRows = (
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  filters: readonly Filter[],
): readonly Row[] => filtered(service, view, candidates(service, view, resource, above), filters);

function represented(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  rows: readonly Row[],
  query: ListQuery,
): Json {
  return rows.map((row) =>
    resource.kind === 'pairing' && above !== null
      ? representPaired(service, view, resource, above, row, query)
      : representListed(service, view, row, query),
  );
}

/** The records for which every filter holds, and the search, in order. */
function spanOf(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  above: Row | null,
  query: ListQuery,
  keys: readonly SortBy[],
): IndexRange {
  if (!(view instanceof Dataset) || resource.via !== null || resource.kind === 'pairing') {
    const rows = narrowed(service, view, candidates(service, view, resource, above), query, query.filters);
    return new IndexRange(ranked(service, view, keys, rows));
  }
  const storage = storageNamed(service, resource.entity);
  const { span, left } = indexed(service, view, storage, query, keys);
  if (left.length === 0 && query.search === null) return span;
  const rows = new Set(narrowed(service, view, span.rows(0, span.length), query, left));
  return span.filter((row) => rows.has(row));
}

function narrowed(
  service: RequestContext,
  view: RecordView,
  rows: Iterable<Row>,
  { search }: ListQuery,
  filters: readonly Filter[],
): readonly Row[] {
  const kept = filtered(service, view, rows, filters);
  return search === null ? kept : kept.filter((row) => isFound(service, view, row, search));
}

function pageObject(
  { contract: { names } }: RequestContext,
  form: PageForm,
  { page: wanted }: ListQuery,
  neighbours: Neighbours,
  total: number,
): Json {
  if (wanted.kind === 'all' || wanted.kind === 'first') return null;
  const { size } = wanted;
  const page = bareObject();
  if (wanted.kind === 'ceiling') {
    page[names.limit] = size;
    page[names.more] = total > size;
  } else if (wanted.kind === 'cursor') {
    page[names.limit] = size;
    page[names.next] = neighbours.next;
    page[names.prev] = neighbours.prev;
  } else if (form.style === 'offset') {
    page[names.offset] = wanted.offset;
    page[names.limit] = size;
  } else {
    page[names.number] = wanted.offset / size + 1;
    page[names.size] = size;
  }
  if (form.totals !== 'body') return page;
  page[names.totalItems] = total;
  if (form.style === 'number') page[names.totalPages] = Math.ceil(total / size);
  return page;
}

function candidates(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  above: Row | null,
): Iterable<Row> {
  const storage = storageNamed(service, resource.entity);
  if (resource.kind === 'pairing') return above === null ? [] : pairedWith(service, view, resource, above);
  if (resource.via === null) return view.all(storage);
  return above === null ? [] : view.pointingAt(storage, resource.via.relationship, above.rid);
}

/** The value of the page parameter at each neighbour; empty where it is left out, `null` where there is none. */
type Neighbours = Readonly<Record<'first' | 'prev' | 'next' | 'last', string | null>>;

const NO_NEIGHBOURS: Neighbours = { first: null, prev: null, next: null, last: null };

function neighboursOf(
  service: RequestContext,
  form: PageForm,
  path: string,
  query: ListQuery,
  { before, behind }: PageRange,
  total: number,
): Neighbours {
  const { page } = query;
  switch (page.kind) {
    case 'all':
    case 'first':
    case 'ceiling':
      return NO_NEIGHBOURS;
    case 'offset': {
      const isNumbered = form.style === 'number';
      const at = (offset: number | null): string | null =>
        offset === null ? null : String(isNumbered ? offset / page.size + 1 : offset);
      const { first, prev, next, last } = offsetsOf(page.offset, page.size, total);
      return { first: at(first), prev: at(prev), next: at(next), last: at(last) };
    }
    case 'cursor': {
      const scope = cursorScope(service, path, query);
      const at = (direction: Cursor['direction'], position: Position | null): string | null =>
        position === null ? null : writeCursor(service, scope, { direction, position });
      return { first: '', prev: at('before', before), next: at('after', behind), last: null };
    }
  }
}

/** How many records come before each neighbour; `null` where there is none. */
function offsetsOf(
  offset: number,
  size: number,
  total: number,
): Readonly<Record<keyof Neighbours, number | null>> {
  const last = total === 0 ? 0 : Math.floor((total - 1) / size) * size;
  return {
    first: 0,
    prev: offset === 0 ? null : Math.max(0, Math.min(offset - size, last)),
    next: offset + size < total ? offset + size : null,
    last,
  };
}

/** What the links of a page are made of. */
interface Listed {
  readonly resource: Resource;
  readonly above: Row | null;
  readonly rows: readonly Row[];
  readonly path: string;
  readonly entries: readonly Parameter[];
  readonly neighbours: Neighbours;
}

function listLink(service: RequestContext, view: RecordView, target: DerivedTarget, listed: Listed): Json {
  const { resource, above, path, entries, neighbours } = listed;
  switch (target.kind) {
    case 'self':
      return { href: path + queryText(entries) };
    case 'about':
      return { href: service.contract.root + target.path };
    case 'page': {
      const value = neighbours[target.page];
      return value === null ? null : { href: path + queryText(atPage(service, resource, entries, value)) };
    }
    case 'resource': {
      const other = indexOf(service).resources.get(target.resource);
      const href = other === undefined ? null : pathTo(service, view, other, above);
      if (href === null) return null;
      return target.query === undefined
        ? { href }
        : { href: `${href}{?${target.query.join(',')}}`, templated: true };
    }
    case 'template': {
      const other = indexOf(service).resources.get(target.resource);
      const href = other === undefined ? null : templateOf(service, view, other, above, target.variables);
      return href === null ? null : { href, templated: true };
    }
    case 'items':
      return itemLinks(service, view, listed.rows);
    case 'reference':
    case 'read':
    case 'filtered':
    case 'owner':
    case 'action':
    case 'custom':
    case 'pair':
    case 'description':
      return null;
  }
}

/** Many clients read no head of more than 16 KiB. */
const MOST_ITEM_LINKS = 8_192;

/** A link to each record, as far as a head holds them; in HAL records carry their own. */
function itemLinks(service: RequestContext, view: RecordView, rows: readonly Row[]): Json {
  if (service.mediaType !== 'application/json') return null;
  const links: Json[] = [];
  let room = MOST_ITEM_LINKS;
  for (const row of rows) {
    const href = canonicalPath(service, view, row);
    if (href === null) continue;
    room -= service.origin.length + href.length + '<>; rel="item", '.length;
    if (room < 0) break;
    links.push({ href });
  }
  return links.length === 0 ? null : links;
}

/** The query of another page: the parameter that says which, and everything else as it was asked. */
function atPage(
  service: RequestContext,
  resource: Resource,
  entries: readonly Parameter[],
  value: string,
): readonly Parameter[] {
  const parameter = listAt(service, resource.id)?.query.find(
    ({ role }) => role === 'page' || role === 'offset' || role === 'cursor',
  );
  if (parameter === undefined) return entries;
  const others = entries.filter(({ name }) => name !== parameter.name);
  return value === '' ? others : [...others, { name: parameter.name, value }];
}

const queryText = (entries: readonly Parameter[]): string =>
  entries.length === 0
    ? ''
    : `?${entries.map(({ name, value }) => `${encodeURIComponent(name)}=${encodeURIComponent(value)}`).join('&')}`;
