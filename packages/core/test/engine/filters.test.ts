import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement, type SettingValues } from '@isomeros/core/arrangement';
import { sentTerm, type Finding } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { compareScalars, type ScalarType } from '@isomeros/core/model';
import { openApiDocument } from '@isomeros/core/publication';
import fc from 'fast-check';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const TEXT = `entity Harbour
  code: text(1..5), key

entity Route
  name: text(1..20)
  distance: decimal(0.., scale 1)
  opened: date
  state: choice(open, shut)
  fast: boolean

each Route refers to optional Harbour as origin
`;

const mockOf = (settings: SettingValues = {}): TestMock =>
  new TestMock(modelOf(TEXT), { Route: 0, Harbour: 3 }, arranged(settings));

interface RouteBody {
  readonly id: number;
  readonly name: string | null;
  readonly distance: number | null;
  readonly opened: string | null;
}

const made = (mock: TestMock, ...bodies: readonly object[]): void => {
  for (const body of bodies) expect(mock.send('POST', '/api/v1/routes', body).status).toBe(201);
};

const namesOf = (mock: TestMock, query: string): (string | null)[] => {
  const answer = mock.send('GET', `/api/v1/routes?${query}`);
  expect([query, answer.status]).toEqual([query, 200]);
  return (answer.body as { items: RouteBody[] }).items.map(({ name }) => name);
};

describe('bracketed filters', () => {
  const mock = mockOf();
  made(
    mock,
    { name: 'Ash', distance: 3, opened: '2020-01-01', state: 'open', fast: true },
    { name: 'Birch, old', distance: 10.5, opened: '2021-06-01', state: 'shut' },
    { name: 'ash + elm', distance: 20, state: 'open' },
    { name: null },
  );

  test.each<readonly [query: string, names: readonly (string | null)[]]>([
    ['name=Ash', ['Ash']],
    ['name[eq]=Ash', ['Ash']],
    ['name%5Beq%5D=Ash', ['Ash']],
    ['name[ne]=Ash', ['Birch, old', 'ash + elm', null]],
    ['name[in]=Ash,Birch%2C+old', ['Ash', 'Birch, old']],
    ['name[contains]=sh', ['Ash', 'ash + elm']],
    ['name[contains]=%2B', ['ash + elm']],
    ['name[starts]=ash', ['ash + elm']],
    ['name[unset]=true', [null]],
    ['name[unset]=false&distance[lt]=20', ['Ash', 'Birch, old']],
    ['distance[gte]=10.5', ['Birch, old', 'ash + elm']],
    ['distance[gt]=3&distance[lte]=10.5', ['Birch, old']],
    ['opened[lt]=2021-01-01', ['Ash']],
    ['state[in]=open', ['Ash', 'ash + elm']],
    ['fast=true', ['Ash']],
    ['originCode[unset]=true&name=Ash', ['Ash']],
  ])('%s', (query, names) => {
    expect(namesOf(mock, query)).toEqual(names);
  });

  test.each<readonly [query: string, parameter: string, code: string]>([
    ['distance[gte]=far', 'distance[gte]', 'type'],
    ['distance[contains]=1', 'distance[contains]', 'operator'],
    ['distance[]=1', 'distance[]', 'operator'],
    ['name[like]=a', 'name[like]', 'operator'],
    ['name[unset]=yes', 'name[unset]', 'type'],
    ['name[contains]=', 'name[contains]', 'type'],
    ['state[in]=open,gone', 'state[in]', 'type'],
    ['name=a&name[eq]=b', 'name[eq]', 'repeated'],
    ['page[eq]=1', 'page[eq]', 'unknown'],
    ['__proto__[eq]=1', '__proto__[eq]', 'unknown'],
  ])('%s is refused', (query, parameter, code) => {
    const answer = mock.send('GET', `/api/v1/routes?${query}`);
    expect([answer.status, (answer.body as { errors: object[] }).errors]).toMatchObject([
      400,
      [{ parameter, code }],
    ]);
  });
});

