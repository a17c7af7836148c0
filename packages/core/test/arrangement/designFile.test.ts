import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import {
  DESIGN_FILE_SCHEMA,
  NO_CHOICES,
  plainArrangement,
  readDesignFile,
  writeDesignFile,
  type DesignFile,
} from '@isomeros/core/arrangement';
import { identitiesOf } from '@isomeros/core/model';
import { parse, print } from '@isomeros/core/notation';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { EXAMPLE } from '../support/examples.js';
import { expectGoldenText } from '../support/golden.js';
import { anyModel } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const published = new Ajv2020({ allErrors: true }).compile(DESIGN_FILE_SCHEMA);

const SMALL: DesignFile = {
  name: 'Small',
  model: 'design "Small"\n\nentity Route\n  name: text\n',
  identities: { Route: 'Line', 'Route.name': 'Line.title' },
  choices: {
    settings: { pageSize: 50, implicitId: 'uuid' },
    arrangements: [
      {
        name: 'main',
        settings: { basePath: '', version: 'v2', pathCase: 'snake' },
        resources: { Route: { pageSize: 10 } },
        operations: { 'Route:create': { invalidStatus: 422 } },
        placements: { Route: 'hidden' },
        words: { Route: 'lines' },
        exposures: { Route: { 'Route.name': { out: 'no', filter: ['eq', 'starts'] } } },
        links: {
          Route: {
            self: { leftOut: true },
            item: { relation: 'related', title: 'Each', in: ['items', 'header'] as const, position: 2 },
          },
        },
        ownLinks: [
          {
            id: 'o1',
            resource: 'Route/item',
            relation: 'later',
            target: {
              kind: 'operation' as const,
              resource: 'Route',
              verb: 'list',
              bound: [{ parameter: 'Route', value: { kind: 'literal' as const, value: 7 } }],
              filters: [
                {
                  member: 'Route/name',
                  operator: 'gt' as const,
                  value: { kind: 'member' as const, along: [], member: 'Route/name' },
                },
              ],
              order: [{ member: 'Route/name', descending: true }],
              size: 5,
            },
            when: [
              {
                member: 'Route/name',
                operator: '=' as const,
                value: { kind: 'literal' as const, value: 'a' },
              },
            ],
          },
          {
            id: 'o2',
            resource: 'Route/item',
            relation: 'from',
            target: {
              kind: 'record' as const,
              along: [{ relationship: 'r', direction: 'onwards' as const }],
            },
            when: [],
          },
          {
            id: 'o3',
            resource: 'Route/item',
            relation: 'manual',
            target: {
              kind: 'address' as const,
              parts: [
                { kind: 'text' as const, text: 'https://docs.example/' },
                { kind: 'member' as const, along: [], member: 'Route/name' },
              ],
            },
            when: [],
          },
        ],
        documentation: {
          api: { api: { title: 'Ferries', contactEmail: 'api@ferries.example' } },
          operation: {
            'Route:list': { summary: 'All routes', deprecated: '2027-01-31', unpublished: 'yes' },
          },
        },
        examples: [EXAMPLE],
        customOperations: [
          {
            id: 'c1',
            name: 'shortest',
            entity: 'Route',
            effect: {
              kind: 'query',
              filters: [{ member: 'Route.name', operator: 'ne', value: { kind: 'literal', value: 'x' } }],
              order: [{ member: 'Route.name', descending: true }],
              limit: 3,
            },
          },
          {
            id: 'c2',
            name: 'clear',
            entity: 'Route',
            effect: {
              kind: 'assign',
              when: [{ member: 'Route.name', operator: '!=', value: { kind: 'now' } }],
              values: [{ member: 'Route.name', value: { kind: 'unset' } }],
            },
          },
        ],
      },
    ],
    answered: ['page.size'],
  },
};

