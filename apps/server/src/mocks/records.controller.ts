import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ImportResult, InspectedRecord, RecordTable, WrittenEdits } from '@isomeros/api';
import { Body, Controller, Headers, Param, Query, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { clientAbortSignal } from '../http/clientAbort.js';
import { RecordsBody } from '../http/bodyInterceptor.js';
import { ApiProblem } from '../http/problem.js';
import { Route, TextRoute } from '../http/route.js';
import { MockRegistry } from './mockRegistry.js';
import { servedIn } from './mocks.dto.js';
import { editAround, editThrough, readEdits } from './recordEdits.js';
import { csvOfType, freezeRecords, jsonOfAll, jsonOfType, recordTypeOf } from './recordExport.js';
import { importInto, type RecordsSource } from './recordImport.js';
import {
  ExportQueryDto,
  ImportQueryDto,
  RecordEditsDto,
  TableQueryDto,
  TypeExportQueryDto,
} from './records.dto.js';
import { inspectedRecord, recordTable } from './recordTable.js';

const JSON_TYPE = 'application/json';
const CSV_TYPE = 'text/csv';
/** RFC 7111 §2 and RFC 4180 §3. */
const CSV_SENT = `${CSV_TYPE}; charset=utf-8; header=present`;

/** The records of a mock, out and in, by the names of the model. */
@Controller()
export class RecordsController {
  constructor(private readonly mocks: MockRegistry) {}

  @TextRoute('GET /api/mocks/{id}/records')
  async all(
    @Param('id') id: string,
    @Query() { secrets }: ExportQueryDto,
    @Res() response: Response,
  ): Promise<void> {
    const frozen = freezeRecords(this.mocks.find(id));
    await send(response, JSON_TYPE, 'records.json', jsonOfAll(frozen, secrets !== undefined));
  }

  @TextRoute('GET /api/mocks/{id}/records/{type}')
  async ofType(
    @Param('id') id: string,
    @Param('type') name: string,
    @Query() { secrets, as }: TypeExportQueryDto,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const frozen = freezeRecords(this.mocks.find(id));
    const storage = recordTypeOf(frozen.model, name);
    const shown = secrets !== undefined;
    response.vary('Accept');
    // A link in a page cannot say what it accepts.
    const type = as === undefined ? request.accepts([JSON_TYPE, CSV_TYPE]) : FORMS[as];
    if (type === CSV_TYPE) await send(response, CSV_SENT, `${name}.csv`, csvOfType(frozen, storage, shown));
    else if (type === JSON_TYPE)
      await send(response, JSON_TYPE, `${name}.json`, jsonOfType(frozen, storage, shown));
    else throw new ApiProblem('not-acceptable', `Records are sent as ${JSON_TYPE} or ${CSV_TYPE}.`);
  }

  @Route('GET /api/mocks/{id}/record-types/{type}/table')
  table(@Param('id') id: string, @Param('type') name: string, @Query() query: TableQueryDto): RecordTable {
    return recordTable(this.mocks.find(id), name, query, Date.now());
  }

  @Route('GET /api/mocks/{id}/record-types/{type}/table/{number}')
  record(
    @Param('id') id: string,
    @Param('type') name: string,
    @Param('number') number: string,
  ): Promise<InspectedRecord> {
    return inspectedRecord(this.mocks.find(id), name, number, Date.now());
  }

  /** Writes edits of records, all or none. */
  @Route('POST /api/mocks/{id}/record-edits')
  async edit(
    @Param('id') id: string,
    @Body() body: RecordEditsDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<WrittenEdits> {
    const mock = this.mocks.find(id);
    const edits = readEdits(body.edits);
    if (body.way !== 'around') return editThrough(mock, servedIn(body), edits);
    const written = await this.mocks.queue.run(mock.row.designId, () =>
      editAround(mock, this.mocks.writeOptions(mock, clientAbortSignal(response)), edits),
    );
    if (written.written) this.mocks.announce(mock);
    return written;
  }

  /** Imports a document of all record types. */
  @Route('POST /api/mocks/{id}/records')
  @RecordsBody()
  importAll(
    @Param('id') id: string,
    @Query() query: ImportQueryDto,
    @Body() body: unknown,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ImportResult> {
    const signal = clientAbortSignal(response);
    return this.import(id, { kind: 'document', text: textOf(body) }, query, signal);
  }

  /** Imports records of one type. */
  @Route('POST /api/mocks/{id}/records/{type}')
  @RecordsBody(CSV_TYPE)
  importType(
    @Param('id') id: string,
    @Param('type') name: string,
    @Query() query: ImportQueryDto,
    @Headers('content-type') type: string | undefined,
    @Body() body: unknown,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ImportResult> {
    const form = type?.startsWith(CSV_TYPE) === true ? 'csv' : 'records';
    const signal = clientAbortSignal(response);
    return this.import(id, { kind: form, of: name, text: textOf(body) }, query, signal);
  }

  private async import(
    id: string,
    records: RecordsSource,
    { mode = 'merge', check }: ImportQueryDto,
    signal: AbortSignal,
  ): Promise<ImportResult> {
    const mock = this.mocks.find(id);
    const result = await this.mocks.queue.run(mock.row.designId, () =>
      importInto(mock, this.mocks.writeOptions(mock, signal), records, mode, check !== undefined),
    );
    if (result.done) this.mocks.announce(mock);
    return result;
  }
}

const FORMS = { json: JSON_TYPE, csv: CSV_TYPE } as const;

/** A body as it came: records are read where they are checked. */
function textOf(body: unknown): string {
  if (typeof body === 'string') return body;
  throw new ApiProblem('bad-request', 'Expected a body with records.');
}

async function send(response: Response, type: string, name: string, parts: Iterable<string>): Promise<void> {
  response.status(200).attachment(name);
  response.setHeader('Content-Type', type).setHeader('Cache-Control', 'no-store');
  await pipeline(Readable.from(parts), response);
}