test('plain filters know equality alone, and lists without filters know none', () => {
  const plain = mockOf({ filterStyle: 'plain' });
  made(plain, { name: 'Ash' }, { name: 'Elm' });
  expect(namesOf(plain, 'name=Elm')).toEqual(['Elm']);
  expect(plain.send('GET', '/api/v1/routes?name[eq]=Elm').status).toBe(400);
  expect(mockOf({ filterStyle: 'none' }).send('GET', '/api/v1/routes?name=Elm').status).toBe(400);
});

describe('filters that are spelled otherwise', () => {
  const records = [
    { name: 'Ash', distance: 3 },
    { name: 'Birch, old', distance: 10.5 },
    { name: 'gte:elm', distance: 20 },
  ];
  test.each<readonly [SettingValues['filterStyle'], string, readonly string[]]>([
    ['suffixed', 'distance__gte=10.5', ['Birch, old', 'gte:elm']],
    ['suffixed', 'distance=3', ['Ash']],
    ['suffixed', 'distance__gt=3&distance__lt=20', ['Birch, old']],
    ['suffixed', 'name__in=Ash,Birch%2C%20old', ['Ash', 'Birch, old']],
    ['family', 'filter[distance][gte]=10.5', ['Birch, old', 'gte:elm']],
    ['family', 'filter[distance]=3', ['Ash']],
    ['family', 'filter[distance][eq]=3', ['Ash']],
    ['family', 'filter%5Bname%5D%5Bstarts%5D=B', ['Birch, old']],
    ['in value', 'distance=gte:10.5', ['Birch, old', 'gte:elm']],
    ['in value', 'distance=3', ['Ash']],
    ['in value', 'distance=gt:3&distance=lt:20', ['Birch, old']],
    ['in value', 'distance=gte:3&distance=gte:10.5', ['Birch, old', 'gte:elm']],
    ['in value', 'name=eq:gte:elm', ['gte:elm']],
    ['in value', 'name=in:Ash,Birch%2C%20old', ['Ash', 'Birch, old']],
    ['in value', 'name=in%3AAsh,Birch%2C%20old', ['Ash', 'Birch, old']],
    ['in value', 'name=unset:false&distance=lte:3', ['Ash']],
  ])('%s: %s', (filterStyle = 'bracketed', query, names) => {
    const mock = mockOf({ filterStyle });
    made(mock, ...records);
    expect(namesOf(mock, query)).toEqual(names);
  });

  test.each<readonly [SettingValues['filterStyle'], string, string]>([
    ['suffixed', 'distance[gte]=1', 'unknown'],
    ['suffixed', 'distance__like=1', 'operator'],
    ['suffixed', 'distance__gte=1&distance__gte=2', 'repeated'],
    ['family', 'distance=1', 'unknown'],
    ['family', 'other[distance]=1', 'unknown'],
    ['family', 'filter[distance][like]=1', 'operator'],
    ['family', 'filter[distance]=1&filter[distance][eq]=1', 'repeated'],
    ['in value', 'distance[gte]=1', 'unknown'],
    ['in value', 'distance=contains:1', 'operator'],
    ['in value', 'distance=gte:far', 'type'],
    ['bracketed', 'distance__gte=1', 'unknown'],
  ])('%s: %s is refused', (filterStyle = 'bracketed', query, code) => {
    const answer = mockOf({ filterStyle }).send('GET', `/api/v1/routes?${query}`);
    expect([answer.status, (answer.body as { errors: object[] }).errors]).toMatchObject([400, [{ code }]]);
  });

  test.each([
    ['suffixed', ['distance', 'distance__ne', 'distance__in']],
    ['family', ['filter[distance]', 'filter[distance][ne]', 'filter[distance][in]']],
  ] as const)('%s: each operator is published as a parameter of its own', (filterStyle, names) => {
    const { contract } = mockOf({ filterStyle }).service;
    const { paths } = openApiDocument(contract) as {
      paths: Record<string, { get: { parameters: readonly { name: string; schema: object }[] } }>;
    };
    const { parameters } = paths['/routes']?.get ?? { parameters: [] };
    const published = parameters.filter(({ name }) => name.includes('distance'));
    expect(published.slice(0, 3).map(({ name }) => name)).toEqual(names);
    expect(published[0]?.schema).toMatchObject({ type: 'number' });
  });

  test('a name that is taken is told, with the way out: a family', () => {
    const text = 'entity Berth\n  page: integer\n';
    const reserved = (settings: SettingValues): readonly Finding[] =>
      derive(modelOf(text), arranged(settings)).findings.filter(({ id }) => id === 'parameter.reserved');
    const [found] = reserved({ filterStyle: 'suffixed' });
    expect(found?.quickFixes?.[0]?.answer).toMatchObject({ name: 'filterStyle', value: 'family' });
    expect(reserved({ filterStyle: 'family' })).toEqual([]);
    const berths = new TestMock(modelOf(text), { Berth: 3 }, arranged({ filterStyle: 'family' }));
    const paged = berths.send('GET', '/api/v1/berths?page=2&size=2&filter[page][unset]=false');
    expect([paged.status, (paged.body as { items: object[] }).items.length < 2]).toEqual([200, true]);
    expect(berths.send('GET', '/api/v1/berths?filter[page]=1&filter[page][eq]=1').status).toBe(400);
  });
});

