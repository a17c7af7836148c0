import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  completeModel,
  NO_CHOICES,
  plainArrangement,
  type Choices,
  type Placements,
} from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { findViolations } from '@isomeros/core/engine';
import { migrate, type Decision } from '@isomeros/core/migration';
import type { Model } from '@isomeros/core/model';
import { seed } from '@isomeros/core/seeding';
import { modelOf } from '../support/models.js';
import { NOW, TestMock } from '../support/mock.js';

const TEXT = `entity Settings
  currency: text(3..3), required, default "KSD"
  contact: email, required

entity Harbour
  name: text(1..40), required

entity Desk
  name: text(1..40)

entity Banner
  text: text(1..40)

each Desk refers to one Harbour as harbour, on remove cascade
each Settings refers to optional Harbour as home, on remove detach
each Settings owns many Banner as banners
`;

const choicesOf = (placements: Placements): Choices => ({
  ...NO_CHOICES,
  arrangements: [{ ...plainArrangement('main'), placements }, plainArrangement('other')],
});
const ONE = choicesOf({ Settings: 'singleton' });

const modelWith = (choices: Choices): Model => completeModel(modelOf(TEXT), choices);

const mockOf = (arrangement: string): TestMock =>
  new TestMock(modelWith(ONE), {}, arrangementOf(arrangement, ONE));

describe('a singleton at the root', () => {
  test('is one record without an id, which is there from the start', () => {
    const mock = mockOf('main');
    const { status, body, headers } = mock.send('GET', '/api/v1/settings');
    expect(status).toBe(200);
    expect(body).toMatchObject({
      contact: expect.stringContaining('@'),
      links: { self: { href: '/api/v1/settings' } },
    });
    expect(body).not.toHaveProperty('id');
    expect(headers.has('etag')).toBe(true);
    expect(mock.send('GET', '/api/v1').body).toMatchObject({
      links: { settings: { href: '/api/v1/settings' } },
    });
  });

  test('is read, replaced and changed, and neither made nor removed', () => {
    const mock = mockOf('main');
    expect(mock.send('PATCH', '/api/v1/settings', { currency: 'EUR' }).body).toMatchObject({
      currency: 'EUR',
    });
    const put = mock.send('PUT', '/api/v1/settings', { contact: 'new@harbour.example' });
    expect([put.status, put.body]).toMatchObject([200, { contact: 'new@harbour.example', currency: 'KSD' }]);
    for (const method of ['POST', 'DELETE'])
      expect(mock.send(method, '/api/v1/settings', {}).headers.get('allow')).toBe(
        'GET, HEAD, PUT, PATCH, OPTIONS',
      );
    expect(mock.send('GET', '/api/v1/settings/1').status).toBe(404);
    const banner = mock.send('POST', '/api/v1/settings/banners', { text: 'Ahoy' });
    expect([banner.status, banner.headers.get('location')]).toEqual([
      201,
      expect.stringMatching(/^\/api\/v1\/settings\/banners\/\d+$/),
    ]);
    expect(mock.send('GET', banner.headers.get('location') ?? '').body).toMatchObject({ text: 'Ahoy' });
  });

  test('stays the only one whoever writes: another arrangement is refused what would leave other than one', () => {
    const mock = mockOf('other');
    const { items } = mock.send('GET', '/api/v1/settings').body as { items: { id: number }[] };
    expect(items).toHaveLength(1);
    const more = mock.send('POST', '/api/v1/settings', { contact: 'two@harbour.example' });
    expect([more.status, more.body]).toMatchObject([
      409,
      { errors: [{ message: 'There is one Settings, and no other.' }] },
    ]);
    const gone = mock.send('DELETE', `/api/v1/settings/${items[0]?.id ?? ''}`);
    expect([gone.status, gone.body]).toMatchObject([409, { detail: 'There is always one Settings.' }]);
    expect(mock.send('PATCH', `/api/v1/settings/${items[0]?.id ?? ''}`, { currency: 'EUR' }).status).toBe(
      200,
    );
    expect(findViolations(mock.service.model, mock.rows)).toEqual([]);
  });

  test.each([
    ['something refers to it', { Harbour: 'singleton' }, 'Harbour'],
    ['one of its references cascades', { Desk: 'singleton' }, 'Desk'],
  ] as const)('is not offered where %s', (_, placements, name) => {
    const choices = choicesOf(placements);
    const contract = derive(modelWith(choices), arrangementOf('main', choices));
    expect(contract.findings.filter(({ id }) => id === 'single.impossible')).toMatchObject([
      { message: expect.stringContaining(`${name} cannot be a singleton`) },
    ]);
    expect(
      contract.resources.filter(({ entity, kind }) => entity === name && kind === 'collection'),
    ).toHaveLength(1);
  });
});

describe('records that were other than one', () => {
  const settled = (rows: Parameters<typeof migrate>[2], decision: Decision): ReturnType<typeof migrate> => {
    const before = modelOf(TEXT);
    const counters = { rid: 100, attributes: {} };
    const tools = { now: NOW, uuid: (): string => 'none' };
    const after = modelWith(ONE);
    const [step] = migrate(before, after, rows, counters, new Map(), tools).open;
    return migrate(before, after, rows, counters, new Map([[step?.id ?? '', decision]]), tools);
  };
  const settings = (rows: ReturnType<typeof migrate>['rows']): unknown[] =>
    rows.filter(({ entity }) => entity === 'Settings').map(({ values }) => values['Settings.contact']);

  test('are several: one is named that stays, or the first does', () => {
    const { rows } = seed(modelOf(TEXT), { seed: 1, counts: { Settings: 3 }, now: NOW });
    const contacts = settings(rows);
    const before = modelOf(TEXT);
    const tools = { now: NOW, uuid: (): string => 'none' };
    const { open } = migrate(before, modelWith(ONE), rows, { rid: 100, attributes: {} }, new Map(), tools);
    expect(open).toMatchObject([
      {
        message: 'There must be one Settings, and there are several.',
        records: 2,
        resolutions: [{ do: 'fill' }, { do: 'drop' }],
      },
    ]);
    const second = settled(rows, { do: 'fill', value: 2 });
    expect([second.open, settings(second.rows)]).toEqual([[], [contacts[1]]]);
    const first = settled(rows, { do: 'drop' });
    expect([first.open, settings(first.rows)]).toEqual([[], [contacts[0]]]);
    expect(settled(rows, { do: 'fill', value: 9 }).problems).toMatchObject([{ code: 'reference' }]);
  });

  test('are none: one is made', () => {
    const { rows } = seed(modelOf(TEXT), { seed: 1, counts: { Settings: 0 }, now: NOW });
    const made = settled(rows, { do: 'fill', value: { contact: 'ada@harbour.example' } });
    expect([made.open, settings(made.rows)]).toEqual([[], ['ada@harbour.example']]);
    expect(settled(rows, { do: 'fill', value: { contact: 'ada' } }).problems).toHaveLength(1);
  });
});
