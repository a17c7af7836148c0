import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { CHOICES_FORMAT } from '@isomeros/core/arrangement';
import { TestApp, type DesignBody, type MockBody } from './support/app.js';
import { createSchema, runSql } from './support/database.js';

/** What an installation kept before formats had numbers, and what it answered then. */
const BEFORE = join(import.meta.dirname, 'fixtures/format-1');
const readFixture = (name: string): string => readFileSync(join(BEFORE, name), 'utf8');

interface Answered {
  /** Without reasons. */
  readonly changes: Readonly<
    Record<string, readonly { readonly weight: string; readonly breaks: string | null }[]>
  >;
  /** By label and path below the base URL of the release. */
  readonly mock: Readonly<
    Record<
      string,
      { status: number; etag: string | null; link: string | null; sunset: string | null; body: string }
    >
  >;
}

const before = JSON.parse(readFixture('answers.json')) as Answered;

let app: TestApp;
let design: DesignBody;
beforeAll(async () => {
  const databaseUrl = await createSchema();
  await runSql(databaseUrl, `SET foreign_key_checks = 0; ${readFixture('dump.sql')}`);
  app = await TestApp.start({ databaseUrl });
  const { items } = await app.json<{ items: readonly { id: string }[] }>('GET', '/api/designs');
  const found = items.at(-1);
  if (found === undefined) throw new Error('The design is gone.');
  design = await app.json('GET', `/api/designs/${found.id}`);
});
afterAll(() => app.close());

const text = async (path: string): Promise<string> => (await app.send('GET', path)).text();

describe('an installation from before formats had numbers', () => {
  test('opens its design, with what was chosen in today’s form', () => {
    expect(design.name).toBe('Tool shed');
    expect(design.diagnostics).toEqual([]);
    expect(design.choices).toMatchObject({
      settings: { mediaTypes: ['hal', 'json'], unset: 'left out' },
      arrangements: [
        { name: 'main' },
        {
          name: 'partners',
          settings: { security: ['basic', 'bearer'] },
          resources: { Tool: { defaultSort: ['-weight', 'name'] } },
          operations: { 'wearOut/custom:custom': { access: 'role' } },
          customOperations: [{ id: 'heaviest' }, { id: 'wearOut' }],
        },
      ],
    });
  });

  test('restores a revision from then', async () => {
    const copy = await app.json<DesignBody>('POST', `/api/designs/${design.id}/copy`, { name: 'Copy' });
    expect(copy.choices).toEqual(design.choices);
    const path = `/api/designs/${design.id}/revisions`;
    const { items } = await app.json<{ items: readonly { number: number; what: string }[] }>('GET', path);
    const oldest = items.filter(({ what }) => what === 'choices').at(-1);
    const kept = await app.json<{ choices: object }>('GET', `${path}/${oldest?.number ?? 0}`);
    expect(kept.choices).toMatchObject({ settings: { mediaTypes: ['hal', 'json'] } });
  });

  test.each(Object.keys(before.changes))(
    'publishes release %s under its older names, and compares it as before',
    async (label) => {
      const path = `/api/designs/${design.id}/releases/${label}`;
      for (const language of ['json', 'yaml'])
        expect(await text(`${path}/openapi.${language}`)).toBe(
          await text(`${path}/publications/openapi-3.1.${language}`),
        );
      const { items } = await app.json<{ items: readonly object[] }>('GET', `${path}/changes`);
      expect(items.map(({ reasons: _reasons, ...change }: { reasons?: unknown }) => change)).toEqual(
        before.changes[label]?.map(({ weight, breaks, ...change }) => ({
          compatibility: weight,
          affects: breaks,
          ...change,
        })),
      );
      const kept = await text(`${path}/contract`);
      expect(JSON.parse(kept)).not.toHaveProperty('format');
    },
  );

  test('serves its releases as before, from the records it had', async () => {
    const { items } = await app.json<{ items: readonly MockBody[] }>('GET', '/api/mocks');
    const [mock] = items;
    if (mock === undefined) throw new Error('The mock is gone.');
    for (const [asked, answer] of Object.entries(before.mock)) {
      const [label = '', path = ''] = asked.split(' ');
      const response = await fetch((mock.releaseUrls[label] ?? '') + path, {
        headers: { Authorization: 'Bearer user-secret' },
      });
      expect([asked, response.status, response.headers.get('sunset'), ported(await response.text())]).toEqual(
        [asked, answer.status, answer.sunset, ported(answer.body)],
      );
      expect(ported(response.headers.get('link') ?? '')).toBe(ported(answer.link ?? ''));
    }
  });

  test('puts back a snapshot from then', async () => {
    const { items } = await app.json<{ items: readonly MockBody[] }>('GET', '/api/mocks');
    const path = `/api/mocks/${items[0]?.id ?? ''}`;
    const restored = await app.send('POST', `${path}/snapshots/before/restore`);
    expect([restored.status, await restored.text()]).toEqual([200, expect.stringContaining('"records":14')]);
  });

  test('takes in a design file from then, and writes it in today’s version', async () => {
    const source = { format: 'design', text: readFixture('design-file-2.json') };
    const made = await app.json<DesignBody>('POST', '/api/designs', { source });
    expect(made.choices).toEqual(design.choices);
    const file = JSON.parse(await text(`/api/designs/${made.id}/file`)) as { version: number };
    expect(file.version).toBe(CHOICES_FORMAT.newest);
  });
});

/** Mocks may get other ports than they had. */
const ported = (answer: string): string => answer.replace(/127\.0\.0\.1:\d+/g, '127.0.0.1:port');
