import { describe, expect, test } from '@jest/globals';
import {
  credentialsOf,
  MASK,
  maskedBody,
  maskedHeaders,
  presentedBy,
  withCredential,
} from '@isomeros/core/engine';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `value Access
  pin: text(4..4), required, write-only

entity Member
  name: text(1..40), required
  password: text(8..40), required, write-only
  access: Access

entity Badge
  label: text(1..40), required
  password: text(1..40)

entity Boat
  name: text(1..40)

each Member owns one Badge as badge
`;

const { service } = new TestMock(
  modelOf(TEXT),
  {},
  arranged({ security: ['basic', 'bearer', 'api key'], access: 'role', role: 'keeper' }),
);
const { contract } = service;
const masked = (operation: string | null, text: string, most = 1_000): ReturnType<typeof maskedBody> =>
  maskedBody(service, operation, { kind: 'text', text, bytes: text.length }, most);
const textOf = (operation: string | null, body: unknown): unknown => {
  const found = masked(operation, JSON.stringify(body));
  return found.kind === 'text' ? JSON.parse(found.text) : found;
};

describe('what is recorded of a body', () => {
  test.each([
    ['createMember', { name: 'A', password: 'hunter22' }, { name: 'A', password: MASK }],
    ['createMember', { access: { pin: '1234' } }, { access: { pin: MASK } }],
    ['createMember', { _links: {}, password: 'hunter22' }, { _links: {}, password: MASK }],
    ['createMember', { password: { is: 'wrong' } }, { password: MASK }],
    ['changeMember', { password: null }, { password: null }],
    [
      'changeMember',
      [
        { op: 'replace', path: '/password', value: 'hunter22' },
        { op: 'add', path: '/access', value: { pin: '1234' } },
        { op: 'test', path: '/access/pin', value: '1234' },
        { op: 'replace', path: '/name', value: 'B' },
      ],
      [
        { op: 'replace', path: '/password', value: MASK },
        { op: 'add', path: '/access', value: { pin: MASK } },
        { op: 'test', path: '/access/pin', value: MASK },
        { op: 'replace', path: '/name', value: 'B' },
      ],
    ],
    ['createBoat', { name: 'A', password: 'no secret here' }, { name: 'A', password: 'no secret here' }],
    [null, { anywhere: [{ password: 'hunter22' }] }, { anywhere: [{ password: MASK }] }],
  ])('by %s: %j', (operation, sent, recorded) => {
    expect(textOf(operation, sent)).toEqual(recorded);
  });

  test('is its length alone where it cannot be masked and may hold a secret', () => {
    expect(masked('createMember', '{"password": "hunter22"')).toEqual({ kind: 'withheld', bytes: 23 });
    expect(masked('createMember', '{"password": "hunter22"}', 10)).toEqual({ kind: 'withheld', bytes: 24 });
    expect(masked('createBoat', '{"name"')).toMatchObject({ kind: 'text' });
  });

  test('says no more of a name that stands twice', () => {
    const found = masked('createMember', '{"password":"hunter22","password":null}');
    expect(JSON.stringify(found)).not.toContain('hunter22');
  });

  test('is just as it was sent where there is no secret in it', () => {
    const text = '{ "name":\t"A" }';
    expect(masked('changeMember', text)).toMatchObject({ text });
  });
});

describe('what is recorded of headers', () => {
  const known = credentialsOf(contract);

  test.each([
    ['Authorization', 'Bearer abc', 'Bearer ***'],
    ['authorization', 'Digest username="x", response="y"', 'Digest ***'],
    ['Authorization', 'abc', '***'],
    ['Proxy-Authorization', 'Basic abc', 'Basic ***'],
    ['Cookie', 'session=abc', '***'],
    ['Set-Cookie', 'session=abc', '***'],
    ['X-API-KEY', 'abc', '***'],
    ['X-API-Kex', 'abc', 'abc'],
    ['Accept-Charset', 'abc', 'abc'],
  ])('%s: %s', (name, sent, recorded) => {
    expect(maskedHeaders(contract, ['Host', 'here', name, sent])).toEqual(['Host', 'here', name, recorded]);
  });

  test.each(known.flatMap((who) => contract.security.schemes.map((scheme) => ({ who, scheme }))))(
    'a credential of the mock by its name, which can be put back: $who.name, $scheme',
    ({ who, scheme }) => {
      const name = scheme === 'key' ? 'X-API-Key' : 'Authorization';
      const sent = presentedBy(scheme, who);
      const [, recorded = ''] = maskedHeaders(contract, [name, sent]);
      expect(recorded).toContain(`(${who.name})`);
      expect(recorded).not.toContain(who.secret);
      expect(withCredential(contract, name, recorded)).toBe(sent);
    },
  );

  test('what names nobody the mock knows is sent as it stands', () => {
    for (const value of ['Bearer ***', 'Bearer (nobody)', '(user', 'Digest (user)'])
      expect(withCredential(contract, 'Authorization', value)).toBe(value);
    expect(withCredential(contract, 'X-Note', '(user)')).toBe('(user)');
  });
});
