import {
  identitiesOf,
  isJsonObject,
  readJson,
  type Identities,
  type Json,
  type JsonObject,
} from '../model/index.js';
import { parse } from '../notation/index.js';
import type { Choices } from './choices.js';
import { PART_NAMES, partNamed } from './parts/index.js';
import { settingsSchema } from './parts/settings.js';
import { ARRANGEMENT_NAME, readChoices } from './readChoices.js';
import { CHOICES_FORMAT, upgradeChoices } from './format.js';
import { keepPlurals } from './keepPlurals.js';
import { escapePointer, type ChoiceProblem, type ReadResult } from './reading.js';

/** A whole design as one file carries it. */
export interface DesignFile {
  readonly name: string;
  /** The last text of the model without errors. */
  readonly model: string;
  /** The text as it was left, where that has errors. */
  readonly draft?: string;
  readonly identities: Identities;
  readonly choices: Choices;
}

export type DesignFileProblem = ChoiceProblem;

export type DesignFileResult =
  | { readonly ok: true; readonly design: DesignFile }
  | { readonly ok: false; readonly problems: readonly DesignFileProblem[] };

const FORMAT = 'isomeros-design';
/** The version of a file is the format of its choices. */
const VERSION = CHOICES_FORMAT.newest;

/** Versions before this one derived other plurals. */
const TABLE_OF_NOUNS = 4;
const NAME_LENGTH = 120;

const name = { type: 'string', minLength: 1, maxLength: NAME_LENGTH } as const;

/** The schema of what was decided about one arrangement. */
const arrangementSchema: object = {
  type: 'object',
  required: ['name'],
  properties: {
    name: { type: 'string', pattern: ARRANGEMENT_NAME.source },
    ...Object.fromEntries(PART_NAMES.map((part) => [part, partNamed(part).schema])),
  },
  additionalProperties: false,
};

/** The published schema (JSON Schema 2020-12) of design files. */
export const DESIGN_FILE_SCHEMA = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  $id: `urn:isomeros:design-file:${VERSION}`,
  title: 'Isomeros design file',
  description: 'A model in its notation, with the identities of its elements and what was decided about it.',
  type: 'object',
  required: ['format', 'version', 'name', 'model'],
  properties: {
    $schema: { type: 'string' },
    format: { const: FORMAT },
    version: { const: VERSION },
    name,
    model: { type: 'string', description: 'The text of the model (text/vnd.isomeros.model).' },
    draft: { type: 'string', description: 'The text as it was left, where that has errors.' },
    identities: {
      type: 'object',
      description: 'From the address of an element in the model to its identity, which outlives its name.',
      additionalProperties: { type: 'string', minLength: 1 },
    },
    choices: {
      type: 'object',
      properties: {
        settings: settingsSchema('design'),
        arrangements: { type: 'array', minItems: 1, items: arrangementSchema },
        answered: { type: 'array', items: { type: 'string' } },
      },
      additionalProperties: false,
    },
  },
  additionalProperties: false,
} as const;

