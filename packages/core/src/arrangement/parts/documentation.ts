import { isJsonObject, type Json } from '../../model/index.js';
import {
  DOCUMENTED_KINDS,
  fieldsOf,
  wrongInField,
  type DocumentationChoices,
  type DocumentedKind,
  type SaidOf,
} from '../documentation.js';
import { choiceProblem, escapePointer, type ChoiceProblem, type ReadResult } from '../reading.js';
import { entryNamed, orNone, readEach, withEntry, wrong, type ArrangementPart } from './part.js';

/** What is said of a subject in one field from now on; `null`: what the model says. */
export interface DocumentationEdit {
  readonly kind: DocumentedKind;
  readonly subject: string;
  readonly field: string;
  readonly text: string | null;
}

type Said = Readonly<Record<string, string>>;
type BySubject = Readonly<Record<string, Said>>;

const EXPECTED_SUBJECTS = 'Expected an object from identities to what is said of each.';

/** What is said about the API, its operations, and more. */
export const DOCUMENTATION_PART: ArrangementPart<DocumentationChoices, DocumentationEdit> = {
  empty: {},
  read: (given, pointer) => {
    if (!isJsonObject(given))
      return wrong({}, pointer, 'Expected an object from kinds to what is said of each.');
    const problems: ChoiceProblem[] = [];
    const value: Record<string, BySubject> = {};
    for (const [name, subjects] of Object.entries(given)) {
      const at = `${pointer}/${escapePointer(name)}`;
      const kind = DOCUMENTED_KINDS.find((known) => known === name);
      if (kind === undefined) {
        const message = `There is no ${name}; there are ${DOCUMENTED_KINDS.join(', ')}.`;
        problems.push(choiceProblem(at, 'options', message));
        continue;
      }
      const read = readEach(subjects, at, EXPECTED_SUBJECTS, (said, to) => readSaid(kind, said, to));
      for (const problem of read.problems) problems.push(problem);
      value[kind] = read.value;
    }
    return { value, problems };
  },
  schema: {
    type: 'object',
    description: 'What is said about the API and its operations, by kind and identity.',
    properties: Object.fromEntries(
      DOCUMENTED_KINDS.map((kind) => [
        kind,
        {
          type: 'object',
          additionalProperties: {
            type: 'object',
            properties: Object.fromEntries(
              fieldsOf(kind).map(([name, { pattern }]) => [
                name,
                { type: 'string', pattern: pattern.source },
              ]),
            ),
            additionalProperties: false,
          },
        },
      ]),
    ),
    additionalProperties: false,
  },
  decided: (documentation) =>
    DOCUMENTED_KINDS.flatMap((kind) =>
      Object.entries(saidOfKind(documentation, kind)).flatMap(([subject, said]) =>
        Object.entries(said).map(([field, text]) => [`${field} of ${kind} ${subject}`, text] as const),
      ),
    ),
  edit: (documentation, { kind, subject, field, text }) => {
    const all = saidOfKind(documentation, kind);
    const said = withEntry(entryNamed(all, subject) ?? {}, field, text);
    const subjects = withEntry<Said>(all, subject, orNone(said));
    return withEntry(documentation as Readonly<Record<string, BySubject>>, kind, orNone(subjects));
  },
};

/** What is said of all subjects of a kind, by their identities, then by field. */
export const saidOfKind = (documentation: DocumentationChoices, kind: DocumentedKind): BySubject =>
  documentation[kind] ?? {};

function readSaid(kind: DocumentedKind, given: Json, pointer: string): ReadResult<Said> {
  if (!isJsonObject(given)) return wrong({}, pointer, 'Expected an object from fields to texts.');
  const problems: ChoiceProblem[] = [];
  const said: Record<string, string> = {};
  for (const [name, text] of Object.entries(given)) {
    const message = wrongInField(kind, name, text);
    if (message === null) said[name] = text as string;
    else problems.push(choiceProblem(`${pointer}/${escapePointer(name)}`, 'pattern', message));
  }
  return { value: said, problems };
}

/** What is said of one subject. */
export const saidOf = <Kind extends DocumentedKind>(
  documentation: DocumentationChoices,
  kind: Kind,
  subject: string,
): SaidOf<Kind> => (entryNamed(saidOfKind(documentation, kind), subject) ?? {}) as SaidOf<Kind>;
