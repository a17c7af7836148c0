import { randomUUID } from 'node:crypto';
import {
  readDesignFile,
  writeDesignFile,
  type DesignFile,
  type FileRecords,
} from '@isomeros/core/arrangement';
import { namedRecords, readNamedRecords } from '@isomeros/core/initialRecords';
import type { ProblemDetail } from '@isomeros/core/engine';
import { readModel } from '../designs/modelColumns.js';
import { compressRecords, uncompressRecords, type CompressedRecords } from './compressedRecords.js';

/** Everything of a design file but its records, which may be many. */
type DesignAlone = Omit<DesignFile, 'initialRecords'>;
/** What a model is read from. */
type ModelSource = Omit<FileRecords, 'records'>;

/** Records of a design file: the model they fit, and those records, compressed. */
export interface CarriedRecords {
  readonly fits: ModelSource;
  readonly records: CompressedRecords;
}

/** The same as they are stored. */
export interface StoredCarriedRecords {
  readonly fits: ModelSource;
  readonly compressed: Uint8Array;
}

type DesignFileRead =
  | { readonly ok: true; readonly design: DesignAlone; readonly carried: CarriedRecords | null }
  | { readonly ok: false; readonly detail: string; readonly errors: readonly ProblemDetail[] };

/** Reads a design file; of its records at most `most` may be, and none are read where they are not wanted. */
export async function designFile({
  text,
  withRecords,
  most,
}: {
  readonly text: string;
  readonly withRecords: boolean;
  readonly most: number;
}): Promise<DesignFileRead> {
  const read = readDesignFile(text);
  if (!read.ok) return refused('The design file does not fit', read.problems);
  const { initialRecords, ...design } = read.design;
  if (!withRecords || initialRecords === undefined) return { ok: true, design, carried: null };
  const { records: _records, ...fits } = initialRecords;
  const fitted = readNamedRecords(initialRecords, { now: Date.now(), uuid: randomUUID }, most);
  if (fitted.ok)
    return { ok: true, design, carried: { fits, records: await compressRecords(fitted.model, fitted.rows) } };
  const errors = fitted.problems.map((problem) =>
    'pointer' in problem ? { ...problem, pointer: `/initialRecords${problem.pointer}` } : problem,
  );
  return refused('The records of the design file do not fit', errors);
}

const refused = (what: string, errors: readonly ProblemDetail[]): DesignFileRead => ({
  ok: false,
  detail: `${what}: ${errors[0]?.message ?? ''}`,
  errors,
});

/** The text of a design file, with the records that it carries. */
export async function designFileText({
  design,
  carried,
}: {
  readonly design: DesignAlone;
  readonly carried: StoredCarriedRecords | null;
}): Promise<string> {
  if (carried === null) return writeDesignFile(design);
  const { model: text, identities, choices } = carried.fits;
  const model = readModel({ text, identities, choices });
  const records = namedRecords(model, await uncompressRecords(carried.compressed));
  return writeDesignFile({ ...design, initialRecords: { ...carried.fits, records } });
}
