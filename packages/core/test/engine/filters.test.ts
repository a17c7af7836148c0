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
import { madeRoutes, ROUTES, routeNames, routesMock, type RouteBody } from '../support/routes.js';
import { rounds } from '../support/rounds.js';
import { resolved } from '../support/schemas.js';

describe('bracketed filters', () => {
  const mock = routesMock();
  madeRoutes(
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
    expect(routeNames(mock, query)).toEqual(names);
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
  const plain = routesMock({ filterStyle: 'plain' });
  madeRoutes(plain, { name: 'Ash' }, { name: 'Elm' });
  expect(routeNames(plain, 'name=Elm')).toEqual(['Elm']);
  expect(plain.send('GET', '/api/v1/routes?name[eq]=Elm').status).toBe(400);
  expect(routesMock({ filterStyle: 'none' }).send('GET', '/api/v1/routes?name=Elm').status).toBe(400);
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
    const mock = routesMock({ filterStyle });
    madeRoutes(mock, ...records);
    expect(routeNames(mock, query)).toEqual(names);
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
    const answer = routesMock({ filterStyle }).send('GET', `/api/v1/routes?${query}`);
    expect([answer.status, (answer.body as { errors: object[] }).errors]).toMatchObject([400, [{ code }]]);
  });

  test.each([
    ['suffixed', ['distance', 'distance__ne', 'distance__in']],
    ['family', ['filter[distance]', 'filter[distance][ne]', 'filter[distance][in]']],
  ] as const)('%s: each operator is published as a parameter of its own', (filterStyle, names) => {
    const { contract } = routesMock({ filterStyle }).service;
    const document = openApiDocument(contract);
    const { paths } = resolved(document, document) as {
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
        const mock = routesMock({ filterStyle: spelling });
        madeRoutes(mock, ...distances.map((distance, index) => ({ name: `n${index}`, distance })));
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
    rounds(100),
  );
});

describe('a text in whatever case', () => {
  const exposures = { Route: { 'Route.name': { filter: ['eq', 'contains', 'icontains'] as const } } };
  const arrangement = arrangementOf('main', {
    ...NO_CHOICES,
    arrangements: [{ ...plainArrangement('main'), exposures }],
  });

  test('is found where that was chosen, and not of itself', () => {
    const mock = new TestMock(modelOf(ROUTES), { Route: 0, Harbour: 1 }, arrangement);
    madeRoutes(mock, { name: 'North Ash' }, { name: 'ash' }, { name: 'Elm' }, {});
    expect(routeNames(mock, 'name[icontains]=ASH')).toEqual(['North Ash', 'ash']);
    expect(routeNames(mock, 'name[contains]=ash')).toEqual(['ash']);
    expect(routesMock().send('GET', '/api/v1/routes?name[icontains]=a').status).toBe(400);
  });
});
