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

describe('a list with a ceiling', () => {
  const few = new TestMock(
    model,
    { Berth: 5, Buoy: 5 },
    arranged(
      { pageStyle: 'ceiling', ceiling: 3 },
      near({ '/buoys': { ceiling: 5 }, '/berths': { envelope: 'bare' } }),
    ),
  );

  test('has no pages, and says whether there are more', () => {
    const all = few.send('GET', '/api/v1/buoys').body as { items: object[]; page: object; links: object };
    expect([all.items.length, all.page]).toEqual([5, { limit: 5, more: false, totalItems: 5 }]);
    expect(Object.keys(all.links)).not.toContain('next');
    few.send('POST', '/api/v1/buoys', { name: 'sixth' });
    expect(few.send('GET', '/api/v1/buoys').body).toMatchObject({
      page: { limit: 5, more: true, totalItems: 6 },
    });
    expect(few.send('GET', '/api/v1/buoys?size=2').status).toBe(400);
  });

  test('says so in a header where it is bare, and is another answer when there are more', () => {
    const tag = (): string => few.send('GET', '/api/v1/berths').headers.get('etag') ?? '';
    for (const { id } of few.send('GET', '/api/v1/berths').body as { id: number }[])
      if (id > 1) few.send('DELETE', `/api/v1/berths/${id}`);
    const before = few.send('GET', '/api/v1/berths');
    expect([(before.body as object[]).length, before.headers.get('more-items')]).toEqual([3, '?0']);
    const was = tag();
    few.send('POST', '/api/v1/berths', { name: 'more' });
    expect(few.send('GET', '/api/v1/berths').headers.get('more-items')).toBe('?1');
    expect(tag()).not.toBe(was);
  });

  test('is bounded, published, and breaks readers where it is lower', () => {
    const { findings } = few.service.contract;
    expect(findings.filter(({ id }) => id === 'list.unbounded')).toEqual([]);
    const { components } = openApiDocument(few.service.contract) as unknown as {
      components: { schemas: Readonly<Record<string, { properties?: object }>> };
    };
    expect(Object.keys(components.schemas['page']?.properties ?? {})).toEqual([
      'limit',
      'more',
      'totalItems',
    ]);
    const lower = derive(model, arranged({ pageStyle: 'ceiling', ceiling: 2 }));
    const higher = derive(model, arranged({ pageStyle: 'ceiling', ceiling: 9 }));
    const told = (before: Contract, after: Contract): readonly string[] =>
      compare({ kind: 'draft', contract: before }, { kind: 'draft', contract: after }).changes.map(
        ({ message }) => message,
      );
    expect(told(higher, lower)).toEqual(['At most 2 are answered, not 9.']);
    expect(told(lower, higher)).toEqual([]);
  });
});

describe('what stands inside, and what is left out of answers', () => {
  const inside = new TestMock(
    model,
    { Berth: 9, Buoy: 1 },
    arranged(
      {},
      near({
        '/buoys/{buoyId}': { expand: 'on' },
        '/buoys/{buoyId}/berths': { maxPageSize: 4 },
        '/berths': { fields: 'on' },
      }),
    ),
  );
  for (let id = 1; id <= 9; id++) inside.send('PATCH', `/api/v1/berths/${id}`, { buoyId: 1 });

  test('is offered where it was chosen, and holds as much as the largest page of its own list', () => {
    const { berths } = inside.send('GET', '/api/v1/buoys/1?expand=berths').body as { berths: object[] };
    expect(berths).toHaveLength(4);
    expect(inside.send('GET', '/api/v1/buoys?expand=berths').status).toBe(400);
    expect(inside.send('GET', '/api/v1/berths/1?expand=buoy').status).toBe(400);
    const { items } = inside.send('GET', '/api/v1/berths?fields=name').body as { items: object[] };
    expect(Object.keys(items[0] ?? {})).toEqual(['name', 'links']);
    expect(inside.send('GET', '/api/v1/berths/1?fields=name').status).toBe(400);
  });

  test('leaves the shapes of all others as they are', () => {
    const required = (name: string): readonly string[] =>
      inside.service.contract.shapes
        .find((shape) => shape.name === name)
        ?.members.filter((member) => member.required)
        .map((member) => member.name) ?? [];
    expect(required('Berth')).toEqual(['links']);
    expect(required('Buoy')).toEqual(['id', 'name', 'links']);
  });

  test('is cited with the choice that offers it', () => {
    const shape = inside.service.contract.shapes.find(({ name }) => name === 'Buoy');
    const member = shape?.members.find(({ name }) => name === 'berths');
    expect(member?.reasons.flatMap(({ because }) => because)).toContainEqual(
      expect.objectContaining({ name: 'expand', value: 'on', level: 'resource' }),
    );
  });
});
