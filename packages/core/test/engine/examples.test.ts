import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  MOST_EXAMPLE_RECORDS,
  readChoices,
  NO_CHOICES,
  type NamedExample,
} from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import {
  exampleFindings,
  exampleRequest,
  keptExample,
  runExample,
  type EngineRequest,
  type Service,
} from '@isomeros/core/engine';
import { scalarText, type Json, type Model } from '@isomeros/core/model';
import fc from 'fast-check';
import { anyArrangement } from '../support/arrangements.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const MODEL = modelOf(`entity Route
  name: text(1..20), required
  pin: text(8..20), write-only

entity Vessel
  pennant: text(3..8), key

entity Sailing
  berth: text(1..4), required
  places: integer(1..14)

each Route owns many Sailing
each Sailing refers to optional Vessel as vessel
`);

const KEPT = { id: 'e1', name: 'one' };

function kept(mock: TestMock, request: EngineRequest): NamedExample {
  const result = keptExample(mock.service, mock.dataset, request, { ...KEPT, now: mock.now });
  if (!result.ok) throw new Error(result.why);
  return result.example;
}

const serviceOf = (model: Model): Service => {
  const contract = derive(model, arrangementOf('main', NO_CHOICES));
  return { contract, model, description: () => '', reference: () => '', secret: 'test' };
};

const answerOf = (service: Service, example: NamedExample): { status: number; body: string | null } => {
  const ran = runExample(service, example);
  if (!ran.ok) throw new Error(ran.why);
  return ran.response;
};

describe('an example', () => {
  const mock = new TestMock(MODEL, { Route: 30, Sailing: 60, Vessel: 5 });
  const read = kept(mock, mock.request('GET', '/api/v1/routes/2/sailings/1'));

  test('holds the records it needs and no others, and is answered as the mock answered', () => {
    const sailing = mock.rows.find(({ entity }) => entity === 'Sailing');
    const route = mock.rows.find(({ rid }) => rid === sailing?.values['Route>Sailing:']);
    const path = `/api/v1/routes/${scalarText(route?.values['Route#id'])}/sailings/${scalarText(sailing?.values['Sailing#id'])}`;
    const example = kept(mock, mock.request('GET', path));
    expect(example.status).toBe(200);
    expect(example.records.length).toBeLessThan(6);
    expect(answerOf(mock.service, example).body).toBe(mock.text('GET', path));
  });

  test('of what is not there is answered so', () => {
    expect(read.status).toBe(mock.send('GET', '/api/v1/routes/2/sailings/1').status);
    expect(kept(mock, mock.request('GET', '/api/v1/routes/99999')).status).toBe(404);
  });

  test('of a list holds enough of it to show', () => {
    const list = kept(mock, mock.request('GET', '/api/v1/routes?size=5'));
    expect(list.query).toBe('size=5');
    expect(list.records.length).toBeGreaterThanOrEqual(5);
    expect(list.records.length).toBeLessThanOrEqual(MOST_EXAMPLE_RECORDS);
    const { items } = JSON.parse(answerOf(mock.service, list).body ?? '') as { items: readonly unknown[] };
    expect(items).toHaveLength(5);
  });

  test('holds no secret, neither in what is sent nor in records', () => {
    const secret = 'do-not-tell';
    const request = mock.request(
      'POST',
      '/api/v1/routes',
      { name: 'North', pin: secret },
      { authorization: 'Bearer do-not-tell', cookie: secret },
    );
    const example = kept(mock, request);
    expect(JSON.stringify(example)).not.toContain(secret);
    expect(example.status).toBe(201);
    const made = mock.send('POST', '/api/v1/routes', { name: 'South', pin: secret });
    const { id } = made.body as { id: number };
    expect(JSON.stringify(kept(mock, mock.request('GET', `/api/v1/routes/${id}`)))).not.toContain(secret);
  });

  test('is answered the same each time, ids and moments too', () => {
    const example = kept(mock, mock.request('POST', '/api/v1/routes', { name: 'North' }));
    expect(answerOf(mock.service, example)).toEqual(answerOf(mock.service, example));
  });

  test('says the names that members have now, and finds its way where paths are called otherwise', () => {
    const example = kept(mock, mock.request('POST', '/api/v1/routes', { name: 'North' }));
    const renamed = serviceOf({
      ...MODEL,
      declarations: MODEL.declarations.map((one) =>
        one.kind === 'entity' && one.name === 'Route'
          ? {
              ...one,
              attributes: one.attributes.map((attribute) =>
                attribute.name === 'name' ? { ...attribute, name: 'title' } : attribute,
              ),
            }
          : one,
      ),
    });
    const ran = runExample(renamed, example);
    expect(ran.ok && ran.request.body.kind === 'text' ? ran.request.body.text : '').toContain(
      '"title":"North"',
    );
    expect(answerOf(renamed, example).status).toBe(201);
    expect(exampleFindings(renamed, [example])).toEqual([]);
  });
});

describe('an example that no longer fits', () => {
  const mock = new TestMock(MODEL, { Route: 3 });
  const told = (text: string, example: NamedExample): readonly (readonly [string, readonly string[]])[] =>
    exampleFindings(serviceOf(modelOf(text)), [example]).map(({ message, quickFixes = [] }) => [
      message,
      quickFixes.map(({ title }) => title),
    ]);

  test.each([
    [
      'the bounds of a member',
      'entity Route\n  name: text(1..3), required\n',
      'it is answered 400 now, and 201 when it was kept: Expected text of 1 to 3 characters',
      ['Keep it with 400', 'Remove the example'],
    ],
    [
      'its operation',
      'entity Line\n  name: text(1..20), required\n',
      'its operation is not there any more',
      ['Remove the example'],
    ],
  ])('for %s', (_, text, why, fixes) => {
    const example = { ...kept(mock, mock.request('POST', '/api/v1/routes', { name: 'North' })), records: [] };
    expect(told(text, example)).toEqual([[`The example one does not fit any more: ${why}.`, fixes]]);
  });

  test('for its records', () => {
    const example = kept(mock, mock.request('GET', '/api/v1/routes/1'));
    const [[message] = ['']] = told('entity Route\n  name: integer, required\n  pin: text(8..20)\n', example);
    expect(message).toContain('its records do not fit the model any more: Route');
  });
});

test('any request that the engine shows an operation with is kept, and answered as it was', () => {
  fc.assert(
    fc.property(anyArrangement, fc.nat(), ({ model, arrangement }, pick) => {
      const mock = new TestMock(model, {}, arrangement);
      const { operations } = mock.service.contract;
      const operation = operations[pick % operations.length];
      if (operation === undefined) return;
      const request = exampleRequest(mock.service, mock.dataset, operation, mock.now, 'told');
      if (request === null) return;
      const result = keptExample(mock.service, mock.dataset, request, { ...KEPT, now: mock.now });
      if (!result.ok) {
        expect(result.why).toMatch(/secret|at most/);
        return;
      }
      const { example } = result;
      const ran = runExample(mock.service, example);
      if (!ran.ok) throw new Error(`${operation.id}: ${ran.why}`);
      // What is shown of it is what is kept: it survives the file.
      const again = { ...NO_CHOICES, arrangements: [{ name: 'main', examples: [example] }] };
      const { value, problems } = readChoices(JSON.parse(JSON.stringify(again)) as Json, '');
      expect(problems).toEqual([]);
      expect(value.arrangements[0]?.examples).toEqual([JSON.parse(JSON.stringify(example))]);
    }),
    rounds(20),
  );
});
