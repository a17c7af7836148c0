import type { HelpEntry } from './entry.js';

export const REVISIONS_HELP = {
  'revisions.latest': {
    title: 'Make this the latest',
    kind: 'action',
    view: 'revisions',
    help: 'Saves this state once more, as the newest revision; those in between stay.',
  },
  'revisions.lines': {
    title: 'Lines of a revision',
    kind: 'column',
    view: 'revisions',
    help: 'Lines of the notation that were added and removed.',
    example: '+3 −1',
  },
} as const satisfies Record<string, HelpEntry>;
