import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  NO_CHOICES,
  plainArrangement,
  withEdit,
  type Arrangement,
  type Choices,
  type LinkChoice,
  type SettingValues,
} from '@isomeros/core/arrangement';
import {
  firstWays,
  indexContract,
  isReadable,
  shortestWay,
  stepsOf,
  withAnswer,
} from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { followWay } from '@isomeros/core/engine';
import { MAIN } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { linkedBy } from '../support/ownLinks.js';
import { kestrelText, toolShedText } from '../support/samples.js';

const runtimeOf = (mock: TestMock) => ({ now: () => mock.now, random: () => 0.5, token: () => 'a-token' });

const idAt = (mock: TestMock, path: string): string =>
  mock.service.contract.resources.find((one) => one.path === path)?.id ?? '';

function wayOf(mock: TestMock, from: string, to: string): ReturnType<typeof followWay> {
  const { contract } = mock.service;
  const way = shortestWay(contract, idAt(mock, from), idAt(mock, to));
  return way === null ? null : followWay(mock.service, mock.dataset, idAt(mock, from), way, runtimeOf(mock));
}

describe('the shortest way', () => {
  const kestrel = new TestMock(modelOf(kestrelText));

  test('is gone link by link, with what the engine answers', () => {
    const way = wayOf(kestrel, '', '/routes/{routeNumber}/sailings/{sailingId}/crew');
    expect(way?.map(({ follows }) => follows)).toEqual(['routes', 'item', 'sailings', 'item', 'crew', null]);
    for (const { answer } of way ?? []) expect(answer).toMatchObject({ status: 200 });
    const [entry] = way ?? [];
    const text = kestrel.text('GET', '/api/v1') ?? '';
    expect(entry).toMatchObject({ target: '/api/v1', answer: { bytes: Buffer.byteLength(text) } });
  });

  test('ends with what would change something unsent', () => {
    const way = wayOf(
      kestrel,
      '/routes/{routeNumber}/sailings/{sailingId}',
      '/routes/{routeNumber}/sailings/{sailingId}/cancel',
    );
    expect(way).toMatchObject([{ follows: 'cancel' }, { method: 'POST', answer: null, follows: null }]);
  });

  test('says what a client must know from elsewhere', () => {
    const model = modelOf(kestrelText);
    const mock = new TestMock(model, {}, linkedBy(model, [['', 'booking -> readBooking']]));
    expect(wayOf(mock, '', '/bookings/{bookingId}/passengers')).toMatchObject([
      { follows: 'booking', needs: ['bookingId'] },
      { follows: 'passengers', needs: [] },
      { answer: { status: 200 } },
    ]);
  });

  test.each<readonly [string, string, SettingValues]>([
    ['ferries', kestrelText, {}],
    ['ferries, links in headers', kestrelText, { links: 'header', recordEnvelope: 'answers' }],
    ['ferries, bare lists', kestrelText, { envelope: 'bare' }],
    ['tools', toolShedText, {}],
  ])('is there for every resource of %s, and each request is answered', (_, text, settings) => {
    const model = modelOf(text);
    const arrangement = arrangementOf('main', {
      ...NO_CHOICES,
      arrangements: [{ ...plainArrangement('main'), settings }],
    });
    const mock = new TestMock(model, {}, arrangement);
    const { contract } = mock.service;
    for (const { id, path } of contract.resources) {
      const way = shortestWay(contract, 'entry', id);
      if (way === null) throw new Error(`Nothing leads to ${path}.`);
      const gone = followWay(mock.service, mock.dataset, 'entry', way, runtimeOf(mock)) ?? [];
      for (const { answer, method, target } of gone)
        expect({ target, method, status: answer?.status ?? 200 }).toEqual({ target, method, status: 200 });
      expect([path, gone.length]).toEqual([path, way.length + 1]);
    }
  });

  test('counts requests from where it begins', () => {
    const { contract } = kestrel.service;
    const index = indexContract(contract);
    const ways = firstWays(stepsOf(contract), 'entry', (id) => isReadable(index, id));
    expect(ways.get('entry')).toEqual({ requests: 1, step: null });
    expect(ways.get(idAt(kestrel, '/routes'))?.requests).toBe(2);
    expect(ways.size).toBe(contract.resources.length);
  });
});

