import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { judgeResponse } from '@isomeros/core/conformance';
import { derive } from '@isomeros/core/derivation';
import { exampleRequest } from '@isomeros/core/engine';
import { openApiDocument } from '@isomeros/core/publication';
import { arrangedWith, type OperationLine } from '../support/lines.js';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `value Terms
  since: integer

entity Berth
  code: text(1..8), key
  name: text(1..20), required
  pin: text(4..8), write-only
  data: text
  state: choice(open, shut), default open
    close: open -> shut

entity Ship
  code: text(1..8), key

each Berth pairs with many Ship as ships, back as berths, carrying Terms
`;

const LINES: readonly OperationLine[] = [
  ['Berth', 'shutAll', 'all do close'],
  ['Berth', 'check', 'verify code = input code and pin = input pin answers record else 404'],
];

const MODEL = modelOf(TEXT);
const settingsOf = (more: SettingValues): SettingValues => ({ recordMember: 'record', ...more });
const mockOf = (settings: SettingValues): TestMock =>
  new TestMock(MODEL, { Berth: 0, Ship: 0 }, arrangedWith(MODEL, LINES, settingsOf(settings)));

const ANSWERS: SettingValues = { recordEnvelope: 'answers' };
const BODIES: SettingValues = { recordEnvelope: 'bodies' };
const BERTH = { code: 'B1', name: 'North', pin: '1234' };
const SHOWN = { code: 'B1', name: 'North', data: null, state: 'open' };

const made = (settings: SettingValues): { readonly mock: TestMock; readonly answer: Answer } => {
  const mock = mockOf(settings);
  const body = settings['recordEnvelope'] === 'bodies' ? { record: BERTH } : BERTH;
  const answer = mock.send('POST', '/api/v1/berths', body);
  expect(answer.status).toBe(201);
  return { mock, answer };
};

const linksOf = { self: { href: '/api/v1/berths/B1' } };
const PATCH = 'application/json-patch+json';

describe('one record in a member of answers', () => {
  test('whoever answers it', () => {
    const { mock, answer } = made({ ...ANSWERS, fields: 'on' });
    const expected = { record: { ...SHOWN, links: expect.objectContaining(linksOf) } };
    expect(answer.body).toEqual(expected);
    expect(mock.send('GET', '/api/v1/berths/B1').body).toEqual(expected);
    expect(mock.send('GET', '/api/v1/berths/B1?fields=name').body).toEqual({
      record: { name: 'North', links: expect.anything() },
    });
    const check = mock.send('POST', '/api/v1/berths/check', { code: 'B1', pin: '1234' });
    expect(check.body).toEqual(expected);
    expect(mock.send('PATCH', '/api/v1/berths/B1', { name: 'South' }).body).toMatchObject({
      record: { name: 'South' },
    });
    expect(mock.send('POST', '/api/v1/berths/B1/close').body).toMatchObject({ record: { state: 'shut' } });
  });

  test('and nothing else is: lists, problems, counts, HAL', () => {
    const { mock } = made(ANSWERS);
    expect(mock.send('GET', '/api/v1/berths').body).toMatchObject({ items: [SHOWN] });
    expect(mock.send('GET', '/api/v1/berths/B9').body).toMatchObject({ status: 404 });
    expect(mock.send('POST', '/api/v1/berths/shut-all').body).toEqual({ found: 1, changed: 1 });
    const hal = mock.send('GET', '/api/v1/berths/B1', undefined, { accept: 'application/hal+json' });
    expect(hal.body).toMatchObject({ code: 'B1', _links: linksOf });
  });

  test('links and constants stand beside it where that is chosen', () => {
    const { mock, answer } = made({
      ...ANSWERS,
      recordLinks: 'beside',
      recordConstants: '{ "ok": true, "v": 1 }',
    });
    const expected = { record: SHOWN, links: expect.objectContaining(linksOf), ok: true, v: 1 };
    expect(answer.body).toEqual(expected);
    expect(mock.send('GET', '/api/v1/berths/B1').body).toEqual(expected);
    const inside = made({ ...ANSWERS, recordConstants: '{"ok":true}' });
    expect(inside.mock.send('GET', '/api/v1/berths/B1').body).toEqual({
      record: { ...SHOWN, links: expect.objectContaining(linksOf) },
      ok: true,
    });
  });

  test('bodies stay bare, but for PUT, which also takes what was read', () => {
    const { mock } = made(ANSWERS);
    expect(mock.send('POST', '/api/v1/berths', { record: { ...BERTH, code: 'B2' } }).status).toBe(400);
    const read = mock.send('GET', '/api/v1/berths/B1').body as { record: object };
    const { links: _links, ...record } = read.record as { links: object };
    const again = { record: { ...record, name: 'West' }, anything: 1 };
    expect(mock.send('PUT', '/api/v1/berths/B1', again)).toMatchObject({
      status: 200,
      body: { record: { name: 'West' } },
    });
    expect(mock.send('PUT', '/api/v1/berths/B1', { ...record, name: 'East' }).status).toBe(200);
    expect(mock.send('PUT', '/api/v1/berths/B1', { record: { name: 7 } }).body).toMatchObject({
      errors: [{ pointer: '/record/name' }],
    });
    expect(mock.send('PUT', '/api/v1/berths/B1', { name: 7 }).body).toMatchObject({
      errors: [{ pointer: '/name' }],
    });
  });

  test('a member of the record that has the same name keeps its meaning', () => {
    const { mock } = made({ ...ANSWERS, recordMember: 'data' });
    const odd = mock.send('PUT', '/api/v1/berths/B1', { data: { name: 'x' } });
    expect(odd.body).toMatchObject({
      errors: expect.arrayContaining([expect.objectContaining({ pointer: '/data' })]),
    });
    expect(mock.send('PUT', '/api/v1/berths/B1', { name: 'x', data: 'y' }).status).toBe(200);
  });
});

