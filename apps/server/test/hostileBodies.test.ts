import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { NO_CHOICES, writeDesignFile } from '@isomeros/core/arrangement';
import { TestApp, type DesignBody, type ProblemBody } from './support/app.js';
import { ROUTES } from './support/models.js';

let app: TestApp;
let base: string;
beforeAll(async () => {
  app = await TestApp.start();
  const design = await app.createDesign(ROUTES);
  const mock = await app.createMock(design.id);
  base = mock.baseUrls.main;
});
afterAll(() => app.close());

const MIB = 1_048_576;
const lines = (count: number, line: (index: number) => string): string =>
  Array.from({ length: count }, (_, index) => line(index)).join('\n');

/** A design from a notation, as the body of a request. */
const design = (text: string): string => JSON.stringify({ source: { format: 'notation', text } });
/** A design of a text with errors, and what is answered to it. */
const unsound = (text: string): Case => ({ path: '/api/designs', body: design(text), answers: [422] });
/** A design file that carries so many records. */
const fileOf = (records: number): string =>
  writeDesignFile({
    name: 'Routes',
    model: ROUTES,
    identities: {},
    choices: NO_CHOICES,
    initialRecords: {
      model: ROUTES,
      identities: {},
      choices: NO_CHOICES,
      records: { Route: Array.from({ length: records }, (_, at) => ({ id: at + 1, name: `Route ${at}` })) },
    },
  });
const members = (count: number): string => lines(count, (index) => `"m${index}":1`).replaceAll('\n', ',');

interface Case {
  readonly path: string;
  readonly body: string;
  /** The statuses that may answer it. */
  readonly answers: readonly number[];
}

const CASES: Readonly<Record<string, Case>> = {
  'a string of nine million characters': {
    path: '/api/designs',
    body: `{"name":"${'a'.repeat(9_000_000)}"}`,
    answers: [400],
  },
  'a string of escapes': {
    path: '/api/designs',
    body: `{"name":"${'\\n'.repeat(5_000_000)}"}`,
    answers: [400],
  },
  'a number of five million digits': {
    path: '/api/mocks',
    body: `{"port":1${'0'.repeat(5_000_000)}1}`,
    answers: [400],
  },
  'six hundred thousand unknown members': {
    path: '/api/designs',
    body: `{${members(600_000)}}`,
    answers: [400],
  },
  'unknown members of a part': {
    path: '/api/designs',
    body: `{"source":{"format":"notation","text":"",${members(600_000)}}}`,
    answers: [400],
  },
  'a million names of arrangements': {
    path: '/api/mocks',
    body: `{"design":"7b4e7c80-0000-4000-8000-000000000000","arrangements":[${lines(900_000, (i) => `"a${i}"`).replaceAll('\n', ',')}]}`,
    answers: [400],
  },
  'a list of lists of lists': unsound(`entity A\n  a: ${'list of '.repeat(5_000)}text\n`),
  'an entity of thirty thousand attributes': unsound(`entity A\n${lines(30_000, (i) => `  a${i}: text`)}\n`),
  'a model of four thousand entities': {
    path: '/api/designs',
    body: design(lines(4_000, (i) => `entity E${i}\n  name: text(1..60), required\n`)),
    answers: [201, 422],
  },
  'lists of everything by everything': {
    path: '/api/designs',
    body: design(
      `entity A\n\nentity B\n\n${lines(900, (i) => `each A refers to one B as r${i}, back as s${i}`)}\n`,
    ),
    answers: [201, 422],
  },
  'a design file of ninety thousand records': {
    path: '/api/designs',
    body: JSON.stringify({ source: { format: 'design', text: fileOf(90_000) } }),
    answers: [201],
  },
  'a megabyte of comments': { path: '/api/designs', body: design('#\n'.repeat(500_000)), answers: [201] },
  'a megabyte of brackets on one line': unsound('[]'.repeat(500_000)),
  'a megabyte of quotes on one line': unsound("'".repeat(1_000_000)),
  'a megabyte of sentences said otherwise': unsound('each A has many B\n'.repeat(55_000)),
  'a megabyte of mistakes': unsound('entiti A\n'.repeat(110_000)),
};

/** Reads from the mock all the while, and tells the longest it took. */
async function longestWait(during: Promise<unknown>): Promise<number> {
  let longest = 0;
  const state = { isOver: false };
  void during.finally(() => (state.isOver = true));
  while (!state.isOver) {
    const started = performance.now();
    // A connection that is kept may be closed at the very moment at which it is used again.
    const response = await fetch(`${base}/routes`, { headers: { connection: 'close' } });
    await response.arrayBuffer();
    expect(response.status).toBe(200);
    longest = Math.max(longest, performance.now() - started);
  }
  return longest;
}

describe('whatever body arrives at the application', () => {
  test.each(Object.entries(CASES))(
    '%s is judged, and mocks go on answering',
    async (name, { path, body, answers }) => {
      const headers = { 'Content-Type': 'application/json' };
      const answer = fetch(app.url + path, { method: 'POST', headers, body });
      const waited = await longestWait(answer);
      const { status } = await answer;
      expect(answers).toContain(status);
      // So much less than this is usual that a slow machine is no reason to fail.
      expect([name, waited < 3_000 * Math.max(1, body.length / MIB)]).toEqual([name, true]);
      const list = await app.json<{ items: readonly DesignBody[] }>('GET', '/api/designs');
      expect(list.items.length).toBeGreaterThan(0);
    },
  );

  test('an unknown member is named, and so many are counted', async () => {
    const response = await app.send('POST', '/api/designs', JSON.parse(`{${members(500)}}`));
    const { errors, detail } = (await response.json()) as ProblemBody;
    expect(response.status).toBe(400);
    expect(detail).toBe('100 or more things in the body do not fit.');
    expect(errors).toHaveLength(100);
    expect(errors?.[0]).toEqual({
      pointer: '/m0',
      code: 'unknown',
      message: 'There is no member m0 to send here.',
    });
  });
});
