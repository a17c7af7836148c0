import { isJsonObject, type Identities, type Json, type JsonObject } from '../model/index.js';
import type { Choices } from './choices.js';
import { DESIGN_FILE_SCHEMA } from './designFileSchema.js';
import {
  fileProblem,
  knownIdentities,
  readFileIdentities,
  type DesignFileProblem,
} from './fileIdentities.js';
import { upgradeChoices } from './format.js';
import { readChoices } from './readChoices.js';
import { escapePointer, type ReadResult } from './reading.js';

/** Records as a design file carries them, with the model they fit. */
export interface FileRecords {
  readonly model: string;
  readonly identities: Identities;
  readonly choices: Choices;
  /** From the name of each type to an array of records, by the names of that model. */
  readonly records: JsonObject;
}

/** What a model is read by in a file. */
type FileModel = Omit<FileRecords, 'records'>;

/** The member of a file that carries records, each on a line of its own. */
export function writtenRecords({ records, ...of }: FileRecords, design: FileModel): string {
  const { model, identities, choices } = design;
  const isOwn = JSON.stringify(of) === JSON.stringify({ ...of, model, identities, choices });
  const head = isOwn ? {} : of;
  const types = Object.entries(records).map(([type, own]) => {
    const lines = (own as readonly Json[]).map((record) => `\n        ${JSON.stringify(record)}`);
    return `\n      ${JSON.stringify(type)}: [${lines.join()}${lines.length === 0 ? '' : '\n      '}]`;
  });
  const members = Object.entries(head).map(
    ([member, value]) => `\n    "${member}": ${JSON.stringify(value, null, 2).replace(/\n/g, '\n    ')},`,
  );
  return `{${members.join('')}\n    "records": {${types.join()}\n    }\n  }`;
}

/** What is wrong with how the member is made. */
export function recordsProblems(given: Json | undefined): DesignFileProblem[] {
  if (given === undefined) return [];
  const at = '/initialRecords';
  if (!isJsonObject(given)) return [fileProblem(at, 'type', 'Expected an object with the records.')];
  const { records } = given;
  return [
    ...Object.keys(given).flatMap((member) =>
      Object.hasOwn(DESIGN_FILE_SCHEMA.properties.initialRecords.properties, member)
        ? []
        : [
            fileProblem(
              `${at}/${escapePointer(member)}`,
              'unknown',
              `Initial records have no member ${member}.`,
            ),
          ],
    ),
    ...(given['model'] === undefined || typeof given['model'] === 'string'
      ? []
      : [fileProblem(`${at}/model`, 'type', 'Expected the text of the model.')]),
    ...typesProblems(records, `${at}/records`),
  ];
}

/** Whether records stand in arrays, one for each type, and are objects. */
function typesProblems(records: Json | undefined, at: string): DesignFileProblem[] {
  if (!isJsonObject(records))
    return [fileProblem(at, 'type', 'Expected an object with an array of records for each type.')];
  return Object.entries(records).flatMap(([type, own]): DesignFileProblem[] => {
    const of = `${at}/${escapePointer(type)}`;
    if (!Array.isArray(own)) return [fileProblem(of, 'type', 'Expected an array of records.')];
    return (own as readonly Json[]).flatMap((record, index) =>
      isJsonObject(record) ? [] : [fileProblem(`${of}/${index}`, 'type', 'Expected an object: a record.')],
    );
  });
}

/** The records of a file with the model they fit, which is that of the file where none is said. */
export function readFileRecords(
  given: JsonObject,
  { model: text, identities: own, choices: decided }: FileModel,
  version: number,
): ReadResult<FileRecords> {
  const { model, records } = given;
  const at = '/initialRecords';
  const identities = readFileIdentities(given['identities'], at);
  const choices =
    given['choices'] === undefined
      ? { value: decided, problems: [] }
      : readChoices(upgradeChoices(given['choices'], version), `${at}/choices`);
  const value: FileRecords = {
    model: typeof model === 'string' ? model : text,
    identities: typeof model === 'string' ? knownIdentities(model, identities.value) : own,
    choices: choices.value,
    records: isJsonObject(records) ? records : {},
  };
  return { value, problems: [...identities.problems, ...choices.problems] };
}
