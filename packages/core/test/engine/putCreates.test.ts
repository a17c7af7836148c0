import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { credentialsOf, presentedBy } from '@isomeros/core/engine';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Harbour
  code: text(2..5), key
  name: text(1..40), required, unique

entity Pier
  label: text(1..4), key within harbour
  length: integer

entity Buoy
  name: text

each Harbour owns many Pier as piers, back as harbour
`;

const mockOf = (settings: SettingValues = {}, operations = {}): TestMock =>
  new TestMock(modelOf(TEXT), { Harbour: 0, Pier: 0, Buoy: 1 }, arranged(settings, {}, operations));

const HARBOUR = '/api/v1/harbours/KSH';
const PIER = `${HARBOUR}/piers/A`;

describe('PUT to a key that nothing has (RFC 9110 §9.3.4)', () => {
  test('makes the item where the client assigns keys, and replaces it from then on', () => {
    const mock = mockOf();
    const made = mock.send('PUT', HARBOUR, { name: 'Kestrel Head' });
    expect([made.status, made.headers.get('location')]).toEqual([201, HARBOUR]);
    expect(made.body).toMatchObject({ code: 'KSH', name: 'Kestrel Head' });
    expect(mock.send('PUT', HARBOUR, { code: 'KSH', name: 'Kestrel' }).status).toBe(200);
    const pier = mock.send('PUT', PIER, { label: 'A', length: 12 });
    expect([pier.status, pier.headers.get('location')]).toEqual([201, PIER]);
    expect(mock.send('GET', PIER).body).toMatchObject({ label: 'A', length: 12 });
  });

  test.each<readonly [string, string, unknown, number]>([
    ['a body that names another key', HARBOUR, { code: 'TVL', name: 'X' }, 409],
    ['a value that is taken', '/api/v1/harbours/TVL', { name: 'There' }, 409],
    ['a body that does not fit', HARBOUR, {}, 400],
    ['a body that is no object', HARBOUR, null, 400],
    ['a key that does not fit', '/api/v1/harbours/LONGER', { name: 'X' }, 400],
    ['a missing owner', PIER, { length: 3 }, 404],
    ['a key that the server makes', '/api/v1/buoys/77', { name: 'X' }, 404],
  ])('is refused for %s', (_what, target, body, status) => {
    const mock = mockOf();
    mock.send('PUT', '/api/v1/harbours/OTH', { name: 'There' });
    const before = mock.rows.length;
    expect(mock.send('PUT', target, body).status).toBe(status);
    expect(mock.rows.length).toBe(before);
  });

  test('If-None-Match: * makes it once, and stands in for a required If-Match', () => {
    const mock = mockOf({ ifMatch: 'required' });
    const put = (): number =>
      mock.send('PUT', HARBOUR, { name: 'Kestrel Head' }, { 'if-none-match': '*' }).status;
    expect([put(), put()]).toEqual([201, 412]);
    expect(mock.send('PUT', HARBOUR, { name: 'Again' }).status).toBe(428);
  });

  test('a setting turns it off, and the contract says which it is', () => {
    const statuses = (mock: TestMock): readonly number[] =>
      mock.service.contract.operations
        .find(({ id }) => id === 'replaceHarbour')
        ?.responses.map(({ status }) => status) ?? [];
    expect(statuses(mockOf())).toContain(201);
    const off = mockOf({ putCreates: 'off' });
    expect(statuses(off)).not.toContain(201);
    expect(off.send('PUT', HARBOUR, { name: 'X' }).status).toBe(404);
  });

  test('whoever may replace and not create finds nothing there', () => {
    const create = mockOf().service.contract.operations.find(({ id }) => id === 'createHarbour');
    const operations = { [`${create?.resource ?? ''}:create`]: { access: 'role', role: 'owner' } };
    const mock = mockOf({ security: ['bearer'], access: 'authenticated' }, operations);
    const statuses = credentialsOf(mock.service.contract).map((one) => {
      const answer = mock.send('PUT', HARBOUR, { name: 'X' }, { authorization: presentedBy('bearer', one) });
      return [one.roles, answer.status];
    });
    expect(statuses).toEqual([
      [[], 404],
      [['owner'], 201],
    ]);
  });
});

test('what is paired with guards itself; what it is paired from may always go', () => {
  const mock = TestMock.of(
    'entity Crew\n  name: text\n\nentity Watch\n  name: text\n\neach Watch pairs with many Crew as crew, on remove restrict\n',
    { Crew: 0, Watch: 0 },
  );
  mock.send('POST', '/api/v1/crews', { name: 'Ines' });
  for (const name of ['Dawn', 'Dusk']) mock.send('POST', '/api/v1/watches', { name });
  for (const id of [1, 2]) expect(mock.send('PUT', `/api/v1/watches/${id}/crew/1`).status).toBe(201);
  const refused = mock.send('DELETE', '/api/v1/crews/1');
  expect(refused.status).toBe(409);
  expect(refused.body).toMatchObject({
    detail:
      'It is still needed: Watch 1, which it is paired with as crew, Watch 2, which it is paired with as crew.',
  });
  expect([1, 2].map((id) => mock.send('DELETE', `/api/v1/watches/${id}`).status)).toEqual([204, 204]);
  expect(mock.send('DELETE', '/api/v1/crews/1').status).toBe(204);
});
