import { isJsonObject, nearest, type EntityStorage, type Json, type Model } from '../model/index.js';
import { pointerTo } from '../engine/index.js';
import { kindsOf } from './kinds.js';
import type { Report } from './values.js';

/** One record of a source, by the names of the model. */
export interface GivenRecord {
  readonly value: { readonly [name: string]: Json };
  /** Where it stands in the source (RFC 6901); in comma-separated values the number of the record from 0. */
  readonly pointer: string;
  /** What messages about it begin with: `Line 5: `, or nothing. */
  readonly place: string;
}

/** What a source holds of one kind of record. */
export interface GivenKind {
  readonly storage: EntityStorage;
  readonly records: readonly GivenRecord[];
}

/** The kind of record of a name; reports it where there is none. */
export function kindNamed(model: Model, name: string, pointer: string, report: Report): EntityStorage | null {
  const kinds = kindsOf(model);
  const storage = kinds.get(name);
  if (storage !== undefined) return storage;
  const near = nearest(name, [...kinds.keys()]);
  const hint = near === null ? `There are ${[...kinds.keys()].join(', ')}.` : `The nearest is ${near}.`;
  report({ pointer, code: 'unknown', message: `The model has no records called ${name}. ${hint}` });
  return null;
}

/** Reads a document of records: an object with an array for each kind. */
export function givenDocument(model: Model, document: Json, report: Report): readonly GivenKind[] {
  if (!isJsonObject(document)) {
    report({
      pointer: '',
      code: 'type',
      message: 'Expected an object with an array of records for each kind.',
    });
    return [];
  }
  return Object.entries(document).flatMap(([name, records]) => {
    const pointer = pointerTo('', name);
    const storage = kindNamed(model, name, pointer, report);
    return storage === null ? [] : [{ storage, records: givenRecords(records, pointer, report) }];
  });
}

/** Reads an array of records of one kind. */
export function givenRecords(records: Json, pointer: string, report: Report): readonly GivenRecord[] {
  if (!Array.isArray(records)) {
    report({ pointer, code: 'type', message: 'Expected an array of records.' });
    return [];
  }
  return (records as readonly Json[]).flatMap((value, index) => {
    const at = pointerTo(pointer, index);
    if (isJsonObject(value)) return [{ value, pointer: at, place: '' }];
    report({ pointer: at, code: 'type', message: 'Expected an object: a record.' });
    return [];
  });
}
