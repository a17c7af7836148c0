import {
  FOR_ARRANGEMENT,
  FOR_ONE_OPERATION,
  FOR_RESOURCE,
  list,
  options,
  text,
  type TextRow,
} from './row.js';

/** What can be left out: every operation but that of the entry. A query is a custom operation that only reads. */
export const LEAVABLE = [
  'list',
  'read',
  'create',
  'replace',
  'change',
  'remove',
  'attach',
  'detach',
  'transition',
  'query',
  'custom',
] as const;

export type Leavable = (typeof LEAVABLE)[number];

/** The house's word for what an operation does. */
const word = (verb: string, example: string): TextRow =>
  text({
    default: verb,
    title: `Word for ${verb}`,
    help: `What the names of operations that ${verb} begin with: ${verb}${example}.`,
    pattern: /^[a-z][A-Za-z0-9]{0,29}$/,
    expected: `a word in camelCase, such as ${verb}`,
    levels: FOR_ARRANGEMENT,
  });

export const OPERATIONS = {
  leftOut: list({
    default: [],
    title: 'Left out',
    help: 'Operations that are not offered: their method answers 405, and nothing leads to them (RFC 9110 §15.5.6).',
    items: LEAVABLE,
    min: 0,
    max: LEAVABLE.length,
    empty: 'none',
    expected: `some of ${LEAVABLE.join(', ')}, each once`,
    levels: FOR_RESOURCE,
  }),
  operationName: text({
    default: '',
    title: 'Name of the operation',
    help: 'What this one operation is called, in the published document and here: findBerth.',
    pattern: /^(?:[A-Za-z][\w.-]{0,79})?$/,
    expected: 'a name of letters, digits, . - or _ that begins with a letter, such as findBerth',
    empty: 'by its verb and its noun',
    levels: FOR_ONE_OPERATION,
  }),
  listWord: word('list', 'Routes'),
  readWord: word('read', 'Route'),
  createWord: word('create', 'Route'),
  replaceWord: word('replace', 'Route'),
  changeWord: word('change', 'Route'),
  removeWord: word('remove', 'Route'),
  neverRemoved: options({
    default: 'passed over',
    options: ['passed over', 'reported'],
    title: 'Made and never removed',
    help: 'Whether a finding tells of records that can be made and never be removed, where remove is left out.',
    levels: FOR_ARRANGEMENT,
  }),
};

/** What is left out together, in one step. */
export const OPERATION_BUNDLES: readonly {
  readonly title: string;
  readonly help: string;
  readonly leftOut: readonly Leavable[];
}[] = [
  {
    title: 'read only',
    help: 'Records are listed and read; nothing writes them.',
    leftOut: ['create', 'replace', 'change', 'remove', 'attach', 'detach', 'transition', 'custom'],
  },
  {
    title: 'append only',
    help: 'Records are made, listed and read; none is changed or removed afterwards.',
    leftOut: ['replace', 'change', 'remove', 'detach', 'transition', 'custom'],
  },
  {
    title: 'no replace',
    help: 'Records are changed in part, by PATCH; none is replaced as a whole.',
    leftOut: ['replace'],
  },
  { title: 'everything', help: 'Whatever the model and its placement allow is offered.', leftOut: [] },
];
