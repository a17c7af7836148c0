import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Harbour
  code: text(1..5), key
  name: text(1..40), required
  phone: text(1..20)

entity Route
  name: text(1..40), required

entity Sailing
  day: date, required

entity Pilot
  name: text(1..40), required

each Route refers to one Harbour as origin, back as departures
each Route refers to optional Harbour as refuge
each Route owns many Sailing as sailings
each Sailing pairs with many Pilot as pilots, back as sailings
`;

function mockOf(settings: SettingValues, resources: Readonly<Record<string, SettingValues>> = {}): TestMock {
  const mock = new TestMock(
    modelOf(TEXT),
    { Harbour: 0, Route: 0, Sailing: 0, Pilot: 0 },
    arranged(settings, resources),
  );
  const made = (target: string, body: object): void => {
    expect([target, mock.send('POST', `/api/v1${target}`, body).status]).toEqual([target, 201]);
  };
  made('/harbours', { code: 'AA', name: 'Ash Bay', phone: '555' });
  made('/harbours', { code: 'BB', name: 'birch point' });
  made('/routes', { name: 'North', originCode: 'AA', refugeCode: 'BB' });
  made('/routes', { name: 'South', originCode: 'BB' });
  made('/routes/1/sailings', { day: '2026-01-02' });
  made('/routes/1/sailings', { day: '2026-01-01' });
  made('/routes/2/sailings', { day: '2026-01-03' });
  made('/pilots', { name: 'P' });
  expect(mock.send('PUT', '/api/v1/routes/1/sailings/1/pilots/1').status).toBe(201);
  return mock;
}

const read = (
  mock: TestMock,
  target: string,
  headers: Record<string, string> = {},
): Record<string, unknown> => {
  const answer = mock.send('GET', `/api/v1${target}`, undefined, headers);
  expect([target, answer.status]).toEqual([target, 200]);
  return answer.body as Record<string, unknown>;
};

const names = (body: Record<string, unknown>): unknown[] =>
  (body['items'] as Record<string, unknown>[]).map((item) => item['name'] ?? item['id']);

describe('filters through a role', () => {
  const mock = mockOf({ filterThrough: 'on' });

  test.each([
    ['/routes?origin.name=Ash%20Bay', ['North']],
    ['/routes?origin.name[contains]=birch', ['South']],
    ['/routes?refuge.code[unset]=true', undefined],
    ['/routes?refuge.phone[unset]=true', ['North', 'South']],
    ['/routes?refuge.name[ne]=birch%20point', ['South']],
  ])('%s', (target, expected) => {
    if (expected === undefined) expect(mock.send('GET', `/api/v1${target}`).status).toBe(400);
    else expect(names(read(mock, target))).toEqual(expected);
  });

  test('are offered where they are chosen only', () => {
    expect(mockOf({}).send('GET', '/api/v1/routes?origin.name=Ash').status).toBe(400);
  });
});

describe('search', () => {
  const mock = mockOf({ search: 'on' });

  test.each([
    ['/harbours?q=BIRCH', ['birch point']],
    ['/harbours?q=b', ['Ash Bay', 'birch point']],
    ['/harbours?q=555', ['Ash Bay']],
    ['/harbours?q=nowhere', []],
  ])('%s', (target, expected) => {
    expect(names(read(mock, target))).toEqual(expected);
  });

  test('needs a text', () => {
    expect(mock.send('GET', '/api/v1/harbours?q=').status).toBe(400);
  });
});

describe('a chosen order', () => {
  const resources = { Route: { defaultSort: ['-name'] } };

  test('holds until a request asks for another', () => {
    const mock = mockOf({}, resources);
    expect(names(read(mock, '/routes'))).toEqual(['South', 'North']);
    expect(names(read(mock, '/routes?sort=name'))).toEqual(['North', 'South']);
  });

  test('holds where nothing can be asked for', () => {
    expect(names(read(mockOf({ sortStyle: 'none' }, resources), '/routes'))).toEqual(['South', 'North']);
  });
});

describe('chosen members', () => {
  const mock = mockOf({ fields: 'on', expand: 'on' });

  test('are answered alone, with the links, in items and in lists', () => {
    expect(Object.keys(read(mock, '/routes/1?fields=name'))).toEqual(['name', 'links']);
    const [first] = read(mock, '/routes?fields=id,originCode')['items'] as object[];
    expect(Object.keys(first ?? {})).toEqual(['id', 'originCode', 'links']);
  });

  test('leave in what is asked for inside', () => {
    const body = read(mock, '/routes/1?fields=name&expand=origin');
    expect(body).toMatchObject({ name: 'North', origin: { code: 'AA', name: 'Ash Bay' } });
    expect(body['id']).toBeUndefined();
  });

  test('that are not there are refused', () => {
    const answer = mock.send('GET', '/api/v1/routes?fields=name,nothing');
    expect(answer.status).toBe(400);
    expect(answer.body).toMatchObject({ errors: [{ parameter: 'fields', code: 'member' }] });
  });
});

describe('related records inside', () => {
  const mock = mockOf({ expand: 'on', expandDepth: 2 });

  test('are what references, owners, lists and pairings lead to', () => {
    expect(read(mock, '/routes/1?expand=origin,refuge,sailings')).toMatchObject({
      origin: { code: 'AA', links: { self: { href: '/api/v1/harbours/AA' } } },
      refuge: { code: 'BB' },
      sailings: [{ id: 1 }, { id: 2 }],
    });
    expect(read(mock, '/routes/2?expand=refuge')['refuge']).toBeNull();
    expect(read(mock, '/routes/1/sailings/1?expand=route,pilots')).toMatchObject({
      route: { name: 'North' },
      pilots: [{ name: 'P' }],
    });
    expect(read(mock, '/harbours/AA?expand=departures')).toMatchObject({ departures: [{ name: 'North' }] });
    expect(read(mock, '/pilots/1?expand=sailings')).toMatchObject({ sailings: [{ id: 1 }] });
  });

  test('go as many steps as the arrangement allows', () => {
    const [first] = read(mock, '/routes?expand=sailings.pilots,origin')['items'] as object[];
    expect(first).toMatchObject({
      origin: { code: 'AA' },
      sailings: [{ pilots: [{ name: 'P' }] }, { pilots: [] }],
    });
    expect(mock.send('GET', '/api/v1/routes?expand=sailings.pilots.sailings').status).toBe(400);
  });

  test.each(['nothing', 'origin.nothing', '', 'origin,', 'name', '__proto__'])('refuse %p', (path) => {
    const answer = mock.send('GET', `/api/v1/routes/1?expand=${path}`);
    expect(answer.status).toBe(400);
    expect(answer.body).toMatchObject({ errors: [{ parameter: 'expand', code: 'expand' }] });
  });

  test('stand under their relation in HAL, and what is not there is left out', () => {
    const body = read(mock, '/routes/2?expand=origin,refuge,sailings', { accept: 'application/hal+json' });
    expect(body['_embedded']).toMatchObject({
      'rel:origin': { code: 'BB', _links: { self: { href: '/api/v1/harbours/BB' } } },
      'rel:sailings': [{ id: 3 }],
    });
    expect(Object.keys(body['_embedded'] as object)).toEqual(['rel:origin', 'rel:sailings']);
    expect(body['origin']).toBeUndefined();
  });

  test('may be sent back', () => {
    const body = read(mock, '/routes/1?expand=origin,sailings');
    expect(mock.send('PUT', '/api/v1/routes/1', { ...body, name: 'North again' }).status).toBe(200);
  });

  test('without links in the body have none inside either', () => {
    const bare = mockOf({ expand: 'on', links: 'header' });
    expect(read(bare, '/routes/2?expand=origin')).toEqual({
      id: 2,
      name: 'South',
      originCode: 'BB',
      refugeCode: null,
      origin: { code: 'BB', name: 'birch point', phone: null },
    });
  });
});
