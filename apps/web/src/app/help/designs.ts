import type { HelpEntry } from './entry.js';

export const DESIGNS_HELP = {
  'designs.tree': {
    title: 'Path tree, all to one scale',
    kind: 'column',
    view: '',
    help: 'Every path of the design as a bar, as far in as it is nested, so that designs can be told apart.',
  },
  'designs.findings': {
    title: 'Findings',
    kind: 'column',
    view: '',
    help: 'How many things of its contract are wrong or doubtful.',
    example: '2 errors, 1 doubtful',
  },
  'designs.mock': {
    title: 'Mock',
    kind: 'column',
    view: '',
    help: 'The port a mock of the design listens on, where one runs.',
    example: ':4811',
  },
  'designs.changed': {
    title: 'Changed',
    kind: 'column',
    view: '',
    help: 'When the design was saved last.',
  },
  'designs.begin': {
    title: 'Begin',
    kind: 'action',
    view: '',
    help: 'Begins an empty design and opens it, under the name beside it or as New design.',
  },
  'designs.rename': {
    title: 'Rename a design',
    kind: 'action',
    view: '',
    help: 'Changes what the design is called; its revisions, releases and mocks stay.',
  },
  'designs.copy': {
    title: 'Copy a design',
    kind: 'action',
    view: '',
    help: 'Makes another design of the text, the decisions and the initial records as they are; releases and mocks stay with the first.',
  },
  'designs.file': {
    title: 'File',
    kind: 'action',
    view: '',
    help: 'Downloads the design as one file, from which it can be begun again, its initial records and their write-only values included; ?records=false leaves these out.',
    example: 'kestrel-sound-ferries.isomeros.json',
  },
  'designs.remove': {
    title: 'Remove a design',
    kind: 'action',
    view: '',
    help: 'Removes the design and stops its mocks; it can be brought back at once.',
  },
  'designs.seedWith': {
    title: 'Seed with these records',
    kind: 'action',
    view: '',
    help: 'Keeps the records of the source with the design as its initial records: mocks begin with them and go back to them at a reset; their ids stay their keys.',
  },
  'designs.keep': {
    title: 'Keep as a design',
    kind: 'action',
    view: '',
    help: 'Makes a design of what was read, with the answers that were given; nothing was kept before.',
  },
} as const satisfies Record<string, HelpEntry>;
