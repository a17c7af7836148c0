import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { validate } from '@hyperjump/json-schema/openapi-3-1';
import type { Json } from '@hyperjump/json-pointer';
import { PROBLEM_KINDS, type RouteKey } from '@isomeros/api';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import formats from 'ajv-formats';
import { handledRoutes } from '../src/http/route.js';
import { TestApp } from './support/app.js';
import { document, operations } from './support/description.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

describe('the description of the interface', () => {
  test('is made of its types', async () => {
    const script = (await import(join(import.meta.dirname, '../../../scripts/describeApi.mjs'))) as {
      readonly describeApi: (kinds: typeof PROBLEM_KINDS) => object;
    };
    // `npm run api` writes it anew.
    expect(JSON.parse(JSON.stringify(script.describeApi(PROBLEM_KINDS)))).toEqual(document);
  });

  test('fits the official schema of OpenAPI 3.1', async () => {
    const plain = JSON.parse(JSON.stringify(document)) as Json;
    const output = await validate('https://spec.openapis.org/oas/3.1/schema-base', plain, 'BASIC');
    expect(output.valid ? [] : output.errors).toEqual([]);
  });

  test('is served', async () => {
    expect(await app.json('GET', '/api/openapi.json')).toEqual(document);
  });

  test('describes every route there is, and no other; each says in a sentence what it does', async () => {
    // A controller that nobody imported would handle nothing.
    const source = join(import.meta.dirname, '../src');
    const controllers = (await readdir(source, { recursive: true })).filter((file) =>
      file.endsWith('.controller.ts'),
    );
    expect(controllers.length).toBeGreaterThan(5);
    expect([...handledRoutes()].sort()).toEqual(operations.map(([key]) => key).sort());
    for (const [key, { summary }] of operations) expect([key, summary]).toEqual([key, expect.any(String)]);
  });
});

