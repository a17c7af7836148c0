import type { WrittenEdits } from '@isomeros/api';
import { randomUUID } from 'node:crypto';
import { writeAround, type EditProblem, type RecordEdit } from '@isomeros/core/records';
import { ApiProblem } from '../http/problem.js';
import { writeChecked, type LargeWriteOptions } from './checkedWrite.js';
import { NotStored } from './durableDataset.js';
import { endpointOf, type LoadedMock } from './loadedMock.js';
import type { RecordEditDto } from './records.dto.js';
import type { Served } from './served.js';

/** Writes edits by requests through a contract of a mock, the first one where none is named. */
export async function editThrough(
  mock: LoadedMock,
  wanted: Served | null,
  edits: readonly RecordEdit[],
): Promise<WrittenEdits> {
  const endpoint = endpointOf(mock, wanted);
  try {
    return await endpoint.writeEdits(edits);
  } catch (error) {
    if (error instanceof NotStored) throw new ApiProblem('unavailable', error.message);
    throw error;
  }
}

/** Writes edits around the contract. Nobody else may replace records or the model at the same time. */
export async function editAround(
  mock: LoadedMock,
  target: LargeWriteOptions,
  edits: readonly RecordEdit[],
): Promise<WrittenEdits> {
  const { problems } = await writeChecked(mock, target, function* (draft) {
    const options = { now: Date.now(), uuid: randomUUID, most: target.most };
    const outcome = yield* writeAround(mock.records.dataset.model, draft, edits, options);
    const none: readonly EditProblem[] = [];
    return outcome.ok
      ? { changes: outcome.changes, problems: none }
      : { changes: null, problems: outcome.problems };
  });
  return { written: problems.length === 0, exchanges: [], problems };
}

/** Edits as they are read; what one of them lacks is told with its place. */
export function readEdits(given: readonly RecordEditDto[]): readonly RecordEdit[] {
  return given.map(({ kind, type, number, version, values }, index): RecordEdit => {
    const lacks = (name: string, expected: string): ApiProblem => {
      const message = `Expected ${expected} of what is to ${kind === 'add' ? 'be added' : kind}.`;
      const errors = [{ pointer: `/edits/${index}/${name}`, code: 'required', message }];
      return new ApiProblem('invalid', message, { errors });
    };
    if (kind === 'add') {
      if (values === undefined) throw lacks('values', 'the values');
      return { kind, type, values };
    }
    if (number === undefined) throw lacks('number', 'the number');
    if (version === undefined) throw lacks('version', 'the version');
    if (kind === 'remove') return { kind, type, number, version };
    if (values === undefined) throw lacks('values', 'the values');
    return { kind, type, number, version, values };
  });
}
