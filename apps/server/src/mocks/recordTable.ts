import type { InspectedRecord, RecordTable } from '@isomeros/api';
import {
  columnsOf,
  readFind,
  recordDetail,
  recordPage,
  removalLine,
  sortBy,
  type RecordFind,
} from '@isomeros/core/records';
import type { EntityStorage, Model } from '@isomeros/core/model';
import { readLimit, readOffset } from '../http/pagination.js';
import { ApiProblem } from '../http/problem.js';
import type { LoadedMock } from './loadedMock.js';
import { recordTypeOf } from './recordExport.js';
import type { TableQueryDto } from './records.dto.js';
import { servedMember } from './served.js';

/** Some of the records of one type, as they are now. `now`: milliseconds since 1970. */
export function recordTable(
  { records: { dataset } }: LoadedMock,
  name: string,
  query: TableQueryDto,
  now: number,
): RecordTable {
  const { model } = dataset;
  const storage = recordTypeOf(model, name);
  const page = { offset: readOffset(query.offset), limit: readLimit(query.limit) };
  const find = readQuery(model, storage, query, now);
  return { columns: columnsOf(model, storage), ...recordPage(dataset, storage, find, page) };
}

function readQuery(
  model: Model,
  storage: EntityStorage,
  { find, sort }: TableQueryDto,
  now: number,
): RecordFind {
  const read = readFind(model, storage, find ?? '', now);
  if (!read.ok) throw wrong('find', `${read.message} (column ${read.column})`);
  if (sort === undefined) return read.find;
  const first = sortBy(model, storage, sort);
  if (first !== null) return { ...read.find, sort: [first, ...read.find.sort] };
  const names = columnsOf(model, storage).flatMap(({ name, isSorted }) => (isSorted ? [name] : []));
  throw wrong(
    'sort',
    `${storage.entity.name} is sorted by one of ${names.join(', ')}; a minus in front descends.`,
  );
}

const wrong = (parameter: string, message: string): ApiProblem =>
  new ApiProblem('bad-parameter', message, { errors: [{ parameter, code: 'value', message }] });

/** One record with what hangs together with it; a problem where it is gone. */
export async function inspectedRecord(
  mock: LoadedMock,
  name: string,
  number: string,
  now: number,
): Promise<InspectedRecord> {
  const { dataset } = mock.records;
  const storage = recordTypeOf(dataset.model, name);
  const row = /^[1-9]\d{0,14}$/.test(number) ? dataset.get(Number(number)) : undefined;
  if (row?.entity !== storage.entity.id)
    throw new ApiProblem('not-found', `There is no record ${number} of ${name}.`);
  return {
    columns: columnsOf(dataset.model, storage),
    ...recordDetail(dataset, storage, row, now),
    versions: await mock.journal.versionsOf(row.rid),
    removedBy: mock.endpoints.map(({ served, service }) => ({
      ...servedMember(served),
      request: removalLine(service, dataset, storage, row, now),
    })),
  };
}
