import { isJsonObject, readJson, type Identities, type Json, type JsonObject } from '../model/index.js';
import type { Choices } from './choices.js';
import {
  DESIGN_FILE_FORMAT,
  DESIGN_FILE_SCHEMA,
  DESIGN_FILE_VERSION,
  NAME_LENGTH,
} from './designFileSchema.js';
import {
  fileProblem,
  knownIdentities,
  readFileIdentities,
  type DesignFileProblem,
} from './fileIdentities.js';
import { readFileRecords, recordsProblems, writtenRecords, type FileRecords } from './fileRecords.js';
import { upgradeChoices } from './format.js';
import { keepPlurals } from './keepPlurals.js';
import { readChoices } from './readChoices.js';
import { escapePointer } from './reading.js';

/** A whole design as one file carries it. */
export interface DesignFile {
  readonly name: string;
  /** The last text of the model without errors. */
  readonly model: string;
  /** The text as it was left, where that has errors. */
  readonly draft?: string;
  readonly identities: Identities;
  readonly choices: Choices;
  /** What its mocks begin with, where it carries that. */
  readonly initialRecords?: FileRecords;
}

export type DesignFileResult =
  | { readonly ok: true; readonly design: DesignFile }
  | { readonly ok: false; readonly problems: readonly DesignFileProblem[] };

/** Versions before this one derived other plurals. */
const TABLE_OF_NOUNS = 4;

/**
 * The text of a design file: JSON, indented by two spaces, members in the order of the schema. Of the records each has a
 * line of its own.
 */
export function writeDesignFile({ initialRecords, ...design }: DesignFile): string {
  const file = {
    $schema: DESIGN_FILE_SCHEMA.$id,
    format: DESIGN_FILE_FORMAT,
    version: DESIGN_FILE_VERSION,
    ...design,
  };
  const text = JSON.stringify(file, null, 2);
  if (initialRecords === undefined) return `${text}\n`;
  return `${text.slice(0, -'\n}'.length)},\n  "initialRecords": ${writtenRecords(initialRecords, design)}\n}\n`;
}

/** Reads a design file; everything wrong with it is reported at once. */
export function readDesignFile(text: string): DesignFileResult {
  const read = readJson(text);
  if (!read.ok) {
    const { code, message, line, column } = read.problem;
    return failed([{ pointer: '', code, message: `${message} Line ${line}, column ${column}.` }]);
  }
  const { value } = read;
  if (!isJsonObject(value)) return failed([fileProblem('', 'type', 'Expected a JSON object.')]);
  const version = isVersion(value['version']) ? value['version'] : DESIGN_FILE_VERSION;
  // The first version had the names of arrangements beside the choices.
  const members = Object.keys(value).filter((member) => version > 1 || member !== 'arrangements');
  const choices = readChoices(upgraded(value, version), '/choices');
  const identities = readFileIdentities(value['identities']);
  const problems = [
    ...members.flatMap(unknownMember),
    ...headProblems(value),
    ...choices.problems,
    ...identities.problems,
    ...recordsProblems(value['initialRecords']),
  ];
  if (problems.length > 0) return failed(problems);
  const model = value['model'] as string;
  const given = {
    text: model,
    identities: knownIdentities(model, identities.value),
    choices: choices.value,
  };
  const kept = version < TABLE_OF_NOUNS ? keepPlurals(given) : given;
  const { draft, initialRecords } = value;
  const records = isJsonObject(initialRecords)
    ? readFileRecords(initialRecords, { ...kept, model: kept.text }, version)
    : undefined;
  if (records !== undefined && records.problems.length > 0) return failed(records.problems);
  return {
    ok: true,
    design: {
      name: value['name'] as string,
      model: kept.text,
      ...(typeof draft === 'string' ? { draft } : {}),
      identities: kept.identities,
      choices: kept.choices,
      ...(records === undefined ? {} : { initialRecords: records.value }),
    },
  };
}

const failed = (problems: readonly DesignFileProblem[]): DesignFileResult => ({ ok: false, problems });

function unknownMember(member: string): DesignFileProblem[] {
  if (Object.hasOwn(DESIGN_FILE_SCHEMA.properties, member)) return [];
  return [fileProblem(`/${escapePointer(member)}`, 'unknown', `A design file has no member ${member}.`)];
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
  if (file['format'] !== DESIGN_FILE_FORMAT)
    problems.push(fileProblem('/format', 'const', `Expected "${DESIGN_FILE_FORMAT}".`));
  if (!isVersion(file['version']))
    problems.push(fileProblem('/version', 'const', `Expected a version from 1 to ${DESIGN_FILE_VERSION}.`));
  if (!isName(file['name']))
    problems.push(fileProblem('/name', 'length', `Expected a text of 1 to ${NAME_LENGTH} characters.`));
  if (typeof file['model'] !== 'string')
    problems.push(fileProblem('/model', 'type', 'Expected the text of the model.'));
  for (const member of ['$schema', 'draft'])
    if (file[member] !== undefined && typeof file[member] !== 'string')
      problems.push(fileProblem(`/${member}`, 'type', 'Expected a text.'));
  return problems;
}

const isVersion = (value: Json | undefined): value is number =>
  typeof value === 'number' && Number.isInteger(value) && value >= 1 && value <= DESIGN_FILE_VERSION;

const isName = (value: Json | undefined): boolean =>
  typeof value === 'string' && value.length > 0 && [...value].length <= NAME_LENGTH;
