import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

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