describe('one record in a member of all bodies', () => {
  test.each([
    [{ ...BERTH }, ['/code', '/name', '/pin', '/record']],
    [{}, ['/record']],
    [{ record: null }, ['/record']],
    [[], ['']],
    [{ record: { code: 'B2' } }, ['/record/name']],
    [{ record: { ...BERTH, code: 'B2', more: 1 } }, ['/record/more']],
    [{ record: { ...BERTH, code: '.' } }, ['/record/code']],
  ])('POST %j is told of the whole body', (body, pointers) => {
    const { status, body: told } = mockOf(BODIES).send('POST', '/api/v1/berths', body);
    expect(status).toBe(400);
    expect((told as { errors: { pointer: string }[] }).errors.map(({ pointer }) => pointer)).toEqual(
      pointers,
    );
  });

  test('what was read may be sent back, links and constants with it', () => {
    const { mock } = made({ ...BODIES, recordLinks: 'beside', recordConstants: '{"ok":true}' });
    const { body } = mock.send('GET', '/api/v1/berths/B1');
    expect(mock.send('PUT', '/api/v1/berths/B1', body).status).toBe(200);
    expect(mock.send('PUT', '/api/v1/berths/B1', { ...(body as object), other: 1 }).status).toBe(400);
  });

  test('merge patches are about the body around the record', () => {
    const { mock } = made(BODIES);
    const patch = (body: unknown): Answer => mock.send('PATCH', '/api/v1/berths/B1', body);
    expect(patch({ record: { name: 'South' } }).body).toMatchObject({ record: { name: 'South' } });
    expect(patch({}).body).toMatchObject({ record: { name: 'South' } });
    expect(patch({ record: null }).body).toMatchObject({ errors: [{ pointer: '/record' }] });
    expect(patch({ name: 'East' }).body).toMatchObject({ errors: [{ pointer: '/name', code: 'unknown' }] });
    expect(patch({ record: { name: null } }).body).toMatchObject({ errors: [{ pointer: '/record/name' }] });
  });

  test('and so are JSON patches', () => {
    const { mock } = made({ ...BODIES, recordConstants: '{"ok":true}' });
    const patch = (...steps: readonly object[]): Answer =>
      mock.send('PATCH', '/api/v1/berths/B1', steps, { 'content-type': PATCH });
    const replaced = patch(
      { op: 'test', path: '/ok', value: true },
      { op: 'test', path: '/record/name', value: 'North' },
      { op: 'replace', path: '/record/name', value: 'South' },
    );
    expect(replaced).toMatchObject({ status: 200, body: { record: { name: 'South' } } });
    expect(patch({ op: 'replace', path: '/name', value: 'East' }).status).toBe(409);
    expect(patch({ op: 'replace', path: '/record/name', value: 7 }).body).toMatchObject({
      errors: [{ pointer: '/record/name' }],
    });
    expect(patch({ op: 'test', path: '/record/pin', value: '1234' }).body).toMatchObject({
      status: 400,
      errors: [{ pointer: '/0' }],
    });
    expect(patch({ op: 'remove', path: '/record' }).body).toMatchObject({ errors: [{ pointer: '/record' }] });
  });

  test('pairs are records as well', () => {
    const { mock } = made(BODIES);
    mock.send('POST', '/api/v1/ships', { record: { code: 'S1' } });
    const path = '/api/v1/berths/B1/ships/S1';
    expect(mock.send('PUT', path, { since: 3 }).status).toBe(400);
    expect(mock.send('PUT', path, { record: { since: 3 } })).toMatchObject({
      status: 201,
      body: { record: { code: 'S1', terms: { since: 3 } } },
    });
    const patched = mock.send('PATCH', path, { record: { since: 4 } });
    expect(patched).toMatchObject({ status: 200, body: { record: { terms: { since: 4 } } } });
    const steps = [{ op: 'replace', path: '/record/since', value: 5 }];
    expect(mock.send('PATCH', path, steps, { 'content-type': PATCH })).toMatchObject({
      body: { record: { terms: { since: 5 } } },
    });
  });

  test('examples are sent so, and every answer is as published', () => {
    const { mock } = made(BODIES);
    const { contract } = mock.service;
    for (const id of [
      'createBerth',
      'replaceBerth',
      'changeBerth',
      'readBerth',
      'listBerths',
      'checkBerth',
    ]) {
      const operation = contract.operations.find((one) => one.id === id);
      if (operation === undefined) throw new Error(id);
      const request = exampleRequest(mock.service, mock.dataset, operation, mock.now, 'told');
      if (request === null) throw new Error(id);
      const answer = mock.exchange(request);
      const { headers, handled, status } = answer;
      const lower = new Map([...headers].map(([name, value]) => [name.toLowerCase(), value]));
      expect([id, status < 300]).toEqual([id, true]);
      expect([
        id,
        judgeResponse(contract, id, { status, headers: lower, body: handled.response.body }),
      ]).toEqual([id, []]);
    }
  });
});

