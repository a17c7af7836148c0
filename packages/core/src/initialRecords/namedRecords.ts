import { completeModel, type FileRecords } from '../arrangement/index.js';
import { Dataset, Draft, type ProblemDetail } from '../engine/index.js';
import { bareObject, runToEnd, type JsonObject, type Model, type Row } from '../model/index.js';
import { parse } from '../notation/index.js';
import type { MigrationRuntime } from '../migration/index.js';
import { importRecords, recordsByType, recordsInDocument, writeRecord } from '../transfer/index.js';

/** Records by the names of their model, an array for each type that has some; secrets included. */
export function namedRecords(model: Model, rows: readonly Row[]): JsonObject {
  const byNumber = new Map(rows.map((row) => [row.rid, row]));
  const records = bareObject();
  for (const [storage, own] of recordsByType(model, rows))
    if (own.length > 0)
      records[storage.entity.name] = own.map((row) =>
        writeRecord(model, byNumber, storage, row, { secrets: true }),
      );
  return records;
}

export type NamedRecordsRead =
  | { readonly ok: true; readonly model: Model; readonly rows: readonly Row[] }
  | { readonly ok: false; readonly problems: readonly ProblemDetail[] };

/** Reads records by the names of the model that they are carried with: the inverse of `namedRecords`. All or none. */
export function readNamedRecords(
  { model: text, identities, choices, records }: FileRecords,
  runtime: MigrationRuntime,
  most: number,
): NamedRecordsRead {
  const { model: read, diagnostics } = parse(text, identities);
  const [wrong] = diagnostics;
  if (wrong !== undefined) {
    const message = `The model of the records has errors, the first in line ${wrong.place.line}: ${wrong.message}`;
    return { ok: false, problems: [{ pointer: '/model', code: 'notation', message }] };
  }
  const model = completeModel(read, choices);
  const draft = new Draft(new Dataset(model, [], { rid: 0, attributes: {} }));
  const source = JSON.stringify(records);
  const outcome = runToEnd(
    importRecords(model, draft, (report) => recordsInDocument(model, source, report), {
      mode: 'merge',
      now: runtime.now,
      uuid: runtime.uuid,
      most,
    }),
  );
  if (outcome.ok)
    return {
      ok: true,
      model,
      rows: outcome.changes.flatMap((change) => (change.kind === 'remove' ? [] : [change.after])),
    };
  const problems = outcome.problems.map((found) =>
    'pointer' in found ? { ...found, pointer: `/records${found.pointer}` } : found,
  );
  return { ok: false, problems };
}
