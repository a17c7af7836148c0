import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { validate } from '@hyperjump/json-schema/openapi-3-1';
import type { Json } from '@hyperjump/json-pointer';
import { Ajv2020 } from 'ajv/dist/2020.js';
import formats from 'ajv-formats';
import { apiDescription, OPERATIONS } from '../src/description/apiDescription.js';
import { TestApp, type DesignBody, type MockBody } from './support/app.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

const plain = (): Json => JSON.parse(JSON.stringify(apiDescription())) as Json;

describe('the description of the interface', () => {
  test('fits the official schema of OpenAPI 3.1', async () => {
    const output = await validate('https://spec.openapis.org/oas/3.1/schema-base', plain(), 'BASIC');
    expect(output.valid ? [] : output.errors).toEqual([]);
  });

  test('is served', async () => {
    expect(await app.json('GET', '/api/openapi.json')).toEqual(plain());
  });

  test('describes every route there is, and no other', async () => {
    const decorator = /@(Get|Post|Put|Delete|Sse)\((?:'([^']*)')?\)/g;
    const source = join(import.meta.dirname, '../src');
    const files = (await readdir(source, { recursive: true })).filter((file) =>
      file.endsWith('.controller.ts'),
    );
    const routes = await Promise.all(
      files.map(async (file) => {
        const text = await readFile(join(source, file), 'utf8');
        const base = /@Controller\('([^']*)'\)/.exec(text)?.[1] ?? '';
        return [...text.matchAll(decorator)].map(([, kind = '', path = '']) => {
          const method = kind === 'Sse' ? 'GET' : kind.toUpperCase();
          return `${method} /${[base, path].filter((part) => part !== '').join('/')}`.replace(
            /:(\w+)/g,
            '{$1}',
          );
        });
      }),
    );
    expect(routes.flat().sort()).toEqual(Object.keys(OPERATIONS).sort());
  });

  test('answers fit the schemas they are described by', async () => {
    const ajv = new Ajv2020({ strict: false, allErrors: true });
    (formats as unknown as (ajv: Ajv2020) => void)(ajv);
    ajv.addSchema({ $id: 'doc', ...(plain() as object) });
    const fits = (name: string, value: unknown): void => {
      const check = ajv.compile({ $ref: `doc#/components/schemas/${name}` });
      expect([name, check(value), check.errors]).toEqual([name, true, null]);
    };
    const design = await app.createDesign('entity Route\n  name: text\n');
    fits('Design', design);
    const { items } = await app.json<{ items: DesignBody[] }>('GET', '/api/designs');
    items.forEach((item) => fits('DesignSummary', item));
    fits('Arrangement', await app.json('GET', `/api/designs/${design.id}/arrangements/main`));
    const samples = await app.json<{ items: unknown[] }>('GET', '/api/samples');
    samples.items.forEach((item) => fits('Sample', item));
    const mock = await app.createMock(design.id);
    fits('Mock', mock);
    await fetch(`${mock.baseUrls.main}/routes`);
    const exchanges = await app.json<{ items: MockBody[] }>('GET', `/api/mocks/${mock.id}/exchanges`);
    exchanges.items.forEach((item) => fits('ExchangeSummary', item));
    fits('Exchange', await app.json('GET', `/api/mocks/${mock.id}/exchanges/1`));
    fits('Problem', await (await app.send('GET', '/api/designs/none')).json());
    fits('ProblemKinds', await app.json('GET', '/api/problems'));
  });
});