test('filters keep what a plain comparison of the members keeps, however they are spelled', () => {
  const decimal: ScalarType = { kind: 'decimal', min: 0, max: null, scale: 1 };
  const operators = {
    eq: (order: number) => order === 0,
    ne: (order: number) => order !== 0,
    lt: (order: number) => order < 0,
    lte: (order: number) => order <= 0,
    gt: (order: number) => order > 0,
    gte: (order: number) => order >= 0,
  } as const;
  const value = fc.integer({ min: 0, max: 30 }).map((tenths) => tenths / 10);
  fc.assert(
    fc.property(
      fc.array(fc.option(value), { maxLength: 12 }),
      fc.constantFrom(...(Object.keys(operators) as (keyof typeof operators)[])),
      value,
      fc.constantFrom('bracketed', 'suffixed', 'family', 'in value'),
      (distances, operator, wanted, spelling) => {
        const mock = mockOf({ filterStyle: spelling });
        made(mock, ...distances.map((distance, index) => ({ name: `n${index}`, distance })));
        const asked = sentTerm({ name: 'distance', spelling, family: 'filter' }, operator);
        const answer = mock.send('GET', `/api/v1/routes?${asked}${wanted}&size=100`);
        const kept = (answer.body as { items: RouteBody[] }).items.map(({ distance }) => distance);
        const expected = distances.filter((distance) =>
          distance === null
            ? operator === 'ne'
            : operators[operator](compareScalars(decimal, distance, wanted)),
        );
        expect(kept).toEqual(expected);
      },
    ),
    { numRuns: rounds(100) },
  );
});

interface WrittenKey {
  readonly name: 'name' | 'distance' | 'id';
  readonly descending: boolean;
}

function written(keys: readonly WrittenKey[], style: 'minus' | 'suffix' | 'repeated' | 'beside'): string {
  const all = (write: (key: WrittenKey) => string): string => keys.map(write).join(',');
  const names = all(({ name }) => name);
  switch (style) {
    case 'minus':
      return `sort=${all(({ name, descending }) => (descending ? `-${name}` : name))}`;
    case 'suffix':
      return `sort=${all(({ name, descending }) => `${name}:${descending ? 'desc' : 'asc'}`)}`;
    case 'repeated':
      return keys.map(({ name, descending }) => `sort=${name}${descending ? ',desc' : ''}`).join('&');
    case 'beside':
      return `sort=${names}&order=${all(({ descending }) => (descending ? 'desc' : 'asc'))}`;
  }
}

/** What is unset comes last. */
function plainOrder(a: string | number | null, b: string | number | null): number {
  if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
  return a < b ? -1 : a > b ? 1 : 0;
}

