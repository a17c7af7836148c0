import type { HelpEntry } from './entry.js';

export const CONTRACT_HELP = {
  'contract.methods': {
    title: 'Methods of a path',
    kind: 'column',
    view: 'contract',
    help: 'The operation of the method at the path: its effect, and the statuses it succeeds with.',
    example: '● 201',
    standard: 'RFC 9110 §9',
  },
  'contract.name': {
    title: 'name',
    kind: 'column',
    view: 'contract',
    help: 'What a parameter, a header or a member is called in the message.',
    example: '?size=, If-Match, departsAt',
  },
  'contract.type': {
    title: 'type',
    kind: 'column',
    view: 'contract',
    help: 'What it may hold, as the notation writes it.',
    example: 'text(1..60)',
  },
  'contract.in': {
    title: 'in',
    kind: 'column',
    view: 'contract',
    help: 'Whether a request must hold it, may hold it, or holds it in vain.',
  },
  'contract.out': {
    title: 'out',
    kind: 'column',
    view: 'contract',
    help: 'Whether a response holds it.',
  },
  'contract.texts': {
    title: 'What is said of an operation',
    kind: 'action',
    view: 'contract',
    help: 'Press a text to write it, Enter to take it, Escape to leave it; deprecated operations say so at the mock.',
    example: 'Deprecated from 2027-01-31: Deprecation: @1801353600',
    standard: 'RFC 9745, RFC 8594',
  },
  'contract.why': {
    title: 'Why it is there',
    kind: 'action',
    view: 'contract',
    help: 'Shows the rules, settings and statements of the model that the operation follows from.',
  },
  'contract.open': {
    title: 'Open in Mock',
    kind: 'action',
    view: 'contract',
    help: 'Takes the example to the mock as a message that can be changed and sent.',
  },
  'contract.release': {
    title: 'Release',
    kind: 'action',
    view: 'contract',
    help: 'Freezes the contract as it is now under a label; what would break it is a finding from then on.',
    example: '1.0',
  },
  'contract.serve': {
    title: 'Serve it',
    kind: 'action',
    view: 'contract',
    help: 'Serves the release at a mock, beside what comes after it.',
  },
  'contract.remove': {
    title: 'Remove it',
    kind: 'action',
    view: 'contract',
    help: 'Removes the release; nothing is compared with it any more.',
  },
} as const satisfies Record<string, HelpEntry>;
