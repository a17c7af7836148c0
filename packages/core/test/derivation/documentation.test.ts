import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  NO_CHOICES,
  readChoices,
  withEdit,
  type Choices,
  type DocumentedKind,
} from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { withAnswer } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import type { Json } from '@isomeros/core/model';
import { openApiDocument } from '@isomeros/core/publication';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = 'entity Route\n  number: integer, key\n  name: text(1..20), required\n';
const MODEL = modelOf(TEXT);
const LIST = 'Route:list';

type Saying = readonly (readonly [kind: DocumentedKind, subject: string, field: string, text: string])[];

const saying = (said: Saying): Choices =>
  said.reduce<Choices>(
    (choices, [kind, subject, field, text]) =>
      withEdit(choices, 'main', 'documentation', { kind, subject, field, text }),
    NO_CHOICES,
  );

const contractOf = (said: Saying, model = MODEL): ReturnType<typeof derive> =>
  derive(model, arrangementOf('main', saying(said)));

describe('what is said of the API and its operations', () => {
  const SAID: Saying = [
    ['api', 'api', 'title', 'Ferries'],
    ['api', 'api', 'summary', 'What sails, and when'],
    ['api', 'api', 'contactEmail', 'desk@ferries.example'],
    ['api', 'api', 'licenseName', 'MIT'],
    ['operation', LIST, 'summary', 'All routes'],
    ['operation', LIST, 'description', 'In the order of their *numbers*.'],
    ['operation', LIST, 'externalUrl', 'https://docs.example/routes'],
    ['operation', 'Route/item:remove', 'deprecated', '2026-01-31'],
    ['operation', 'Route/item:remove', 'sunset', '2027-01-31'],
    ['operation', 'Route/item:replace', 'unpublished', 'yes'],
  ];

  test('stands in the published document', () => {
    const document = openApiDocument(contractOf(SAID)) as unknown as {
      info: object;
      paths: Record<string, Record<string, object>>;
    };
    expect(document.info).toMatchObject({
      title: 'Ferries',
      summary: 'What sails, and when',
      contact: { email: 'desk@ferries.example' },
      license: { name: 'MIT' },
    });
    expect(document.paths['/routes']?.['get']).toMatchObject({
      summary: 'All routes',
      description: 'In the order of their *numbers*.',
      externalDocs: { url: 'https://docs.example/routes' },
    });
    expect(document.paths['/routes/{routeNumber}']?.['delete']).toMatchObject({ deprecated: true });
    expect(document.paths['/routes/{routeNumber}']).not.toHaveProperty('put');
  });

  test('is said by the mock where an operation ends, in every answer of it', () => {
    const mock = new TestMock(MODEL, {}, arrangementOf('main', saying(SAID)));
    for (const path of ['/api/v1/routes/1', '/api/v1/routes/999999']) {
      const { headers } = mock.send('DELETE', path);
      expect(headers.get('deprecation')).toBe(`@${Date.parse('2026-01-31') / 1_000}`);
      expect(headers.get('sunset')).toBe('Sun, 31 Jan 2027 00:00:00 GMT');
    }
    expect(mock.send('GET', '/api/v1/routes').headers.has('deprecation')).toBe(false);
  });

  test('is served though it is in no published document', () => {
    const mock = new TestMock(MODEL, {}, arrangementOf('main', saying(SAID)));
    expect(mock.send('PUT', '/api/v1/routes/1', { number: 1, name: 'North' }).status).toBe(200);
  });

  test('outlives the names of what it is said of', () => {
    const { operations, findings } = contractOf(SAID, {
      ...MODEL,
      declarations: MODEL.declarations.map((one) => (one.kind === 'entity' ? { ...one, name: 'Line' } : one)),
    });
    expect(operations.find(({ id }) => id === 'listLines')?.summary).toBe('All routes');
    expect(findings.filter(({ id }) => id === 'documentation.lost')).toEqual([]);
  });

  test('is told of once what it is said of is gone, to be said of something else, or dropped', () => {
    const choices = saying([['operation', 'Ferry:list', 'summary', 'All ferries']]);
    const found = derive(MODEL, arrangementOf('main', choices)).findings.filter(
      ({ id }) => id === 'documentation.lost',
    );
    expect(found.map(({ message }) => message)).toEqual([
      'What is said of an operation has none any more: "All ferries".',
    ]);
    const [give, drop] = (found[0]?.quickFixes ?? []).map(({ answer }) => {
      if (answer.kind !== 'documentation') throw new Error(answer.kind);
      return derive(MODEL, arrangementOf('main', withAnswer(choices, 'main', answer)));
    });
    expect(give?.operations.find(({ id }) => id === 'listRoutes')?.summary).toBe('All ferries');
    for (const { findings } of [give, drop].flatMap((one) => one ?? []))
      expect(findings.map(({ id }) => id)).not.toContain('documentation.lost');
  });

  test('is cosmetic where it is a text, and what clients prepare for where it is an end', () => {
    const { changes } = compare(
      { kind: 'arrangement', name: 'main', contract: contractOf([]) },
      { kind: 'draft', contract: contractOf(SAID) },
    );
    const told = changes.map(({ compatibility, message }) => `${compatibility}: ${message}`);
    expect(told).toEqual(
      expect.arrayContaining([
        'cosmetic: The API is called Ferries now.',
        'cosmetic: GET /api/v1/routes is described otherwise.',
        'compatible: DELETE /api/v1/routes/{routeNumber} is deprecated from 2026-01-31.',
        'compatible: DELETE /api/v1/routes/{routeNumber} stops answering on 2027-01-31.',
        'cosmetic: PUT /api/v1/routes/{routeNumber} is not published any more.',
      ]),
    );
    expect(changes.some(({ compatibility }) => compatibility === 'breaking')).toBe(false);
  });
});

describe('what cannot be said', () => {
  test.each([
    ['operation', LIST, 'deprecated', '2027-02-31', 'Expected a date'],
    ['operation', LIST, 'summary', 'two\nlines', 'on one line'],
    ['operation', LIST, 'summary', 'turned \u202e round', 'without control characters'],
    ['operation', LIST, 'externalUrl', 'javascript:alert(1)', 'an absolute URL of the web'],
    ['operation', LIST, 'description', '*'.repeat(1_000_000), 'of CommonMark'],
    ['operation', LIST, 'depth', 'x', 'There is no depth'],
    ['api', 'api', 'contactEmail', '<b>@x', 'an e-mail address'],
  ])('of %s %s, %s as %j', (kind, subject, field, text, message) => {
    const given = {
      ...NO_CHOICES,
      arrangements: [{ name: 'main', documentation: { [kind]: { [subject]: { [field]: text } } } }],
    };
    const { problems } = readChoices(JSON.parse(JSON.stringify(given)) as Json, '');
    expect(problems.map((problem) => problem.message)).toEqual([expect.stringContaining(message)]);
  });
});
