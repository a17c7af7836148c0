import { appendAll, isJsonObject, type Json } from '../model/index.js';
import { MOST_ARRANGEMENTS, NO_CHOICES, type Choices } from './choices.js';
import { PART_NAMES, partNamed, PARTS, type ArrangementChoices } from './parts/index.js';
import { wrong } from './parts/part.js';
import { readLevel } from './parts/settings.js';
import { choiceProblem, unknownMembers, type ChoiceProblem, type ReadResult } from './reading.js';
import type { SettingValues } from './settings/values.js';

/** The name of an arrangement: it stands in addresses, and people read it. */
export const ARRANGEMENT_NAME = /^[\p{L}\p{N}](?:[\p{L}\p{N} ._-]{0,58}[\p{L}\p{N}])?$/u;
const EXPECTED_NAME =
  'Expected a name of 1 to 60 letters, digits, spaces, dots, hyphens or underscores, with a letter or digit at both ends.';

/** Reads what was decided about a design; everything wrong with it is reported at once. */
export function readChoices(given: Json | undefined, pointer: string): ReadResult<Choices> {
  if (given === undefined) return { value: NO_CHOICES, problems: [] };
  if (!isJsonObject(given)) return wrong(NO_CHOICES, pointer, 'Expected an object.');
  const { settings, arrangements, answered, ...others } = given;
  const design = settings === undefined ? NO_SETTINGS : readLevel(settings, `${pointer}/settings`, 'design');
  const own = readArrangements(arrangements, `${pointer}/arrangements`);
  const agreed = readAnswered(answered, `${pointer}/answered`);
  return {
    value: { settings: design.value, arrangements: own.value, answered: agreed.value },
    problems: [
      ...unknownMembers(others, pointer, 'Choices have'),
      ...design.problems,
      ...own.problems,
      ...agreed.problems,
    ],
  };
}

const NO_SETTINGS: ReadResult<SettingValues> = { value: {}, problems: [] };

function readAnswered(given: Json | undefined, pointer: string): ReadResult<readonly string[]> {
  if (given === undefined) return { value: [], problems: [] };
  const texts = Array.isArray(given) && given.every((id) => typeof id === 'string') ? given : null;
  if (texts === null) return wrong([], pointer, 'Expected an array of ids of assumptions.');
  return { value: [...new Set(texts as readonly string[])], problems: [] };
}

function readArrangements(given: Json | undefined, pointer: string): ReadResult<Choices['arrangements']> {
  if (given === undefined) return { value: NO_CHOICES.arrangements, problems: [] };
  if (!Array.isArray(given) || given.length === 0 || given.length > MOST_ARRANGEMENTS)
    return wrong(
      NO_CHOICES.arrangements,
      pointer,
      `Expected an array of 1 to ${MOST_ARRANGEMENTS} arrangements.`,
    );
  const names = new Set<string>();
  const value: ArrangementChoices[] = [];
  const problems: ChoiceProblem[] = [];
  for (const [index, item] of (given as readonly Json[]).entries()) {
    const at = `${pointer}/${index}`;
    const name = isJsonObject(item) ? item['name'] : undefined;
    if (typeof name !== 'string' || !isJsonObject(item)) {
      problems.push(choiceProblem(at, 'type', 'Expected an object with a name.'));
      continue;
    }
    if (names.has(name)) problems.push(choiceProblem(at, 'duplicate', `There are two arrangements ${name}.`));
    names.add(name);
    const { name: _read, ...parts } = item;
    const read = readArrangement(name, parts, at);
    value.push(read.value);
    appendAll(problems, read.problems);
  }
  return { value, problems };
}

/** Reads what was decided about one arrangement. Parts that are left out are empty. */
export function readArrangement(
  name: string,
  given: Readonly<Record<string, Json>>,
  pointer: string,
): ReadResult<ArrangementChoices> {
  const read = PART_NAMES.map((part) => {
    const own = Object.hasOwn(given, part) ? given[part] : undefined;
    const { empty, read: readPart } = partNamed(part);
    return [
      part,
      own === undefined ? { value: empty, problems: [] } : readPart(own, `${pointer}/${part}`),
    ] as const;
  });
  const others = Object.entries(given).filter(([member]) => !Object.hasOwn(PARTS, member));
  const parts = Object.fromEntries(read.map(([part, { value }]) => [part, value])) as Omit<
    ArrangementChoices,
    'name'
  >;
  return {
    value: { name, ...parts },
    problems: [
      ...(ARRANGEMENT_NAME.test(name) ? [] : [choiceProblem(`${pointer}/name`, 'pattern', EXPECTED_NAME)]),
      ...unknownMembers(Object.fromEntries(others), pointer, 'An arrangement has'),
      ...read.flatMap(([, { problems }]) => problems),
    ],
  };
}
