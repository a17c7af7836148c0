import { beforeEach, describe, expect, test } from '@jest/globals';
import { TestMock, type Answer } from '../support/mock.js';
import { kestrelText } from '../support/samples.js';

let mock: TestMock;
beforeEach(() => {
  mock = TestMock.of(kestrelText);
});

const problem = (
  answer: Answer,
): { type: string; detail: string; errors?: { pointer?: string; parameter?: string; code: string }[] } =>
  answer.body as never;
const member = (answer: Answer, name: string): unknown => (answer.body as Record<string, unknown>)[name];

const HARBOUR = { code: 'ABZ', name: 'Abbot Zee' };

describe('create', () => {
  test('answers 201 with Location and the record, which can then be read', () => {
    const made = mock.send('POST', '/api/v1/harbours', HARBOUR);
    expect(made.status).toBe(201);
    expect(made.headers.get('location')).toBe('/api/v1/harbours/ABZ');
    expect(made.body).toMatchObject({ ...HARBOUR, position: null, services: null });
    expect(mock.send('GET', '/api/v1/harbours/ABZ').body).toEqual(made.body);
  });

  test('counts ids on, and never gives one twice', () => {
    const first = mock.send('POST', '/api/v1/notices', { title: 'One' });
    const id = Number(member(first, 'id'));
    mock.send('DELETE', `/api/v1/notices/${id}`);
    expect(member(mock.send('POST', '/api/v1/notices', { title: 'Two' }), 'id')).toBe(id + 1);
  });

  test('takes the owner from the path', () => {
    const made = mock.send('POST', '/api/v1/routes/1/sailings', {
      departsAt: '2027-01-01T08:00:00Z',
      arrivesAt: '2027-01-01T09:00:00Z',
    });
    expect(made.status).toBe(201);
    expect(member(made, 'routeNumber')).toBe(1);
    expect(member(made, 'status')).toBe('planned');
    expect(member(made, 'changedAt')).toBe('2026-06-14T09:12:00.000Z');
  });

  test('answers all errors at once, each with a pointer, and stores nothing', () => {
    const before = mock.dataset.size;
    const answer = mock.send('POST', '/api/v1/harbours', {
      code: 'ab',
      position: { latitude: 100, longitude: 1.1234567 },
      services: ['fuel', 'tea'],
      openedOn: '2026-02-30',
      colour: 'red',
    });
    expect(answer.status).toBe(400);
    expect(
      problem(answer)
        .errors?.map(({ pointer, code }) => `${pointer ?? ''} ${code}`)
        .sort(),
    ).toEqual([
      '/code length',
      '/colour unknown',
      '/name required',
      '/openedOn format',
      '/position/latitude range',
      '/position/longitude scale',
      '/services/1 choice',
    ]);
    expect(mock.dataset.size).toBe(before);
  });

  test('refuses a key that is taken, a unique value that is taken, a combination that is taken', () => {
    mock.send('POST', '/api/v1/harbours', HARBOUR);
    const key = mock.send('POST', '/api/v1/harbours', { ...HARBOUR, name: 'Other' });
    expect([key.status, problem(key).errors?.[0]?.pointer]).toEqual([409, '/code']);
    const name = mock.send('POST', '/api/v1/harbours', { ...HARBOUR, code: 'ABY' });
    expect([name.status, problem(name).errors?.[0]?.pointer]).toEqual([409, '/name']);
    const sailing = { departsAt: '2027-01-01T08:00:00Z', arrivesAt: '2027-01-01T09:00:00Z' };
    mock.send('POST', '/api/v1/routes/1/sailings', sailing);
    expect(mock.send('POST', '/api/v1/routes/1/sailings', sailing).status).toBe(409);
    expect(mock.send('POST', '/api/v1/routes/2/sailings', sailing).status).toBe(201);
  });

  test('refuses a reference to what is not there, naming the member', () => {
    const answer = mock.send('POST', '/api/v1/routes', {
      name: 'Nowhere',
      distance: 1,
      originCode: 'XXXXX',
      destinationCode: 'KSH',
    });
    expect(answer.status).toBe(400);
    expect(problem(answer).errors).toEqual([
      expect.objectContaining({ pointer: '/originCode', code: 'reference' }),
    ]);
  });

  test.each([
    ['no body', undefined, {}, 415],
    ['another media type', '<a/>', { 'content-type': 'application/xml' }, 415],
    ['text that is not JSON', '{"code":', {}, 400],
    ['a member given twice', '{"code":"ABZ","code":"ABY","name":"x"}', {}, 400],
    ['an array', '[]', {}, 400],
    ['deep nesting', `{"a":${'['.repeat(100)}${']'.repeat(100)}}`, {}, 400],
    ['an Accept that rules JSON out', '{}', { accept: 'text/csv' }, 406],
  ])('answers %s with a problem', (_name, body, headers, status) => {
    const answer = mock.send('POST', '/api/v1/harbours', body, headers);
    expect(answer.status).toBe(status);
    expect(answer.headers.get('content-type')).toBe('application/problem+json');
    if (status === 415) expect(answer.headers.get('accept')).toBe('application/json, application/hal+json');
  });

  test('a required slot is made with its owner, in one step', () => {
    const vessels = TestMock.of(
      'entity Vessel\n  name: text, required\nentity Papers\n  number: text, required\neach Vessel owns one Papers as papers',
    );
    const without = vessels.send('POST', '/api/v1/vessels', { name: 'Tern' });
    expect(problem(without).errors?.[0]?.pointer).toBe('/papers');
    const made = vessels.send('POST', '/api/v1/vessels', { name: 'Tern', papers: { number: 'P1' } });
    const links = member(made, 'links') as Record<string, { href: string }>;
    expect(vessels.send('GET', links['papers']?.href ?? '').body).toMatchObject({ number: 'P1' });
    expect(vessels.send('DELETE', links['papers']?.href ?? '').status).toBe(405);
  });
});