describe('findings about where links lead', () => {
  const model = modelOf(kestrelText);

  const choicesOf = (
    chosen: readonly (readonly [path: string, relation: string, choice: LinkChoice])[],
    settings: SettingValues = {},
  ): Choices => {
    const plain = derive(model, MAIN);
    return chosen.reduce<Choices>(
      (choices, [path, relation, choice]) => {
        const resource = plain.resources.find((one) => one.path === path);
        const link = resource?.links.find((one) => one.relation === relation);
        if (resource === undefined || link === undefined) throw new Error(`No ${relation} at ${path}.`);
        return withEdit(choices, 'main', 'links', { resource: resource.id, link: link.id, choice });
      },
      { ...NO_CHOICES, arrangements: [{ ...plainArrangement('main'), settings }] },
    );
  };

  const arranged = (choices: Choices): Arrangement => arrangementOf('main', choices);
  const foundIn = (choices: Choices): readonly (readonly [string, string])[] =>
    derive(model, arranged(choices))
      .findings.filter(({ id }) => id.startsWith('link.'))
      .map(({ id, message }) => [id, message]);

  test('nothing leads to what was left out, once, and it is brought back', () => {
    const choices = choicesOf([['/crew-members/{crewMemberId}', 'commands', { leftOut: true }]]);
    const { findings } = derive(model, arranged(choices));
    const [found, ...others] = findings.filter(({ id }) => id.startsWith('link.'));
    expect(others).toEqual([]);
    expect(found).toMatchObject({
      id: 'link.unreachable',
      message:
        'Nothing leads to /crew-members/{crewMemberId}/commands. commands was left out at /crew-members/{crewMemberId}.',
    });
    const answer = found?.quickFixes?.[0]?.answer;
    if (answer?.kind !== 'link') throw new Error('There is no way back.');
    expect(foundIn(withAnswer(choices, 'main', answer))).toEqual([]);
  });

  test('what lies behind it is told of as well, with the same way back', () => {
    const choices = choicesOf([['/bookings/{bookingId}', 'passengers', { leftOut: true }]]);
    const found = derive(model, arranged(choices)).findings.filter(({ id }) => id === 'link.unreachable');
    expect(found.map(({ about }) => about)).toContain('Passenger/item');
    for (const { quickFixes } of found)
      expect(quickFixes?.map(({ title }) => title)).toEqual(['Bring back passengers']);
  });

  test('records are not reached where the way from lists to them was left out', () => {
    const choices = choicesOf([['/harbours/{harbourCode}', 'self', { leftOut: true }]]);
    const found = derive(model, arranged(choices)).findings.filter(
      ({ id, about }) => id === 'link.unreachable' && about === 'Harbour/item',
    );
    for (const { quickFixes } of found)
      expect(quickFixes?.map(({ title }) => title)).toEqual(['Bring back self']);
  });

  test('a way is gone by links that are called otherwise, too', () => {
    const choices = choicesOf([
      ['/routes/{routeNumber}', 'self', { relation: 'canonical' }],
      ['/routes/{routeNumber}/sailings/{sailingId}/crew/{crewMemberId}', 'edit', { relation: 'edit-form' }],
    ]);
    const mock = new TestMock(model, {}, arranged(choices));
    const crew = '/routes/{routeNumber}/sailings/{sailingId}/crew/{crewMemberId}';
    const way = wayOf(mock, '', crew);
    expect(way?.map(({ follows }) => follows).at(-2)).toBe('edit-form');
    expect(way?.at(-1)).toMatchObject({ answer: { status: 200 } });
  });

  test('links that are off in the arrangement are switched on there', () => {
    const choices = choicesOf([], { memberLinks: 'none' });
    const answer = derive(model, arranged(choices)).findings.find(({ id }) => id === 'link.off')
      ?.quickFixes?.[0]?.answer;
    if (answer?.kind !== 'setting') throw new Error('There is no way back.');
    expect(foundIn(withAnswer(choices, 'main', answer))).toEqual([]);
  });

  test('a dead end is told', () => {
    expect(foundIn(choicesOf([['/vessels/{vesselPennant}/certificate', 'up', { leftOut: true }]]))).toEqual([
      ['link.dead-end', '/vessels/{vesselPennant}/certificate leads nowhere: up was left out.'],
    ]);
  });

  test('links that are off are told once', () => {
    expect(foundIn(choicesOf([], { links: 'none', mediaTypes: ['json'] }))).toEqual([
      ['link.off', expect.stringContaining('carry no links')],
    ]);
    expect(foundIn(choicesOf([], { links: 'none' }))).toEqual([]);
    expect(foundIn(choicesOf([], { memberLinks: 'none' }))).toEqual([
      ['link.off', expect.stringContaining('Records in lists carry no links')],
    ]);
  });

  test('nothing is told where nobody left anything out', () => {
    expect(foundIn(choicesOf([]))).toEqual([]);
  });
});
