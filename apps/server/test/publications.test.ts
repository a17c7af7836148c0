import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { PUBLICATION_FORMATS, PUBLICATION_NAMES } from '@isomeros/core/publication';
import { TestApp, type ProblemBody } from './support/app.js';

const TEXT = `design "Published" "Routes; and 'more'"

entity Route
  name: text(1..60), required, example "Outer loop"
  distance: decimal(0.1..500, scale 1)
  code: text(3..8), key, pattern "(?i)[a-z]+"

entity Stop
  at: instant

each Route owns many Stop as stops, back as route
`;

interface PublicationBody {
  readonly format: keyof typeof PUBLICATION_FORMATS;
  readonly title: string;
  readonly mediaType: string;
  readonly href: string;
  readonly cannotSay: readonly string[];
}

let app: TestApp;
let design: string;
beforeAll(async () => {
  app = await TestApp.start();
  design = (await app.createDesign(TEXT)).id;
  await app.json('POST', `/api/designs/${design}/releases`, { label: '1.0', arrangement: 'main' });
});
afterAll(() => app.close());

const text = async (path: string): Promise<string> => (await app.send('GET', path)).text();

describe.each([['arrangements/main'], ['releases/1.0']])('what is published of %s', (place) => {
  test('is listed, each format with where it is and what it cannot say', async () => {
    const at = `/api/designs/${design}/${place}/publications`;
    const { items } = await app.json<{ items: readonly PublicationBody[] }>('GET', at);
    expect(items.map(({ format }) => format)).toEqual(PUBLICATION_NAMES);
    for (const { format, title, mediaType, href, cannotSay } of items) {
      expect([title, mediaType]).toEqual([
        PUBLICATION_FORMATS[format].title,
        PUBLICATION_FORMATS[format].mediaType,
      ]);
      expect(href).toBe(`${at}/${format}`);
      expect(Array.isArray(cannotSay)).toBe(true);
      const response = await app.send('GET', href);
      expect([format, response.status]).toEqual([format, 200]);
      expect(response.headers.get('content-type')).toBe(mediaType);
      expect(await response.text()).toBe(await text(href));
    }
    const older = items.find(({ format }) => format === 'openapi-3.0.json')?.cannotSay.join('\n');
    expect(older).toContain('nullable');
  });

  test('is had under the names of before', async () => {
    const at = `/api/designs/${design}/${place}`;
    expect(await text(`${at}/openapi.json`)).toBe(await text(`${at}/publications/openapi-3.1.json`));
    expect(await text(`${at}/openapi.yaml`)).toBe(await text(`${at}/publications/openapi-3.1.yaml`));
  });

  test.each([
    ['openapi-4.json', 404, 'There is no openapi-4.json of a contract'],
    ['__proto__', 404, 'There is no __proto__ of a contract'],
    ['openapi-3.1.json?server=other', 400, 'Expected mock.'],
  ])('%s is refused', async (format, status, why) => {
    const response = await app.send('GET', `/api/designs/${design}/${place}/publications/${format}`);
    expect(response.status).toBe(status);
    expect(JSON.stringify((await response.json()) as ProblemBody)).toContain(why);
  });
});

test('the address of a mock stands among the servers where it is asked for', async () => {
  const at = `/api/designs/${design}/arrangements/main/publications/openapi-3.1.json`;
  const servers = async (query: string): Promise<readonly string[]> => {
    const { servers: all } = await app.json<{ servers: readonly { url: string }[] }>('GET', at + query);
    return all.map(({ url }) => url);
  };
  expect(await servers('?server=mock')).toEqual(['/api/v1']);
  const { baseUrls } = await app.json<{ baseUrls: { main: string } }>('POST', '/api/mocks', {
    design,
    arrangements: ['main'],
  });
  expect(await servers('?server=mock')).toEqual(['/api/v1', baseUrls.main]);
  expect(await servers('')).toEqual(['/api/v1']);
});
