import type { HelpEntry } from './entry.js';

export const MOCK_HELP = {
  'mock.copy': {
    title: 'Copy',
    kind: 'action',
    view: 'mock',
    help: 'Copies the base URL.',
    example: 'http://127.0.0.1:4811/api/v1',
  },
  'mock.run': {
    title: 'Start, Stop',
    kind: 'action',
    view: 'mock',
    help: 'Opens or closes the ports of the mock; its records stay.',
  },
  'mock.records': {
    title: 'Records',
    kind: 'action',
    view: 'mock',
    help: 'Looks through the records, exports and imports them, and says how many are wanted when they are seeded.',
  },
  'mock.firstRecords': {
    title: 'First records',
    kind: 'action',
    view: 'mock',
    help: 'What a mock begins with and a reset goes back to: the initial records of the design, brought to its newest model, or records that are seeded from a number.',
  },
  'mock.removeInitial': {
    title: 'Remove the initial records',
    kind: 'action',
    view: 'mock',
    help: 'Takes the initial records away from the design, write-only values included; its mocks are seeded from the next reset on.',
  },
  'mock.example': {
    title: 'Use as example',
    kind: 'action',
    view: 'mock',
    help: 'Writes the value into the model as the example of its attribute, which documents and seed records show.',
    example: 'code: text(3), key, example "KSH"',
  },
  'mock.load': {
    title: 'Load',
    kind: 'action',
    view: 'mock',
    help: 'Shows how much was answered in the last ten minutes, with what status, how fast, and what it took.',
  },
  'mock.undo': {
    title: 'Undo',
    kind: 'action',
    view: 'mock',
    help: 'Takes the latest write back, as a write of its own.',
    example: 'a removed route, with everything that went with it',
  },
  'mock.faults': {
    title: 'Faults',
    kind: 'action',
    view: 'mock',
    help: 'Makes operations slow, failing or silent as often as you say.',
    example: 'all: 50..400 ms, 503 5%',
  },
  'mock.snapshots': {
    title: 'Snapshots',
    kind: 'action',
    view: 'mock',
    help: 'Keeps the records as they are under a name, and restores them.',
  },
  'mock.reset': {
    title: 'Reset',
    kind: 'action',
    view: 'mock',
    help: 'Removes all records and begins anew: with the initial records of the design, or with seed records, of which the same seed gives the same.',
  },
  'mock.remove': {
    title: 'Remove',
    kind: 'action',
    view: 'mock',
    help: 'Removes the mock with its records; the design stays.',
  },
  'mock.knows': {
    title: 'Knows',
    kind: 'column',
    view: 'mock',
    help: 'Whom the mock lets in, where the arrangement asks who sends.',
    example: 'user:user-secret',
    standard: 'RFC 9110 §11.6.2',
  },
  'mock.revision': {
    title: 'Serves, revision',
    kind: 'column',
    view: 'mock',
    help: 'The revision of the design that is served: the newest one without errors that the records agree with.',
  },
} as const satisfies Record<string, HelpEntry>;