describe('in the contract', () => {
  const derived = (settings: SettingValues): ReturnType<typeof derive> =>
    derive(MODEL, arrangedWith(MODEL, [], settings));

  test('names that collide are findings, and what had the name first keeps it', () => {
    const { representation, findings } = derived({
      ...ANSWERS,
      recordMember: 'links',
      recordLinks: 'beside',
      recordConstants: '{"links":1,"ok":true}',
    });
    expect(representation.record).toEqual({
      member: 'links',
      of: 'answers',
      links: 'inside',
      constants: [{ name: 'ok', value: true }],
    });
    expect(findings.filter(({ id }) => id === 'member.collide')).toHaveLength(2);
  });

  test('nothing stands in a member where there is no plain JSON', () => {
    expect(derived({ ...ANSWERS, mediaTypes: ['hal'] }).representation.record).toBeNull();
  });

  test('the published document has each body once', () => {
    const document = JSON.stringify(openApiDocument(derived({ ...BODIES, recordLinks: 'beside' })));
    for (const name of ['Berth', 'Berth.create', 'Berth.change'])
      expect(document.split(`"${name}.enveloped":`)).toHaveLength(2);
  });

  test.each<[SettingValues, SettingValues, readonly string[]]>([
    [{}, ANSWERS, ['One record is in data now, not the body.']],
    [ANSWERS, {}, ['One record is the body now, not in data.']],
    [
      {},
      BODIES,
      ['One record is in data now, not the body.', 'One record is sent in a member of the body now.'],
    ],
    [ANSWERS, { ...ANSWERS, recordLinks: 'beside' }, ['Links of one record are beside it now.']],
    [ANSWERS, { ...ANSWERS, recordConstants: '{"a":1}' }, []],
    [{ ...ANSWERS, recordConstants: '{"a":1}' }, ANSWERS, ['What stands beside one record is another now.']],
  ])('%j → %j breaks %j', (was, is, expected) => {
    const { changes } = compare(
      { kind: 'draft', contract: derived(was) },
      { kind: 'draft', contract: derived(is) },
    );
    const broken = changes.filter(({ compatibility }) => compatibility === 'breaking');
    expect(broken.map(({ message }) => message)).toEqual(expected);
  });
});
