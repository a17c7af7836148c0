import { appendAll, isJsonObject, type Json } from '../model/index.js';
import {
  FIRST_ARRANGEMENT,
  MOST_ARRANGEMENTS,
  NO_CHOICES,
  plainArrangement,
  type ArrangementChoices,
  type Choices,
} from './choices.js';
import type { ChoiceLevel } from './settings/row.js';
import { ASPECTS, ASPECT_VALUES, FILTER_OPERATORS, type ExposureChoice, type Exposures } from './exposure.js';
import { isPlace, PLACES, type Place, type Placements } from './placements.js';
import { readCustoms } from './readCustoms.js';
import { escapePointer, problem, unknownMembers, type ChoiceProblem, type Read } from './reading.js';
import { readSettings } from './readSettings.js';
import type { SettingsById, SettingValues } from './settings.js';

/** The name of an arrangement: it stands in addresses, and people read it. */
export const ARRANGEMENT_NAME = /^[\p{L}\p{N}](?:[\p{L}\p{N} ._-]{0,58}[\p{L}\p{N}])?$/u;
const EXPECTED_NAME =
  'Expected a name of 1 to 60 letters, digits, spaces, dots, hyphens or underscores, with a letter or digit at both ends.';

const MOST_ENTRIES = 10_000;

const wrong = <T>(value: T, pointer: string, message: string): Read<T> => ({
  value,
  problems: [problem(pointer, 'type', message)],
});

/** Reads what was decided about a design; everything wrong with it is reported at once. */
export function readChoices(given: Json | undefined, pointer: string): Read<Choices> {
  if (given === undefined) return { value: NO_CHOICES, problems: [] };
  if (!isJsonObject(given)) return wrong(NO_CHOICES, pointer, 'Expected an object.');
  const { settings, arrangements, answered, ...others } = given;
  const design = readLevel(settings, `${pointer}/settings`, 'design');
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

function readAnswered(given: Json | undefined, pointer: string): Read<readonly string[]> {
  if (given === undefined) return { value: [], problems: [] };
  const texts = Array.isArray(given) && given.every((id) => typeof id === 'string') ? given : null;
  if (texts === null) return wrong([], pointer, 'Expected an array of ids of assumptions.');
  return { value: [...new Set(texts as readonly string[])], problems: [] };
}

function readArrangements(given: Json | undefined, pointer: string): Read<Choices['arrangements']> {
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
      problems.push(problem(at, 'type', 'Expected an object with a name.'));
      continue;
    }
    if (names.has(name)) problems.push(problem(at, 'duplicate', `There are two arrangements ${name}.`));
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
): Read<ArrangementChoices> {
  const { settings, resources, operations, placements, words, exposures, customs, ...others } = given;
  const own = readLevel(settings, `${pointer}/settings`, 'arrangement');
  const ofResources = readById(resources, `${pointer}/resources`, 'resource');
  const ofOperations = readById(operations, `${pointer}/operations`, 'operation');
  const placed = readPlacements(placements, `${pointer}/placements`);
  const exposed = readExposures(exposures, `${pointer}/exposures`);
  const named = readWords(words, `${pointer}/words`);
  const added = readCustoms(customs, `${pointer}/customs`);
  return {
    value: {
      name,
      settings: own.value,
      resources: ofResources.value,
      operations: ofOperations.value,
      placements: placed.value,
      words: named.value,
      exposures: exposed.value,
      customs: added.value,
    },
    problems: [
      ...(ARRANGEMENT_NAME.test(name) ? [] : [problem(`${pointer}/name`, 'pattern', EXPECTED_NAME)]),
      ...unknownMembers(others, pointer, 'An arrangement has'),
      ...own.problems,
      ...ofResources.problems,
      ...ofOperations.problems,
      ...placed.problems,
      ...named.problems,
      ...exposed.problems,
      ...added.problems,
    ],
  };
}

function readLevel(given: Json | undefined, pointer: string, level: ChoiceLevel): Read<SettingValues> {
  if (given === undefined) return { value: {}, problems: [] };
  if (!isJsonObject(given))
    return wrong({}, pointer, 'Expected an object from names of settings to their values.');
  const read = readSettings(given, level);
  if (read.ok) return { value: read.values, problems: [] };
  return {
    value: {},
    problems: read.problems.map(({ name, code, message }) =>
      problem(`${pointer}/${escapePointer(name)}`, code, message),
    ),
  };
}

