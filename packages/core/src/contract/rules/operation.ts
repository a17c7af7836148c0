import type { Rule } from './rule.js';

export const OPERATION_RULES = {
  'operation.documented': {
    title: 'Documented',
    sentence: 'What is said of an operation takes the place of what would be derived.',
  },
  'operation.custom': {
    title: 'Custom operation',
    sentence: 'An operation of your own does what it was told: it assigns values, or makes a related record.',
  },
  'operation.many': {
    title: 'On many',
    sentence: 'An action on many is done to all of its records or, where one does not allow it, to none.',
  },
  'operation.verify': {
    title: 'Verify',
    sentence: 'What is sent must equal attributes of one record; it is never told which of it did not.',
  },
  'operation.revoke': {
    title: 'Revoke',
    sentence: 'A token holds until it ends, or is ended by whoever has it.',
  },
  'operation.caller': {
    title: 'The caller',
    sentence: 'The record that a token was handed out for is read without its id, by whoever has the token.',
  },
  'operation.fixed': {
    title: 'Fixed answer',
    sentence: 'A fixed answer is the same for everybody, but for the moment of the request.',
  },
  'operation.aggregate': {
    title: 'Aggregate',
    sentence:
      'What some records have can be read taken together: counted, summed, or the least, greatest or average.',
  },
  'operation.attach': {
    title: 'Attach',
    sentence: 'A pair is made by PUT, and made once however often it is asked for.',
  },
  'operation.detach': { title: 'Detach', sentence: 'A pair is ended by DELETE; both sides stay.' },
  'operation.transition': {
    title: 'Transition',
    sentence: 'A transition is carried out by POST and answers the item as it is then.',
  },
  'operation.list': { title: 'List', sentence: 'A collection can be listed.' },
  'operation.read': { title: 'Read', sentence: 'An item can be read.' },
  'operation.create': { title: 'Create', sentence: 'A collection takes new items by POST.' },
  'operation.replace': { title: 'Replace', sentence: 'An item can be replaced as a whole by PUT.' },
  'operation.change': { title: 'Change', sentence: 'An item can be changed in part by PATCH.' },
  'operation.remove': { title: 'Remove', sentence: 'An item can be removed by DELETE.' },
  'operation.left-out': {
    title: 'Left out',
    sentence: 'What is left out is not offered: its method answers 405, and no link leads to it.',
  },
  'operation.own-name': { title: 'Its own name', sentence: 'An operation is called as it was told.' },
  'operation.put-creates': {
    title: 'Made by PUT',
    sentence:
      'An empty slot is filled by the first PUT; where the client assigns keys, PUT to a key that nothing has makes the item (RFC 9110 §9.3.4).',
  },
  'operation.name': { title: 'Operation name', sentence: 'An operation is named by its verb and its noun.' },
  'operation.unnameable': {
    title: 'Named by its owner',
    sentence: 'Where two operations would have one name, the name of the owner tells them apart.',
  },
} as const satisfies Record<string, Rule>;