/** The text of a design file: JSON, indented by two spaces, members in the order of the schema. */
export function writeDesignFile(design: DesignFile): string {
  const file = { $schema: DESIGN_FILE_SCHEMA.$id, format: FORMAT, version: VERSION, ...design };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/** Reads a design file; everything wrong with it is reported at once. */
export function readDesignFile(text: string): DesignFileResult {
  const read = readJson(text);
  if (!read.ok) {
    const { code, message, line, column } = read.problem;
    return failed([{ pointer: '', code, message: `${message} Line ${line}, column ${column}.` }]);
  }
  const { value } = read;
  if (!isJsonObject(value)) return failed([problem('', 'type', 'Expected a JSON object.')]);
  const version = isVersion(value['version']) ? value['version'] : VERSION;
  // The first version had the names of arrangements beside the choices.
  const members = Object.keys(value).filter((member) => version > 1 || member !== 'arrangements');
  const choices = readChoices(upgraded(value, version), '/choices');
  const identities = readIdentities(value['identities']);
  const problems = [
    ...members.flatMap(unknownMember),
    ...headProblems(value),
    ...choices.problems,
    ...identities.problems,
  ];
  if (problems.length > 0) return failed(problems);
  const model = value['model'] as string;
  const given = {
    text: model,
    identities: knownIdentities(model, identities.value),
    choices: choices.value,
  };
  const kept = version < TABLE_OF_NOUNS ? keepPlurals(given) : given;
  const { draft } = value;
  return {
    ok: true,
    design: {
      name: value['name'] as string,
      model: kept.text,
      ...(typeof draft === 'string' ? { draft } : {}),
      identities: kept.identities,
      choices: kept.choices,
    },
  };
}

const failed = (problems: readonly DesignFileProblem[]): DesignFileResult => ({ ok: false, problems });

const problem = (pointer: string, code: string, message: string): DesignFileProblem => ({
  pointer,
  code,
  message,
});

function unknownMember(member: string): DesignFileProblem[] {
  if (Object.hasOwn(DESIGN_FILE_SCHEMA.properties, member)) return [];
  return [problem(`/${escapePointer(member)}`, 'unknown', `A design file has no member ${member}.`)];
}

/** The choices of a file, as they are written today. */
function upgraded(file: JsonObject, version: number): Json | undefined {
  const choices = file['choices'];
  // A file has one number for all of it.
  if (isJsonObject(choices) && Object.hasOwn(choices, 'format')) return choices;
  if (version > 1 && choices === undefined) return undefined;
  if (version > 1) return upgradeChoices(choices ?? null, version);
  const given = file['arrangements'];
  const names = (Array.isArray(given) ? (given as readonly Json[]) : []).flatMap((item) =>
    isJsonObject(item) && typeof item['name'] === 'string' ? [item['name']] : [],
  );
  return upgradeChoices(choices ?? { settings: {}, answered: [] }, version, names);
}

function headProblems(file: JsonObject): DesignFileProblem[] {
  const problems: DesignFileProblem[] = [];
  if (file['format'] !== FORMAT) problems.push(problem('/format', 'const', `Expected "${FORMAT}".`));
  if (!isVersion(file['version']))
    problems.push(problem('/version', 'const', `Expected a version from 1 to ${VERSION}.`));
  if (!isName(file['name']))
    problems.push(problem('/name', 'length', `Expected a text of 1 to ${NAME_LENGTH} characters.`));
  if (typeof file['model'] !== 'string')
    problems.push(problem('/model', 'type', 'Expected the text of the model.'));
  for (const member of ['$schema', 'draft'])
    if (file[member] !== undefined && typeof file[member] !== 'string')
      problems.push(problem(`/${member}`, 'type', 'Expected a text.'));
  return problems;
}

const isVersion = (value: Json | undefined): value is number =>
  typeof value === 'number' && Number.isInteger(value) && value >= 1 && value <= VERSION;

const isName = (value: Json | undefined): boolean =>
  typeof value === 'string' && value.length > 0 && [...value].length <= NAME_LENGTH;

function readIdentities(given: Json | undefined): ReadResult<Identities> {
  if (given === undefined) return { value: {}, problems: [] };
  if (!isJsonObject(given))
    return { value: {}, problems: [problem('/identities', 'type', 'Expected an object.')] };
  const problems = Object.entries(given).flatMap(([address, id]) =>
    typeof id === 'string' && id !== ''
      ? []
      : [problem(`/identities/${escapePointer(address)}`, 'type', 'Expected a text that is not empty.')],
  );
  return { value: problems.length === 0 ? (given as Identities) : {}, problems };
}

/** The identities of what the model has; two elements never share one. */
function knownIdentities(text: string, given: Identities): Identities {
  const taken = new Set<string>();
  const known: Record<string, string> = {};
  for (const address of identitiesOf(parse(text).model).keys()) {
    const wanted = Object.hasOwn(given, address) ? (given[address] ?? address) : address;
    if (taken.has(wanted)) continue;
    taken.add(wanted);
    known[address] = wanted;
  }
  return known;
}
