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
const items = (answer: Answer): Record<string, unknown>[] =>
  member(answer, 'items') as Record<string, unknown>[];

const HARBOUR = { code: 'ABZ', name: 'Abbot Zee' };

describe('lists', () => {
  test('are answered page by page, with totals and links', () => {
    const total = Number(
      (member(mock.send('GET', '/api/v1/harbours'), 'page') as Record<string, number>)['totalItems'],
    );
    const second = mock.send('GET', '/api/v1/harbours?size=5&page=2');
    expect(member(second, 'page')).toEqual({
      number: 2,
      size: 5,
      totalItems: total,
      totalPages: Math.ceil(total / 5),
    });
    const links = member(second, 'links') as Record<string, { href: string }>;
    expect(Object.keys(links).sort()).toEqual(['first', 'last', 'next', 'prev', 'self', 'up']);
    const codes: unknown[] = [];
    for (let next: string | undefined = links['first']?.href; next !== undefined;) {
      const page: Answer = mock.send('GET', next);
      codes.push(...items(page).map(({ code }) => code));
      next = (member(page, 'links') as Record<string, { href: string }>)['next']?.href;
    }
    expect(codes).toHaveLength(total);
    expect(codes).toEqual([...new Set(codes)].sort());
  });

  test('beyond the end are empty and lead back', () => {
    const answer = mock.send('GET', '/api/v1/harbours?page=999');
    expect(items(answer)).toEqual([]);
    expect(Object.keys(member(answer, 'links') as object)).toContain('prev');
  });

  test('filter by value and by reference, and by several at once', () => {
    const planned = items(mock.send('GET', '/api/v1/routes/1/sailings?status=planned'));
    expect(planned.every(({ status }) => status === 'planned')).toBe(true);
    const origin = String(member(mock.send('GET', '/api/v1/routes/1'), 'originCode'));
    const from = items(mock.send('GET', `/api/v1/routes?originCode=${origin}&sort=-number`));
    expect(from.length).toBeGreaterThan(0);
    expect(from.every(({ originCode }) => originCode === origin)).toBe(true);
    expect(items(mock.send('GET', `/api/v1/routes?originCode=${origin}&name=no+such+name`))).toEqual([]);
  });

  test('a way back lists what points at the record', () => {
    const origin = String(member(mock.send('GET', '/api/v1/routes/1'), 'originCode'));
    const departures = items(mock.send('GET', `/api/v1/harbours/${origin}/departures`));
    expect(departures.map(({ number }) => number)).toContain(1);
  });

  test('sort by several keys, unset last ascending and first descending, the key breaking ties', () => {
    const table = TestMock.of('entity Box\n  size: integer\n  name: text', { Box: 0 });
    for (const [size, name] of [
      [2, 'b'],
      [null, 'a'],
      [1, 'z'],
      [2, 'a'],
      [null, 'b'],
    ] as const)
      table.send('POST', '/api/v1/boxes', { size, name });
    const order = (sort: string): string =>
      items(table.send('GET', `/api/v1/boxes?sort=${sort}`))
        .map(({ id }) => String(id))
        .join(' ');
    expect(order('size')).toBe('3 1 4 2 5');
    expect(order('-size')).toBe('2 5 1 4 3');
    expect(order('size,name')).toBe('3 4 1 2 5');
    expect(order('size,-name')).toBe('3 1 4 5 2');
    expect(order('-id')).toBe('5 4 3 2 1');
  });

  test('text sorts by code point', () => {
    const table = TestMock.of('entity Box\n  name: text', { Box: 0 });
    for (const name of ['é', 'z', 'Z', '\uFF5E', '\u{1F6A2}', 'a'])
      table.send('POST', '/api/v1/boxes', { name });
    expect(items(table.send('GET', '/api/v1/boxes?sort=name')).map(({ name }) => name)).toEqual([
      'Z',
      'a',
      'z',
      'é',
      '\uFF5E',
      '\u{1F6A2}',
    ]);
  });

  test.each([
    ['colour=red', 'colour', 'unknown'],
    ['page=0', 'page', 'range'],
    ['page=x', 'page', 'range'],
    ['size=101', 'size', 'range'],
    ['size=5&size=6', 'size', 'repeated'],
    ['sort=colour', 'sort', 'key'],
    ['sort=', 'sort', 'key'],
    ['number=abc', 'number', 'type'],
    ['distance=1,5', 'distance', 'type'],
    ['name=%ff', 'name=%ff', 'encoding'],
  ])('?%s is 400 and names the parameter', (query, parameter, code) => {
    const answer = mock.send('GET', `/api/v1/routes?${query}`);
    expect(answer.status).toBe(400);
    expect(problem(answer).errors).toEqual([expect.objectContaining({ parameter, code })]);
  });

  test('a parameter on an operation that has none is 400 too', () => {
    expect(mock.send('GET', '/api/v1/harbours/KSH?fields=name').status).toBe(400);
  });

  test('a plus is a space', () => {
    mock.send('POST', '/api/v1/harbours', HARBOUR);
    expect(items(mock.send('GET', '/api/v1/harbours?name=Abbot+Zee')).map(({ code }) => code)).toEqual([
      'ABZ',
    ]);
  });
});

describe('links', () => {
  test('lead from the entry to every resource there is a record for', () => {
    const seen = new Set<string>();
    const operations = new Set<string>();
    const wrong: string[] = [];
    const waiting = ['/api/v1'];
    for (let target = waiting.pop(); target !== undefined; target = waiting.pop()) {
      if (seen.has(target) || seen.size > 3_000) continue;
      seen.add(target);
      const answer = mock.send('GET', target);
      // A slot that is empty is linked all the same, and a transition is linked to be posted to.
      const slot = target.endsWith('/certificate') && answer.status === 404;
      const action = /\/(board|depart|cancel|confirm)$/.test(target) && answer.status === 405;
      if (!slot && !action && answer.status !== 200) wrong.push(`${target} ${answer.status}`);
      if (answer.handled.operation !== null) operations.add(answer.handled.operation);
      for (const [, href] of JSON.stringify(answer.body).matchAll(/"href":"([^"]+)"/g))
        waiting.push(href ?? '');
    }
    expect(wrong).toEqual([]);
    const safe = mock.service.contract.operations
      .filter(({ effect }) => effect === 'safe')
      .map(({ id }) => id);
    expect(safe.filter((id) => !operations.has(id))).toEqual([]);
  });

  test('the type of a problem leads to a page about it', () => {
    const { type } = problem(mock.send('GET', '/api/v1/nowhere'));
    const page = mock.service.contract.root;
    expect(type.startsWith(page)).toBe(true);
  });
});
