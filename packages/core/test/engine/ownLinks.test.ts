import { describe, expect, test } from '@jest/globals';
import { arrangementOf, withEdit, type SettingValues } from '@isomeros/core/arrangement';
import { derive, printLinkLine, readLinkLine } from '@isomeros/core/derivation';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { linkedBy, resourceAt, withLines, type Lines } from '../support/ownLinks.js';

const TEXT = `entity Harbour
  code: text(2..4), key
  name: text(1..40), required
  site: uri
  secret: text(1..9), write-only

entity Officer
  name: text(1..20), required

entity Route
  number: integer, key
  name: text(1..20)

entity Sailing
  departsAt: instant, required
  state: choice(planned, gone), default planned
    depart: planned -> gone
  berth: text(1..9)

entity Booking
  seats: integer, required

each Route refers to one Harbour as origin, back as departures
each Route owns many Sailing as sailings, back as route
each Sailing refers to optional Officer as master, back as commands
each Sailing owns many Booking as bookings, back as sailing
`;

const MODEL = modelOf(TEXT);
const ALL: SettingValues = { depth: 4 };
const PLAIN = derive(MODEL, arranged(ALL));
const SAILING = '/routes/{routeNumber}/sailings/{sailingId}';
const BOOKING = `${SAILING}/bookings/{bookingId}`;

/** A mock of two harbours, a route, two sailings and a booking, with links of its own. */
function mockOf(lines: Lines, settings: SettingValues = {}): TestMock {
  const none = { Harbour: 0, Officer: 0, Route: 0, Sailing: 0, Booking: 0 };
  const mock = new TestMock(MODEL, none, linkedBy(MODEL, lines, { ...ALL, ...settings }));
  const make = (path: string, body: object): void => {
    expect(mock.send('POST', `/api/v1${path}`, body).status).toBe(201);
  };
  make('/harbours', { code: 'K/H', name: "Kestrel's Head", site: 'https://head.example/a?b=c' });
  make('/harbours', { code: 'LO', name: 'Lower Quay', site: 'javascript:alert(1)' });
  make('/officers', { name: 'Ada' });
  make('/routes', { number: 7, originCode: 'K/H', name: 'North & South' });
  make('/routes/7/sailings', { departsAt: '2026-06-15T09:00:00Z', masterId: 1 });
  make('/routes/7/sailings', { departsAt: '2026-06-13T09:00:00Z', berth: 'B 1' });
  make('/routes/7/sailings/1/bookings', { seats: 2 });
  return mock;
}

const linksOf = (mock: TestMock, path: string): Record<string, unknown> =>
  (mock.send('GET', `/api/v1${path}`).body as { links: Record<string, unknown> }).links;

describe('a line about a link', () => {
  test.each([
    [
      '',
      'next -> listSailings with routeNumber = 7, where state = planned, sort departsAt desc then berth, size 5',
    ],
    [SAILING, 'others -> listSailings where departsAt > self.departsAt and route = self.route'],
    [SAILING, 'from -> readHarbour with harbourCode = self.route.origin when state = planned'],
    [SAILING, 'captain -> master'],
    [BOOKING, 'captain -> sailing.master'],
    ['/harbours/{harbourCode}', 'manual -> "https://docs.example/harbours/{code}"'],
    [SAILING, 'manual -> "https://docs.example/{route.name}/x?b={berth}" when departsAt > now'],
    ['/harbours/{harbourCode}', 'home -> "{site}"'],
    ['', 'any -> readHarbour'],
    ['/officers', 'first.one -> listOfficers, size 1'],
  ])('at %s, %s is read, and printed as it was read', (path, line) => {
    const resource = resourceAt(PLAIN, path);
    const read = readLinkLine(MODEL, PLAIN, resource, line);
    expect(read).toMatchObject({ ok: true });
    if (!read.ok) return;
    const printed = printLinkLine(MODEL, PLAIN, resource, read.link);
    expect(printed).toBe(line.replace('listOfficers, size', 'listOfficers size'));
    expect(readLinkLine(MODEL, PLAIN, resource, printed)).toEqual(read);
  });

  test.each([
    ['', 'listSailings', 'Expected -> and where the link leads.', 13],
    ['', 'Next -> listSailings', 'Expected a relation', 1],
    ['', 'next -> listNothing', 'There is no operation listNothing.', 9],
    [SAILING, 'next -> captain', 'and Sailing has no such role', 9],
    ['', 'next -> ', 'Expected an operation, a role, or an address', 9],
    ['', 'next -> listHarbours where depth = 3', 'Harbour has no depth.', 28],
    [
      '',
      'next -> listHarbours with harbourCode = 3',
      'listHarbours has no parameter harbourCode. It has none.',
      27,
    ],
    ['', 'next -> listHarbours size none', 'Expected a whole number of records', 27],
    ['', 'next -> "https://docs.example/{code}"', 'No record offers it', 9],
    [SAILING, 'next -> "https://docs.example/{route.depth}"', 'Route has no depth.', 9],
    [BOOKING, 'next -> sailing.bridge', 'Sailing has no role bridge.', 17],
    ['', 'next -> listHarbours when name = x', 'The statement ends before when.', 22],
  ])('at %s, %s is refused', (path, line, message, column) => {
    const read = readLinkLine(MODEL, PLAIN, resourceAt(PLAIN, path), line);
    expect(read).toMatchObject({ ok: false, column });
    expect(read.ok ? '' : read.message).toContain(message);
  });
});

