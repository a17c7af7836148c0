import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement, type Placements } from '@isomeros/core/arrangement';
import { findViolations } from '@isomeros/core/engine';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `value Duty
  role: text(1..20), required

entity Harbour
  code: text(3..3), key

entity Route
  name: text(1..20)

entity Sailing
  berth: text(1..4)
  state: choice(planned, gone), default planned
    leave: planned -> gone when berth != "none"

entity Crew
  name: text(1..20)

each Route owns many Sailing as sailings, back as route
each Route refers to optional Harbour as origin, back as departures
each Sailing pairs with many Crew as crew, back as duties, carrying Duty
`;

const OWNS = 'Route>Sailing:sailings';
const ORIGIN = 'Route>Harbour:origin';
const CREW = 'Sailing>Crew:crew';
const LEAVE = 'Sailing.state/leave';

function mockOf(placements: Placements): TestMock {
  const arrangement = { ...plainArrangement('main'), placements };
  const counts = { Harbour: 2, Route: 2, Sailing: 0, Crew: 2 };
  return new TestMock(
    modelOf(TEXT),
    counts,
    arrangementOf('main', { ...NO_CHOICES, arrangements: [arrangement] }),
  );
}

const member = (answer: Answer, name: string): unknown => (answer.body as Record<string, unknown>)[name];
const hrefs = (answer: Answer): Record<string, string> =>
  Object.fromEntries(
    Object.entries(member(answer, 'links') as Record<string, { href: string }>).map(([rel, { href }]) => [
      rel,
      href,
    ]),
  );
const idsIn = (answer: Answer): unknown[] =>
  (member(answer, 'items') as { id: unknown }[]).map(({ id }) => id);

describe('what is placed flat', () => {
  const mock = mockOf({ [OWNS]: 'flat' });

  test('is made at the root with its owner in the body, which it needs and never changes', () => {
    expect(mock.send('POST', '/api/v1/sailings', { berth: '1' }).status).toBe(400);
    expect(mock.send('POST', '/api/v1/sailings', { routeId: 99 }).status).toBe(400);
    const made = mock.send('POST', '/api/v1/sailings', { berth: '1', routeId: 2 });
    expect([made.status, made.headers.get('location')]).toEqual([201, '/api/v1/sailings/1']);
    expect(hrefs(made)).toMatchObject({ up: '/api/v1/routes/2', collection: '/api/v1/sailings' });
    expect(mock.send('PATCH', '/api/v1/sailings/1', { routeId: 1 }).status).toBe(400);
    expect(mock.send('PATCH', '/api/v1/sailings/1', { routeId: 2 }).status).toBe(200);
  });

  test('is found from its owner by a link to the narrowed list', () => {
    const { sailings = '' } = hrefs(mock.send('GET', '/api/v1/routes/2'));
    expect(sailings).toBe('/api/v1/sailings?routeId=2');
    expect(idsIn(mock.send('GET', sailings))).toEqual([1]);
    expect(idsIn(mock.send('GET', '/api/v1/sailings?routeId=1'))).toEqual([]);
    expect(mock.send('GET', '/api/v1/routes/2/sailings').status).toBe(404);
  });

  test('goes with its owner', () => {
    expect(mock.send('DELETE', '/api/v1/routes/2').status).toBe(204);
    expect(mock.send('GET', '/api/v1/sailings/1').status).toBe(404);
    expect(findViolations(mock.service.model, mock.rows)).toEqual([]);
  });
});

test('what is placed shallow is made below its owner and read at the root', () => {
  const mock = mockOf({ [OWNS]: 'shallow' });
  const made = mock.send('POST', '/api/v1/routes/2/sailings', { berth: '1' });
  expect([made.status, made.headers.get('location')]).toEqual([201, '/api/v1/sailings/1']);
  expect(hrefs(made)).toMatchObject({ collection: '/api/v1/routes/2/sailings', up: '/api/v1/routes/2' });
  expect(mock.send('GET', '/api/v1/routes/2/sailings/1').status).toBe(404);
  expect(mock.send('GET', '/api/v1/sailings').status).toBe(404);
});

test('what is placed both ways has one address, which the other way tells', () => {
  const mock = mockOf({ [OWNS]: 'both' });
  mock.send('POST', '/api/v1/routes/2/sailings', { berth: '1' });
  const nested = mock.send('GET', '/api/v1/routes/2/sailings/1');
  expect(nested.headers.has('content-location')).toBe(false);
  const beside = mock.send('GET', '/api/v1/sailings/1');
  expect(beside.headers.get('content-location')).toBe('/api/v1/routes/2/sailings/1');
  expect(beside.body).toEqual(nested.body);
  const list = mock.send('GET', '/api/v1/sailings');
  expect(idsIn(list)).toEqual([1]);
  expect(member(list, 'links')).toMatchObject({
    item: { href: '/api/v1/sailings/{id}', templated: true },
  });
  expect(mock.send('POST', '/api/v1/sailings', { routeId: 2 }).headers.get('allow')).toBe(
    'GET, HEAD, OPTIONS',
  );
  expect(mock.send('DELETE', '/api/v1/sailings/1').status).toBe(405);
});

