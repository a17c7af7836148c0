import type { Json } from '../../model/index.js';
import {
  ASPECTS,
  ASPECT_VALUES,
  exposureChoice,
  FILTER_OPERATORS,
  MEMBER_NAME,
  type MemberAspect,
  type ExposureChoice,
  type Exposures,
} from '../exposure.js';
import { escapePointer, choiceProblem, type ReadResult } from '../reading.js';
import { entryNamed, orNone, readEach, said, withEntry, type ArrangementPart } from './part.js';

/** What of a member goes in or out, or that it is as the model says again. */
export type ExposureEdit = {
  readonly [A in MemberAspect]: {
    readonly entity: string;
    readonly member: string;
    readonly aspect: A;
    readonly value: Required<ExposureChoice>[A] | null;
  };
}[MemberAspect];

/** What goes in and out of members. */
export const EXPOSURES_PART: ArrangementPart<Exposures, ExposureEdit> = {
  empty: {},
  read: (given, pointer) =>
    readEach(given, pointer, 'Expected an object from ids of entities to their members.', (members, at) =>
      readEach(members, at, 'Expected an object from ids of members to what goes in and out.', readExposure),
    ),
  schema: {
    type: 'object',
    description: 'What goes in and out, by the identity of an entity, then by that of a member.',
    additionalProperties: {
      type: 'object',
      additionalProperties: {
        type: 'object',
        properties: {
          ...Object.fromEntries(
            Object.entries(ASPECT_VALUES).map(([aspect, values]) => [aspect, { enum: values }]),
          ),
          name: { type: 'string', pattern: MEMBER_NAME.source },
          filter: { type: 'array', items: { enum: FILTER_OPERATORS }, uniqueItems: true },
        },
        additionalProperties: false,
      },
    },
  },
  decided: (exposures) =>
    Object.values(exposures).flatMap((members) =>
      Object.entries(members).map(([member, choice]) => [`In and out of ${member}`, said(choice)] as const),
    ),
  edit: (exposures, { entity, member, aspect, value }) => {
    const choice: ExposureChoice = withEntry<unknown>(
      exposureChoice(exposures, entity, member),
      aspect,
      value,
    );
    const members = withEntry(entryNamed(exposures, entity) ?? {}, member, orNone(choice));
    return withEntry(exposures, entity, orNone(members));
  },
};

function readExposure(given: Json, pointer: string): ReadResult<ExposureChoice> {
  const read = readEach<Json>(given, pointer, 'Expected an object from aspects to values.', (value) => ({
    value,
    problems: [],
  }));
  const problems = Object.entries(read.value).flatMap(([aspect, value]) => {
    const expected = expectedOf(aspect, value);
    return expected === null
      ? []
      : [choiceProblem(`${pointer}/${escapePointer(aspect)}`, 'options', expected)];
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
  if (aspect === 'name') {
    const isName = typeof value === 'string' && MEMBER_NAME.test(value);
    return isName ? null : 'Expected 1 to 60 letters, digits, hyphens and underscores, a letter first.';
  }
  if (!isAspect(aspect)) return `There is no aspect ${aspect}; there are name, ${ASPECTS.join(', ')}.`;
  const values: readonly string[] = ASPECT_VALUES[aspect];
  return values.some((known) => known === value) ? null : `Expected one of ${values.join(', ')}.`;
}

const isAspect = (name: string): name is keyof typeof ASPECT_VALUES => Object.hasOwn(ASPECT_VALUES, name);
