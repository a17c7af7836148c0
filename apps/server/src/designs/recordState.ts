import { mapInSteps, type Row } from '@isomeros/core/model';
import { packText, unpackJson } from '../database/compressedJson.js';
import { inSlices, type Watching } from '../slices.js';
import type { ModelColumns } from './modelColumns.js';

/** Records as they were at a moment, and the model they satisfied then. */
export interface RecordState {
  readonly model: ModelColumns;
  readonly rows: readonly Row[];
}

/** A state as JSON, compressed (RFC 1951); there may be a million records, so others have their turn meanwhile. */
export async function packState({ model, rows }: RecordState, watching: Watching): Promise<Buffer> {
  const texts = await inSlices(
    mapInSteps('writing', rows, (row) => JSON.stringify(row)),
    watching,
  );
  return packText(`{"model":${JSON.stringify(model)},"rows":[${texts.join()}]}`);
}

export const unpackState = (packed: Uint8Array): Promise<RecordState> => unpackJson<RecordState>(packed);