describe('sort keys', () => {
  test.each<readonly [SettingValues, string, string[]]>([
    [{}, 'sort=-distance', ['c', 'b', 'a']],
    [{ sortStyle: 'suffix' }, 'sort=distance:desc', ['c', 'b', 'a']],
    [{ sortStyle: 'suffix' }, 'sort=distance:asc,name', ['a', 'b', 'c']],
    [{ sortStyle: 'repeated' }, 'sort=distance,desc', ['c', 'b', 'a']],
    [{ sortStyle: 'repeated' }, 'sort=state&sort=distance,desc', ['c', 'b', 'a']],
    [{ sortStyle: 'beside' }, 'sort=distance', ['a', 'b', 'c']],
    [{ sortStyle: 'beside' }, 'sort=state,distance&order=asc,desc', ['c', 'b', 'a']],
    [{ sortStyle: 'beside' }, 'order=desc&sort=distance', ['c', 'b', 'a']],
  ])('%j %s', (settings, query, names) => {
    const mock = mockOf(settings);
    made(mock, { name: 'b', distance: 2 }, { name: 'c', distance: 3 }, { name: 'a', distance: 1 });
    expect(namesOf(mock, query)).toEqual(names);
  });

  test.each<readonly [SettingValues, string, string]>([
    [{ sortStyle: 'repeated' }, 'sort=distance,name', 'key'],
    [{ sortStyle: 'repeated' }, 'sort=-distance', 'key'],
    [{ sortStyle: 'beside' }, 'sort=distance,name&order=desc', 'direction'],
    [{ sortStyle: 'beside' }, 'sort=distance&order=down', 'direction'],
    [{ sortStyle: 'beside' }, 'order=desc', 'direction'],
    [{ sortStyle: 'beside' }, 'sort=nothing&order=desc', 'key'],
    [{ sortStyle: 'beside' }, 'sort=name&sort=name', 'repeated'],
  ])('%j %s is refused', (settings, query, code) => {
    const answer = mockOf(settings).send('GET', `/api/v1/routes?${query}`);
    expect([answer.status, (answer.body as { errors: object[] }).errors]).toMatchObject([400, [{ code }]]);
  });

  test('give the order that a plain comparison of the members gives, however they are spelled', () => {
    const record = fc.record({
      name: fc.option(fc.constantFrom('a', 'b', 'c')),
      distance: fc.option(fc.integer({ min: 0, max: 3 })),
    });
    const key = fc.record({
      name: fc.constantFrom('name', 'distance', 'id'),
      descending: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(record, { maxLength: 10 }),
        fc.uniqueArray(key, { minLength: 1, maxLength: 3, selector: ({ name }) => name }),
        fc.constantFrom('minus', 'suffix', 'repeated', 'beside'),
        (records, keys, sortStyle) => {
          const mock = mockOf({ sortStyle });
          made(mock, ...records);
          const all = records.map((one, index) => ({ ...one, id: index + 1 }));
          const sorted = all.toSorted((a, b) => {
            for (const { name, descending } of keys) {
              const order = plainOrder(a[name], b[name]);
              if (order !== 0) return descending ? -order : order;
            }
            return a.id - b.id;
          });
          const answer = mock.send('GET', `/api/v1/routes?${written(keys, sortStyle)}`);
          expect((answer.body as { items: RouteBody[] }).items.map(({ id }) => id)).toEqual(
            sorted.map(({ id }) => id),
          );
        },
      ),
      { numRuns: rounds(60) },
    );
  });

  test('written otherwise, or where lists are not sorted, are refused', () => {
    expect(mockOf({ sortStyle: 'suffix' }).send('GET', '/api/v1/routes?sort=-name').status).toBe(400);
    expect(mockOf().send('GET', '/api/v1/routes?sort=name:desc').status).toBe(400);
    expect(mockOf({ sortStyle: 'none' }).send('GET', '/api/v1/routes?sort=name').status).toBe(400);
  });
});

