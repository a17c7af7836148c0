import type { Rule } from './rule.js';

export const PLACE_RULES = {
  'place.inline': {
    title: 'Inside its owner',
    sentence:
      'What is placed inline has no path: it is shown inside its owner, and written with it in one step.',
  },
  'place.inline-reference': {
    title: 'Shown with what it points at',
    sentence: 'What a reference placed inline points at is shown inside the answer, beside its key.',
  },
  'place.custom': {
    title: 'Custom operation',
    sentence:
      'An operation of your own has a path below the collection it looks through, or the item it acts on.',
  },
  'place.caller': {
    title: 'The caller',
    sentence: 'What is read for whoever calls stands at the root, beside the address of the record.',
  },
  'place.fixed': { title: 'Fixed answer', sentence: 'A fixed answer stands at the root.' },
  'place.entry': {
    title: 'Entry',
    sentence:
      'Every contract has one entry at its root, which links to everything that can be reached first.',
  },
  'place.root': {
    title: 'Stands alone',
    sentence: 'An entity that nothing owns has a collection at the root, and its items below it.',
  },
  'place.single': {
    title: 'Only one',
    sentence:
      'What there is one of stands at the root without an id, is there from the start, and always stays.',
  },
  'place.nested': {
    title: 'Owned',
    sentence: 'What an entity owns many of has a collection below each owner, and its items below that.',
  },
  'place.shallow': {
    title: 'Listed under its owner',
    sentence:
      'What is placed shallow is listed and created below its owner, while its items stand at the root.',
  },
  'place.flat': {
    title: 'Beside its owner',
    sentence:
      'What is placed flat stands at the root as a whole; its owner is named in the body that creates it.',
  },
  'place.both': {
    title: 'Also at the root',
    sentence: 'What is placed both ways stands below its owner, and can be listed and read at the root too.',
  },
  'place.unreachable': {
    title: 'Out of reach',
    sentence: 'What stands below something without a path has no path either.',
  },
  'place.keyless-owner': {
    title: 'Owner without id',
    sentence: 'What is owned by a record without an id of its own cannot name it, so it stays below it.',
  },
  'place.depth': {
    title: 'Depth',
    sentence: 'A path holds no more ids than the depth allows, so these items stand at the root.',
  },
  'place.scoped': {
    title: 'Key under its owner',
    sentence:
      'A key that is unique only under its owner says nothing without it, so the items stay below the owner.',
  },
  'place.tree': {
    title: 'Owns its own kind',
    sentence:
      'An entity that owns many of itself has all its items at the root and a list of children below each.',
  },
  'place.singleton': {
    title: 'Slot',
    sentence: 'What an entity owns one of stands directly below it, without an id of its own.',
  },
  'place.back': {
    title: 'Way back',
    sentence: 'A reference with a way back gives the entity it points at a list of those that point at it.',
  },
  'place.read': {
    title: 'Read through its reference',
    sentence: 'What a record points at can be read below it, with the one address it has elsewhere told.',
  },
  'place.pairing': {
    title: 'Paired',
    sentence: 'What an entity pairs with is listed below it, and each pair stands below that.',
  },
  'place.pairing-back': {
    title: 'Way back of a pairing',
    sentence: 'A pairing with a way back gives the other side a list of those it is paired with.',
  },
  'place.pairing-far': {
    title: 'Paired from the other side',
    sentence:
      'A pairing can be kept from the other side: there it is listed, and each pair stands below that.',
  },
  'place.change': {
    title: 'Moved by a change',
    sentence: 'A transition that is no action is carried out by changing its attribute, under the same rule.',
  },
  'place.action': {
    title: 'Transition',
    sentence: 'A transition of a life cycle is an action below the item.',
  },
} as const satisfies Record<string, Rule>;
