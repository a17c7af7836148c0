import { beforeEach, describe, expect, test } from '@jest/globals';
import { TestMock, type Answer } from '../support/mock.js';
import { kestrelText } from '../support/samples.js';

const MODEL = `value Duty
  role: choice(mate, cook), required
  since: date

entity Sailing
  name: text

entity Crew
  name: text

each Sailing pairs with many Crew as crew, back as sailings, carrying Duty
each Crew pairs with many Crew as friends, on remove restrict
`;

const PAIR = '/api/v1/sailings/1/crew/2';
const member = (answer: Answer, name: string): unknown => (answer.body as Record<string, unknown>)[name];

describe('pairs', () => {
  let mock: TestMock;
  beforeEach(() => {
    mock = TestMock.of(MODEL, { Sailing: 0, Crew: 0 });
    mock.send('POST', '/api/v1/sailings', { name: 'Dawn' });
    for (const name of ['Ines', 'Ruth']) mock.send('POST', '/api/v1/crews', { name });
  });

  test('are made once, read, changed in part, replaced and ended', () => {
    expect(mock.send('GET', PAIR).status).toBe(404);
    const made = mock.send('PUT', PAIR, { role: 'mate', since: '2026-01-01' });
    expect([made.status, made.headers.get('location')]).toEqual([201, PAIR]);
    expect(made.body).toMatchObject({ id: 2, name: 'Ruth', duty: { role: 'mate', since: '2026-01-01' } });
    expect(member(made, 'links')).toMatchObject({ self: { href: '/api/v1/crews/2' }, edit: { href: PAIR } });
    expect(mock.send('PATCH', PAIR, { role: 'cook' }).body).toMatchObject({
      duty: { role: 'cook', since: '2026-01-01' },
    });
    expect(mock.send('PUT', PAIR, { role: 'mate' }).body).toMatchObject({
      duty: { role: 'mate', since: null },
    });
    expect(member(mock.send('GET', '/api/v1/sailings/1/crew'), 'items')).toHaveLength(1);
    expect(member(mock.send('GET', '/api/v1/crews/2/sailings'), 'items')).toEqual([
      expect.objectContaining({ name: 'Dawn' }),
    ]);
    expect(mock.send('DELETE', PAIR).status).toBe(204);
    expect(mock.send('DELETE', PAIR).status).toBe(404);
    expect(mock.send('GET', '/api/v1/crews/2').status).toBe(200);
  });

  test('that carry nothing answer 201, then 204', () => {
    const path = '/api/v1/crews/1/friends/2';
    expect(mock.send('PUT', path).status).toBe(201);
    expect(mock.send('PUT', path).status).toBe(204);
    expect(mock.send('PATCH', path, {}).status).toBe(405);
  });

  test.each([
    ['a body that does not fit', PAIR, { role: 'captain' }, 400],
    ['no body', PAIR, undefined, 415],
    ['a side that is not there', '/api/v1/sailings/1/crew/99', { role: 'mate' }, 404],
    ['an owner that is not there', '/api/v1/sailings/9/crew/2', { role: 'mate' }, 404],
  ])('%s makes none', (_name, path, body, status) => {
    expect(mock.send('PUT', path, body).status).toBe(status);
    expect(member(mock.send('GET', '/api/v1/sailings/1/crew'), 'items')).toEqual([]);
  });

  test('go with either side, or hold it, as the rule says', () => {
    mock.send('PUT', PAIR, { role: 'mate' });
    mock.send('PUT', '/api/v1/crews/1/friends/2');
    expect(mock.send('DELETE', '/api/v1/crews/2').status).toBe(409);
    mock.send('DELETE', '/api/v1/crews/1/friends/2');
    expect(mock.send('DELETE', '/api/v1/crews/2').status).toBe(204);
    expect(member(mock.send('GET', '/api/v1/sailings/1/crew'), 'items')).toEqual([]);
  });
});

describe('life cycles', () => {
  let mock: TestMock;
  let sailing: string;
  beforeEach(() => {
    mock = TestMock.of(kestrelText);
    const times = { departsAt: '2027-01-01T08:00:00Z', arrivesAt: '2027-01-01T09:00:00Z' };
    sailing = mock.send('POST', '/api/v1/routes/1/sailings', times).headers.get('location') ?? '';
  });

  const links = (): string[] => Object.keys(member(mock.send('GET', sailing), 'links') as object);

  test('begin at the default and move by transitions, whose links come and go', () => {
    expect(member(mock.send('GET', sailing), 'status')).toBe('planned');
    expect(links()).toEqual(expect.arrayContaining(['board', 'cancel']));
    expect(links()).not.toContain('depart');
    const boarded = mock.send('POST', `${sailing}/board`);
    expect([boarded.status, member(boarded, 'status')]).toEqual([200, 'boarding']);
    expect(links()).toEqual(expect.arrayContaining(['depart', 'cancel']));
    expect(links()).not.toContain('board');
    const again = mock.send('POST', `${sailing}/board`);
    expect(again.status).toBe(409);
    expect(member(again, 'detail')).toBe(
      'status is "boarding"; board leads from planned. Allowed now: depart, cancel.',
    );
  });

  test('a condition is asked at the moment of the request', () => {
    const past = { departsAt: '2020-01-01T08:00:00Z', arrivesAt: '2020-01-01T09:00:00Z' };
    const gone = mock.send('POST', '/api/v1/routes/1/sailings', past).headers.get('location') ?? '';
    const refused = mock.send('POST', `${gone}/cancel`);
    expect(refused.status).toBe(409);
    expect(member(refused, 'detail')).toContain('departsAt > now');
    expect(Object.keys(member(mock.send('GET', gone), 'links') as object)).not.toContain('cancel');
  });

  test('the attribute is accepted in no body, but may be sent back', () => {
    expect(mock.send('PATCH', sailing, { status: 'departed' }).status).toBe(400);
    expect(mock.send('PATCH', sailing, { status: 'planned', berth: '9' }).status).toBe(200);
    const times = {
      departsAt: '2027-02-01T08:00:00Z',
      arrivesAt: '2027-02-01T09:00:00Z',
      status: 'departed',
    };
    expect(mock.send('POST', '/api/v1/routes/1/sailings', times).status).toBe(400);
  });
});
