import type { RecordType } from '@isomeros/api';
import type { EntityStorage, Model, Row } from '@isomeros/core/model';
import {
  csvHeader,
  csvLine,
  recordTypeNamed,
  recordTypesOf,
  recordsByType,
  writeRecord,
} from '@isomeros/core/transfer';
import { ApiProblem } from '../http/problem.js';
import type { LoadedMock } from './loadedMock.js';

/** So many records are written at once, before others get their turn. */
const PART = 200;

/** The records of a mock as they are at one moment, whatever is written to it while they are sent. */
export interface FrozenRecords {
  readonly model: Model;
  readonly rows: ReadonlyMap<number, Row>;
}

export const freezeRecords = ({ records: { dataset } }: LoadedMock): FrozenRecords => ({
  model: dataset.model,
  rows: new Map([...dataset.everything()].map((row) => [row.rid, row])),
});

export const recordTypesIn = ({ records: { dataset } }: LoadedMock): readonly RecordType[] =>
  [...recordTypesOf(dataset.model)].map(([name, storage]) => ({
    name,
    records: dataset.countOf(storage),
    hasSecrets: storage.attributes.some(({ writeOnly }) => writeOnly),
  }));

/** The kind of record of a name. */
export function recordTypeOf(model: Model, name: string): EntityStorage {
  let said = '';
  const storage = recordTypeNamed(model, name, '', ({ message }) => {
    said = message;
  });
  if (storage === null) throw new ApiProblem('not-found', said);
  return storage;
}

/** All records as one JSON document, an array for each kind, in parts. */
export function* jsonOfAll({ model, rows }: FrozenRecords, secrets: boolean): Generator<string> {
  yield '{';
  let before = '\n';
  for (const [storage, own] of recordsByType(model, rows.values())) {
    yield `${before}${JSON.stringify(storage.entity.name)}: `;
    yield* jsonOf({ model, rows }, storage, own, secrets);
    before = ',\n';
  }
  yield '\n}\n';
}

/** The records of one kind as a JSON array, in parts. */
export function* jsonOfType(
  frozen: FrozenRecords,
  storage: EntityStorage,
  secrets: boolean,
): Generator<string> {
  yield* jsonOf(frozen, storage, ofKind(frozen, storage), secrets);
  yield '\n';
}

/** The records of one kind as comma-separated values (RFC 4180), in parts. */
export function* csvOfType(
  frozen: FrozenRecords,
  storage: EntityStorage,
  secrets: boolean,
): Generator<string> {
  const { model, rows } = frozen;
  yield csvHeader(model, storage, secrets);
  for (const part of parts(ofKind(frozen, storage)))
    yield part
      .map((row) => csvLine(model, storage, writeRecord(model, rows, storage, row, { secrets }), secrets))
      .join('');
}

const ofKind = ({ model, rows }: FrozenRecords, storage: EntityStorage): readonly Row[] =>
  recordsByType(model, rows.values()).get(storage) ?? [];

function* jsonOf(
  { model, rows }: FrozenRecords,
  storage: EntityStorage,
  own: readonly Row[],
  secrets: boolean,
): Generator<string> {
  let before = '[\n';
  for (const part of parts(own)) {
    const written = part.map((row) => JSON.stringify(writeRecord(model, rows, storage, row, { secrets })));
    yield before + written.join(',\n');
    before = ',\n';
  }
  yield own.length === 0 ? '[]' : '\n]';
}

function* parts(rows: readonly Row[]): Generator<readonly Row[]> {
  for (let at = 0; at < rows.length; at += PART) yield rows.slice(at, at + PART);
}
