import { describe, expect, test } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { arranged } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const BROWSER = 'text/html,application/xhtml+xml,application/xml;q=0.9,image/webp,*/*;q=0.8';
const TEXT = 'entity Buoy\n  name: text(1..80), required\n  site: uri\n';

const mockOf = (settings: SettingValues = {}): TestMock =>
  new TestMock(modelOf(TEXT), { Buoy: 2 }, arranged(settings));

function get(
  mock: TestMock,
  target: string,
  accept = BROWSER,
  method = 'GET',
): ReturnType<TestMock['handle']>['response'] {
  return mock.handle(mock.dataset, mock.request(method, target, undefined, { accept })).response;
}

const typeOf = ({
  headers,
}: {
  readonly headers: readonly (readonly [string, string])[];
}): string | undefined => headers.find(([name]) => name === 'Content-Type')?.[1];

describe('a page for a browser', () => {
  test.each([{}, { envelope: 'bare' }] as const)(
    'leads to the items of a list whose links travel in headers (%j)',
    (settings) => {
      const page = get(mockOf({ links: 'header', ...settings }), '/api/v1/buoys');
      expect(page.body).toContain('<li>item <a href="/api/v1/buoys/2">/api/v1/buoys/2</a></li>');
    },
  );

  test('shows the same resource, its links to be followed, and loads nothing', () => {
    const page = get(mockOf(), '/api/v1/buoys');
    expect([page.status, typeOf(page)]).toEqual([200, 'text/html; charset=utf-8']);
    expect(page.body).toContain('<a href="/api/v1/buoys/1">/api/v1/buoys/1</a>');
    expect(page.body).toContain('<a href="/api/v1">/api/v1</a>/<a href="/api/v1/buoys">buoys</a>');
    expect(page.headers).toContainEqual([
      'Content-Security-Policy',
      "default-src 'none'; style-src 'unsafe-inline'",
    ]);
    expect(page.headers.map(([name]) => name)).not.toContain('ETag');
  });

  test.each([
    ['application/json', 'application/json'],
    ['*/*', 'application/json'],
    ['text/html;q=0.5, application/json', 'application/json'],
    ['text/html;q=0', undefined],
    ['text/html', 'text/html; charset=utf-8'],
    ['application/hal+json;q=0.1, text/html', 'text/html; charset=utf-8'],
  ])('Accept: %s is answered in %s', (accept, expected) => {
    const answer = get(mockOf(), '/api/v1/buoys', accept);
    if (expected === undefined) expect(answer.status).toBe(406);
    else expect(typeOf(answer)).toBe(expected);
  });

  test('shows what went wrong, and what a kind of problem means', () => {
    const missing = get(mockOf(), '/api/v1/buoys/99');
    expect([missing.status, typeOf(missing)]).toEqual([404, 'text/html; charset=utf-8']);
    expect(missing.body).toContain('<a href="/api/v1/-/problems/not-found">');
    expect(get(mockOf(), '/api/v1/-/problems/not-found').body).toContain('Nothing answers at this address');
  });

  test('never lets a value become markup, or a link that runs', () => {
    const mock = mockOf();
    const name = '<script>alert("x")</script>&\'';
    mock.send('POST', '/api/v1/buoys', { name, site: 'javascript:alert(1)' });
    const page = get(mock, '/api/v1/buoys/3').body ?? '';
    expect(page).not.toContain('<script>');
    expect(page).toContain('&lt;script&gt;');
    expect(page).not.toMatch(/href="javascript/);
    expect(get(mock, '/api/v1/%3Cb%3E?x=%22%3E<b>').body).not.toContain('<b>');
  });

  test('lists the links that stand in a header', () => {
    expect(get(mockOf({ links: 'header' }), '/api/v1/buoys/1').body).toContain(
      '<li>collection <a href="/api/v1/buoys">/api/v1/buoys</a></li>',
    );
  });

  test('has no body where only the head is asked for', () => {
    expect(get(mockOf(), '/api/v1/buoys', BROWSER, 'HEAD').body).toBeNull();
  });
});
