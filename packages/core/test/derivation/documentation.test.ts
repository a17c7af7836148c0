import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, readChoices, saidOfKind } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { neverAnswers, searchTexts, withAnswer } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import type { Json } from '@isomeros/core/model';
import { openApiDocument } from '@isomeros/core/publication';
import { TestMock } from '../support/mock.js';
import { saying, type Saying } from '../support/documentation.js';
import { resolved } from '../support/schemas.js';
import { modelOf } from '../support/models.js';

const TEXT = 'entity Route\n  number: integer, key\n  name: text(1..20), required\n';
const MODEL = modelOf(TEXT);
const LIST = 'Route:list';

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
    ['operation', LIST, 'tags', 'own/Timetable, Route'],
    ['operation', 'Route/item:remove', 'successor', 'Route/item:change'],
    ['api', 'api', 'version', '1.4.0'],
    ['server', 'production', 'url', 'https://{region}.ferries.example/{stage}'],
    ['server', 'production', 'variables', 'region: eu, us'],
    ['tag', 'Route', 'title', 'Lines'],
    ['tag', 'Route', 'description', 'Where ferries go'],
    ['api', 'api', 'tagOrder', 'own/Timetable, Route'],
    ['member', 'Route.name', 'description', 'As on the timetable'],
    ['parameter', 'page', 'description', 'Pages are short'],
    ['parameter', 'path Route/item', 'description', 'The number on the pier'],
    ['header', 'if-match', 'description', 'What you have read'],
    ['response', 'Route/item:read missing', 'description', 'No such line'],
    ['operation', 'Route/item:remove', 'deprecated', '2026-01-31'],
    ['operation', 'Route/item:remove', 'sunset', '2027-01-31'],
    ['operation', 'Route/item:replace', 'unpublished', 'yes'],
  ];

  test('stands in the published document', () => {
    const published = openApiDocument(contractOf(SAID));
    const document = resolved(published, published) as {
      info: object;
      servers: readonly object[];
      tags: readonly object[];
      paths: Record<string, Record<string, object>>;
    };
    expect(document.info).toMatchObject({
      title: 'Ferries',
      summary: 'What sails, and when',
      contact: { email: 'desk@ferries.example' },
      license: { name: 'MIT' },
      version: '1.4.0',
    });
    expect(document.servers[1]).toEqual({
      url: 'https://{region}.ferries.example/{stage}',
      description: 'production',
      variables: { region: { default: 'eu', enum: ['eu', 'us'] }, stage: { default: 'stage' } },
    });
    expect(document.tags).toEqual([
      { name: 'Timetable' },
      { name: 'Lines', description: 'Where ferries go' },
      { name: 'Entry' },
    ]);
    expect(document.paths['/routes']?.['get']).toMatchObject({
      summary: 'All routes',
      description: 'In the order of their *numbers*.',
      externalDocs: { url: 'https://docs.example/routes' },
      tags: ['Timetable', 'Lines'],
      parameters: expect.arrayContaining([
        expect.objectContaining({
          name: 'page',
          description: 'Pages are short\n\nThe number of the page, from 1.',
        }),
      ]) as object,
    });
    const item = document.paths['/routes/{routeNumber}'];
    expect(item?.['parameters']).toMatchObject([{ description: 'The number on the pier' }]);
    expect(item?.['get']).toMatchObject({ responses: { 404: { description: 'No such line' } } });
    expect(item?.['delete']).toMatchObject({
      deprecated: true,
      parameters: [{ name: 'If-Match', description: 'What you have read' }],
    });
    expect(JSON.stringify(document)).toContain('"description":"As on the timetable"');
    expect(document.paths['/routes/{routeNumber}']).not.toHaveProperty('put');
  });

  test('is said by the mock where an operation ends, in every answer of it', () => {
    const mock = new TestMock(MODEL, {}, arrangementOf('main', saying(SAID)));
    for (const path of ['/api/v1/routes/1', '/api/v1/routes/999999']) {
      const { headers } = mock.send('DELETE', path);
      expect(headers.get('deprecation')).toBe(`@${Date.parse('2026-01-31') / 1_000}`);
      expect(headers.get('sunset')).toBe('Sun, 31 Jan 2027 00:00:00 GMT');
      expect(headers.get('link')).toBe(
        '</api/v1/-/operations/removeRoute>; rel="deprecation sunset"; type="text/plain"',
      );
    }
    expect(mock.send('GET', '/api/v1/routes').headers.has('deprecation')).toBe(false);
  });

  test('is told on the page that a deprecated operation links', () => {
    const mock = new TestMock(MODEL, {}, arrangementOf('main', saying(SAID)));
    const page = mock.send('GET', '/api/v1/-/operations/removeRoute');
    expect(page.body).toContain('Stops answering on 2027-01-31.');
    expect(page.body).toContain('Use changeRoute in its place: PATCH /api/v1/routes/{routeNumber}.');
    expect(mock.send('GET', '/api/v1/-/operations/replaceRoute').status).toBe(404);
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
        'cosmetic: The document has another version.',
        'cosmetic: The API is said to be served elsewhere.',
        'cosmetic: Tags are called, described or ordered otherwise.',
        'cosmetic: What is said of parts of operations, or of errors, is otherwise.',
        'cosmetic: DELETE /api/v1/routes/{routeNumber} names changeRoute to be used in its place.',
        'compatible: DELETE /api/v1/routes/{routeNumber} is deprecated from 2026-01-31.',
        'compatible: DELETE /api/v1/routes/{routeNumber} stops answering on 2027-01-31.',
        'cosmetic: PUT /api/v1/routes/{routeNumber} is not published any more.',
      ]),
    );
    expect(changes.some(({ compatibility }) => compatibility === 'breaking')).toBe(false);
  });
});

