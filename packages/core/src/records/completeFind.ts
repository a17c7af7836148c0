import {
  COMPARE_OPERATORS,
  indexModel,
  type AttributeType,
  type EntityStorage,
  type Model,
} from '../model/index.js';
import { nameableMembers } from '../arrangement/index.js';
import { columnsOf } from './columns.js';

/** What the words of a line that looks for records are, one after the other. */
type Expected = 'beginning' | 'member' | 'operator' | 'set' | 'value' | 'after value' | 'key' | 'after key';

const OPERATORS: ReadonlySet<string> = new Set(COMPARE_OPERATORS);

/** Whole lines that what is written can go on to be, in the language of custom operations; none where nothing can follow. */
export function completeFind(model: Model, storage: EntityStorage, text: string): readonly string[] {
  const words = text.split(' ');
  const last = words.pop() ?? '';
  let expected: Expected = 'beginning';
  let member = '';
  for (const word of words.filter((one) => one !== '')) {
    if (expected === 'member') member = word;
    expected = after(expected, word);
  }
  const before = text.slice(0, text.length - last.length);
  const offered = offers(
    expected,
    model,
    storage,
    nameableMembers(indexModel(model), storage.entity),
    member,
  );
  return offered.filter((one) => one !== last && one.startsWith(last)).map((one) => before + one);
}

function after(expected: Expected, word: string): Expected {
  switch (expected) {
    case 'beginning':
    case 'after value':
      return word === 'where' || word === 'and' ? 'member' : word === 'by' ? 'key' : 'after value';
    case 'member':
      return 'operator';
    case 'operator':
      return word === 'is' ? 'set' : 'value';
    case 'set':
    case 'value':
      return 'after value';
    case 'key':
      return word.endsWith(',') ? 'key' : 'after key';
    case 'after key':
      return word.endsWith(',') ? 'key' : 'after key';
  }
}

function offers(
  expected: Expected,
  model: Model,
  storage: EntityStorage,
  members: readonly { readonly id: string; readonly name: string }[],
  member: string,
): readonly string[] {
  const columns = columnsOf(model, storage);
  const comparable = members.filter(({ name }) =>
    columns.some((column) => column.name === name && column.isSorted),
  );
  switch (expected) {
    case 'beginning':
      return ['where', 'by'];
    case 'member':
    case 'key':
      return comparable.map(({ name }) => name);
    case 'operator':
      return [...OPERATORS, 'is'];
    case 'set':
      return ['set', 'unset'];
    case 'value':
      return valuesOf([...storage.attributes, ...storage.computed].find(({ name }) => name === member)?.type);
    case 'after value':
      return ['and', 'by'];
    case 'after key':
      return ['desc'];
  }
}

function valuesOf(type: AttributeType | undefined): readonly string[] {
  switch (type?.kind) {
    case 'choice':
      return type.options.map((option) => (/^[A-Za-z]\w*$/.test(option) ? option : JSON.stringify(option)));
    case 'boolean':
      return ['true', 'false'];
    case 'instant':
    case 'date':
    case 'time':
      return ['now'];
    default:
      return [];
  }
}