describe('read', () => {
  test('a child under another parent is not there, in the same words as one that does not exist', () => {
    const wrong = mock.send('GET', '/api/v1/routes/2/sailings/1');
    const missing = mock.send('GET', '/api/v1/routes/2/sailings/99999');
    expect([wrong.status, missing.status]).toEqual([404, 404]);
    expect(problem(wrong).detail.replace('1', '#')).toBe(problem(missing).detail.replace('99999', '#'));
  });

  test.each([
    '/api/v1/routes/abc',
    '/api/v1/routes/1.0',
    '/api/v1/routes/%2F',
    '/api/v1/harbours//departures',
    '/api/v1/Harbours',
    '/api',
  ])('%s is 404', (target) => {
    expect(mock.send('GET', target).status).toBe(404);
  });

  test('/ leads to the entry, and a forgotten prefix is told', () => {
    const top = mock.send('GET', '/');
    expect([top.status, top.headers.get('location')]).toEqual([307, '/api/v1']);
    const forgotten = mock.send('GET', '/harbours/KSH');
    expect([forgotten.status, problem(forgotten).detail]).toEqual([
      404,
      'No path of the contract matches /harbours/KSH. Nearest: GET /api/v1/harbours/{harbourCode}.',
    ]);
    expect(mock.send('POST', '/').status).toBe(404);
  });

  test('dot-segments are removed and percent-encoding is decoded once', () => {
    expect(mock.send('GET', '/api/v1/vessels/../harbours/%4bSH').status).toBe(200);
    expect(mock.send('GET', '/api/v1/vessels/%2e%2e/harbours/KSH').status).toBe(200);
    expect(mock.send('GET', '/api/v1/harbours/%254bSH').status).toBe(404);
    expect(mock.send('GET', '/api/v1/harbours/%ff').status).toBe(400);
    expect(mock.send('GET', `/api/v1/harbours?x=${'y'.repeat(9_000)}`).status).toBe(414);
  });

  test('a trailing slash is the same as none', () => {
    expect(mock.send('GET', '/api/v1/harbours/KSH/').status).toBe(200);
  });

  test('what is write-only never comes back', () => {
    const made = mock.send('POST', '/api/v1/crew-members', {
      name: 'Ines Calloway',
      email: 'ines@example.net',
      pin: '123456',
    });
    expect(JSON.stringify(made.body)).not.toContain('123456');
    expect(made.body).not.toHaveProperty('pin');
    expect(mock.send('GET', '/api/v1/crew-members?pin=123456').status).toBe(400);
    expect(mock.send('GET', '/api/v1/crew-members?sort=pin').status).toBe(400);
  });

  test('HEAD answers as GET without the body', () => {
    const [get, head] = [mock.send('GET', '/api/v1/harbours/KSH'), mock.send('HEAD', '/api/v1/harbours/KSH')];
    expect(head.status).toBe(200);
    expect(head.body).toBeNull();
    expect(head.headers.get('content-type')).toBe(get.headers.get('content-type'));
    expect(Number(head.headers.get('content-length'))).toBe(
      Buffer.byteLength(get.handled.response.body ?? ''),
    );
  });
});

