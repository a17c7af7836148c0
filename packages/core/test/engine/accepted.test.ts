import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { exampleRequest, maskedBody } from '@isomeros/core/engine';
import { arrangedWith, type OperationLine } from '../support/lines.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Member
  code: text(1..8), key
  name: text(1..40), required
  pin: text(4..12), required, write-only
  state: choice(active, left), default active
    leave: active -> left

entity Badge
  label: text(1..20), required
  level: integer

each Member owns many Badge as badges
`;

const LINES: readonly OperationLine[] = [
  ['Member', 'pinAgain', 'accepts text, required, equals pin'],
  ['Member', 'invitation', 'accepts uuid'],
  ['Member', 'reason', 'accepts text(..20), required for leave'],
  [
    'Member',
    'rename',
    'set name from body accepts nameAgain: text, required, equals name and note: text(..5)',
  ],
  [
    'Badge',
    'rank',
    'set level = input side (low 1, high 5, none unset), label = input side (low L, high H, none N)',
  ],
  ['Badge', 'rankAll', 'all set level = input to (low 1, high 5) accepts why: text, required'],
  [
    'Member',
    'award',
    'make badges set label from body, level = input grade (gold 9) accepts by: email, required',
  ],
  [
    'Member',
    'check',
    'verify code = input code and pin = input pin answers record else 404 accepts device: text, required',
  ],
];

const mockOf = (settings: SettingValues = {}): TestMock => {
  const model = modelOf(TEXT);
  return new TestMock(model, { Member: 0, Badge: 0 }, arrangedWith(model, LINES, settings));
};

const MEMBER = { code: 'A1', name: 'Ann', pin: 'secret', pinAgain: 'secret' };
const made = (settings: SettingValues = {}): TestMock => {
  const mock = mockOf(settings);
  expect(mock.send('POST', '/api/v1/members', MEMBER).status).toBe(201);
  return mock;
};

describe('what is accepted and not stored', () => {
  test('is checked where a record is made, and answered by nothing', () => {
    const mock = made();
    const { values } = mock.rows[0] ?? { values: {} };
    expect(Object.keys(values)).not.toContain('pinAgain');
    expect(mock.send('GET', '/api/v1/members/A1').body).not.toHaveProperty('pinAgain');
  });

  test.each([
    [{ ...MEMBER, pinAgain: 'other!' }, '/pinAgain', 'unequal'],
    [{ ...MEMBER, pinAgain: undefined }, '/pinAgain', 'required'],
    [{ ...MEMBER, invitation: 'no uuid' }, '/invitation', 'format'],
    [{ ...MEMBER, pinAgain: 7 }, '/pinAgain', 'type'],
  ])('what does not fit is invalid: %j', (body, pointer, code) => {
    const answer = mockOf().send('POST', '/api/v1/members', body);
    expect(answer.status).toBe(400);
    expect(answer.body).toMatchObject({ errors: [{ pointer, code }] });
  });

  test('in PUT it is required only where that makes the record, and has no effect where it replaces', () => {
    const mock = made({ putCreates: 'on' });
    const { code, ...rest } = MEMBER;
    expect(mock.send('PUT', '/api/v1/members/B2', { ...rest, pinAgain: undefined }).status).toBe(400);
    expect(mock.send('PUT', '/api/v1/members/B2', rest).status).toBe(201);
    expect(mock.send('PUT', `/api/v1/members/${code}`, { name: 'Bo', pin: 'secret' }).status).toBe(200);
    expect(mock.send('PUT', `/api/v1/members/${code}`, { ...rest, pinAgain: 'differs' }).status).toBe(200);
  });

  test('elsewhere it is unknown', () => {
    const mock = made({ putCreates: 'off' });
    const put = mock.send('PUT', '/api/v1/members/A1', MEMBER);
    expect(put).toMatchObject({ status: 400, body: { errors: [{ pointer: '/pinAgain', code: 'unknown' }] } });
    const patch = mock.send('PATCH', '/api/v1/members/A1', { pinAgain: 'secret' });
    expect(patch.status).toBe(400);
  });

  test('a transition takes what its line says', () => {
    const mock = made();
    expect(mock.send('POST', '/api/v1/members/A1/leave', {}).status).toBe(400);
    expect(mock.send('POST', '/api/v1/members/A1/leave', { reason: 'x', more: 1 }).status).toBe(400);
    expect(mock.send('POST', '/api/v1/members/A1/leave', [])).toMatchObject({ status: 400 });
    const left = mock.send('POST', '/api/v1/members/A1/leave', { reason: 'moved' });
    expect(left).toMatchObject({ status: 200, body: { state: 'left' } });
  });

  test('an action takes it beside what it stores', () => {
    const mock = made();
    const path = '/api/v1/members/A1/rename';
    expect(mock.send('POST', path, { name: 'Bea', nameAgain: 'Ben' })).toMatchObject({
      status: 400,
      body: { errors: [{ pointer: '/nameAgain', code: 'unequal' }] },
    });
    expect(mock.send('POST', path, { name: 'Bea', nameAgain: 'Bea', note: 'too long' }).status).toBe(400);
    expect(mock.send('POST', path, { name: 'Bea', nameAgain: 'Bea' })).toMatchObject({
      body: { name: 'Bea' },
    });
  });

  test('looking up by a secret takes more than it compares', () => {
    const mock = made();
    const path = '/api/v1/members/check';
    expect(mock.send('POST', path, { code: 'A1', pin: 'secret' }).status).toBe(400);
    expect(mock.send('POST', path, { code: 'A1', pin: 'secret', device: 'd' }).status).toBe(200);
    expect(mock.send('POST', path, { code: 'A1', pin: 'wrong', device: 'd' }).status).toBe(404);
  });
});

describe('values that are chosen by a word', () => {
  const withBadge = (): TestMock => {
    const mock = made();
    const body = { label: 'x', by: 'ann@example.org', grade: 'gold' };
    expect(mock.send('POST', '/api/v1/members/A1/award', body)).toMatchObject({
      status: 201,
      body: { label: 'x', level: 9 },
    });
    return mock;
  };

  test.each([
    ['low', { label: 'L', level: 1 }],
    ['high', { label: 'H', level: 5 }],
    ['none', { label: 'N', level: null }],
  ])('%s', (side, expected) => {
    const badge = withBadge().send('POST', '/api/v1/members/A1/badges/1/rank', { side });
    expect(badge).toMatchObject({ status: 200, body: expected });
  });

  test.each([[{}], [{ side: 'middle' }], [{ side: null }]])('%j is invalid', (body) => {
    const badge = withBadge().send('POST', '/api/v1/members/A1/badges/1/rank', body);
    expect(badge).toMatchObject({ status: 400, body: { errors: [{ pointer: '/side' }] } });
  });

  test('for many records at once', () => {
    const mock = withBadge();
    const path = '/api/v1/members/A1/badges/rank-all';
    expect(mock.send('POST', path, { to: 'low' }).status).toBe(400);
    expect(mock.send('POST', path, { to: 'low', why: 'w' }).body).toEqual({ found: 1, changed: 1 });
    expect(mock.send('GET', '/api/v1/members/A1/badges/1').body).toMatchObject({ level: 1 });
  });
});

describe('in the contract', () => {
  const model = modelOf(TEXT);
  const derivedWith = (...lines: OperationLine[]): ReturnType<typeof derive> =>
    derive(model, arrangedWith(model, lines));

  test('what must equal a write-only attribute is secret, and in no journal', () => {
    const mock = made();
    const sent = mock.service.contract.operations.find(({ id }) => id === 'createMember');
    const shape = mock.service.contract.shapes.find(({ name }) => name === sent?.accepts);
    expect(shape?.members.find(({ name }) => name === 'pinAgain')).toMatchObject({
      required: true,
      source: { kind: 'input', isSecret: true, equals: 'pin' },
    });
    const text = JSON.stringify(MEMBER);
    const masked = maskedBody(
      mock.service,
      'createMember',
      { kind: 'text', text, bytes: text.length },
      1_000,
    );
    expect(JSON.stringify(masked)).not.toContain('secret');
  });

  test('examples of every operation that takes them succeed', () => {
    const mock = made();
    for (const operation of mock.service.contract.operations) {
      if (!['createMember', 'renameMember', 'awardMember', 'leaveMember'].includes(operation.id)) continue;
      const example = exampleRequest(mock.service, mock.dataset, operation, mock.now);
      if (example === null) throw new Error(operation.id);
      expect([operation.id, mock.exchange(example).status < 300]).toEqual([operation.id, true]);
    }
  });

  test.each<[OperationLine, string]>([
    [['Member', 'name', 'accepts text'], 'Two things that are sent would be called name.'],
    [
      ['Member', 'again', 'accepts integer, equals pin'],
      'again is integer and pin is text: they never equal.',
    ],
    [['Member', 'again', 'accepts text, equals state'], 'What again must equal is not sent beside it.'],
    [['Member', 'again', 'accepts integer, default x'], 'again cannot be "x". Expected an integer.'],
    [
      ['Member', 'move', 'set name from body accepts name: text'],
      'Two things that are sent would be called name.',
    ],
    [
      ['Member', 'move', 'set name from body accepts a: text, equals pin'],
      'What a must equal is not sent beside it.',
    ],
    [
      ['Badge', 'rank', 'set level = input a (x 1, x 2)'],
      'The words of the input a must be there, each once.',
    ],
    [
      ['Badge', 'rank', 'set level = input a (x 1), label = input a (y Y)'],
      'The input a chooses among two lists of words.',
    ],
    [['Badge', 'rank', 'set label = input a (x unset)'], 'label is required and cannot be unset.'],
    [['Badge', 'rank', 'set level = input a (x y)'], 'level cannot be "y". Expected an integer.'],
  ])('%j is left out: %s', (line, why) => {
    const { findings } = derivedWith(line);
    expect(findings.filter(({ id }) => id === 'custom.unfit').map(({ message }) => message)).toEqual([
      `${line[1]} is left out. ${why}`,
    ]);
  });

  test('an input for what is done nowhere is a finding', () => {
    const line: OperationLine = ['Member', 'reason', 'accepts text for leave'];
    const arranged = arrangedWith(model, [line]);
    const [operation] = arranged.customOperations;
    if (operation?.effect.kind !== 'accept') throw new Error('The line accepts nothing.');
    const placed = { [operation.effect.transition ?? '']: 'change' as const };
    const { findings } = derive(model, { ...arranged, placements: placed });
    expect(findings.filter(({ about }) => about === 'reason').map(({ message }) => message)).toEqual([
      'reason is left out. No operation here would be sent it.',
    ]);
  });
});
