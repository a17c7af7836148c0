import { isJsonObject, type Json } from '../../model/index.js';
import {
  LINK_ATTRIBUTE_NAMES,
  LINK_ATTRIBUTES,
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
    return typeof value === 'string' && LINK_RELATION.test(value)
      ? null
      : 'Expected a relation: a small letter, then letters, digits, dots or hyphens.';
  const attribute = LINK_ATTRIBUTE_NAMES.find((known) => known === name);
  if (attribute === undefined)
    return `There is no ${name}; there are leftOut, relation, ${LINK_ATTRIBUTE_NAMES.join(', ')}.`;
  const { pattern, expected } = LINK_ATTRIBUTES[attribute];
  return typeof value === 'string' && pattern.test(value) ? null : `Expected ${expected}.`;
}
