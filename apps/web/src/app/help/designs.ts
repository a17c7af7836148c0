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
} as const satisfies Record<string, HelpEntry>;
