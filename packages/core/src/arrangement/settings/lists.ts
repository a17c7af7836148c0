import { FOR_ONE_RESOURCE, FOR_OPERATION, FOR_RESOURCE, list, name, options } from './row.js';

export const LISTS = {
  filterStyle: options({
    default: 'bracketed',
    options: ['bracketed', 'plain', 'none'],
    title: 'Filters',
    help: 'How lists are filtered: ?name=… and ?name%5Bcontains%5D=…, equality alone, or not at all.',
    levels: FOR_RESOURCE,
  }),
  filterThrough: options({
    default: 'off',
    options: ['off', 'on'],
    title: 'Filters through roles',
    help: 'Whether a list can be filtered by members of what its records point at: ?vessel.name=….',
    levels: FOR_RESOURCE,
    when: [{ setting: 'filterStyle', is: ['bracketed', 'plain'] }],
  }),
  sortStyle: options({
    default: 'minus',
    options: ['minus', 'suffix', 'none'],
    title: 'Sort keys',
    help: 'How a descending key is written: ?sort=-name or ?sort=name:desc; or lists cannot be sorted.',
    levels: FOR_RESOURCE,
  }),
  defaultSort: list({
    default: [],
    title: 'Sorted by',
    help: 'How the list is sorted where nobody asks: -departsAt, then berth; the key breaks ties.',
    items: /^-?[A-Za-z][\w-]{0,60}$/,
    min: 0,
    max: 5,
    empty: 'the key',
    expected: 'up to five members, each once, with - in front for descending',
    levels: FOR_ONE_RESOURCE,
  }),
  search: options({
    default: 'off',
    options: ['off', 'on'],
    title: 'Search',
    help: 'Whether a list can be searched for a text in several members at once: ?q=fog.',
    levels: FOR_RESOURCE,
  }),
  unknownParameters: options({
    default: 'refused',
    options: ['refused', 'ignored'],
    title: 'Unknown parameter',
    help: 'A query parameter that means nothing is a mistake (400), or passed over.',
    levels: FOR_OPERATION,
  }),
  sortParameter: name({
    default: 'sort',
    title: 'Sort parameter',
    help: 'The query parameter with the keys to sort by: ?sort=name.',
    when: [{ setting: 'sortStyle', is: ['minus', 'suffix'] }],
  }),
  searchParameter: name({
    default: 'q',
    title: 'Search parameter',
    help: 'The query parameter with the text to look for: ?q=fog.',
    when: [{ setting: 'search', is: ['on'] }],
  }),
};
