import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement, type SettingValues } from '@isomeros/core/arrangement';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Harbour
  code: text(1..5), key

entity Route
  name: text(1..20)
  state: choice(open, shut), default open
    close: open -> shut

each Route refers to optional Harbour as origin, back as departures
`;

const mockOf = (settings: SettingValues = {}): TestMock => {
  const main = { ...plainArrangement('main'), settings };
  const mock = new TestMock(
    modelOf(TEXT),
    { Route: 0, Harbour: 1 },
    arrangementOf('main', { ...NO_CHOICES, arrangements: [main] }),
  );
  const code = mock.rows[0]?.values['Harbour.code'];
  for (const name of ['a', 'b', 'c']) mock.send('POST', '/api/v1/routes', { name, originCode: code });
  return mock;
};

const HAL = { accept: 'application/hal+json' };
type Links = Readonly<Record<string, { readonly href: string }>>;

/** The relations and targets of a Link header, relations of one's own without what they begin with. */
const linksIn = (header: string | undefined, base = 'http://localhost/api/v1/-/relations/'): object =>
  Object.fromEntries(
    [...(header ?? '').matchAll(/<([^>]*)>; rel="([^"]*)"/g)].map(([, href = '', rel = '']) => [
      rel.replace(base, ''),
      href,
    ]),
  );

describe('one set of links', () => {
  const plain = mockOf().send('GET', '/api/v1/routes/1').body as { links: Links };
  const expected = Object.fromEntries(Object.entries(plain.links).map(([rel, { href }]) => [rel, href]));

  test('has a transition and a role among the registered relations', () => {
    expect(Object.keys(expected)).toEqual(['self', 'collection', 'origin', 'close']);
  });

  test('travels in Link headers', () => {
    const answer = mockOf({ links: 'header' }).send('GET', '/api/v1/routes/1');
    expect(linksIn(answer.headers.get('link'))).toEqual(expected);
    expect(answer.body).not.toHaveProperty('links');
  });

  test('travels in HAL, relations of our own as CURIEs', () => {
    const answer = mockOf().send('GET', '/api/v1/routes/1', undefined, HAL);
    expect(answer.headers.get('content-type')).toBe('application/hal+json');
    const { _links: links } = answer.body as { _links: Links & { curies: object[] } };
    const { curies, ...others } = links;
    const href = 'http://localhost/api/v1/-/relations/{rel}';
    expect(curies).toEqual([{ name: 'rel', href, templated: true }]);
    expect(
      Object.fromEntries(Object.entries(others).map(([rel, { href }]) => [rel.replace('rel:', ''), href])),
    ).toEqual(expected);
    expect(Object.keys(others)).toEqual(['self', 'collection', 'rel:origin', 'rel:close']);
  });

  test('has relations of our own on a base that was chosen, wherever the mock is asked', () => {
    const relationBase = 'https://ferries.example/relations/';
    const mock = mockOf({ relationBase, links: 'header' });
    const headers = { host: '127.0.0.1:4010' };
    const { headers: sent } = mock.send('GET', '/api/v1/routes/1', undefined, headers);
    expect(linksIn(sent.get('link'), relationBase)).toEqual(expected);
    expect(mock.send('GET', '/api/v1/routes/1', undefined, { ...headers, ...HAL }).body).toMatchObject({
      _links: { curies: [{ href: `${relationBase}{rel}` }] },
    });
  });

  test('has relations of our own at the mock as it was asked, where none was chosen', () => {
    const headers = { host: '127.0.0.1:4010' };
    const { headers: sent } = mockOf({ links: 'header' }).send('GET', '/api/v1/routes/1', undefined, headers);
    expect(linksIn(sent.get('link'), 'http://127.0.0.1:4010/api/v1/-/relations/')).toEqual(expected);
  });

  test('leads from a list to its items by a template whose variables are documented', () => {
    const mock = mockOf({ links: 'header' });
    const { headers: sent } = mock.send('GET', '/api/v1/routes');
    expect(sent.get('link-template')).toBe(
      '"/api/v1/routes/{id}"; rel="item"; var-base="/api/v1/-/variables/"',
    );
    expect(mock.text('GET', '/api/v1/-/variables/id')).toContain('The member id of a listed record');
    expect(mock.send('GET', '/api/v1/-/variables/name').status).toBe(404);
    expect(mock.send('GET', '/api/v1/routes', undefined, HAL).headers.has('link-template')).toBe(false);
  });

  test('leads to each item by a link of its own where no template can, as many as a head holds', () => {
    const settings = { links: 'header', memberCase: 'kebab', pageSize: 1000, maxPageSize: 1000 } as const;
    const main = { ...plainArrangement('main'), settings };
    const arrangement = arrangementOf('main', { ...NO_CHOICES, arrangements: [main] });
    const linksOf = (buoys: number): string => {
      const model = modelOf('entity Buoy\n  chartCode: text(8..8), key\n');
      const { headers } = new TestMock(model, { Buoy: buoys }, arrangement).send('GET', '/api/v1/buoys');
      return headers.get('link') ?? '';
    };
    expect([...linksOf(2).matchAll(/<\/api\/v1\/buoys\/[^/>]+>; rel="item"/g)]).toHaveLength(2);
    expect(linksOf(900).length).toBeGreaterThan(8_000);
    expect(linksOf(900).length).toBeLessThan(8_800);
  });

  test('or nowhere', () => {
    const answer = mockOf({ links: 'none' }).send('GET', '/api/v1/routes/1');
    expect(answer.headers.has('link')).toBe(false);
    expect(answer.body).not.toHaveProperty('links');
  });
});

describe('a body in HAL', () => {
  const HAL_BODY = { ...HAL, 'content-type': 'application/hal+json' };

  test('is taken as it was read, links and what is embedded without effect', () => {
    const mock = mockOf({ expand: 'on' });
    const target = '/api/v1/routes/1';
    const read = mock.send('GET', `${target}?expand=origin`, undefined, HAL);
    expect(read.body).toHaveProperty(['_embedded', 'rel:origin']);
    const put = mock.send('PUT', target, read.body, HAL_BODY);
    expect([put.status, mock.send('GET', `${target}?expand=origin`, undefined, HAL).body]).toEqual([
      200,
      read.body,
    ]);
    // As plain JSON as well, where HAL is offered; where it is not, nobody can have read it so.
    expect(mock.send('PUT', target, read.body).status).toBe(200);
    expect(mockOf({ expand: 'on', mediaTypes: ['json'] }).send('PUT', target, read.body).status).toBe(400);
  });

  test('is taken wherever plain JSON is', () => {
    const mock = mockOf();
    const body = { name: 'New', _links: { self: { href: '/anywhere' } } };
    expect(mock.send('POST', '/api/v1/routes', body, HAL_BODY).status).toBe(201);
    expect(mock.send('PATCH', '/api/v1/routes/1', body, HAL_BODY).status).toBe(200);
    expect(mock.send('GET', '/api/v1/routes/1').body).toMatchObject({ name: 'New' });
  });

  test('is not where HAL is not offered', () => {
    const mock = mockOf({ mediaTypes: ['json'] });
    const headers = { 'content-type': 'application/hal+json' };
    expect(mock.send('POST', '/api/v1/routes', { name: 'New' }, headers).status).toBe(415);
  });
});

describe('lists', () => {
  test('in HAL embed their items, each with its own links', () => {
    const answer = mockOf().send('GET', '/api/v1/routes?size=2', undefined, HAL);
    const body = answer.body as {
      _embedded: { item: { name: string; _links: Links }[] };
      _links: Links;
      page: object;
    };
    expect(body._embedded.item.map(({ name }) => name)).toEqual(['a', 'b']);
    expect(body._embedded.item[0]?._links).toMatchObject({ self: { href: '/api/v1/routes/1' } });
    expect(body._embedded.item[0]?._links).not.toHaveProperty('curies');
    expect(body._links).toMatchObject({ next: { href: '/api/v1/routes?size=2&page=2' } });
    expect(body.page).toMatchObject({ totalItems: 3 });
    expect(body).not.toHaveProperty('items');
  });

  test('as a bare array tell their pages and their total in headers', () => {
    const answer = mockOf({ envelope: 'bare' }).send('GET', '/api/v1/routes?size=2');
    expect((answer.body as { name: string; links: Links }[]).map(({ name }) => name)).toEqual(['a', 'b']);
    expect((answer.body as { links: Links }[])[0]?.links).toHaveProperty('self');
    expect(linksIn(answer.headers.get('link'))).toMatchObject({ next: '/api/v1/routes?size=2&page=2' });
    expect(answer.headers.get('total-count')).toBe('3');
  });

  test('whose links travel in headers hold items without links', () => {
    const answer = mockOf({ links: 'header' }).send('GET', '/api/v1/routes');
    expect((answer.body as { items: object[] }).items[0]).not.toHaveProperty('links');
  });
});

describe('the media type', () => {
  test.each<readonly [SettingValues, string | undefined, number, string | undefined]>([
    [{}, undefined, 200, 'application/json'],
    [{}, '*/*', 200, 'application/json'],
    [{}, 'application/hal+json', 200, 'application/hal+json'],
    [{}, 'application/json;q=0.5, application/hal+json', 200, 'application/hal+json'],
    [{}, 'application/hal+json;q=0.5, application/json;q=0.5', 200, 'application/json'],
    [{}, 'application/*, application/json;q=0', 200, 'application/hal+json'],
    [{}, 'text/csv', 406, 'application/problem+json'],
    [{ mediaTypes: ['hal', 'json'] }, undefined, 200, 'application/hal+json'],
    [{ mediaTypes: ['json'] }, 'application/hal+json', 406, 'application/problem+json'],
    [{ mediaTypes: ['hal'] }, 'application/json', 406, 'application/problem+json'],
  ])('of %j for Accept %s', (settings, accept, status, type) => {
    const headers = accept === undefined ? {} : { accept };
    const answer = mockOf(settings).send('GET', '/api/v1/routes/1', undefined, headers);
    expect([answer.status, answer.headers.get('content-type')]).toEqual([status, type]);
  });

  test('holds for what a write answers, and what was read as HAL can be sent back', () => {
    const mock = mockOf();
    const read = mock.send('GET', '/api/v1/routes/1', undefined, HAL).body as object;
    const answer = mock.send('PUT', '/api/v1/routes/1', { ...read, name: 'z' }, HAL);
    expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/hal+json']);
    expect(answer.body).toMatchObject({ name: 'z', _links: { self: { href: '/api/v1/routes/1' } } });
    const paired = mock.send('PUT', '/api/v1/routes/1', { ...read, other: 1 });
    expect(paired.status).toBe(400);
  });
});

test('a relation of our own is documented where its CURIE leads', () => {
  const mock = mockOf();
  const page = mock.text('GET', '/api/v1/-/relations/close');
  expect(page).toContain('A transition is a link named by it');
  expect(page).toContain('/api/v1/routes/{routeId}');
  expect(mock.send('GET', '/api/v1/-/relations/nothing').status).toBe(404);
});
