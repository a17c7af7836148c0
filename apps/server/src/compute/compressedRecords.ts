import type { Model, Row } from '@isomeros/core/model';
import { recordsByType } from '@isomeros/core/transfer';
import { packJson, unpackJson } from '../database/compressedJson.js';

/** Records that fit a model, as they are stored with it. */
export interface CompressedRecords {
  readonly records: number;
  /** How many there are of each type that has some. */
  readonly types: readonly { readonly type: string; readonly records: number }[];
  /** The rows as JSON, compressed (RFC 1951). */
  readonly compressed: Uint8Array;
}

export async function compressRecords(model: Model, rows: readonly Row[]): Promise<CompressedRecords> {
  const types = [...recordsByType(model, rows)].flatMap(([{ entity }, { length }]) =>
    length === 0 ? [] : [{ type: entity.name, records: length }],
  );
  return { records: rows.length, types, compressed: await packJson(rows) };
}

export const uncompressRecords = (compressed: Uint8Array): Promise<readonly Row[]> => unpackJson(compressed);
