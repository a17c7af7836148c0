import { describe, expect, test } from '@jest/globals';
import type { SettingsById, SettingValues } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import type { Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { openApiDocument } from '@isomeros/core/publication';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const model = modelOf(`entity Berth
  name: text(1..20)

entity Buoy
  name: text(1..20)

each Berth refers to optional Buoy as buoy, back as berths
`);

const plain = derive(model, arranged({}));
const near = (settings: Readonly<Record<string, SettingValues>>): SettingsById =>
  Object.fromEntries(
    Object.entries(settings).map(([path, values]) => [
      plain.resources.find((resource) => resource.path === path)?.id ?? '',
      values,
    ]),
  );

/** Buoys go on by a cursor, berths come as a whole, what refers to a buoy is paged as all else. */
const APART = near({
  '/buoys': { pageStyle: 'cursor', pageSize: 2, totals: 'none' },
  '/berths': { pageStyle: 'none', envelope: 'bare', totals: 'header' },
});
const mock = new TestMock(model, { Berth: 5, Buoy: 5 }, arranged({}, APART));
const { contract } = mock.service;
const listed = (path: string): ReturnType<TestMock['send']> => mock.send('GET', `/api/v1${path}`);

describe('lists of one arrangement', () => {
  test('are paged each as was chosen', () => {
    const first = listed('/buoys').body as { items: object[]; page: Record<string, string> };
    expect([first.items.length, Object.keys(first.page)]).toEqual([2, ['limit', 'next', 'prev']]);
    const next = listed(`/buoys?cursor=${first.page['next'] ?? ''}`).body as { items: object[] };
    expect(next.items).toHaveLength(2);
    const whole = listed('/berths');
    expect([(whole.body as object[]).length, whole.headers.get('total-count')]).toEqual([5, '5']);
    expect(listed('/berths?page=1').status).toBe(400);
    expect(listed('/buoys/1/berths').body).toMatchObject({ page: { number: 1, size: 20 } });
  });

  test('are published each in its form', () => {
    const { components } = openApiDocument(contract) as {
      components: { schemas: Readonly<Record<string, { properties?: object; type?: string }>> };
    };
    expect(Object.keys(components.schemas['page.cursor-uncounted']?.properties ?? {})).toEqual([
      'limit',
      'next',
      'prev',
    ]);
    expect(components.schemas['Berth.page.whole-bare-counted-in-header']?.type).toBe('array');
    expect(Object.keys(components.schemas['Berth.page']?.properties ?? {})).toEqual([
      'items',
      'page',
      'links',
    ]);
  });

  test('are doubtful where one grows without an end, and only that one', () => {
    const [found, ...others] = contract.findings.filter(({ id }) => id === 'list.unbounded');
    expect([found?.message, others]).toEqual([
      'The list at /berths is answered as a whole, however long it grows.',
      [],
    ]);
  });

  test('break their readers alone where their form changes', () => {
    const breaks = (before: Contract, after: Contract): readonly string[] =>
      compare({ kind: 'draft', contract: before }, { kind: 'draft', contract: after })
        .changes.filter(({ compatibility }) => compatibility === 'breaking')
        .map(({ message }) => message);
    const one = derive(model, arranged({}, near({ '/buoys': { pageStyle: 'cursor' } })));
    expect(breaks(plain, one)).toContain('GET /api/v1/buoys: Pages are told by cursor, not by number.');
    const named = derive(model, arranged({ totals: 'header', totalHeader: 'X-Total' }));
    expect(breaks(derive(model, arranged({ totals: 'header' })), named)).toEqual([
      'Totals are told in X-Total, not in Total-Count.',
    ]);
    const all = derive(model, arranged({ pageStyle: 'cursor' }));
    expect(breaks(plain, all).filter((message) => message.includes('told by'))).toEqual([
      'Pages are told by cursor, not by number.',
    ]);
  });
});
