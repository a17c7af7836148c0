import { isJsonObject, type Json } from '../../model/index.js';
import {
  LINK_ATTRIBUTE_NAMES,
  EXPECTED_RELATION,
  LAST_POSITION,
  LINK_ATTRIBUTES,
  LINK_PLACES,
  LINK_RELATION,
  type LinkChoice,
  type LinkChoices,
} from '../links.js';
import { choiceProblem, escapePointer, type ChoiceProblem, type ReadResult } from '../reading.js';
import { entryNamed, orNone, readEach, said, withEntry, wrong, type ArrangementPart } from './part.js';

/** What is decided about a link from now on; `null`: it is as it is derived. */
export interface LinkEdit {
  readonly resource: string;
  readonly link: string;
  readonly choice: LinkChoice | null;
}

/** Derived links that are left out, called otherwise, or told more of. */
export const LINKS_PART: ArrangementPart<LinkChoices, LinkEdit> = {
  empty: {},
  read: (given, pointer) =>
    readEach(given, pointer, 'Expected an object from ids of resources to their links.', (links, at) =>
      readEach(links, at, 'Expected an object from ids of links to what is decided of them.', readChoice),
    ),
  schema: {
    type: 'object',
    description: 'What is decided about links, by the id of a resource, then by that of a link.',
    additionalProperties: {
      type: 'object',
      additionalProperties: {
        type: 'object',
        properties: {
          leftOut: { const: true },
          relation: { type: 'string', pattern: LINK_RELATION.source },
          in: { type: 'array', minItems: 1, uniqueItems: true, items: { enum: LINK_PLACES } },
          position: { type: 'integer', minimum: 1, maximum: LAST_POSITION },
          ...Object.fromEntries(
            LINK_ATTRIBUTE_NAMES.map((name) => [
              name,
              { type: 'string', pattern: LINK_ATTRIBUTES[name].pattern.source },
            ]),
          ),
        },
        additionalProperties: false,
      },
    },
  },
  decided: (choices) =>
    Object.entries(choices).flatMap(([resource, links]) =>
      Object.entries(links).map(([link, choice]) => [`Link ${link} of ${resource}`, said(choice)] as const),
    ),
  edit: (choices, { resource, link, choice }) => {
    const links = withEntry<LinkChoice>(
      entryNamed(choices, resource) ?? {},
      link,
      choice === null ? null : orNone(choice),
    );
    return withEntry(choices, resource, orNone(links));
  },
};

function readChoice(given: Json, pointer: string): ReadResult<LinkChoice> {
  if (!isJsonObject(given)) return wrong({}, pointer, 'Expected an object.');
  const problems: ChoiceProblem[] = [];
  for (const [name, value] of Object.entries(given)) {
    const expected = expectedOf(name, value);
    if (expected !== null)
      problems.push(choiceProblem(`${pointer}/${escapePointer(name)}`, 'options', expected));
  }
  return { value: given, problems };
}

/** What was expected of a part of a choice; `null` where it fits. */
function expectedOf(name: string, value: Json): string | null {
  if (name === 'leftOut') return value === true ? null : 'Expected true, or nothing.';
  if (name === 'relation')
    return typeof value === 'string' && LINK_RELATION.test(value) ? null : `Expected ${EXPECTED_RELATION}.`;
  if (name === 'in') return isPlaces(value) ? null : `Expected one or more of ${LINK_PLACES.join(', ')}.`;
  if (name === 'position')
    return Number.isInteger(value) && Number(value) >= 1 && Number(value) <= LAST_POSITION
      ? null
      : `Expected a whole number from 1 to ${LAST_POSITION}.`;
  const attribute = LINK_ATTRIBUTE_NAMES.find((known) => known === name);
  if (attribute === undefined)
    return `There is no ${name}; there are leftOut, relation, in, position, ${LINK_ATTRIBUTE_NAMES.join(', ')}.`;
  const { pattern, expected } = LINK_ATTRIBUTES[attribute];
  return typeof value === 'string' && pattern.test(value) ? null : `Expected ${expected}.`;
}

const isPlaces = (value: Json): boolean =>
  Array.isArray(value) &&
  value.length > 0 &&
  new Set(value).size === value.length &&
  (value as readonly Json[]).every((one) => LINK_PLACES.some((place) => place === one));