describe('links of one’s own', () => {
  test('lead to operations, with what they bind', () => {
    const mock = mockOf([
      ['', 'next -> listSailings with routeNumber = 7 where state = planned, sort departsAt desc, size 5'],
      ['', 'any -> readHarbour'],
      ['', 'soon -> listSailings with routeNumber = 7 where departsAt > now'],
      ['/routes/{routeNumber}/sailings', 'gone -> listSailings where state = gone'],
      [SAILING, 'later -> listSailings where departsAt > self.departsAt'],
      [SAILING, 'from -> readHarbour with harbourCode = self.route.origin'],
      [SAILING, 'leave -> departSailing'],
    ]);
    mock.now = Date.parse('2026-06-14T09:12:47.123Z');
    expect(linksOf(mock, '')).toMatchObject({
      next: { href: '/api/v1/routes/7/sailings?state=planned&sort=-departsAt&size=5' },
      any: { href: '/api/v1/harbours/{harbourCode}', templated: true },
      soon: { href: '/api/v1/routes/7/sailings?departsAt%5Bgt%5D=2026-06-14T09%3A12%3A00.000Z' },
    });
    expect(linksOf(mock, '/routes/7/sailings')).toMatchObject({
      gone: { href: '/api/v1/routes/7/sailings?state=gone' },
    });
    expect(linksOf(mock, '/routes/7/sailings/1')).toMatchObject({
      later: { href: '/api/v1/routes/7/sailings?departsAt%5Bgt%5D=2026-06-15T09%3A00%3A00Z' },
      from: { href: '/api/v1/harbours/K%2FH' },
      leave: { href: '/api/v1/routes/7/sailings/1/depart' },
    });
    const found = mock.send(
      'GET',
      '/api/v1/routes/7/sailings?departsAt%5Bgt%5D=2026-06-14T09%3A12%3A00.000Z',
    );
    expect((found.body as { items: object[] }).items).toMatchObject([{ id: 1 }]);
  });

  test('lead to a record some roles away, while there is one', () => {
    const mock = mockOf([
      [BOOKING, 'captain -> sailing.master'],
      [SAILING, 'harbour -> route.origin'],
    ]);
    const booking = '/routes/7/sailings/1/bookings/1';
    expect(linksOf(mock, booking)).toMatchObject({ captain: { href: '/api/v1/officers/1' } });
    expect(linksOf(mock, '/routes/7/sailings/2')).toMatchObject({
      harbour: { href: '/api/v1/harbours/K%2FH' },
    });
    const before = mock.send('GET', `/api/v1${booking}`);
    expect(mock.send('PATCH', '/api/v1/routes/7/sailings/1', { masterId: null }).status).toBe(200);
    expect(linksOf(mock, booking)).not.toHaveProperty('captain');
    const tag = before.headers.get('etag') ?? '';
    expect(mock.send('GET', `/api/v1${booking}`, undefined, { 'if-none-match': tag }).status).toBe(200);
  });

  test('lead elsewhere, with values percent-encoded, and never to another host or scheme', () => {
    const mock = mockOf([
      ['/harbours/{harbourCode}', 'manual -> "https://docs.example/harbours/{code}?name={name}"'],
      ['/harbours/{harbourCode}', 'home -> "{site}"'],
      [SAILING, 'plan -> "https://docs.example/{route.name}/{berth}"'],
      ['', 'terms-of-service -> "https://docs.example/terms"'],
    ]);
    expect(linksOf(mock, '/harbours/K%2FH')).toMatchObject({
      manual: { href: 'https://docs.example/harbours/K%2FH?name=Kestrel%27s%20Head' },
      home: { href: 'https://head.example/a?b=c' },
    });
    expect(linksOf(mock, '/harbours/LO')).not.toHaveProperty('home');
    expect(linksOf(mock, '/routes/7/sailings/1')).not.toHaveProperty('plan');
    expect(linksOf(mock, '/routes/7/sailings/2')).toMatchObject({
      plan: { href: 'https://docs.example/North%20%26%20South/B%201' },
    });
    expect(linksOf(mock, '')).toMatchObject({ 'terms-of-service': { href: 'https://docs.example/terms' } });
  });

  test('are offered while their condition holds, and their tag follows', () => {
    const mock = mockOf([[SAILING, 'board -> listBookings when state = planned and departsAt > now']]);
    const path = '/api/v1/routes/7/sailings/1';
    const before = mock.send('GET', path);
    expect(before.body).toMatchObject({ links: { board: { href: `${path}/bookings` } } });
    mock.now = Date.parse('2026-06-16T00:00:00Z');
    const tag = before.headers.get('etag') ?? '';
    const after = mock.send('GET', path, undefined, { 'if-none-match': tag });
    expect(after.status).toBe(200);
    expect((after.body as { links: object }).links).not.toHaveProperty('board');
  });

  test('stand in headers and templates where links do, and as whole URIs where links are', () => {
    const lines: Lines = [
      ['', 'any -> readHarbour'],
      ['', 'manual -> "https://docs.example/"'],
      ['', 'next -> listOfficers size 1'],
    ];
    const headers = mockOf(lines, { links: 'header' }).send('GET', '/api/v1').headers;
    expect(headers.get('link')).toContain('<https://docs.example/>; rel="');
    expect(headers.get('link')).toContain('</api/v1/officers?size=1>; rel="next"');
    expect(headers.get('link-template')).toContain('"/api/v1/harbours/{harbourCode}"; rel="');
    const whole = mockOf(lines, { linkForm: 'absolute' });
    const { links } = whole.send('GET', '/api/v1', undefined, { host: 'mock.example' }).body as {
      links: Record<string, unknown>;
    };
    expect(links).toMatchObject({ manual: { href: 'https://docs.example/' } });
  });

  test('are carried where it is chosen, and in the order that is chosen', () => {
    const choices = withLines(
      MODEL,
      [[SAILING, 'later -> listSailings where departsAt > self.departsAt']],
      ALL,
    );
    const resource = resourceAt(derive(MODEL, arrangementOf('main', choices)), SAILING);
    const choose = (link: string, choice: object, to = choices): typeof choices =>
      withEdit(to, 'main', 'links', { resource, link, choice });
    const own = choose('own/own-0', { in: ['lists', 'header'], position: 1 });
    const moved = choose('self', { position: 3 }, own);
    const mock = new TestMock(MODEL, { Sailing: 1, Route: 1 }, arrangementOf('main', moved));
    const routes = mock.send('GET', '/api/v1/routes').body as {
      items: { links: { sailings: { href: string } } }[];
    };
    const path = routes.items[0]?.links.sailings.href ?? '';
    const { items } = mock.send('GET', path).body as { items: { links: Record<string, { href: string }> }[] };
    expect(Object.keys(items[0]?.links ?? {}).slice(0, 4)).toEqual(['later', 'up', 'self', 'collection']);
    const item = mock.send('GET', items[0]?.links['self']?.href ?? '');
    expect(Object.keys((item.body as { links: object }).links)).not.toContain('later');
    expect(item.headers.get('link')).toMatch(/^<\/api\/v1\/routes\/\d+\/sailings\?departsAt/);
  });

  test('stand in the header beside others of their relation', () => {
    const choices = withLines(MODEL, [], { ...ALL, links: 'header' });
    const resource = resourceAt(derive(MODEL, arrangementOf('main', choices)), '/officers');
    const moved = withEdit(choices, 'main', 'links', {
      resource,
      link: 'self',
      choice: { relation: 'next', in: ['header'] },
    });
    const mock = new TestMock(MODEL, { Officer: 30 }, arrangementOf('main', moved));
    const link = mock.send('GET', '/api/v1/officers').headers.get('link') ?? '';
    expect(link).toContain('</api/v1/officers>; rel="next"');
    expect(link).toContain('</api/v1/officers?page=2>; rel="next"');
  });
});