describe('design files', () => {
  test('their schema is published as it is', () => {
    const file = join(import.meta.dirname, '../../../../docs/design-file.schema.json');
    expectGoldenText(file, `${JSON.stringify(DESIGN_FILE_SCHEMA, null, 2)}\n`);
  });

  test('what is written is read again, identities and decisions included', () => {
    expect(readDesignFile(writeDesignFile(SMALL))).toEqual({ ok: true, design: SMALL });
    const draft = { ...SMALL, draft: 'entity' };
    expect(readDesignFile(writeDesignFile(draft))).toEqual({ ok: true, design: draft });
  });

  test('any design comes back as it went, in the form the schema publishes', () => {
    fc.assert(
      fc.property(
        anyModel,
        anyModel,
        fc.array(fc.string({ maxLength: 20 }), { maxLength: 3 }),
        fc.boolean(),
        (drawn, older, answered, carries) => {
          const text = print(drawn);
          const identities = Object.fromEntries(identitiesOf(parse(text).model));
          const model = answered.length === 0 ? text : print(older);
          const records = { 'Two words': [{ a: [1, '__proto__'] }, {}], None: [] };
          const initialRecords = {
            model,
            identities: Object.fromEntries(identitiesOf(parse(model).model)),
            choices: NO_CHOICES,
            records,
          };
          const design: DesignFile = {
            name: 'Drawn',
            model: text,
            identities,
            choices: {
              ...NO_CHOICES,
              arrangements: [plainArrangement('main'), plainArrangement('mobile')],
              answered: [...new Set(answered)],
            },
            ...(carries ? { initialRecords } : {}),
          };
          const file = writeDesignFile(design);
          expect(published(JSON.parse(file))).toBe(true);
          expect(readDesignFile(file)).toEqual({ ok: true, design });
        },
      ),
      rounds(60),
    );
  });

  test.each<readonly [string, (file: Record<string, unknown>) => unknown, string]>([
    ['another format', (file) => ({ ...file, format: 'something' }), '/format'],
    [
      'a later version',
      (file) => ({ ...file, version: DESIGN_FILE_SCHEMA.properties.version.const + 1 }),
      '/version',
    ],
    ['no name', (file) => ({ ...file, name: '' }), '/name'],
    ['a model that is no text', (file) => ({ ...file, model: 7 }), '/model'],
    ['a draft that is no text', (file) => ({ ...file, draft: [] }), '/draft'],
    ['an unknown member', (file) => ({ ...file, extra: 1 }), '/extra'],
    ['identities that are no object', (file) => ({ ...file, identities: [] }), '/identities'],
    ['an identity that is empty', (file) => ({ ...file, identities: { Route: '' } }), '/identities/Route'],
    ['no arrangements', (file) => ({ ...file, choices: { arrangements: [] } }), '/choices/arrangements'],
    [
      'a nameless arrangement',
      (file) => ({ ...file, choices: { arrangements: [{}] } }),
      '/choices/arrangements/0',
    ],
    [
      'an arrangement whose name cannot stand in an address',
      (file) => ({ ...file, choices: { arrangements: [{ name: 'a/b' }] } }),
      '/choices/arrangements/0/name',
    ],
    [
      'a place that is none',
      (file) => ({ ...file, choices: { arrangements: [{ name: 'a', placements: { Route: 'top' } }] } }),
      '/choices/arrangements/0/placements/Route',
    ],
    ...(
      [
        [{ out: 'maybe' }, 'out'],
        [{ create: true }, 'create'],
        [{ filter: ['like'] }, 'filter'],
        [{ filter: ['eq', 'eq'] }, 'filter'],
        [{ shown: 'yes' }, 'shown'],
      ] as const
    ).map(([choice, aspect]): [string, (file: Record<string, unknown>) => unknown, string] => [
      `an exposure ${JSON.stringify(choice)}`,
      (file) => ({
        ...file,
        choices: { arrangements: [{ name: 'a', exposures: { Route: { name: choice } } }] },
      }),
      `/choices/arrangements/0/exposures/Route/name/${aspect}`,
    ]),
    [
      'a path word that would need encoding',
      (file) => ({ ...file, choices: { arrangements: [{ name: 'a', words: { Route: 'a/b' } }] } }),
      '/choices/arrangements/0/words/Route',
    ],
    [
      'a setting of arrangements for one operation',
      (file) => ({
        ...file,
        choices: { arrangements: [{ name: 'a', operations: { 'Route:list': { depth: 1 } } }] },
      }),
      '/choices/arrangements/0/operations/Route:list/depth',
    ],
    [
      'a setting out of range',
      (file) => ({ ...file, choices: { settings: { pageSize: 0 } } }),
      '/choices/settings/pageSize',
    ],
    [
      'a setting that is not there',
      (file) => ({ ...file, choices: { settings: { size: 1 } } }),
      '/choices/settings/size',
    ],
    [
      'a setting of the design in an arrangement',
      (file) => ({
        ...file,
        choices: { arrangements: [{ name: 'main', settings: { implicitId: 'uuid' } }] },
      }),
      '/choices/arrangements/0/settings/implicitId',
    ],
    ['answers that are no texts', (file) => ({ ...file, choices: { answered: [1] } }), '/choices/answered'],
    ...(
      [
        [[], ''],
        [{}, '/records'],
        [{ records: [] }, '/records'],
        [{ records: { Route: 3 } }, '/records/Route'],
        [{ records: { Route: [{}, 3] } }, '/records/Route/1'],
        [{ records: {}, model: 3 }, '/model'],
        [{ records: {}, identities: [] }, '/identities'],
        [{ records: {}, choices: { settings: { size: 1 } } }, '/choices/settings/size'],
        [{ records: {}, rows: [] }, '/rows'],
      ] as const
    ).map(([initialRecords, at]): [string, (file: Record<string, unknown>) => unknown, string] => [
      `initial records ${JSON.stringify(initialRecords)}`,
      (file) => ({ ...file, initialRecords }),
      `/initialRecords${at}`,
    ]),
    ['choices of another kind', (file) => ({ ...file, choices: 'all' }), '/choices'],
  ])('%s is refused by us and by the schema', (_name, change, pointer) => {
    const file = change(JSON.parse(writeDesignFile(SMALL)) as Record<string, unknown>);
    const read = readDesignFile(JSON.stringify(file));
    expect(read.ok ? null : read.problems.map((problem) => problem.pointer)).toEqual([pointer]);
    expect(published(file)).toBe(false);
  });

  test('what is no JSON says where it fails; a name twice is refused', () => {
    const read = readDesignFile('{\n "name": "a", "name": "b" }');
    expect(read.ok ? null : read.problems).toEqual([
      { pointer: '', code: 'json.duplicate', message: 'The member "name" stands twice. Line 2, column 15.' },
    ]);
  });

  test('a file of the first version is read, settings of its arrangements included', () => {
    const { $schema: _schema, ...rest } = JSON.parse(writeDesignFile(SMALL)) as Record<string, unknown>;
    const first = {
      ...rest,
      version: 1,
      choices: { settings: {}, arrangements: { main: { depth: 1 } }, answered: [] },
      arrangements: [{ name: 'main' }, { name: 'mobile' }],
    };
    const read = readDesignFile(JSON.stringify(first));
    expect(read.ok && read.design.choices.arrangements).toEqual([
      { ...plainArrangement('main'), settings: { depth: 1 } },
      plainArrangement('mobile'),
    ]);
  });

  test('two arrangements of one name are refused', () => {
    const file = JSON.parse(writeDesignFile(SMALL)) as Record<string, unknown>;
    const twice = { ...file, choices: { arrangements: [{ name: 'a' }, { name: 'a' }] } };
    const read = readDesignFile(JSON.stringify(twice));
    expect(read.ok ? null : read.problems.map(({ code }) => code)).toEqual(['duplicate']);
  });

  test('identities that two elements would share, or of what is not there, are let go', () => {
    const file = writeDesignFile({
      ...SMALL,
      identities: { Route: 'Same', 'Route.name': 'Same', Gone: 'Else' },
    });
    const read = readDesignFile(file);
    expect(read.ok && read.design.identities).toEqual({ Route: 'Same' });
  });
});