describe('methods', () => {
  test.each([
    ['PUT', '/api/v1/harbours', 'GET, HEAD, POST, OPTIONS'],
    ['POST', '/api/v1/harbours/KSH', 'GET, HEAD, PUT, PATCH, DELETE, OPTIONS'],
    ['DELETE', '/api/v1', 'GET, HEAD, OPTIONS'],
    ['POST', '/api/v1/harbours/KSH/departures', 'GET, HEAD, OPTIONS'],
  ])('%s %s is 405 and Allow tells the rest', (method, target, allow) => {
    const answer = mock.send(method, target, {});
    expect([answer.status, answer.headers.get('allow')]).toEqual([405, allow]);
  });

  test('OPTIONS answers 204 with Allow and Accept-Patch', () => {
    const answer = mock.send('OPTIONS', '/api/v1/harbours/KSH');
    expect(answer.status).toBe(204);
    expect(answer.headers.get('accept-patch')).toBe(
      'application/merge-patch+json, application/json-patch+json, application/json, application/hal+json',
    );
  });

  test('an unknown method is 501', () => {
    expect(mock.send('BREW', '/api/v1/harbours').status).toBe(501);
  });
});

describe('replace', () => {
  test('takes back what a read gave, and changes nothing', () => {
    const read = mock.send('GET', '/api/v1/routes/1/sailings/1');
    const put = mock.send('PUT', '/api/v1/routes/1/sailings/1', read.body);
    expect(put.status).toBe(200);
    expect({ ...(put.body as object), changedAt: 0 }).toEqual({ ...(read.body as object), changedAt: 0 });
  });

  test('unsets what is absent, keeps what is write-only or fixed', () => {
    const made = mock.send('POST', '/api/v1/crew-members', {
      name: 'A',
      email: 'a@example.net',
      pin: '123456',
      shiftBegins: '08:00:00',
    });
    const put = mock.send('PUT', `/api/v1/crew-members/${String(member(made, 'id'))}`, {
      name: 'B',
      email: 'b@example.net',
    });
    expect(put.body).toMatchObject({ name: 'B', shiftBegins: null, joinedAt: member(made, 'joinedAt') });
    const row = mock.rows.find(({ values }) => values['CrewMember.email'] === 'b@example.net');
    expect(row?.values['CrewMember.pin']).toBe('123456');
  });

  test('another key than that of the path is 409, another value of what never changes is 400', () => {
    const read = mock.send('GET', '/api/v1/harbours/KSH').body as object;
    expect(mock.send('PUT', '/api/v1/harbours/KSH', { ...read, code: 'ABC' }).status).toBe(409);
    const sailing = mock.send('GET', '/api/v1/routes/1/sailings/1').body as object;
    const changed = mock.send('PUT', '/api/v1/routes/1/sailings/1', {
      ...sailing,
      departsAt: '2020-01-01T00:00:00Z',
    });
    expect([changed.status, problem(changed).errors?.[0]?.pointer]).toEqual([400, '/departsAt']);
  });

  test('an unknown id is 404, an empty slot is filled with 201', () => {
    expect(mock.send('PUT', '/api/v1/bookings/9999', {}).status).toBe(404);
    const made = mock.send('POST', '/api/v1/vessels', {
      pennant: 'KS-999',
      name: 'New one',
      homePortCode: 'KSH',
    });
    expect(made.status).toBe(201);
    const papers = { number: 'P-1234', validUntil: '2028-01-01' };
    expect(mock.send('GET', '/api/v1/vessels/KS-999/certificate').status).toBe(404);
    expect(mock.send('PUT', '/api/v1/vessels/KS-999/certificate', papers).status).toBe(201);
    expect(mock.send('PUT', '/api/v1/vessels/KS-999/certificate', papers).status).toBe(200);
    expect(mock.send('DELETE', '/api/v1/vessels/KS-999/certificate').status).toBe(204);
    expect(mock.send('DELETE', '/api/v1/vessels/KS-999/certificate').status).toBe(404);
  });
});

