import { expect, test } from '@jest/globals';
import { withCors } from '@isomeros/core/engine';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

test('scripts of other origins may read every header of an answer, whatever it is called', () => {
  const settings = { totals: 'header', totalHeader: 'X-Total' } as const;
  const mock = new TestMock(modelOf('entity Berth\n'), { Berth: 2 }, arranged(settings));
  const request = mock.request('GET', '/api/v1/berths', undefined, { origin: 'http://elsewhere' });
  const { response } = mock.handle(mock.dataset, request);
  const { headers } = withCors(request, response);
  const exposed = headers.find(([name]) => name === 'Access-Control-Expose-Headers')?.[1].split(', ') ?? [];
  expect(exposed).toEqual(expect.arrayContaining(['X-Total', 'Link', 'ETag', 'Location']));
  expect(response.headers.map(([name]) => name).filter((name) => !exposed.includes(name))).toEqual([]);
});
