import {
  isJsonObject,
  jsonParts,
  nearest,
  type EntityStorage,
  type Json,
  type JsonProblem,
  type Model,
} from '../model/index.js';
import { pointerTo, type ProblemDetail } from '../engine/index.js';
import { recordTypesOf } from './recordTypes.js';
import type { ProblemReporter } from './values.js';

/** One record of a source, by the names of the model. */
export interface SourceRecord {
  readonly value: { readonly [name: string]: Json };
  /** Where it stands in the source (RFC 6901); in comma-separated values the number of the record from 0. */
  readonly pointer: string;
  /** What messages about it begin with: `Line 5: `, or nothing. */
  readonly place: string;
}

/** A record of a source and what kind it is of; `null`: the kind is there, whether it has records or not. */
export interface SourceRecords {
  readonly storage: EntityStorage;
  readonly record: SourceRecord | null;
}

/** The kind of record of a name; reports it where there is none. */
export function recordTypeNamed(
  model: Model,
  name: string,
  pointer: string,
  report: ProblemReporter,
): EntityStorage | null {
  const kinds = recordTypesOf(model);
  const storage = kinds.get(name);
  if (storage !== undefined) return storage;
  const near = nearest(name, [...kinds.keys()]);
  const hint = near === null ? `There are ${[...kinds.keys()].join(', ')}.` : `The nearest is ${near}.`;
  report({ pointer, code: 'unknown', message: `The model has no records called ${name}. ${hint}` });
  return null;
}

/** Reads a document of records: an object with an array for each kind. */
export function* recordsInDocument(
  model: Model,
  text: string,
  report: ProblemReporter,
): Generator<SourceRecords> {
  let [storage, pointer, index]: [EntityStorage | null, string, number] = [null, '', 0];
  for (const part of jsonParts(text)) {
    switch (part.kind) {
      case 'list':
        pointer = pointerTo('', part.name ?? '');
        [storage, index] = [
          part.name === null ? null : recordTypeNamed(model, part.name, pointer, report),
          0,
        ];
        if (part.name === null) report(NO_DOCUMENT);
        if (storage !== null) yield { storage, record: null };
        break;
      case 'item': {
        const record = toSourceRecord(part.value, pointerTo(pointer, index++), report);
        if (storage !== null && record !== null) yield { storage, record };
        break;
      }
      case 'value':
        report(part.name === null ? NO_DOCUMENT : noArray(pointerTo('', part.name)));
        break;
      case 'problem':
        report(unreadable(part.problem));
    }
  }
}

const NO_DOCUMENT = {
  pointer: '',
  code: 'type',
  message: 'Expected an object with an array of records for each kind.',
};

const noArray = (pointer: string): ProblemDetail => ({
  pointer,
  code: 'type',
  message: 'Expected an array of records.',
});

const unreadable = ({ code, message, line, column }: JsonProblem): ProblemDetail => ({
  pointer: '',
  code,
  message: `${message} Line ${line}, column ${column}.`,
});

/** Reads an array of records of one kind. */
export function* recordsInArray(
  storage: EntityStorage,
  text: string,
  report: ProblemReporter,
): Generator<SourceRecords> {
  yield { storage, record: null };
  let isList = false;
  let index = 0;
  for (const part of jsonParts(text)) {
    switch (part.kind) {
      case 'list':
        isList = part.name === null;
        if (!isList) report(noArray(''));
        break;
      case 'item': {
        const record = isList ? toSourceRecord(part.value, pointerTo('', index++), report) : null;
        if (record !== null) yield { storage, record };
        break;
      }
      case 'value':
        report(noArray(''));
        break;
      case 'problem':
        report(unreadable(part.problem));
    }
  }
}

function toSourceRecord(value: Json, pointer: string, report: ProblemReporter): SourceRecord | null {
  if (isJsonObject(value)) return { value, pointer, place: '' };
  report({ pointer, code: 'type', message: 'Expected an object: a record.' });
  return null;
}
