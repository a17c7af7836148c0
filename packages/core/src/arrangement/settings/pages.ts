import { FOR_ARRANGEMENT, FOR_RESOURCE, integer, name, options, text, type Effective } from './row.js';

/** A field name (RFC 9110 §5.1) that no standard gives a meaning which answers here have. */
const HEADER_OF_OURS =
  /^(?!(?:accept|access|age|allow|authorization|cache|connection|content|cookie|date|deprecation|etag|expires|host|if|keep|last|link|location|preference|prefer|range|retry|server|set|sunset|te|trailer|transfer|upgrade|vary|via|warning|www)(?:-|$))[A-Za-z][A-Za-z0-9-]{0,39}$/i;

const PAGED: readonly Effective[] = [{ setting: 'pageStyle', is: ['number', 'offset', 'cursor'] }];
const NUMBERED: readonly Effective[] = [{ setting: 'pageStyle', is: ['number'] }];

export const PAGES = {
  pageStyle: options({
    default: 'number',
    options: ['number', 'offset', 'cursor', 'ceiling', 'none'],
    title: 'Pages',
    help: 'How a page of a list is asked for: ?page=2, ?offset=20, an opaque ?cursor=…, or none: all at once, up to a ceiling or not.',
    levels: FOR_RESOURCE,
  }),
  pageSize: integer({
    default: 20,
    min: 1,
    max: 10_000,
    title: 'Page size',
    help: 'How many records come in a page where the request does not say.',
    levels: FOR_RESOURCE,
    when: PAGED,
  }),
  maxPageSize: integer({
    default: 100,
    min: 1,
    max: 10_000,
    title: 'Largest page size',
    help: 'The most records that a request may ask for in one page.',
    levels: FOR_RESOURCE,
    when: PAGED,
  }),
  ceiling: integer({
    default: 500,
    min: 1,
    max: 10_000,
    title: 'Ceiling',
    help: 'The most records of a list without pages; it says whether there are more.',
    levels: FOR_RESOURCE,
    when: [{ setting: 'pageStyle', is: ['ceiling'] }],
  }),
  oversize: options({
    default: 'refused',
    options: ['refused', 'clamped'],
    title: 'Page above the largest',
    help: 'A page larger than the largest is refused (400), or answered as large as that.',
    levels: FOR_RESOURCE,
    when: PAGED,
  }),
  totals: options({
    default: 'body',
    options: ['body', 'header', 'none'],
    title: 'Totals',
    help: 'Where the number of all records is told: in the body, in a header, or not at all; a bare list tells it in the header.',
    levels: FOR_RESOURCE,
  }),
  totalHeader: text({
    default: 'Total-Count',
    title: 'Header of the total',
    help: 'The response header that tells the number of all records: Total-Count: 120.',
    pattern: HEADER_OF_OURS,
    expected: 'a header name such as Total-Count, none that HTTP gives a meaning',
    levels: FOR_ARRANGEMENT,
    when: [{ setting: 'totals', is: ['body', 'header'] }],
  }),
  moreHeader: text({
    default: 'More-Items',
    title: 'Header of a ceiling',
    help: 'The response header by which a bare list with a ceiling says whether there are more: More-Items: ?1 (RFC 9651 §3.3.6).',
    pattern: HEADER_OF_OURS,
    expected: 'a header name such as More-Items, none that HTTP gives a meaning',
    levels: FOR_ARRANGEMENT,
    when: [{ setting: 'pageStyle', is: ['ceiling'] }],
  }),
  pageParameter: name({
    default: 'page',
    title: 'Page parameter',
    help: 'The query parameter with the number of the page, from 1: ?page=2.',
    when: NUMBERED,
  }),
  sizeParameter: name({
    default: 'size',
    title: 'Size parameter',
    help: 'The query parameter with the number of records in a page: ?size=50.',
    when: NUMBERED,
  }),
  offsetParameter: name({
    default: 'offset',
    title: 'Offset parameter',
    help: 'The query parameter with how many records come before the page: ?offset=40.',
    when: [{ setting: 'pageStyle', is: ['offset'] }],
  }),
  limitParameter: name({
    default: 'limit',
    title: 'Limit parameter',
    help: 'The query parameter with the most records of a page: ?limit=50.',
    when: [{ setting: 'pageStyle', is: ['offset', 'cursor'] }],
  }),
  cursorParameter: name({
    default: 'cursor',
    title: 'Cursor parameter',
    help: 'The query parameter with where a page begins, as the page before told it.',
    when: [{ setting: 'pageStyle', is: ['cursor'] }],
  }),
};
