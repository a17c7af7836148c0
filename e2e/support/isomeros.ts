import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { createSchema, dropSchema } from '../../apps/server/test/support/database.js';

const main = join(import.meta.dirname, '../../apps/server/dist/main.js');

/** One of many ports, none of which browsers refuse to ask. */
const firstPort = (): string => String(5300 + Math.floor(Math.random() * 300));

const SAMPLES = ['Kestrel Sound Ferries', 'Tool shed'];

/** The real thing: the built server with its pages, on a schema of its own. */
export class Isomeros {
  private child: ChildProcess | null = null;
  url = '';

  constructor(readonly databaseUrl: string) {}

  start(): Promise<void> {
    const port = this.url === '' ? firstPort() : new URL(this.url).port;
    const child = spawn(process.execPath, [main], {
      env: { ...process.env, ISOMEROS_DATABASE_URL: this.databaseUrl, ISOMEROS_PORT: port },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.child = child;
    return new Promise((resolve, reject) => {
      let output = '';
      const read = (part: Buffer): void => {
        output += part.toString();
        const url = /Isomeros is at (\S+?)\/\s/.exec(output)?.[1];
        if (url === undefined) return;
        this.url = url;
        resolve();
      };
      child.stdout.on('data', read);
      child.stderr.on('data', read);
      child.once('exit', (code) => reject(new Error(`The server ended with ${String(code)}:\n${output}`)));
    });
  }

  async end(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    const { child } = this;
    if (child === null || child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill(signal);
    await ended;
  }

  /** Asks the server as a script would. */
  async ask<T>(method: string, path: string, body?: object): Promise<T> {
    const response = await fetch(this.url + path, {
      method,
      ...(body === undefined
        ? {}
        : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
    return (response.status === 204 ? undefined : await response.json()) as T;
  }

  /** Removes what a test made: all mocks, and all designs but the samples. */
  async clear(): Promise<void> {
    const listed = async <T>(path: string): Promise<readonly T[]> =>
      (await this.ask<{ items: readonly T[] }>('GET', path)).items;
    for (const { id } of await listed<{ id: string }>('/api/mocks'))
      await this.ask('DELETE', `/api/mocks/${id}`);
    for (const { id, name } of await listed<{ id: string; name: string }>('/api/designs'))
      if (!SAMPLES.includes(name)) await this.ask('DELETE', `/api/designs/${id}`);
  }

  async createDesign(text: string): Promise<string> {
    const source = { format: 'notation', text };
    const { id } = await this.ask<{ id: string }>('POST', '/api/designs', { source });
    return id;
  }

  /** A mock of the arrangement every design begins with; returns where it is served. */
  async createMock(design: string, counts?: Readonly<Record<string, number>>): Promise<string> {
    const { baseUrls } = await this.ask<{ baseUrls: { main: string } }>('POST', '/api/mocks', {
      design,
      arrangements: ['main'],
      ...(counts === undefined ? {} : { counts }),
    });
    return baseUrls.main;
  }
}

/** Tests begin with the paths beside the notation; those of the map switch to it. */
const FIRST_FACE = 'paths';

interface TestFixtures {
  /** Whether the test gets a server that no test used before, since it changes a sample or restarts the server. */
  fresh: boolean;
  isomeros: Isomeros;
  noErrors: undefined;
}

interface WorkerFixtures {
  /** The server that tests share, started when the first asks for it. */
  shared: () => Promise<Isomeros>;
}

async function startOnOwnSchema(): Promise<Isomeros> {
  const server = new Isomeros(await createSchema('e2e'));
  await server.start();
  return server;
}

async function endWithSchema(server: Isomeros): Promise<void> {
  await server.end('SIGTERM');
  await dropSchema(server.databaseUrl);
}

/** Every test has the application to itself, and fails when the page reports an error. */
export const test = base.extend<TestFixtures, WorkerFixtures>({
  fresh: [false, { option: true }],
  shared: [
    async ({}, use) => {
      const started: Isomeros[] = [];
      await use(async () => {
        const server = started[0] ?? (await startOnOwnSchema());
        if (started.length === 0) started.push(server);
        return server;
      });
      await Promise.all(started.map(endWithSchema));
    },
    { scope: 'worker' },
  ],
  isomeros: async ({ fresh, shared }, use) => {
    const server = await (fresh ? startOnOwnSchema() : shared());
    await use(server);
    await (fresh ? endWithSchema(server) : server.clear());
  },
  noErrors: [
    async ({ page }, use) => {
      const errors: string[] = [];
      await page.addInitScript((face) => {
        if (localStorage.getItem('isomeros.view-mode') === null)
          localStorage.setItem('isomeros.view-mode', face);
      }, FIRST_FACE);
      page.on('pageerror', (error) => errors.push(error.message));
      page.on('console', (message) => {
        if (message.type() === 'error' && !message.text().startsWith('Failed to load resource'))
          errors.push(message.text());
      });
      await use(undefined);
      expect(errors).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** Presses a key on what can take it: on a button that waits for something, it would go to what has the focus. */
export async function press(target: Locator, key = 'Enter'): Promise<void> {
  await expect(target).toBeEnabled();
  await target.press(key);
}

/** Puts the cursor at the end of the notation and types there. */
export async function typeAtEnd(page: Page, text: string): Promise<void> {
  await page.getByLabel('Notation of the model').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(text, { delay: 4 });
}

export const stage = (page: Page, name: string): ReturnType<Page['locator']> =>
  page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name });
