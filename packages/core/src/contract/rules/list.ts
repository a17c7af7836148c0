import type { Rule } from './rule.js';

export const LIST_RULES = {
  'list.input': {
    title: 'Asked by the client',
    sentence: 'A query may compare with what the request says, of the type of what it meets.',
  },
  'list.query': {
    title: 'Custom query',
    sentence:
      'A query of your own always looks for the same, in the same order, and answers so many at most.',
  },
  'list.page': { title: 'Page', sentence: 'A list is answered page by page.' },
  'list.whole': {
    title: 'Whole',
    sentence: 'A list without pages is answered as a whole, however long it is.',
  },
  'list.total': {
    title: 'Total',
    sentence: 'The number of all records is told in the body, in a header, or not counted.',
  },
  'list.sort': {
    title: 'Sort',
    sentence: 'A list can be sorted by each returned scalar, unless chosen otherwise; the key breaks ties.',
  },
  'list.filter': {
    title: 'Filter',
    sentence: 'A list can be narrowed by comparing what it returns with given values.',
  },
  'list.filter-style': {
    title: 'How filters are written',
    sentence: 'Equality is written plainly; how other comparisons name their operator is chosen.',
  },
  'list.through': {
    title: 'Filter through a role',
    sentence:
      'A list can be narrowed by what its records point at, the roles that lead there before the member.',
  },
  'list.order': {
    title: 'Sorted by',
    sentence: 'Where nobody asks for an order, a list has the one that was chosen, else that of the key.',
  },
  'list.search': {
    title: 'Search',
    sentence: 'A search keeps records that hold a text in one of the members it looks at.',
  },
  'list.fields': {
    title: 'Sparse fields',
    sentence: 'A request can name the members it wants; the others are left out.',
  },
  'list.unknown': {
    title: 'Unknown parameter',
    sentence: 'A query parameter that the operation does not have is refused.',
  },
} as const satisfies Record<string, Rule>;
