import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { TestMock, type Answer } from '../support/mock.js';
import { arranged } from '../support/arrangement.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Buoy
  name: text(1..20), required
  seen: instant, touched
  state: choice(afloat, sunk), default afloat
    sink: afloat -> sunk

entity Chain
  length: integer, required

each Buoy owns optional Chain as chain
each Buoy refers to optional Buoy as neighbour
`;

function mockOf(settings: SettingValues = {}): TestMock {
  const mock = new TestMock(modelOf(TEXT), { Buoy: 0, Chain: 0 }, arranged(settings));
  expect(mock.send('POST', '/api/v1/buoys', { name: 'One' }).status).toBe(201);
  expect(mock.send('POST', '/api/v1/buoys', { name: 'Two', neighbourId: 1 }).status).toBe(201);
  return mock;
}

const ONE = '/api/v1/buoys/1';
const tagOf = (answer: Answer): string => answer.headers.get('etag') ?? '';
const read = (mock: TestMock, target = ONE, headers: Record<string, string> = {}): Answer =>
  mock.send('GET', target, undefined, headers);

describe('entity tags (RFC 9110 §8.8.3)', () => {
  test('are strong, stay while nothing changes, and change with the record', () => {
    const mock = mockOf();
    const before = tagOf(read(mock));
    expect(before).toMatch(/^"[^"]+"$/);
    expect(tagOf(read(mock))).toBe(before);
    mock.send('PATCH', ONE, { name: 'New' });
    expect(tagOf(read(mock))).not.toBe(before);
    mock.send('PATCH', ONE, { name: 'One' });
    expect(tagOf(read(mock))).not.toBe(before);
  });

  test.each([
    ['media types', ONE, { accept: 'application/hal+json' }],
    ['members', `${ONE}?fields=name`, {}],
    ['what is inside', `${ONE}?expand=neighbour`, {}],
  ])('differ with %s', (_what, target, headers: Record<string, string>) => {
    const mock = mockOf({ fields: 'on', expand: 'on' });
    expect(tagOf(read(mock, target, headers))).not.toBe(tagOf(read(mock)));
  });

  test('change with what is inside', () => {
    const mock = mockOf({ expand: 'on' });
    const before = tagOf(read(mock, '/api/v1/buoys/2?expand=neighbour'));
    mock.send('PATCH', ONE, { name: 'New' });
    expect(tagOf(read(mock, '/api/v1/buoys/2?expand=neighbour'))).not.toBe(before);
  });

  test('come with what a write answers', () => {
    const mock = mockOf();
    const made = mock.send('POST', '/api/v1/buoys', { name: 'Three' });
    expect(tagOf(made)).toBe(tagOf(read(mock, '/api/v1/buoys/3')));
    expect(tagOf(mock.send('PATCH', ONE, { name: 'New' }))).toBe(tagOf(read(mock)));
    const sunk = mock.send('POST', `${ONE}/sink`);
    expect(tagOf(sunk)).toBe(tagOf(read(mock)));
    expect(sunk.headers.get('content-location')).toBe(ONE);
  });

  test('come with a PUT only where it was stored as it was sent (§9.3.4)', () => {
    const mock = mockOf();
    expect(tagOf(mock.send('PUT', ONE, { name: 'New' }))).toBe('');
    expect(tagOf(mock.send('PUT', `${ONE}/chain`, { length: 3, buoyId: 1 }))).toBe(
      tagOf(read(mock, `${ONE}/chain`)),
    );
  });

  test('of lists and of the entry change with what is in them', () => {
    const mock = mockOf();
    const list = tagOf(read(mock, '/api/v1/buoys'));
    const entry = tagOf(read(mock, '/api/v1'));
    expect([list, entry]).not.toContain('');
    mock.send('POST', '/api/v1/buoys', { name: 'Three' });
    expect(tagOf(read(mock, '/api/v1/buoys'))).not.toBe(list);
    expect(tagOf(read(mock, '/api/v1'))).toBe(entry);
  });
});

describe('preconditions in their order (RFC 9110 §13.2.2)', () => {
  const old = 'Sun, 06 Nov 1994 08:49:37 GMT';
  const late = 'Sun, 06 Nov 2094 08:49:37 GMT';
  const cases: readonly (readonly [method: string, headers: Record<string, string>, status: number])[] = [
    ['GET', { 'if-match': '*' }, 200],
    ['GET', { 'if-match': '<tag>' }, 200],
    ['GET', { 'if-match': '"other"' }, 412],
    ['GET', { 'if-match': 'W/<tag>' }, 412],
    ['GET', { 'if-none-match': '<tag>' }, 304],
    ['HEAD', { 'if-none-match': '<tag>' }, 304],
    ['GET', { 'if-none-match': 'W/<tag>' }, 304],
    ['GET', { 'if-none-match': '"a", <tag>' }, 304],
    ['GET', { 'if-none-match': '*' }, 304],
    ['GET', { 'if-none-match': '"other"' }, 200],
    ['GET', { 'if-modified-since': late }, 304],
    ['GET', { 'if-modified-since': old }, 200],
    ['GET', { 'if-modified-since': 'Sunday, 06-Nov-94 08:49:37 GMT' }, 200],
    ['GET', { 'if-modified-since': 'Sun Nov  6 08:49:37 2094' }, 304],
    ['GET', { 'if-modified-since': 'yesterday' }, 200],
    ['GET', { 'if-none-match': '"other"', 'if-modified-since': late }, 200],
    ['GET', { 'if-unmodified-since': old }, 412],
    ['GET', { 'if-match': '<tag>', 'if-unmodified-since': old }, 200],
    ['PATCH', { 'if-match': '<tag>' }, 200],
    ['PATCH', { 'if-match': '"other", <tag>' }, 200],
    ['PATCH', { 'if-match': '"other"' }, 412],
    ['PATCH', { 'if-match': 'tag' }, 412],
    ['PATCH', { 'if-none-match': '<tag>' }, 412],
    ['PATCH', { 'if-none-match': '*' }, 412],
    ['PATCH', { 'if-unmodified-since': old }, 412],
    ['PATCH', { 'if-unmodified-since': late }, 200],
    ['PATCH', { 'if-modified-since': late }, 200],
    ['DELETE', { 'if-match': '"other"' }, 412],
    ['DELETE', { 'if-match': '<tag>' }, 409],
  ];

  test.each(cases)('%s with %p answers %d', (method, headers, status) => {
    const mock = mockOf();
    const tag = tagOf(read(mock));
    const sent = Object.fromEntries(
      Object.entries(headers).map(([name, value]) => [name, value.replace('<tag>', tag)]),
    );
    const answer = mock.send(method, ONE, method === 'PATCH' ? { name: 'New' } : undefined, sent);
    expect(answer.status).toBe(status);
    if (status === 304) {
      expect(answer.handled.response.body).toBeNull();
      expect([tagOf(answer), answer.headers.get('vary')]).toEqual([tag, 'Accept, Accept-Encoding']);
    }
    if (status >= 400) expect(answer.handled.changes).toEqual([]);
  });

  test('a tag of any representation names the state', () => {
    const settings: SettingValues = { fields: 'on', expand: 'on', expandDepth: 2 };
    for (const [target, headers] of [
      ['', { accept: 'application/hal+json' }],
      ['?fields=name', {}],
      ['?expand=chain', {}],
      ['?fields=id,name&expand=neighbour.chain', { accept: 'application/hal+json' }],
    ] as const) {
      const mock = mockOf(settings);
      const tag = tagOf(read(mock, ONE + target, headers));
      expect(mock.send('PATCH', ONE, { name: 'New' }, { 'if-match': tag }).status).toBe(200);
      expect(mock.send('PATCH', ONE, { name: 'Newer' }, { 'if-match': tag }).status).toBe(412);
    }
  });

  test.each(['"."', '"1-1.0jAAAA"', '"1-1.0j.e30.x"', '"1-1.0j.W251bGwse31d.x"', '"'])(
    'a tag that nobody gave names none: %s',
    (tag) => {
      expect(mockOf().send('PATCH', ONE, { name: 'New' }, { 'if-match': tag }).status).toBe(412);
    },
  );

  test('a transition is made for the state of its item', () => {
    const mock = mockOf();
    expect(mock.send('POST', `${ONE}/sink`, undefined, { 'if-match': '"other"' }).status).toBe(412);
    expect(mock.send('POST', `${ONE}/sink`, undefined, { 'if-match': tagOf(read(mock)) }).status).toBe(200);
  });

  test('a slot is filled only while it is empty, where that is asked for', () => {
    const mock = mockOf();
    const fill = (headers: Record<string, string>): number =>
      mock.send('PUT', `${ONE}/chain`, { length: 3 }, headers).status;
    expect(fill({ 'if-match': '*' })).toBe(412);
    expect(fill({ 'if-none-match': '*' })).toBe(201);
    expect(fill({ 'if-none-match': '*' })).toBe(412);
    expect(fill({ 'if-match': '*' })).toBe(200);
  });

  test('a create can be made for the list that was read', () => {
    const mock = mockOf();
    const headers = { 'if-match': tagOf(read(mock, '/api/v1/buoys')) };
    expect(mock.send('POST', '/api/v1/buoys', { name: 'Three' }, headers).status).toBe(201);
    expect(mock.send('POST', '/api/v1/buoys', { name: 'Four' }, headers).status).toBe(412);
  });
});

describe('where If-Match is required', () => {
  test.each(['PUT', 'PATCH', 'DELETE'])('%s without it answers 428', (method) => {
    const mock = mockOf({ ifMatch: 'required' });
    const answer = mock.send(method, ONE, method === 'DELETE' ? undefined : { name: 'New' });
    expect(answer.status).toBe(428);
    expect(answer.body).toMatchObject({ type: '/api/v1/-/problems/precondition-missing' });
  });

  test('what is new needs none', () => {
    const mock = mockOf({ ifMatch: 'required' });
    expect(mock.send('POST', '/api/v1/buoys', { name: 'Three' }).status).toBe(201);
    expect(mock.send('PUT', `${ONE}/chain`, { length: 3 }).status).toBe(201);
    expect(mock.send('PUT', `${ONE}/chain`, { length: 3 }).status).toBe(428);
  });

  test('what is not there is 404, not 428', () => {
    expect(mockOf({ ifMatch: 'required' }).send('DELETE', '/api/v1/buoys/9').status).toBe(404);
  });
});