describe('change', () => {
  test('merges: absent keeps, null unsets, objects merge (RFC 7396)', () => {
    mock.send('POST', '/api/v1/harbours', {
      ...HARBOUR,
      position: { latitude: 1, longitude: 2 },
      website: 'https://example.net',
    });
    const changed = mock.send('PATCH', '/api/v1/harbours/ABZ', { position: { latitude: 3 }, website: null });
    expect(changed.body).toMatchObject({
      ...HARBOUR,
      position: { latitude: 3, longitude: 2 },
      website: null,
    });
  });

  test('the merged whole is validated', () => {
    mock.send('POST', '/api/v1/harbours', { ...HARBOUR, position: { latitude: 1, longitude: 2 } });
    const answer = mock.send('PATCH', '/api/v1/harbours/ABZ', { position: { latitude: null }, name: null });
    expect(answer.status).toBe(400);
    expect(
      problem(answer)
        .errors?.map(({ pointer }) => pointer)
        .sort(),
    ).toEqual(['/name', '/position/latitude']);
  });

  test('plain JSON is a merge patch too, other types are 415 with Accept-Patch', () => {
    expect(
      mock.send('PATCH', '/api/v1/harbours/KSH', { website: null }, { 'content-type': 'application/json' })
        .status,
    ).toBe(200);
    const answer = mock.send('PATCH', '/api/v1/harbours/KSH', '[]', { 'content-type': 'text/plain' });
    expect([answer.status, answer.headers.get('accept-patch')]).toEqual([
      415,
      'application/merge-patch+json, application/json-patch+json, application/json, application/hal+json',
    ]);
  });

  test('null detaches an optional reference and is refused on a required one', () => {
    expect(mock.send('PATCH', '/api/v1/routes/1/sailings/1', { vesselPennant: null }).body).toMatchObject({
      vesselPennant: null,
    });
    expect(mock.send('PATCH', '/api/v1/routes/1', { originCode: null }).status).toBe(400);
  });
});

describe('remove', () => {
  test('answers 204, then 404, and takes what it owned with it', () => {
    const made = mock.send('POST', '/api/v1/routes/1/sailings', {
      departsAt: '2027-01-01T08:00:00Z',
      arrivesAt: '2027-01-01T09:00:00Z',
    });
    const sailing = String(member(made, 'id'));
    const booking = mock.send('POST', `/api/v1/routes/1/sailings/${sailing}/bookings`, {
      contact: 'a@example.net',
    });
    const path = `/api/v1/bookings/${String(member(booking, 'id'))}`;
    expect(mock.send('GET', path).status).toBe(200);
    expect(mock.send('DELETE', `/api/v1/routes/1/sailings/${sailing}`).status).toBe(204);
    expect(mock.send('DELETE', `/api/v1/routes/1/sailings/${sailing}`).status).toBe(404);
    expect(mock.send('GET', path).status).toBe(404);
  });

  test('is refused while others need it, and says who', () => {
    const answer = mock.send('DELETE', '/api/v1/harbours/KSH');
    expect(answer.status).toBe(409);
    expect(problem(answer).detail).toMatch(/Vessel|Route/);
  });

  test('detaches what may stand alone', () => {
    mock.send('POST', '/api/v1/vessels', { pennant: 'KS-77', name: 'New one', homePortCode: 'KSH' });
    mock.send('PATCH', '/api/v1/routes/1/sailings/1', { vesselPennant: 'KS-77' });
    expect(mock.send('DELETE', '/api/v1/vessels/KS-77').status).toBe(204);
    expect(mock.send('GET', '/api/v1/routes/1/sailings/1').body).toMatchObject({ vesselPennant: null });
  });
});

test('what would take a required slot along is refused, as the contract says', () => {
  const small = TestMock.of(
    'entity Office\nentity Vessel\nentity Paper\neach Vessel owns one Paper as paper\neach Paper refers to one Office as issuer, on remove cascade',
    { Office: 1, Vessel: 1 },
  );
  expect(small.send('DELETE', '/api/v1/offices/1').status).toBe(409);
  expect(small.send('DELETE', '/api/v1/vessels/1').status).toBe(204);
  expect(small.send('DELETE', '/api/v1/offices/1').status).toBe(204);
});
