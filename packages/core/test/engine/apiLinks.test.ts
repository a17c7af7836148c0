import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { derive } from '@isomeros/core/derivation';
import { Ajv2020 } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { linkedBy, type Lines } from '../support/ownLinks.js';
import { kestrelText } from '../support/samples.js';

const MODEL = modelOf(kestrelText);

const mockOf = (settings: SettingValues): TestMock => new TestMock(MODEL, {}, arranged(settings));

type Links = Readonly<Record<string, { readonly href: string } & Record<string, unknown>>>;

const linksOf = (mock: TestMock, path: string): Links =>
  (mock.send('GET', `/api/v1${path}`).body as { links: Links }).links;

const ALL: SettingValues = {
  apiLinks: ['describedby', 'profile', 'service-desc', 'service-doc'],
  termsUrl: 'https://docs.example/terms',
  licenseUrl: 'https://docs.example/license',
  statusUrl: 'https://status.example/',
};

describe('links of the API itself', () => {
  test('stand at the entry, each where it is switched on', () => {
    expect(linksOf(mockOf(ALL), '')).toMatchObject({
      'service-desc': { href: '/api/v1/-/openapi.json' },
      'service-doc': { href: '/api/v1/-/documentation' },
      'terms-of-service': { href: 'https://docs.example/terms' },
      license: { href: 'https://docs.example/license' },
      status: { href: 'https://status.example/' },
    });
    const plain = linksOf(mockOf({}), '');
    expect(Object.keys(plain)).toContain('service-desc');
    for (const relation of ['describedby', 'profile', 'service-doc', 'license', 'status', 'terms-of-service'])
      expect(plain).not.toHaveProperty(relation);
    expect(linksOf(mockOf({ apiLinks: [] }), '')).not.toHaveProperty('service-desc');
  });

  test.each([['/routes'], ['/routes/1'], [''], ['/harbours/KSH/departures']])(
    'what is read at %s is described by a JSON Schema that it fits',
    (path) => {
      const mock = mockOf(ALL);
      const answer = mock.send('GET', `/api/v1${path}`);
      const { describedby, profile } = linksOf(mock, path);
      const schema = mock.send('GET', describedby?.href ?? '');
      expect([schema.status, schema.headers.get('content-type')]).toEqual([200, 'application/schema+json']);
      const ajv = new Ajv2020({ strict: false });
      addFormats.default(ajv);
      const { $id: _address, ...rules } = schema.body as Record<string, unknown>;
      const isFit = ajv.compile(rules);
      expect([isFit(answer.body), isFit.errors]).toEqual([true, null]);
      expect(isFit({ links: 1 })).toBe(false);
      const page = mock.send('GET', profile?.href ?? '');
      expect([page.status, page.headers.get('content-type')]).toEqual([200, 'text/plain; charset=utf-8']);
      expect(page.body).toContain(`At /api/v1`);
    },
  );

  test('records in lists carry none of them', () => {
    const { items } = mockOf(ALL).send('GET', '/api/v1/routes').body as { items: { links: object }[] };
    expect(items[0]?.links).not.toHaveProperty('describedby');
    expect(items[0]?.links).toHaveProperty('sailings');
  });

  test('are registered relations in headers, and documented as published', () => {
    const link = mockOf({ ...ALL, links: 'header' })
      .send('GET', '/api/v1/routes/1')
      .headers.get('link');
    expect(link).toContain('rel="describedby"');
    expect(link).toContain('rel="profile"');
    const documentation = mockOf(ALL).send('GET', '/api/v1/-/documentation');
    expect(documentation.headers.get('content-type')).toBe('text/html; charset=utf-8');
    expect(documentation.body).toContain('/api/v1/routes');
  });
});

describe('links that are no GET', () => {
  const LINES: Lines = [['/routes/{routeNumber}/sailings', 'new -> createSailing']];
  const path = '/api/v1/routes/1/sailings';

  test('say their method and what is accepted, in plain JSON, where that is chosen', () => {
    const mock = new TestMock(MODEL, {}, linkedBy(MODEL, LINES, { linkMethods: 'method' }));
    const { links, items } = mock.send('GET', path).body as { links: Links; items: { links: Links }[] };
    expect(links['new']).toEqual({
      href: path,
      method: 'POST',
      accepts: ['application/json', 'application/hal+json'],
    });
    expect(Object.keys(links['self'] ?? {})).toEqual(['href']);
    const moves = items.flatMap(({ links: own }) => (own['board'] === undefined ? [] : [own['board']]));
    expect(moves[0]).toMatchObject({ method: 'POST' });
    const hal = mock.send('GET', path, undefined, { accept: 'application/hal+json' });
    expect(JSON.stringify(hal.body)).not.toContain('"method"');
  });

  test('say nothing where it is not', () => {
    const mock = new TestMock(MODEL, {}, linkedBy(MODEL, LINES));
    expect((mock.send('GET', path).body as { links: Links }).links['new']).toEqual({ href: path });
  });
});

describe('changes of links', () => {
  const changes = (was: [Lines, SettingValues], is: [Lines, SettingValues]): readonly string[] =>
    compare(
      { kind: 'arrangement', name: 'main', contract: derive(MODEL, linkedBy(MODEL, ...was)) },
      { kind: 'draft', contract: derive(MODEL, linkedBy(MODEL, ...is)) },
    )
      .changes.filter(({ compatibility }) => compatibility !== 'cosmetic')
      .map(({ affects, message }) => `${affects ?? 'nobody'}: ${message}`);

  const ITEM = '/bookings/{bookingId}';

  test.each<readonly [string, [Lines, SettingValues], [Lines, SettingValues], string]>([
    [
      'a link of one’s own that goes breaks who follows it',
      [[[ITEM, 'captain -> sailing.master']], {}],
      [[], {}],
      'follower: /api/v1/bookings/{bookingId} does not link captain any more.',
    ],
    [
      'one that comes breaks nobody',
      [[], {}],
      [[[ITEM, 'captain -> sailing.master']], {}],
      'nobody: /api/v1/bookings/{bookingId} links captain.',
    ],
    [
      'a template is followed otherwise than a link',
      [[['', 'booking -> listRoutes']], {}],
      [[['', 'booking -> readBooking']], {}],
      'follower: booking of /api/v1 is a URI template now.',
    ],
    [
      'methods that are not told any more',
      [[], { linkMethods: 'method' }],
      [[], {}],
      'follower: Links do not say their method any more.',
    ],
  ])('%s', (_, was, is, expected) => {
    expect(changes(was, is)).toContain(expected);
    expect(changes(was, was)).toEqual([]);
  });
});
