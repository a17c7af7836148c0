import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import ts from 'typescript';
import { TestApp } from './support/app.js';

/** A client of any API, typed by the map from paths and methods; it knows nothing of this one. */
const CLIENT = `import type { Paths } from './types.js';

type Described = { path?: object; query?: object; headers?: object; body: unknown; answers: object };
type Bodies<Body> = Body extends { 'application/json': infer Json } ? Json : undefined;
type Given<Call extends Described> = (Call extends { path: infer Path } ? { path: Path } : {}) &
  (Call extends { query: infer Query } ? { query?: Query } : {}) &
  (Call extends { headers: infer Headers } ? { headers?: Headers } : {}) &
  ([Call['body']] extends [never] ? {} : { body: Bodies<Call['body']> });
type Answered<Answers> = {
  [Status in keyof Answers]: {
    status: Status;
    body: Answers[Status] extends { body: infer Body } ? ([Body] extends [never] ? null : Bodies<Body>) : null;
  };
}[keyof Answers];

export const client = (base: string) =>
  async <Path extends keyof Paths & string, Method extends keyof Paths[Path] & string>(
    method: Method,
    path: Path,
    given: Paths[Path][Method] extends Described ? Given<Paths[Path][Method]> : never,
  ): Promise<Paths[Path][Method] extends Described ? Answered<Paths[Path][Method]['answers']> : never> => {
    const { path: ids = {}, query = {}, headers = {}, body } = given as {
      path?: Record<string, unknown>;
      query?: Record<string, unknown>;
      headers?: Record<string, string>;
      body?: unknown;
    };
    const target = path.replace(/\\{(\\w+)\\}/g, (_, name: string) => encodeURIComponent(String(ids[name])));
    const terms = new URLSearchParams(Object.entries(query).map(([name, value]) => [name, String(value)]));
    const response = await fetch(base + target + (terms.size === 0 ? '' : '?' + terms.toString()), {
      method,
      headers: { ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const text = await response.text();
    return { status: response.status, body: text === '' ? null : JSON.parse(text) } as never;
  };
`;

const USE = `import { client } from './client.js';
import type { Sailing } from './types.js';

export async function run(base: string): Promise<readonly unknown[]> {
  const call = client(base);
  const made = await call('POST', '/routes/{routeNumber}/sailings', {
    path: { routeNumber: 1 },
    body: { departsAt: '2026-07-01T08:00:00Z', arrivesAt: '2026-07-01T09:00:00Z' },
  });
  if (made.status !== 201) throw new Error(String(made.status));
  const { id }: Sailing = made.body;
  const path = { routeNumber: 1, sailingId: id };
  const read = await call('GET', '/routes/{routeNumber}/sailings/{sailingId}', { path });
  const changed = await call('PATCH', '/routes/{routeNumber}/sailings/{sailingId}', { path, body: { berth: '2A' } });
  const removed = await call('DELETE', '/routes/{routeNumber}/sailings/{sailingId}', { path });
  const gone = await call('GET', '/routes/{routeNumber}/sailings/{sailingId}', { path });
  const listed = await call('GET', '/routes/{routeNumber}/sailings', {
    path: { routeNumber: 1 },
    query: { size: 2, 'departsAt[gte]': '2020-01-01T00:00:00Z' },
  });
  return [
    made.status,
    read.status === 200 && read.body.departsAt,
    changed.status === 200 && changed.body.berth,
    removed.status,
    gone.status,
    listed.status === 200 && listed.body.items.length <= 2,
  ];
}
`;

/** Each does what nobody is offered. */
const WRONG: readonly (readonly [string, string])[] = [
  ["call('GET', '/nowhere', {})", 'no path'],
  ["call('DELETE', '/routes/{routeNumber}/sailings', { path: { routeNumber: 1 } })", 'no method'],
  ["call('GET', '/routes/{routeNumber}', { path: {} })", 'no id'],
  ["call('POST', '/harbours', { body: { code: 'KSH' } })", 'no name'],
  ["call('POST', '/harbours', { body: { code: 1, name: 'x' } })", 'another type'],
];

let app: TestApp;
let folder: string;
beforeAll(async () => {
  app = await TestApp.start();
  folder = mkdtempSync(join(tmpdir(), 'isomeros-client-'));
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

const OPTIONS: ts.CompilerOptions = {
  strict: true,
  target: ts.ScriptTarget.ES2022,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  lib: ['lib.es2022.d.ts', 'lib.dom.d.ts', 'lib.dom.iterable.d.ts'],
  types: [],
};

/** How many errors there are in each of some files, all read and compiled in one program. */
function errorsIn(files: readonly string[]): readonly number[] {
  const roots = files.map((file) => join(folder, file));
  const program = ts.createProgram(roots, { ...OPTIONS, outDir: join(folder, 'out') });
  program.emit();
  const all = ts.getPreEmitDiagnostics(program);
  return roots.map((root) => all.filter(({ file }) => file?.fileName === root).length);
}

describe('the types of the sample', () => {
  test('type a client that reads, creates, changes and removes a sailing', async () => {
    const { id } = await app.json<{ id: string }>('POST', '/api/designs', {
      source: { format: 'sample', text: 'kestrel-sound-ferries' },
    });
    const types = await app.send('GET', `/api/designs/${id}/arrangements/main/publications/types.d.ts`);
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, 'package.json'), '{ "type": "module" }');
    writeFileSync(join(folder, 'types.d.ts'), await types.text());
    writeFileSync(join(folder, 'client.ts'), CLIENT);
    writeFileSync(join(folder, 'use.ts'), USE);
    const wrong = WRONG.map(([use], at) => {
      const begin = "import { client } from './client.js';\nconst call = client('');";
      writeFileSync(join(folder, `wrong${at}.ts`), `${begin}\nawait ${use};\nexport {};\n`);
      return `wrong${at}.ts`;
    });
    const { baseUrls } = await app.json<{ baseUrls: { main: string } }>('POST', '/api/mocks', {
      design: id,
      arrangements: ['main'],
    });
    const [used, ...others] = errorsIn(['use.ts', ...wrong]);
    expect(used).toBe(0);
    expect(WRONG.filter((_, at) => others[at] === 0)).toEqual([]);
    const { run } = (await import(pathToFileURL(join(folder, 'out/use.js')).href)) as {
      run: (base: string) => Promise<readonly unknown[]>;
    };
    expect(await run(baseUrls.main)).toEqual([201, '2026-07-01T08:00:00Z', '2A', 204, 404, true]);
  });
});