describe('what is answered', () => {
  const ajv = new Ajv2020({ strict: false, allErrors: true });
  (formats as unknown as (ajv: Ajv2020) => void)(ajv);
  ajv.addSchema({ $id: 'doc', ...document });
  const checks = new Map<string, ValidateFunction>();
  const checkOf = (key: string, status: number): ValidateFunction => {
    const name = `${key} ${status}`;
    const [method = '', path = ''] = key.split(' ');
    const pointer = [
      path,
      method.toLowerCase(),
      'responses',
      String(status),
      'content',
      'application/json',
      'schema',
    ]
      .map((part) => encodeURIComponent(part.replaceAll('~', '~0').replaceAll('/', '~1')))
      .join('/');
    const check = checks.get(name) ?? ajv.compile({ $ref: `doc#/paths/${pointer}` });
    checks.set(name, check);
    return check;
  };

  test('has every member of its type, and no other', async () => {
    const seen = new Set<string>();
    const ask = async (key: RouteKey, path: string, body?: unknown): Promise<Record<string, unknown>> => {
      const response = await app.send(key.split(' ')[0] ?? '', path, body);
      expect([key, response.status < 300]).toEqual([key, true]);
      const answer = (await response.json()) as Record<string, unknown>;
      const check = checkOf(key, response.status);
      expect([key, check(answer), check.errors]).toEqual([key, true, null]);
      seen.add(key);
      return answer;
    };
    const text =
      'entity Route\n  name: text, required, unique\n  state: choice(open, closed), default open\n    close: open -> closed\n';
    const design = await ask('POST /api/designs', '/api/designs', { source: { format: 'notation', text } });
    const at = `/api/designs/${String(design['id'])}`;
    await ask('GET /api/designs/{id}/initial-records', `${at}/initial-records`);
    const intake = await ask('POST /api/intakes', '/api/intakes', {
      source: { format: 'records', text: '[' },
    });
    await ask('GET /api/intakes/{id}', `/api/intakes/${String(intake['id'])}`);
    await ask('GET /api/designs', '/api/designs');
    await ask('GET /api/samples', '/api/samples');
    await ask('GET /api/problems', '/api/problems');
    await ask('POST /api/designs/{id}/copy', `${at}/copy`, { name: 'Copy' });
    await ask('PUT /api/designs/{id}/model', `${at}/model`, { text: `${text}  nonsense\n` });
    await ask('PUT /api/designs/{id}/model', `${at}/model`, { text: text.replaceAll('name', 'title') });
    await ask('GET /api/designs/{id}/model', `${at}/model`);
    await ask('PUT /api/designs/{id}/name', `${at}/name`, { name: 'Routes' });
    await ask('GET /api/designs/{id}/file', `${at}/file`);
    const customOperations = [
      {
        id: 'c',
        name: 'latest',
        entity: 'Route',
        effect: { kind: 'query', filters: [], order: [], limit: 3 },
      },
    ];
    await ask('PUT /api/designs/{id}/arrangements/{name}', `${at}/arrangements/more`, {
      settings: { security: ['bearer'], mediaTypes: ['hal', 'json'] },
      customOperations,
      exposures: { Route: { 'Route.state': { out: 'yes', filter: ['eq'] } } },
    });
    await ask('GET /api/designs/{id}/arrangements/{name}', `${at}/arrangements/more`);
    await ask('GET /api/designs/{id}/arrangements/{name}/contract', `${at}/arrangements/more/contract`);
    const published = `${at}/arrangements/more/publications`;
    await ask('GET /api/designs/{id}/arrangements/{name}/publications', published);
    await ask(
      'GET /api/designs/{id}/arrangements/{name}/publications/{format}',
      `${published}/openapi-3.0.json?server=mock`,
    );
    await ask('GET /api/designs/{id}/arrangements/{name}/{document}', `${at}/arrangements/more/openapi.json`);
    await ask('PUT /api/designs/{id}/arrangements/{name}/name', `${at}/arrangements/more/name`, {
      name: 'other',
    });
    await ask('GET /api/designs/{id}', at);
    await ask('GET /api/designs/{id}/revisions', `${at}/revisions`);
    await ask('GET /api/designs/{id}/revisions/{number}', `${at}/revisions/1`);
    await ask('POST /api/designs/{id}/releases', `${at}/releases`, { label: '1', arrangement: 'main' });
    await ask('PUT /api/designs/{id}/releases/{label}/end', `${at}/releases/1/end`, {
      deprecatedAt: '2026-06-14T08:30:00Z',
      successor: { arrangement: 'main' },
    });
    await ask('GET /api/designs/{id}/releases/{label}', `${at}/releases/1`);
    await ask('GET /api/designs/{id}/releases', `${at}/releases`);
    await ask('GET /api/designs/{id}/releases/{label}/contract', `${at}/releases/1/contract`);
    await ask('GET /api/designs/{id}/releases/{label}/publications', `${at}/releases/1/publications`);
    await ask(
      'GET /api/designs/{id}/releases/{label}/publications/{format}',
      `${at}/releases/1/publications/json-schema.json`,
    );
    await ask('GET /api/designs/{id}/releases/{label}/{document}', `${at}/releases/1/openapi.json`);
    await ask('GET /api/designs/{id}/releases/{label}/changes', `${at}/releases/1/changes?arrangement=other`);
    await ask('DELETE /api/designs/{id}/releases/{label}/end', `${at}/releases/1/end`);
    const mock = await ask('POST /api/mocks', '/api/mocks', { design: design['id'], arrangements: ['main'] });
    const base = (mock['baseUrls'] as { main: string }).main;
    const on = `/api/mocks/${String(mock['id'])}`;
    await fetch(`${base}/routes`);
    await fetch(`${base}/routes/1/nowhere`);
    await fetch(`${base}/routes/1/close`, { method: 'POST' });
    await ask('GET /api/mocks', '/api/mocks');
    await ask('GET /api/mocks/{id}', on);
    await ask('POST /api/mocks/{id}/messages', `${on}/messages`, {
      message: `POST /api/v1/routes HTTP/1.1\r\nHost: here\r\nContent-Type: application/json\r\n\r\n{"title":"New"}`,
    });
    await ask('GET /api/mocks/{id}/exchanges', `${on}/exchanges`);
    for (const number of [1, 2, 3, 4])
      await ask('GET /api/mocks/{id}/exchanges/{number}', `${on}/exchanges/${number}`);
    await ask('GET /api/mocks/{id}/exchanges/{number}/example', `${on}/exchanges/1/example`);
    await ask('GET /api/mocks/{id}/har', `${on}/har`);
    await ask('GET /api/mocks/{id}/load', `${on}/load`);
    await ask('PUT /api/mocks/{id}/faults', `${on}/faults`, {
      seed: 7,
      items: [
        {
          latency: { kind: 'fixed', ms: 1 },
          failures: [{ status: 503, rate: 0.1 }],
          drop: 0,
          bytesPerSecond: 9_000,
        },
      ],
    });
    await ask('GET /api/mocks/{id}/faults', `${on}/faults`);
    await ask('PUT /api/mocks/{id}/seed-plan', `${on}/seed-plan`, { counts: { Route: 4 } });
    await ask('GET /api/mocks/{id}/seed-plan', `${on}/seed-plan`);
    await ask('POST /api/mocks/{id}/seed-preview', `${on}/seed-preview`, { counts: { Route: 4 } });
    await ask('GET /api/mocks/{id}/record-types', `${on}/record-types`);
    await ask('GET /api/mocks/{id}/record-types/{type}/table', `${on}/record-types/Route/table`);
    // The first record of the first type has the first number.
    await ask('GET /api/mocks/{id}/record-types/{type}/table/{number}', `${on}/record-types/Route/table/1`);
    await ask('POST /api/mocks/{id}/record-edits', `${on}/record-edits`, {
      edits: [
        { kind: 'add', type: 'Route', values: { title: 'Three' } },
        { kind: 'remove', type: 'Route', number: 99_999, version: 1 },
      ],
    });
    await ask('GET /api/mocks/{id}/records', `${on}/records`);
    await ask('GET /api/mocks/{id}/records/{type}', `${on}/records/Route`);
    await ask('POST /api/mocks/{id}/records', `${on}/records?mode=merge&check=only`, {
      Route: [{ title: 'One' }],
    });
    await ask('POST /api/mocks/{id}/records/{type}', `${on}/records/Route`, [{ title: 'Two' }]);
    await ask('PUT /api/mocks/{id}/unversioned', `${on}/unversioned`, {});
    await ask('POST /api/mocks/{id}/undo', `${on}/undo`);
    await ask('POST /api/mocks/{id}/snapshots', `${on}/snapshots`, { name: 'now' });
    await ask('GET /api/mocks/{id}/snapshots', `${on}/snapshots`);
    await ask('POST /api/mocks/{id}/snapshots/{name}/restore', `${on}/snapshots/now/restore`);
    await ask('PUT /api/designs/{id}/model', `${at}/model`, {
      text: text.replace('text, required', 'text(1..1), required'),
    });
    await ask('GET /api/mocks/{id}/migration', `${on}/migration`);
    await ask('POST /api/mocks/{id}/reset', `${on}/reset`);
    await ask('POST /api/mocks/{id}/stop', `${on}/stop`);
    await ask('POST /api/mocks/{id}/start', `${on}/start`);
    await ask('DELETE /api/designs/{id}/arrangements/{name}', `${at}/arrangements/other`);
    await ask('POST /api/designs/{id}/revisions/{number}/restore', `${at}/revisions/1/restore`);
    const settings = { pageSize: 5, security: ['bearer'] };
    await ask('PUT /api/designs/{id}/choices', `${at}/choices`, { settings, answered: ['a'] });
    const guarded = await app.createMock(at.slice(at.lastIndexOf('/') + 1));
    await ask('GET /api/mocks/{id}/credentials', `/api/mocks/${guarded.id}/credentials`);
    await app.send('DELETE', at);
    await ask('POST /api/designs/{id}/restore', `${at}/restore`);
    await app.send('DELETE', on);
    const answering = operations.flatMap(([key, { responses }]) =>
      Object.values(responses).some(({ content }) => content?.['application/json'] !== undefined)
        ? [key]
        : [],
    );
    // Their answers have the types of others that are here.
    const likeOthers = [
      'GET /api/openapi.json',
      'POST /api/designs/{id}/renames',
      'POST /api/mocks/{id}/migration',
      'POST /api/live-schemas',
    ];
    expect(answering.filter((key) => !seen.has(key) && !likeOthers.includes(key))).toEqual([]);
  });

  test('problems have the members of theirs', async () => {
    const check = ajv.compile({ $ref: 'doc#/components/schemas/ProblemBody' });
    for (const response of [
      await app.send('GET', '/api/designs/none'),
      await app.send('GET', '/api/designs?limit=0'),
      await app.send('GET', '/api/designs?size=3'),
      await app.send('POST', '/api/designs', { name: '' }),
      await app.send('POST', '/api/designs', { source: { format: 'notation', text: 'entity' } }),
      await app.send('PATCH', '/api/designs'),
    ]) {
      const body: unknown = await response.json();
      expect([body, check(body), check.errors]).toEqual([body, true, null]);
    }
  });
});

describe('for one version', () => {
  test.each([
    ['POST', '/api/designs/d1/bring-back', '/api/designs/d1/restore'],
    ['GET', '/api/mocks/m1/trouble?token=x', '/api/mocks/m1/faults?token=x'],
    ['PUT', '/api/mocks/m1/seeding', '/api/mocks/m1/seed-plan'],
    ['GET', '/api/mocks/m1/kinds', '/api/mocks/m1/record-types'],
  ])('%s %s leads to %s', async (method, before, now) => {
    const response = await fetch(app.url + before, { method, redirect: 'manual' });
    expect([response.status, response.headers.get('location')]).toEqual([308, now]);
  });
});
