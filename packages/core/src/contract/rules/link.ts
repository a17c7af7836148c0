import type { Rule } from './rule.js';

export const LINK_RULES = {
  'link.chosen': {
    title: 'Chosen',
    sentence: 'A derived link can be left out, put under another relation, or told more of.',
  },
  'link.api': {
    title: 'Of the API itself',
    sentence:
      'Answers can say how they are described (RFC 8288, 6906), and the entry what holds for all of it (RFC 8631).',
  },
  'link.own': {
    title: 'Of your own',
    sentence:
      'A link of your own leads to an operation, to a record some roles away, or elsewhere, while its condition holds.',
  },
  'link.custom': {
    title: 'To an operation of your own',
    sentence: 'An operation of your own is a link named by it, offered only while its condition allows it.',
  },
  'link.self': { title: 'Self', sentence: 'A representation links to its own canonical address.' },
  'link.up': { title: 'Up', sentence: 'What is owned links to its owner.' },
  'link.collection': { title: 'Collection', sentence: 'An item links to the collection it is listed in.' },
  'link.role': { title: 'By role', sentence: 'A relationship is a link named by its role.' },
  'link.template': {
    title: 'Any item',
    sentence: 'A list beside the one address of its records says how to read one there by its id.',
  },
  'link.item': {
    title: 'To each item',
    sentence:
      'Where links travel in headers, a list says how its items are read: by a template (RFC 9652), or a link each.',
  },
  'link.filtered': {
    title: 'To a narrowed list',
    sentence: 'What stands beside its owner is found from it by a list narrowed to that owner.',
  },
  'link.back': { title: 'By way back', sentence: 'A way back is a link named by its role.' },
  'link.entry': { title: 'From the entry', sentence: 'The entry links to every collection at the root.' },
  'link.action': {
    title: 'By transition',
    sentence: 'A transition is a link named by it, offered only while state and condition allow it.',
  },
  'link.edit': {
    title: 'Pair',
    sentence: 'A paired record links to its pair, where it is changed or ended.',
  },
  'link.page': { title: 'Pages', sentence: 'A page links to its neighbours and to both ends.' },
  'link.description': {
    title: 'Description',
    sentence: 'The entry links to the published description (RFC 8631).',
  },
} as const satisfies Record<string, Rule>;
