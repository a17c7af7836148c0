import { describe, expect, test } from '@jest/globals';
import { registerSchema, unregisterSchema, validate } from '@hyperjump/json-schema/openapi-3-1';
import type { Json } from '@hyperjump/json-pointer';
import { derive } from '@isomeros/core/derivation';
import { componentSchemas, openApiDocument } from '@isomeros/core/publication';
import fc from 'fast-check';
import { expectGolden } from '../support/golden.js';
import { anyArrangement } from '../support/arrangements.js';
import { anyModel, modelOf } from '../support/models.js';
import { kestrelText, toolShedText } from '../support/samples.js';
import { withSharedSchemas } from '../../src/publication/openapi/sharedSchemas.js';
import { arranged, MAIN } from '../support/arrangement.js';
import { rounds } from '../support/rounds.js';
import { exactAjv } from '../support/schemas.js';

/** Judges a document by the official schema of OpenAPI 3.1, its schemas by their dialect. */
const OFFICIAL = 'https://spec.openapis.org/oas/3.1/schema-base';

const documentOf = (text: string): Json => openApiDocument(derive(modelOf(text), MAIN)) as Json;

describe('the OpenAPI document', () => {
  test.each([
    ['kestrel-sound-ferries', kestrelText],
    ['tool-shed', toolShedText],
    ['an empty model', ''],
    [
      'names of the language',
      'entity Constructor\n  constructor: text\n  toString: json\n\nentity Prototype\n\neach Constructor owns one Prototype as prototype',
    ],
  ])('of %s fits the official schema', async (_name, text) => {
    const output = await validate(OFFICIAL, documentOf(text), 'BASIC');
    expect(output.valid ? [] : output.errors).toEqual([]);
  });

  test('of any model fits the official schema', async () => {
    await fc.assert(
      fc.asyncProperty(anyModel, async (model) => {
        const document = openApiDocument(derive(model, MAIN)) as Json;
        const output = await validate(OFFICIAL, document, 'BASIC');
        expect(output.valid ? [] : output.errors).toEqual([]);
      }),
      rounds(8),
    );
  });

  test('a document with a mistake is found out', async () => {
    const document = JSON.parse(JSON.stringify(documentOf(toolShedText))) as {
      paths: Record<string, unknown>;
    };
    document.paths['no-slash'] = {};
    expect((await validate(OFFICIAL, document as unknown as Json)).valid).toBe(false);
  });

  test('writes filters as they are sent, brackets percent-encoded', () => {
    const text = JSON.stringify(documentOf(kestrelText));
    expect(text).toContain('name%5Bne%5D=');
    expect(text).not.toMatch(/\w\[\w+\]=/);
  });

  const unknownIn = (document: unknown): readonly string[] => {
    const { components } = document as { components: { schemas: object } };
    const names = new Set(Object.keys(components.schemas));
    return [...JSON.stringify(document).matchAll(/"#\/components\/schemas\/([^"]+)"/g)].flatMap(
      ([, name = '']) => (names.has(name) ? [] : [name]),
    );
  };

  test('refers only to schemas it has', () => {
    fc.assert(
      fc.property(anyArrangement, ({ model, arrangement }) => {
        expect(unknownIn(openApiDocument(derive(model, arrangement)))).toEqual([]);
      }),
      rounds(20),
    );
  });

  test.each(['toString', 'constructor', 'valueOf', 'hasOwnProperty'])(
    'shares a schema that is called %s, as every object has it',
    (name) => {
      const schema = { type: 'string', enum: ['northward', 'southward', 'eastward', 'westward'] };
      const asked = { get: { parameters: [{ name, in: 'query', schema }] } };
      const document = withSharedSchemas({ paths: { '/one': asked, '/two': asked }, components: {} });
      expect(document).toMatchObject({ components: { schemas: { [name]: schema } } });
      expect(unknownIn(document)).toEqual([]);
    },
  );

  test('of the sample is the one that was read and found right', () => {
    expectGolden('kestrel-openapi.json', documentOf(kestrelText));
  });

  test('its schemas can be registered as schemas of their dialect', async () => {
    const document = documentOf(kestrelText) as { components: { schemas: { [name: string]: Json } } };
    const schema = {
      $schema: 'https://json-schema.org/draft/2020-12/schema',
      $defs: document.components.schemas,
      $ref: '#/$defs/problem',
    };
    const moved = JSON.parse(JSON.stringify(schema).replaceAll('#/components/schemas/', '#/$defs/')) as never;
    registerSchema(moved, 'https://example.net/kestrel');
    try {
      const problem = { type: '/x', title: 'x', status: 404, detail: 'x' };
      expect((await validate('https://example.net/kestrel', problem)).valid).toBe(true);
      expect((await validate('https://example.net/kestrel', { ...problem, status: 200 })).valid).toBe(false);
    } finally {
      unregisterSchema('https://example.net/kestrel');
    }
  });

  test.each([
    ['described', undefined],
    ['multipleOf', 0.1],
  ] as const)('says the scale of decimals: %s', (decimalScales, multipleOf) => {
    const model = modelOf('entity Route\n  distance: decimal(0..500, scale 1), required\n');
    const contract = derive(model, arranged({ decimalScales }));
    const { Route } = componentSchemas(contract) as { Route: { properties: { distance: object } } };
    expect(Route.properties.distance).toEqual({
      type: 'number',
      minimum: 0,
      maximum: 500,
      ...(multipleOf === undefined ? {} : { multipleOf }),
      description: 'At most 1 digit after the point.',
    });
    const check = exactAjv().compile(Route.properties.distance);
    const tenths = Array.from({ length: 1000 }, (_, at) => Number(`${Math.floor(at / 10)}.${at % 10}`));
    expect(tenths.filter((value) => !check(value))).toEqual([]);
    expect(check(0.25)).toBe(multipleOf === undefined);
  });
});