describe('pages', () => {
  const five = [{ name: 'a' }, { name: 'b' }, { name: 'c' }, { name: 'd' }, { name: 'e' }];
  interface Page {
    readonly items: readonly RouteBody[];
    readonly page?: object;
    readonly links: Readonly<Record<string, { readonly href: string }>>;
  }
  const read = (mock: TestMock, query: string): Page =>
    mock.send('GET', `/api/v1/routes${query}`).body as Page;

  test('by offset and limit lead to each other', () => {
    const mock = mockOf({ pageStyle: 'offset', pageSize: 2 });
    made(mock, ...five);
    const second = read(mock, '?offset=2');
    expect(second.items.map(({ name }) => name)).toEqual(['c', 'd']);
    expect(second.page).toEqual({ offset: 2, limit: 2, totalItems: 5 });
    expect(Object.entries(second.links).map(([relation, { href }]) => [relation, href])).toEqual([
      ['self', '/api/v1/routes?offset=2'],
      ['up', '/api/v1'],
      ['first', '/api/v1/routes?offset=0'],
      ['prev', '/api/v1/routes?offset=0'],
      ['next', '/api/v1/routes?offset=4'],
      ['last', '/api/v1/routes?offset=4'],
    ]);
    expect(mock.send('GET', '/api/v1/routes?page=1').status).toBe(400);
  });

  test('following next from the first page meets every record once, by number and by offset', () => {
    for (const pageStyle of ['number', 'offset'] as const) {
      const mock = mockOf({ pageStyle, pageSize: 2, totals: 'none' });
      made(mock, ...five);
      const seen: (string | null)[] = [];
      for (let href: string | undefined = '/api/v1/routes'; href !== undefined;) {
        const page = mock.send('GET', href).body as Page;
        seen.push(...page.items.map(({ name }) => name));
        expect(Object.keys(page.links)).not.toContain('last');
        href = page.links['next']?.href;
      }
      expect(seen).toEqual(['a', 'b', 'c', 'd', 'e']);
    }
  });

  test('of a collection that stands still are exact, by number and by offset, whatever their size and order', () => {
    const distance = fc.option(fc.integer({ min: 0, max: 4 }));
    fc.assert(
      fc.property(
        fc.array(distance, { maxLength: 15 }),
        fc.integer({ min: 1, max: 6 }),
        fc.constantFrom('id', 'distance', '-distance'),
        fc.constantFrom('number', 'offset'),
        (distances, size, sort, pageStyle) => {
          const mock = mockOf({ pageStyle });
          made(mock, ...distances.map((one) => ({ distance: one })));
          const whole = read(mock, `?sort=${sort}&${pageStyle === 'number' ? 'size' : 'limit'}=100`).items;
          for (let from = 0; from < distances.length; from += size) {
            const query =
              pageStyle === 'number'
                ? `page=${from / size + 1}&size=${size}`
                : `offset=${from}&limit=${size}`;
            expect(read(mock, `?sort=${sort}&${query}`).items).toEqual(whole.slice(from, from + size));
          }
        },
      ),
      { numRuns: rounds(40) },
    );
  });

  test('of none everything comes at once, and that is doubtful', () => {
    const mock = mockOf({ pageStyle: 'none' });
    made(mock, ...five);
    const all = read(mock, '');
    expect([all.items.length, all.page, Object.keys(all.links)]).toEqual([5, undefined, ['self', 'up']]);
    expect(mock.service.contract.findings.map(({ id }) => id)).toContain('list.unbounded');
  });

  test('tell the total in the body, in a header, or nowhere', () => {
    const told = (settings: SettingValues): readonly unknown[] => {
      const mock = mockOf(settings);
      made(mock, ...five);
      const answer = mock.send('GET', '/api/v1/routes?size=2');
      return [Object.keys((answer.body as Page).page ?? {}), answer.headers.get('total-count') ?? null];
    };
    expect(told({})).toEqual([['number', 'size', 'totalItems', 'totalPages'], null]);
    expect(told({ totals: 'header' })).toEqual([['number', 'size'], '5']);
    expect(told({ totals: 'none' })).toEqual([['number', 'size'], null]);
    const named = mockOf({ totals: 'header', totalHeader: 'X-Total' });
    const answer = named.send('GET', '/api/v1/routes', undefined, { origin: 'http://elsewhere' });
    expect(answer.headers.get('x-total')).toBe('0');
  });

  test('that are too large are refused, or as large as may be', () => {
    expect(mockOf({ maxPageSize: 3 }).send('GET', '/api/v1/routes?size=4').status).toBe(400);
    const clamped = mockOf({ maxPageSize: 3, oversize: 'clamped' });
    made(clamped, ...five);
    expect(read(clamped, '?size=4').page).toMatchObject({ size: 3 });
  });
});

