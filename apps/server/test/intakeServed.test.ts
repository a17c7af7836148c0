import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { CreatedDesign } from '@isomeros/api';
import { arrangementOf, FIRST_ARRANGEMENT, NO_CHOICES } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { Dataset, exampleRequest } from '@isomeros/core/engine';
import { withRecords } from '@isomeros/core/initialRecords';
import { importModel, type IntakeFormat } from '@isomeros/core/intake';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type MockBody } from './support/app.js';

const run = promisify(execFile);
const fixtures = join(import.meta.dirname, '../../../packages/core/test/intake');
const files = ['corpus', 'habits'].flatMap((folder) =>
  readdirSync(join(fixtures, folder))
    .filter((file) => !file.endsWith('.report.txt'))
    .map((file) => `${folder}/${file}`),
);

let app: TestApp;
let folder: string;
beforeAll(async () => {
  app = await TestApp.start();
  folder = mkdtempSync(join(tmpdir(), 'isomeros-served-'));
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

function formatOf(file: string): IntakeFormat {
  if (file.endsWith('.sql')) return 'sql';
  return /schema|draft/.test(file) ? 'json-schema' : 'records';
}

/** What each call of the published script is answered with, a line each. */
async function answers(design: string, baseUrl: string): Promise<readonly string[]> {
  const path = `/api/designs/${design}/arrangements/main/publications/curl.sh`;
  const script = join(folder, 'curl.sh');
  writeFileSync(script, await (await app.send('GET', path)).text());
  const env = { PATH: process.env['PATH'] ?? '', BASE_URL: baseUrl };
  const { stdout } = await run('sh', [script], { cwd: folder, env });
  return stdout.trim().split('\n');
}

/** Sends every operation a request that fits the records a mock begins with; answers which do not succeed. */
async function unansweredByRecords(
  format: IntakeFormat,
  text: string,
  mock: MockBody,
): Promise<readonly string[]> {
  const runtime = { now: Date.now(), uuid: randomUUID };
  const { model, rows } = withRecords(importModel(format, text, 'Untitled design'), runtime);
  const dataset = new Dataset(model, rows, { rid: rows.length, attributes: {} });
  const contract = derive(model, arrangementOf(FIRST_ARRANGEMENT, NO_CHOICES));
  const service = { contract, model, description: () => '', reference: () => '', secret: '' };
  const failed: string[] = [];
  for (const operation of contract.operations) {
    const request = exampleRequest(service, dataset, operation, runtime.now);
    if (request === null) continue;
    const { method, target, headers, body } = request;
    const response = await fetch(new URL(target, mock.baseUrls.main), {
      method,
      headers: [...headers],
      ...(body.kind === 'text' ? { body: body.text } : {}),
    });
    // Where all of them are needed by others, none goes.
    const isNeeded = operation.verb === 'remove' && response.status === 409;
    if (!response.ok && !isNeeded) failed.push(`${operation.id}: ${response.status}`);
    if (method !== 'GET') await app.json('POST', `/api/mocks/${mock.id}/reset`);
  }
  return failed;
}

describe('what is read from elsewhere is served', () => {
  test.each(files)('every operation of %s, from its records and from seeds', async (file) => {
    const format = formatOf(file);
    const text = readFileSync(join(fixtures, file), 'utf8');
    const { id, initialRecords } = await app.json<CreatedDesign>('POST', '/api/designs', {
      source: { format, text },
    });
    const seeded = await app.createMock(id, { initialRecords: false });
    const answered = await answers(id, seeded.baseUrls.main);
    expect(answered.length).toBeGreaterThan(2);
    expect(answered.filter((line) => !line.startsWith('2'))).toEqual([]);
    if (initialRecords === 0) return;
    const mock = await app.createMock(id);
    expect([mock.initialRecords, mock.records, mock.adjustments]).toEqual([true, initialRecords, []]);
    expect(await unansweredByRecords(format, text, mock)).toEqual([]);
  });
});