test('what is hidden has no path; what needs it is refused without naming it', () => {
  const mock = mockOf({ Route: 'hidden' });
  expect(mock.send('GET', '/api/v1/routes').status).toBe(404);
  expect(Object.keys(hrefs(mock.send('GET', '/api/v1')))).toEqual([
    'self',
    'harbours',
    'crews',
    'service-desc',
  ]);
  const codes = (member(mock.send('GET', '/api/v1/harbours'), 'items') as { code: string }[]).map(
    ({ code }) => code,
  );
  const answers = codes.map((code) => mock.send('DELETE', `/api/v1/harbours/${code}`));
  const refused = answers.filter(({ status }) => status === 409);
  expect(refused.length).toBeGreaterThan(0);
  for (const answer of refused) expect(member(answer, 'detail')).not.toContain('Route');
});

describe('a reference that can be read', () => {
  const mock = mockOf({ [ORIGIN]: 'read' });
  const [harbour] = member(mock.send('GET', '/api/v1/harbours'), 'items') as { code: string }[];
  const code = harbour?.code ?? '';

  test('answers its target with the address that has', () => {
    mock.send('PATCH', '/api/v1/routes/1', { originCode: code });
    expect(hrefs(mock.send('GET', '/api/v1/routes/1'))['origin']).toBe('/api/v1/routes/1/origin');
    const read = mock.send('GET', '/api/v1/routes/1/origin');
    expect([read.status, read.headers.get('content-location')]).toEqual([200, `/api/v1/harbours/${code}`]);
    expect(read.body).toEqual(mock.send('GET', `/api/v1/harbours/${code}`).body);
    expect(mock.send('DELETE', '/api/v1/routes/1/origin').status).toBe(405);
  });

  test('is not there while it is unset, and has no link then', () => {
    mock.send('PATCH', '/api/v1/routes/1', { originCode: null });
    expect(mock.send('GET', '/api/v1/routes/1/origin').status).toBe(404);
    expect(hrefs(mock.send('GET', '/api/v1/routes/1'))).not.toHaveProperty('origin');
  });
});

describe('a pairing', () => {
  const withSailing = (placements: Placements): TestMock => {
    const mock = mockOf({ [OWNS]: 'flat', ...placements });
    mock.send('POST', '/api/v1/sailings', { routeId: 1 });
    return mock;
  };
  const duty = { role: 'mate' };

  test('kept from the far side is made, shown and ended there', () => {
    const mock = withSailing({ [CREW]: 'far' });
    const made = mock.send('PUT', '/api/v1/crews/1/duties/1', duty);
    expect([made.status, member(made, 'duty')]).toEqual([201, duty]);
    const [listed] = member(mock.send('GET', '/api/v1/crews/1/duties'), 'items') as {
      duty: object;
      links: object;
    }[];
    expect(listed).toMatchObject({ duty, links: { edit: { href: '/api/v1/crews/1/duties/1' } } });
    expect(mock.send('PATCH', '/api/v1/crews/1/duties/1', { role: 'cook' }).status).toBe(200);
    expect(mock.send('GET', '/api/v1/sailings/1/crew').status).toBe(404);
    expect(mock.send('DELETE', '/api/v1/crews/1/duties/1').status).toBe(204);
    expect(member(mock.send('GET', '/api/v1/crews/1/duties'), 'items')).toEqual([]);
    expect(findViolations(mock.service.model, mock.rows)).toEqual([]);
  });

  test('kept from both sides is one pair, whichever side made it', () => {
    const mock = withSailing({ [CREW]: 'both-sides' });
    expect(mock.send('PUT', '/api/v1/sailings/1/crew/2', duty).status).toBe(201);
    expect(mock.send('PUT', '/api/v1/crews/2/duties/1', { role: 'cook' }).status).toBe(200);
    const [crew] = member(mock.send('GET', '/api/v1/sailings/1/crew'), 'items') as { duty: object }[];
    expect(crew?.duty).toEqual({ role: 'cook' });
    expect(mock.send('DELETE', '/api/v1/crews/2/duties/1').status).toBe(204);
    expect(mock.send('DELETE', '/api/v1/sailings/1/crew/2').status).toBe(404);
  });
});

describe('a transition that is carried out by change', () => {
  const mock = mockOf({ [OWNS]: 'flat', [LEAVE]: 'change' });
  mock.send('POST', '/api/v1/sailings', { routeId: 1, berth: 'none' });

  test.each<readonly [what: string, method: string, body: object, status: number]>([
    ['while its condition does not hold', 'PATCH', { state: 'gone' }, 409],
    ['to what is no state', 'PATCH', { state: 'lost' }, 400],
    ['to the state it has', 'PATCH', { state: 'planned' }, 200],
    ['after its condition holds', 'PATCH', { berth: '2' }, 200],
    ['by replacing', 'PUT', { berth: '2', state: 'gone' }, 200],
    ['back, where no transition leads', 'PATCH', { state: 'planned' }, 409],
    ['left out of a replace', 'PUT', { berth: '3' }, 200],
  ])('%s', (_what, method, body, status) => {
    expect(mock.send(method, '/api/v1/sailings/1', body).status).toBe(status);
  });

  test('keeps the state it came to', () => {
    expect(member(mock.send('GET', '/api/v1/sailings/1'), 'state')).toBe('gone');
    expect(mock.send('POST', '/api/v1/sailings/1/leave').status).toBe(404);
  });
});