describe('a link that does not fit', () => {
  test.each<readonly [string, string, SettingValues, string]>([
    [SAILING, 'all -> bookings', {}, 'bookings of Sailing may be several records'],
    ['', 'x -> "docs.example/a"', {}, 'Expected http:// or https:// and a host'],
    [
      '/harbours/{harbourCode}',
      'x -> "https://{code}.example/"',
      {},
      'Expected http:// or https:// and a host',
    ],
    ['/harbours/{harbourCode}', 'x -> "{name}"', {}, 'only a uri can be a whole address'],
    ['/harbours/{harbourCode}', 'x -> "https://docs.example/{secret}"', {}, 'is not returned here'],
    ['', 'x -> listHarbours where site = a', {}, 'cannot be'],
    ['', 'x -> listHarbours size 500', {}, 'answers at most 100 records'],
    ['', 'x -> listHarbours where name < a', {}, 'compares name by'],
    [SAILING, 'x -> listOfficers where name = self.departsAt', {}, 'is instant, but name is text'],
    ['', 'x -> listHarbours where name = now', {}, 'only an instant or a date can be now'],
  ])('at %s, %s is a finding with a way out', (path, line, settings, message) => {
    const { findings, resources } = derive(MODEL, linkedBy(MODEL, [[path, line]], { ...ALL, ...settings }));
    const found = findings.filter(({ id }) => id === 'link.unfit');
    expect(found).toMatchObject([
      { severity: 'error', quickFixes: [{ answer: { kind: 'own-link', link: null } }] },
    ]);
    expect(found[0]?.message).toContain(message);
    expect(resources.flatMap(({ links }) => links).filter(({ id }) => id.startsWith('own/'))).toEqual([]);
  });

  test('dangles after the model changed, and says so', () => {
    const choices = withLines(
      MODEL,
      [
        [SAILING, 'captain -> master'],
        ['', 'crew -> listOfficers'],
      ],
      ALL,
    );
    const without = modelOf(
      TEXT.replace(/entity Officer\n.*\n\n/, '').replace(/each Sailing refers.*\n/, ''),
    );
    const { findings } = derive(without, arrangementOf('main', choices));
    expect(findings.filter(({ id }) => id === 'link.unfit').map(({ message }) => message)).toEqual([
      expect.stringContaining('Sailing has no role'),
      expect.stringContaining('is not offered any more'),
    ]);
  });

  test('that tells of records which its readers may not read is told of', () => {
    const lines: Lines = [[SAILING, 'plan -> "https://docs.example/{route.name}"']];
    const settings: SettingValues = { ...ALL, security: ['bearer'], access: 'anonymous' };
    const choices = withLines(MODEL, lines, settings);
    const { resources } = derive(MODEL, arrangementOf('main', choices));
    const guarded = resources.reduce(
      (all, { id, entity }) =>
        entity === 'Route'
          ? withEdit(all, 'main', 'resources', { id, name: 'access', value: 'authenticated' })
          : all,
      choices,
    );
    const told = (all: typeof choices): readonly string[] =>
      derive(MODEL, arrangementOf('main', all))
        .findings.filter(({ id }) => id === 'computed.tells')
        .map(({ message }) => message);
    expect(told(choices)).toEqual([]);
    expect(told(guarded)).toEqual([
      expect.stringMatching(/^The link plan of .* tells whoever carries out \w+ of records of Route/),
    ]);
  });

  test('what is decided about a link that is gone is told of', () => {
    const choices = withEdit(withLines(MODEL, []), 'main', 'links', {
      resource: 'Sailing/item',
      link: 'nothing',
      choice: { relation: 'other' },
    });
    const { findings } = derive(MODEL, arrangementOf('main', choices));
    expect(findings.filter(({ id }) => id === 'link.idle')).toMatchObject([
      { quickFixes: [{ answer: { kind: 'link', choice: null } }] },
    ]);
  });
});