/** The members of an object, each read on its own. */
function readEach<T>(
  given: Json | undefined,
  pointer: string,
  expected: string,
  read: (value: Json, at: string) => Read<T>,
): Read<Record<string, T>> {
  if (given === undefined) return { value: {}, problems: [] };
  if (!isJsonObject(given)) return wrong({}, pointer, expected);
  const entries = Object.entries(given);
  if (entries.length > MOST_ENTRIES) return wrong({}, pointer, `Expected at most ${MOST_ENTRIES} entries.`);
  const results = entries.map(([id, value]) => [id, read(value, `${pointer}/${escapePointer(id)}`)] as const);
  return {
    value: Object.fromEntries(results.map(([id, { value }]) => [id, value])),
    problems: results.flatMap(([, { problems }]) => problems),
  };
}

const readById = (
  given: Json | undefined,
  pointer: string,
  level: 'resource' | 'operation',
): Read<SettingsById> =>
  readEach(given, pointer, `Expected an object from ids of ${level}s to their settings.`, (value, at) =>
    readLevel(value, at, level),
  );

const PLACE_WORDS = [...new Set(Object.values(PLACES).flat())].join(', ');

const readPlacements = (given: Json | undefined, pointer: string): Read<Placements> =>
  readEach<Place>(given, pointer, 'Expected an object from ids of statements to places.', (value, at) =>
    isPlace(value)
      ? { value, problems: [] }
      : { value: 'nested', problems: [problem(at, 'options', `Expected one of ${PLACE_WORDS}.`)] },
  );

/** A path word: unreserved characters (RFC 3986 §2.3), which never need encoding. */
export const PATH_WORD = /^(?!\.{1,2}$)[A-Za-z0-9._~-]{1,60}$/;

const readWords = (given: Json | undefined, pointer: string): Read<Readonly<Record<string, string>>> =>
  readEach<string>(given, pointer, 'Expected an object from ids of statements to path words.', (value, at) =>
    typeof value === 'string' && PATH_WORD.test(value)
      ? { value, problems: [] }
      : {
          value: '',
          problems: [
            problem(at, 'pattern', 'Expected 1 to 60 letters, digits, dots, hyphens, underscores or tildes.'),
          ],
        },
  );

const readExposures = (given: Json | undefined, pointer: string): Read<Exposures> =>
  readEach(given, pointer, 'Expected an object from ids of entities to their members.', (members, at) =>
    readEach(members, at, 'Expected an object from ids of members to what goes in and out.', readExposure),
  );

function readExposure(given: Json, pointer: string): Read<ExposureChoice> {
  const read = readEach<Json>(given, pointer, 'Expected an object from aspects to values.', (value) => ({
    value,
    problems: [],
  }));
  const problems = Object.entries(read.value).flatMap(([aspect, value]) => {
    const expected = expectedOf(aspect, value);
    return expected === null ? [] : [problem(`${pointer}/${escapePointer(aspect)}`, 'options', expected)];
  });
  return { value: read.value, problems: [...read.problems, ...problems] };
}

/** What was expected of an aspect; `null` where the value fits. */
function expectedOf(aspect: string, value: Json): string | null {
  if (aspect === 'filter') {
    const isList =
      Array.isArray(value) &&
      value.every((operator) => FILTER_OPERATORS.some((known) => known === operator)) &&
      new Set(value).size === value.length;
    return isList ? null : `Expected an array of operators, each once: ${FILTER_OPERATORS.join(', ')}.`;
  }
  if (!isAspect(aspect)) return `There is no aspect ${aspect}; there are ${ASPECTS.join(', ')}.`;
  const values: readonly string[] = ASPECT_VALUES[aspect];
  return values.some((known) => known === value) ? null : `Expected one of ${values.join(', ')}.`;
}

const isAspect = (name: string): name is keyof typeof ASPECT_VALUES => Object.hasOwn(ASPECT_VALUES, name);

/**
 * Brings choices as an earlier version kept them into today's form: the first one kept settings by the name of
 * an arrangement; later ones lack what could not be decided then.
 */
export function upgradeChoices(given: Json, names: readonly string[] = []): Json {
  if (!isJsonObject(given)) return given;
  const { arrangements } = given;
  if (Array.isArray(arrangements))
    return { ...given, arrangements: (arrangements as readonly Json[]).map(completed) };
  const byName = isJsonObject(arrangements) ? arrangements : {};
  const all = new Set([...(names.length === 0 ? [FIRST_ARRANGEMENT] : names), ...Object.keys(byName)]);
  return {
    ...given,
    arrangements: [...all].map((name) =>
      completed(Object.hasOwn(byName, name) ? { name, settings: byName[name] ?? {} } : { name }),
    ),
  };
}

function completed(given: Json): Json {
  if (!isJsonObject(given) || typeof given['name'] !== 'string') return given;
  return { ...PLAIN, ...given };
}

const PLAIN = plainArrangement('') as unknown as { readonly [name: string]: Json };
