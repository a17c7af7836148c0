import type { Rule } from './rule.js';

export const FINDING_RULES = {
  'finding.lost-documentation': {
    title: 'Said of nothing',
    sentence: 'What is said of something outlives it, and waits to be said of something else.',
  },
  'finding.dangling-documentation': {
    title: 'Links to no operation',
    sentence: 'A text links to operations by their names, and says what to use in the place of another.',
  },
  'finding.unfit-example': {
    title: 'An example does not fit',
    sentence: 'An example is answered as it was when it was kept, or it is told.',
  },
  'finding.undocumented': {
    title: 'Not documented',
    sentence: 'Where it is asked for, what is published is documented by somebody.',
  },
  'finding.unfit-link': {
    title: 'A link leads nowhere',
    sentence: 'A link of your own names only what the model has and this arrangement offers.',
  },
  'finding.idle-link': {
    title: 'Decided about no link',
    sentence: 'What is decided about a link has an effect only while that link is derived.',
  },
  'finding.unreachable': {
    title: 'Nothing leads here',
    sentence: 'What is offered is reached from the entry by links alone, unless one was left out.',
  },
  'finding.dead-end-links': {
    title: 'A dead end',
    sentence: 'An answer whose links were left out leads a client nowhere.',
  },
  'finding.links-off': {
    title: 'Links are off',
    sentence: 'Without links a client must know paths beforehand, and breaks when they move.',
  },
  'finding.breaks': {
    title: 'Breaks a release',
    sentence: 'What a release takes and answers goes on being taken and answered under its version.',
  },
  'finding.unfit': {
    title: 'Does not fit the model',
    sentence: 'An operation of your own that the model does not allow as it was told is left out.',
  },
  'finding.repeats': {
    title: 'Said twice',
    sentence: 'An operation of your own that does what a derived one does already need not be there.',
  },
  'finding.guarded': {
    title: 'Credentials to get credentials',
    sentence: 'Whoever signs in has no credentials yet, so that signing in asks for none.',
  },
  'finding.tells': {
    title: 'Tells of others',
    sentence: 'What is computed from other records tells of them, also to those who may not read them.',
  },
  'finding.one': {
    title: 'A list of one',
    sentence: 'What is one at most can be answered as that one, or as not there.',
  },
  'finding.shadows': {
    title: 'Shadows an id',
    sentence: 'A literal segment wins over an id, so that an id of that text cannot be reached.',
  },
  'finding.mixed': {
    title: 'Plural and singular',
    sentence: 'Collections are named alike: all by the plural, or all by the singular.',
  },
  'finding.kept-plural': {
    title: 'A plural of before',
    sentence: 'A design keeps the plurals it had when the rules of English nouns were put right.',
  },
  'finding.left-out': {
    title: 'Left out and missed',
    sentence: 'What is left out may be what others need: to be listed, made, moved or removed.',
  },
  'finding.withheld': {
    title: 'Create withheld',
    sentence: 'A collection offers no create while something required is neither accepted nor made.',
  },
  'finding.unlinked': {
    title: 'No way to them',
    sentence:
      'What stands beside its owner is found from it only by a filter, which its list does not offer.',
  },
  'finding.order': {
    title: 'No such order',
    sentence: 'A list is sorted only by members that its answers show and that can be compared.',
  },
  'finding.dead-end': {
    title: 'No way on',
    sentence: 'A bare list without links does not tell how its next page is asked for.',
  },
  'finding.verb': {
    title: 'A verb in a path',
    sentence: 'A path names things; what is done with them is said by the method.',
  },
  'finding.unseen': {
    title: 'Never seen',
    sentence: 'What is accepted and never returned, though no secret, may have been forgotten.',
  },
  'finding.collision': {
    title: 'Names collide',
    sentence: 'Two elements would have one name; the second is left out.',
  },
  'finding.leftover': {
    title: 'Left over',
    sentence: 'An entity that nothing joins to others, or a value that nothing has, may have been forgotten.',
  },
  'finding.constant': {
    title: 'A condition that says nothing',
    sentence: 'A comparison that holds for every value there can be, or for none, decides nothing.',
  },
  'finding.impossible': { title: 'No create', sentence: 'No record could ever be created here.' },
} as const satisfies Record<string, Rule>;
