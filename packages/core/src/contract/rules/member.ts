import type { Rule } from './rule.js';

export const MEMBER_RULES = {
  'member.attribute': { title: 'Attribute', sentence: 'An attribute is a member of the representation.' },
  'member.generated': {
    title: 'Made by the server',
    sentence: 'What the server makes is returned and never accepted.',
  },
  'member.read-only': {
    title: 'Read-only',
    sentence: 'A read-only attribute is returned and never accepted.',
  },
  'member.write-only': {
    title: 'Write-only',
    sentence: 'A write-only attribute is accepted and never returned.',
  },
  'member.fixed': { title: 'Fixed', sentence: 'A fixed attribute is accepted on create and never changes.' },
  'member.computed': {
    title: 'Computed',
    sentence: 'What is computed from others is answered, and neither sent nor stored.',
  },
  'member.touched': { title: 'Touched', sentence: 'The server sets a touched instant at every change.' },
  'member.key': { title: 'Key', sentence: 'The key is the id of a record; it is given once.' },
  'member.implicit-id': { title: 'Implicit id', sentence: 'An entity without a key has a counted id.' },
  'member.reference': {
    title: 'Reference',
    sentence: 'A reference is a member that holds the key of its target.',
  },
  'member.owner': {
    title: 'Owner',
    sentence: 'The owner comes from the path, is returned, and never changes.',
  },
  'member.owner-named': {
    title: 'Owner named',
    sentence: 'What stands beside its owner names it when it is created, and never changes it.',
  },
  'member.slot': {
    title: 'Made with its owner',
    sentence: 'What must exist from the start is made in the body that creates its owner.',
  },
  'member.links': {
    title: 'Links',
    sentence: 'A representation in plain JSON carries its links in a links object, unless chosen otherwise.',
  },
  'member.hal-links': {
    title: 'Links in HAL',
    sentence: 'What was read as HAL can be sent back with its links, which have no effect.',
  },
  'member.life-cycle': {
    title: 'Life cycle',
    sentence: 'An attribute with a life cycle begins at its default and moves by its transitions only.',
  },
  'member.carried': {
    title: 'Carried',
    sentence: 'A listed member shows what its pair carries, in a member named after the value.',
  },
  'member.expanded': {
    title: 'Inside, where asked for',
    sentence: 'What a record links to can be answered inside it, where the request asks for that.',
  },
  'member.value': { title: 'Value', sentence: 'A value is an object inside the representation.' },
  'member.called': {
    title: 'Called otherwise',
    sentence: 'A member can be called otherwise than what it shows is in the model.',
  },
  'member.exposed': {
    title: 'Chosen in the grid',
    sentence: 'What goes in and what comes out of a member can be chosen within what the model allows.',
  },
  'member.input': {
    title: 'Accepted, not stored',
    sentence: 'What is accepted beside a record is checked with it, and stored nowhere.',
  },
  'member.required': { title: 'Required', sentence: 'A required attribute without a default must be sent.' },
} as const satisfies Record<string, Rule>;
