import type { ImportResult } from '@isomeros/api';
import { randomUUID } from 'node:crypto';
import type { Draft, RowChange } from '@isomeros/core/engine';
import type { Model, Steps } from '@isomeros/core/model';
import {
  recordsInDocument,
  recordsInArray,
  recordTypesOf,
  readCsv,
  importRecords,
  type SourceRecords,
  type ProblemReporter,
  type ImportedRecords,
  type ImportMode,
} from '@isomeros/core/transfer';
import { ApiProblem } from '../http/problem.js';
import { writeChecked, type LargeWriteOptions } from './checkedWrite.js';
import type { LoadedMock } from './loadedMock.js';
import { recordTypeOf } from './recordExport.js';

/** What a client sends, as text: a document of all record types, or the records of one. */
export type RecordsSource =
  | { readonly kind: 'document'; readonly text: string }
  | { readonly kind: 'records'; readonly of: string; readonly text: string }
  | { readonly kind: 'csv'; readonly of: string; readonly text: string };

/**
 * Takes records in as one write, all or none; nothing is written where it is only to be checked. It is done in
 * slices: reads go on meanwhile, writes wait. Nobody else may replace records or the model at the same time.
 */
export async function importInto(
  mock: LoadedMock,
  target: LargeWriteOptions,
  given: RecordsSource,
  mode: ImportMode,
  checkOnly: boolean,
): Promise<ImportResult> {
  const { types } = await writeChecked(mock, target, function* (draft) {
    const { changes, types } = yield* taken(mock.records.dataset.model, draft, given, mode, target.most);
    return { changes: checkOnly ? null : changes, types };
  });
  return { done: !checkOnly, types };
}

/** Checks what is given against the records of a draft. */
function* taken(
  model: Model,
  draft: Draft,
  given: RecordsSource,
  mode: ImportMode,
  most: number,
): Steps<{ readonly changes: readonly RowChange[]; readonly types: readonly ImportedRecords[] }> {
  const options = { mode, now: Date.now(), uuid: randomUUID, most };
  const outcome = yield* importRecords(model, draft, (report) => read(model, given, mode, report), options);
  if (outcome.ok) return outcome;
  const things = outcome.count === 1 ? '1 thing does' : `${outcome.count} things do`;
  const shown =
    outcome.count > outcome.problems.length ? `; the first ${outcome.problems.length} are told` : '';
  throw new ApiProblem('invalid', `Nothing was imported: ${things} not fit${shown}.`, {
    errors: outcome.problems,
  });
}

function* read(
  model: Model,
  given: RecordsSource,
  mode: ImportMode,
  report: ProblemReporter,
): Generator<SourceRecords> {
  if (given.kind !== 'document') {
    const storage = recordTypeOf(model, given.of);
    yield* given.kind === 'csv'
      ? readCsv(model, storage, given.text, report)
      : recordsInArray(storage, given.text, report);
    return;
  }
  const named = new Set<SourceRecords['storage']>();
  for (const part of recordsInDocument(model, given.text, report)) {
    named.add(part.storage);
    yield part;
  }
  if (mode === 'merge') return;
  for (const storage of recordTypesOf(model).values())
    if (!named.has(storage)) yield { storage, record: null };
}