describe('a text in whatever case', () => {
  const exposures = { Route: { 'Route.name': { filter: ['eq', 'contains', 'icontains'] as const } } };
  const arrangement = arrangementOf('main', {
    ...NO_CHOICES,
    arrangements: [{ ...plainArrangement('main'), exposures }],
  });

  test('is found where that was chosen, and not of itself', () => {
    const mock = new TestMock(modelOf(TEXT), { Route: 0, Harbour: 1 }, arrangement);
    made(mock, { name: 'North Ash' }, { name: 'ash' }, { name: 'Elm' }, {});
    expect(namesOf(mock, 'name[icontains]=ASH')).toEqual(['North Ash', 'ash']);
    expect(namesOf(mock, 'name[contains]=ash')).toEqual(['ash']);
    expect(mockOf().send('GET', '/api/v1/routes?name[icontains]=a').status).toBe(400);
  });
});

describe('filters through several roles', () => {
  const text = `entity Country
  name: text(1..20)

entity Harbour
  name: text(1..20)

entity Vessel
  name: text(1..20)

entity Sailing
  berth: text(1..5)

each Harbour refers to optional Country as country
each Vessel refers to optional Harbour as homePort
each Vessel owns many Sailing as sailings, back as vessel
`;
  const ask = (filterSteps: number, query: string): ReturnType<TestMock['send']> =>
    mockWith(filterSteps).send('GET', `/api/v1/vessels/1/sailings?${query}`);
  const mockWith = (filterSteps: number, settings: SettingValues = {}): TestMock => {
    const deep = arranged({ filterThrough: 'on', filterSteps, ...settings });
    const mock = new TestMock(modelOf(text), { Country: 0, Harbour: 0, Vessel: 0 }, deep);
    const sent = (path: string, body: object): unknown => mock.send('POST', `/api/v1${path}`, body).status;
    sent('/countries', { name: 'Here' });
    sent('/countries', { name: 'There' });
    sent('/harbours', { name: 'North', countryId: 1 });
    sent('/harbours', { name: 'South', countryId: 2 });
    sent('/vessels', { name: 'Ada', homePortId: 1 });
    sent('/vessels', { name: 'Bee', homePortId: 2 });
    sent('/vessels', { name: 'Cee' });
    return mock;
  };
  const vessels = (mock: TestMock, query: string): unknown => {
    const { body } = mock.send('GET', `/api/v1/vessels?${query}`);
    return (body as { items?: { name: string }[] }).items?.map(({ name }) => name);
  };

  test('compare what they lead to, as many as were chosen', () => {
    const mock = mockWith(2);
    expect(vessels(mock, 'homePort.name=South')).toEqual(['Bee']);
    expect(vessels(mock, 'homePort.country.name=Here')).toEqual(['Ada']);
    expect(vessels(mock, 'homePort.country.name[unset]=true')).toEqual(['Cee']);
    expect(vessels(mock, 'homePort.country.name[in]=Here,There')).toEqual(['Ada', 'Bee']);
    expect(vessels(mockWith(1), 'homePort.country.name=Here')).toBeUndefined();
    expect(vessels(mockWith(2, { filterStyle: 'family' }), 'filter[homePort.country.name]=Here')).toEqual([
      'Ada',
    ]);
    expect(ask(3, 'vessel.name=Ada').status).toBe(400);
  });

  test('are told where there are too many, the nearest of which are offered', () => {
    const attributes = Array.from({ length: 30 }, (_, index) => `  a${index}: integer`).join('\n');
    const many = modelOf(
      `entity A\n${attributes}\n\nentity B\n${attributes}\n\n${['x', 'y', 'z']
        .map((role) => `each A refers to optional B as ${role}\neach B refers to optional A as ${role}\n`)
        .join('')}`,
    );
    const contract = derive(many, arranged({ filterThrough: 'on', filterSteps: 3 }));
    const through = contract.operations
      .find(({ id }) => id === 'listAs')
      ?.query.filter((one) => one.role === 'filter' && one.field.kind === 'through');
    expect(through?.length).toBe(200);
    expect(through?.[0]?.name).toBe('x.id');
    const told = contract.findings.filter(({ id }) => id === 'list.filters');
    expect(told).toHaveLength(2);
    expect(told[0]?.quickFixes?.[0]?.answer).toMatchObject({ name: 'filterSteps', value: 2 });
  });
});
