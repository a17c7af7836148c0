import { describe, expect, test } from '@jest/globals';
import { arrangementOf } from '@isomeros/core/arrangement';
import type { Json } from '@isomeros/core/model';
import { saying, type Saying } from '../support/documentation.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

describe('what errors say', () => {
  const WORDED = modelOf(
    'entity Forecast\n  days: integer(1..14), required\n  code: text, unique\n  state: choice(open, closed), default open\n    close: open -> closed when days > 3\n',
  );
  const said: Saying = [
    ['constraint', 'Forecast.days', 'message', 'A forecast reaches 14 days at most.'],
    ['constraint', 'unique Forecast.code', 'message', 'A code is given once.'],
    ['constraint', 'Forecast.state/close', 'message', 'Short forecasts stay open.'],
    ['problem', 'not-found', 'title', 'No such forecast'],
    ['problem', 'not-found', 'description', 'It was taken back.'],
  ];
  const mock = new TestMock(WORDED, {}, arrangementOf('main', saying(said)));
  const sent = (method: string, path: string, body?: Json): { status: number; text: string } => {
    const answer = mock.send(method, `/api/v1/forecasts${path}`, body);
    return { status: answer.status, text: JSON.stringify(answer.body) };
  };

  test('stands where the member is documented that is sent', () => {
    const { shapes } = mock.service.contract;
    const told = (shape: string): string | null | undefined =>
      shapes.find(({ name }) => name === shape)?.members.find(({ name }) => name === 'days')?.description;
    expect(told('Forecast.create')).toBe('A forecast reaches 14 days at most.');
    expect(told('Forecast')).toBeNull();
  });

  test('is what is said of a bound, but not of a type', () => {
    expect(sent('POST', '', { days: 15 }).text).toContain('A forecast reaches 14 days at most.');
    expect(sent('POST', '', { days: 'x' }).text).not.toContain('A forecast reaches');
    expect(sent('POST', '', {}).text).not.toContain('A forecast reaches');
  });

  test('is what is said of a uniqueness, of a condition, and of a kind of problem', () => {
    const made = mock.send('POST', '/api/v1/forecasts', { days: 2, code: 'a' });
    expect(made.status).toBe(201);
    expect(sent('POST', '', { days: 2, code: 'a' }).text).toContain('A code is given once.');
    expect(sent('POST', `/${(made.body as { id: number }).id}/close`).text).toContain(
      'Short forecasts stay open.',
    );
    expect(sent('GET', '/99999').text).toContain('"title":"No such forecast"');
    expect(mock.send('GET', '/api/v1/-/problems/not-found').body).toContain('It was taken back.');
  });
});

describe('the model’s own texts', () => {
  const own = modelOf(
    'entity Route "Where ferries go"\n  name: text(1..20), required\n  side: choice(north, south)\n  unique (name, side) "A name is given once a side"\n',
  );

  test('are what tags and errors say where nothing else is said', () => {
    const mock = new TestMock(own, {});
    expect(mock.service.contract.documentation.tags).toContainEqual(
      expect.objectContaining({ id: 'Route', description: 'Where ferries go' }),
    );
    const send = (): string =>
      JSON.stringify(mock.send('POST', '/api/v1/routes', { name: 'N', side: 'north' }).body);
    send();
    expect(send()).toContain('A name is given once a side');
  });
});