describe('tags', () => {
  const titles = (said: Saying): readonly string[] =>
    contractOf(said).documentation.tags.map(({ title }) => title);

  test('are those of entities where nothing is said', () => {
    expect(titles([])).toEqual(['Entry', 'Routes']);
  });

  test('are one where they are called the same', () => {
    const said: Saying = [['tag', 'Route', 'title', 'Entry']];
    expect(titles(said)).toEqual(['Entry']);
    expect(new Set(contractOf(said).operations.flatMap(({ tags }) => tags))).toEqual(new Set(['entry']));
  });

  test('are gone with the last operation under them, and what is said of them is told of', () => {
    const { documentation, findings } = contractOf([['tag', 'own/Fares', 'description', 'What it costs']]);
    expect(documentation.tags.map(({ id }) => id)).not.toContain('own/Fares');
    expect(findings.map(({ id }) => id)).toContain('documentation.lost');
  });
});

describe('links to operations in texts', () => {
  const told = (text: string): readonly (readonly [string, readonly string[]])[] =>
    contractOf([['operation', LIST, 'description', text]])
      .findings.filter(({ id }) => id === 'documentation.dangling')
      .map(({ message, quickFixes = [] }) => [message, quickFixes.map(({ title }) => title)]);

  test('are kept by what outlives names, and say the names of now', () => {
    const said: Saying = [['operation', LIST, 'description', 'See [operation:Route/item:read].']];
    expect(
      contractOf(said).operations.find(({ id }) => id === 'listRoutes')?.documentation?.description,
    ).toBe('See [readRoute].');
    const renamed = MODEL.declarations.map((one) => (one.kind === 'entity' ? { ...one, name: 'Line' } : one));
    expect(
      contractOf(said, { ...MODEL, declarations: renamed }).operations.find(({ id }) => id === 'listLines')
        ?.documentation?.description,
    ).toBe('See [readLine].');
  });

  test.each([
    ['[readRoute] is one', []],
    ['[sic], [text](https://docs.example), `[readFerry]` and [readFerry](x) mean something else', []],
    [
      '[readRout] is none',
      [['A text links to what is no operation: readRout.', ['Link to readRoute', 'Leave the link out']]],
    ],
    [
      'nor is [operation:Ferry:list]',
      [['A text links to what is no operation: operation:Ferry:list.', ['Leave the link out']]],
    ],
  ])('%s', (text, expected) => {
    expect(told(text)).toEqual(expected);
  });

  test('a successor that is none is told of', () => {
    const { findings } = contractOf([['operation', LIST, 'successor', 'Ferry:list']]);
    expect(findings.map(({ message }) => message)).toContain(
      'What is to be used instead is no operation: Ferry:list.',
    );
  });
});

test('what is published without a word is a finding where that is asked for', () => {
  const missing = (said: Saying): number =>
    derive(
      MODEL,
      arrangementOf('main', saying(said, { ...NO_CHOICES, settings: { undocumented: 'told' } })),
    ).findings.filter(({ id }) => id === 'documentation.missing').length;
  const all = contractOf([]).operations.length;
  expect(missing([])).toBe(all);
  expect(
    missing([
      ['operation', LIST, 'summary', 'All routes'],
      ['operation', 'Route/item:remove', 'unpublished', 'yes'],
    ]),
  ).toBe(all - 2);
});

describe('the page of an operation', () => {
  const contract = contractOf([['operation', LIST, 'description', 'Sailors call them lines.']]);
  const never = (id: string): readonly string[] => {
    const operation = contract.operations.find((one) => one.id === id);
    return operation === undefined
      ? []
      : neverAnswers(contract, operation).map(({ status, why }) => `${status}: ${why}`);
  };

  test('tells what is never answered, and why', () => {
    expect(never('listRoutes')).toEqual(
      expect.arrayContaining([
        '401: nobody is asked who they are',
        '404: its path names nothing that could be missing',
        '409: it writes nothing',
        '413: no body is read',
      ]),
    );
    expect(never('createRoute').join()).not.toContain('413');
  });

  test('is found by any text about it', () => {
    const texts = searchTexts(contract);
    for (const text of ['Sailors', 'name', '406', 'Routes', '/api/v1/routes'])
      expect(texts.get('listRoutes')).toContain(text);
    expect(texts.get('readRoute')).not.toContain('Sailors');
  });
});

test('what is said is kept in whatever order, and taken back', () => {
  const said: Saying = [
    ['server', '__proto__', 'url', 'https://a.example'],
    ['member', 'Route.name', 'description', 'x'],
  ];
  const documentation = saying(said).arrangements[0]?.documentation ?? {};
  expect(saidOfKind(documentation, 'server')).toEqual({ ['__proto__']: { url: 'https://a.example' } });
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
    ['server', 'live', 'url', 'https://{a', 'a URL with variables in braces'],
    ['server', 'live', 'url', 'javascript:x', 'a URL with variables in braces'],
    ['server', 'live', 'variables', 'region', 'what each variable may be'],
    ['tag', 'Route', 'title', 'One, two', 'a name without a comma'],
    ['operation', LIST, 'tags', 'a,, b', 'names, separated by commas'],
    ['member', 'Route.name', 'summary', 'x', 'There is no summary'],
    ['problem', 'not-found', 'title', 'two\u2028lines', 'on one line'],
  ])('of %s %s, %s, case %#', (kind, subject, field, text, message) => {
    const given = {
      ...NO_CHOICES,
      arrangements: [{ name: 'main', documentation: { [kind]: { [subject]: { [field]: text } } } }],
    };
    const { problems } = readChoices(JSON.parse(JSON.stringify(given)) as Json, '');
    expect(problems.map((problem) => problem.message)).toEqual([expect.stringContaining(message)]);
  });
});
