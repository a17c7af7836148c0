import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  NO_CHOICES,
  plainArrangement,
  readChoices,
  withEdit,
  type Choices,
  type LinkChoice,
  type SettingValues,
} from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { withoutDecision } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Crew
  name: text(1..20), required

entity Sailing
  berth: text(1..4)
  state: choice(planned, gone), default planned
    depart: planned -> gone

entity Booking
  seats: integer, required

each Sailing refers to optional Crew as master, back as commands
each Sailing refers to optional Crew as pilot, back as pilotings
each Sailing owns many Booking as bookings
`;

const MODEL = modelOf(TEXT);
const ITEM = 'Sailing/item';

type Chosen = readonly (readonly [resource: string, link: string, choice: LinkChoice])[];

function choicesOf(chosen: Chosen, settings: SettingValues = {}): Choices {
  const own = { ...NO_CHOICES, arrangements: [{ ...plainArrangement('main'), settings }] };
  return chosen.reduce<Choices>(
    (choices, [resource, link, choice]) => withEdit(choices, 'main', 'links', { resource, link, choice }),
    own,
  );
}

const derived = (chosen: Chosen, settings: SettingValues = {}): ReturnType<typeof derive> =>
  derive(MODEL, arrangementOf('main', choicesOf(chosen, settings)));

function mockOf(chosen: Chosen, settings: SettingValues = {}): TestMock {
  const mock = new TestMock(
    MODEL,
    { Crew: 2, Sailing: 0, Booking: 0 },
    arrangementOf('main', choicesOf(chosen, settings)),
  );
  for (const body of [{ berth: '1A', masterId: 1, pilotId: 2 }, { berth: '2A' }])
    expect(mock.send('POST', '/api/v1/sailings', body).status).toBe(201);
  return mock;
}

const linksAt = (mock: TestMock, path: string): Record<string, unknown> =>
  (mock.send('GET', path).body as { links: Record<string, unknown> }).links;

const idOf = (resource: string, relation: string): string =>
  derived([])
    .resources.find(({ id }) => id === resource)
    ?.links.find((link) => link.relation === relation)?.id ?? '';

const MASTER = idOf(ITEM, 'master');
const PILOT = idOf(ITEM, 'pilot');
const BOOKINGS = idOf(ITEM, 'bookings');

describe('derived links', () => {
  test('have identities of their own', () => {
    for (const { links } of derived([]).resources) {
      const ids = links.map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
    }
  });

  test('are left out, in items and in lists, and told of as left out', () => {
    const chosen: Chosen = [[ITEM, BOOKINGS, { leftOut: true }]];
    const mock = mockOf(chosen);
    expect(linksAt(mock, '/api/v1/sailings/1')).not.toHaveProperty('bookings');
    const { items } = mock.send('GET', '/api/v1/sailings').body as { items: { links: object }[] };
    expect(items[0]?.links).not.toHaveProperty('bookings');
    const item = mock.service.contract.resources.find(({ id }) => id === ITEM);
    expect(item?.leftOutLinks.map(({ relation }) => relation)).toEqual(['bookings']);
  });

  test('are put under another relation, and with one of several targets always an array', () => {
    const mock = mockOf([
      [ITEM, MASTER, { relation: 'crew', name: 'master' }],
      [ITEM, PILOT, { relation: 'crew', name: 'pilot' }],
    ]);
    expect(linksAt(mock, '/api/v1/sailings/1')['crew']).toEqual([
      { href: '/api/v1/crews/1', name: 'master' },
      { href: '/api/v1/crews/2', name: 'pilot' },
    ]);
    expect(linksAt(mock, '/api/v1/sailings/2')['crew']).toEqual([]);
    mock.send('PATCH', '/api/v1/sailings/2', { pilotId: 1 });
    expect(linksAt(mock, '/api/v1/sailings/2')['crew']).toEqual([{ href: '/api/v1/crews/1', name: 'pilot' }]);
  });

  test('tell more of what they lead to, in each form alike', () => {
    const title = 'Zu „Plätzen"';
    const about = { title, type: 'application/json', hreflang: 'de-CH', name: 'b1' };
    const chosen: Chosen = [[ITEM, BOOKINGS, { relation: 'related', ...about }]];
    const href = '/api/v1/sailings/1/bookings';
    expect(linksAt(mockOf(chosen), '/api/v1/sailings/1')['related']).toEqual({ href, ...about });
    const hal = mockOf(chosen).send('GET', '/api/v1/sailings/1', undefined, {
      accept: 'application/hal+json',
    });
    expect(hal.body).toMatchObject({ _links: { related: { href, ...about } } });
    const header = mockOf(chosen, { links: 'header' }).send('GET', '/api/v1/sailings/1').headers.get('link');
    expect(header).toContain(
      `<${href}>; rel="related"; title*=UTF-8''Zu%20%E2%80%9EPl%C3%A4tzen%22; type="application/json"; hreflang="de-CH"; name="b1"`,
    );
  });

  test('a title in Link-Template is a Display String where it is not ASCII', () => {
    const list = derived([], { links: 'header' }).resources.find(({ path }) => path === '/sailings');
    const item = list?.links.find(({ relation }) => relation === 'item');
    const mock = mockOf([[list?.id ?? '', item?.id ?? '', { title: 'Überfahrt "1"' }]], { links: 'header' });
    const { headers } = mock.send('GET', '/api/v1/sailings');
    expect(headers.get('link-template')).toContain('; title=%"%c3%9cberfahrt %221%22"');
  });

  test("a word of one's own is an extension relation, a registered one is not", () => {
    const own = mockOf([[ITEM, BOOKINGS, { relation: 'places' }]], { links: 'header' });
    const link = own.send('GET', '/api/v1/sailings/1').headers.get('link') ?? '';
    expect(link).toContain('rel="http://localhost/api/v1/-/relations/places"');
    const page = own.send('GET', '/api/v1/-/relations/places');
    expect(page.status).toBe(200);
  });

  test.each([
    [
      'all',
      expect.objectContaining({ self: { href: '/api/v1/sailings/1' }, master: { href: '/api/v1/crews/1' } }),
    ],
    ['self', { self: { href: '/api/v1/sailings/1' } }],
    ['none', undefined],
  ] as const)('of listed records: %s', (memberLinks, expected) => {
    const mock = mockOf([], { memberLinks });
    const { items } = mock.send('GET', '/api/v1/sailings').body as { items: { links?: object }[] };
    expect(items[0]?.links).toEqual(expected);
    expect(linksAt(mock, '/api/v1/sailings/1')).toHaveProperty('master');
  });

  test('a choice about a link that is not there has no effect but to be told of', () => {
    for (const [resource, link] of [
      [ITEM, 'nothing'],
      ['nowhere', 'self'],
    ] as const) {
      const { findings, ...others } = derived([[resource, link, { leftOut: true }]]);
      const { findings: _none, ...plain } = derived([]);
      expect(others).toEqual(plain);
      expect(findings.map(({ id }) => id)).toEqual(['link.idle']);
    }
  });

  test('say that they were chosen, and that can be taken back', () => {
    const choices = choicesOf([[ITEM, MASTER, { relation: 'captain' }]]);
    const item = derive(MODEL, arrangementOf('main', choices)).resources.find(({ id }) => id === ITEM);
    const reason = item?.links.find(({ relation }) => relation === 'captain')?.reasons.at(-1);
    expect(reason).toMatchObject({
      rule: 'link.chosen',
      because: [{ kind: 'link', choice: 'called captain' }],
    });
    const [source] = reason?.because ?? [];
    if (source?.kind !== 'link') throw new Error('Nothing is cited.');
    expect(withoutDecision(choices, 'main', source)?.arrangements[0]?.links).toEqual({});
  });

  test.each([
    [{ relation: 'Captain' }, '/arrangements/0/links/a/b/relation'],
    [{ title: '' }, '/arrangements/0/links/a/b/title'],
    [{ type: 'json' }, '/arrangements/0/links/a/b/type'],
    [{ deprecation: 'javascript:alert(1)' }, '/arrangements/0/links/a/b/deprecation'],
    [{ leftOut: false }, '/arrangements/0/links/a/b/leftOut'],
    [{ href: 'x' }, '/arrangements/0/links/a/b/href'],
  ])('%j is refused', (choice, pointer) => {
    const given = { arrangements: [{ name: 'main', links: { a: { b: choice } } }] };
    expect(readChoices(given, '').problems.map((problem) => problem.pointer)).toEqual([pointer]);
  });

  test.each<[Chosen, readonly string[]]>([
    [
      [[ITEM, BOOKINGS, { leftOut: true }]],
      ['/api/v1/sailings/{sailingId} does not link bookings any more.'],
    ],
    [
      [[ITEM, MASTER, { relation: 'captain' }]],
      ['/api/v1/sailings/{sailingId} does not link master any more.'],
    ],
    [
      [[ITEM, MASTER, { relation: 'pilot' }]],
      [
        '/api/v1/sailings/{sailingId} does not link master any more.',
        'pilot of /api/v1/sailings/{sailingId} is an array of links now.',
      ],
    ],
    [[[ITEM, MASTER, { title: 'Who steers' }]], []],
  ])('%j breaks whoever follows links: %j', (chosen, expected) => {
    const { changes } = compare(
      { kind: 'draft', contract: derived([]) },
      { kind: 'draft', contract: derived(chosen) },
    );
    const broken = changes.filter(({ compatibility }) => compatibility === 'breaking');
    expect(broken.map(({ message }) => message)).toEqual(expected);
  });

  test('what refers to its own kind is embedded by the way it is looked at', () => {
    const model = modelOf(
      'entity Crew\n  name: text(1..9), required\n\neach Crew refers to optional Crew as chief, back as reports\n',
    );
    const choices = withEdit(
      { ...NO_CHOICES, arrangements: [{ ...plainArrangement('main'), settings: { expand: 'on' } }] },
      'main',
      'links',
      { resource: 'Crew/item', link: 'Crew>Crew:chief', choice: { relation: 'boss' } },
    );
    const { shapes } = derive(model, arrangementOf('main', choices));
    const relations = shapes
      .filter(({ name }) => name === 'Crew')
      .flatMap(({ members }) => members)
      .flatMap(({ name, source }) => (source.kind === 'expanded' ? [[name, source.relation]] : []));
    expect(relations).toEqual([
      ['chief', 'boss'],
      ['reports', 'reports'],
    ]);
  });
});
