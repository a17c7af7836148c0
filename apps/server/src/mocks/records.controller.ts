import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Body, Controller, Get, Headers, HttpCode, Param, Post, Query, Req, Res } from '@nestjs/common';
import type { ImportMode } from '@isomeros/core/transfer';
import type { Request, Response } from 'express';
import type { ServedRelease } from '../designs/releases.service.js';
import { ApiProblem } from '../http/problem.js';
import { MockRegistry } from './mockRegistry.js';
import { importInto, type RecordsSource, type ImportResult } from './recordImport.js';
import { csvOfType, freeze, jsonOfAll, jsonOfType, recordTypeOf } from './recordExport.js';

const JSON_TYPE = 'application/json';
const CSV_TYPE = 'text/csv';
/** RFC 7111 §2 and RFC 4180 §3. */
const CSV_SENT = `${CSV_TYPE}; charset=utf-8; header=present`;

/** The records of a mock, out and in, by the names of the model. */
@Controller('api/mocks/:id/records')
export class RecordsController {
  constructor(private readonly mocks: MockRegistry) {}

  @Get()
  async all(
    @Param('id') id: string,
    @Query('secrets') secrets: string | undefined,
    @Res() response: Response,
  ): Promise<void> {
    const frozen = freeze(this.mocks.find(id));
    await send(response, JSON_TYPE, 'records.json', jsonOfAll(frozen, readSecrets(secrets)));
  }

  @Get(':kind')
  async ofKind(
    @Param('id') id: string,
    @Param('kind') kind: string,
    @Query('secrets') secrets: string | undefined,
    @Query('as') as: string | undefined,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const frozen = freeze(this.mocks.find(id));
    const storage = recordTypeOf(frozen.model, kind);
    const shown = readSecrets(secrets);
    response.vary('Accept');
    // A link in a page cannot say what it accepts.
    const type = as === undefined ? request.accepts([JSON_TYPE, CSV_TYPE]) : readForm(as);
    if (type === CSV_TYPE) await send(response, CSV_SENT, `${kind}.csv`, csvOfType(frozen, storage, shown));
    else if (type === JSON_TYPE)
      await send(response, JSON_TYPE, `${kind}.json`, jsonOfType(frozen, storage, shown));
    else throw new ApiProblem('not-acceptable', `Records are sent as ${JSON_TYPE} or ${CSV_TYPE}.`);
  }

  /** Takes in a document of all kinds. */
  @Post()
  @HttpCode(200)
  takeAll(
    @Param('id') id: string,
    @Query('way') way: string | undefined,
    @Query('check') check: string | undefined,
    @Body() body: unknown,
  ): Promise<ImportResult> {
    return this.take(id, { kind: 'document', text: textOf(body) }, way, check);
  }

  /** Takes in records of one kind. */
  @Post(':kind')
  @HttpCode(200)
  takeKind(
    @Param('id') id: string,
    @Param('kind') kind: string,
    @Query('way') way: string | undefined,
    @Query('check') check: string | undefined,
    @Headers('content-type') type: string | undefined,
    @Body() body: unknown,
  ): Promise<ImportResult> {
    const form = type?.startsWith(CSV_TYPE) === true ? 'csv' : 'records';
    return this.take(id, { kind: form, of: kind, text: textOf(body) }, way, check);
  }

  private async take(
    id: string,
    records: RecordsSource,
    way: string | undefined,
    check: string | undefined,
  ): Promise<ImportResult> {
    const mock = this.mocks.find(id);
    const { designId } = mock.row;
    const [mode, checkOnly] = [readWay(way), readChoice('check', check, 'only')];
    const into = {
      most: this.mocks.limits.records,
      split: (releases: readonly ServedRelease[]) => this.mocks.split(mock, releases),
      onProgress: this.mocks.progressOf(mock),
    };
    const taken = await this.mocks.queue.run(designId, () =>
      importInto(mock, into, records, mode, checkOnly),
    );
    if (taken.done) this.mocks.announce(mock);
    return taken;
  }
}

/** A body as it came: records are read where they are checked. */
function textOf(body: unknown): string {
  if (typeof body === 'string') return body;
  throw new ApiProblem('bad-request', 'Expected a body with records.');
}

const readSecrets = (value: string | undefined): boolean => readChoice('secrets', value, 'include');

/** Whether a parameter that takes one word has it. */
function readChoice(parameter: string, value: string | undefined, word: string): boolean {
  if (value === undefined || value === word) return value === word;
  const message = `Expected ${parameter}=${word}, or nothing.`;
  throw new ApiProblem('bad-parameter', message, { errors: [{ parameter, code: 'choice', message }] });
}

function readForm(as: string): string {
  return as === 'json' || !readChoice('as', as, 'csv') ? JSON_TYPE : CSV_TYPE;
}

function readWay(way: string | undefined): ImportMode {
  return readChoice('way', way === 'merge' ? undefined : way, 'replace') ? 'replace' : 'merge';
}

async function send(response: Response, type: string, name: string, parts: Iterable<string>): Promise<void> {
  response.status(200).attachment(name);
  response.setHeader('Content-Type', type).setHeader('Cache-Control', 'no-store');
  await pipeline(Readable.from(parts), response);
}
