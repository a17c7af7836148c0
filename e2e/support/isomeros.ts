import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { test as base, expect, type Page } from '@playwright/test';
import { createConnection } from 'mysql2/promise';

const main = join(import.meta.dirname, '../../apps/server/dist/main.js');

/** The real thing: the built server with its pages, on a schema of its own. */
export class Isomeros {
  private child: ChildProcess | null = null;
  url = '';

  constructor(private readonly databaseUrl: string) {}

  start(): Promise<void> {
    const port = this.url === '' ? String(5900 + Math.floor(Math.random() * 300)) : new URL(this.url).port;
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

  async createDesign(text: string): Promise<string> {
    const response = await fetch(`${this.url}/api/designs`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ source: { format: 'notation', text } }),
    });
    const { id } = (await response.json()) as { id: string };
    return id;
  }
}

async function execute(statement: string): Promise<void> {
  const url = new URL(process.env['ISOMEROS_TEST_DATABASE_URL'] ?? '');
  const connection = await createConnection({
    host: url.hostname,
    port: Number(url.port),
    user: decodeURIComponent(url.username),
    password: decodeURIComponent(url.password),
  });
  try {
    await connection.query(statement);
  } finally {
    await connection.end();
  }
}

let made = 0;

/** Tests begin with the paths beside the notation; those of the map switch to it. */
const FIRST_FACE = 'paths';

/** Every test has the application to itself, and fails when the page reports an error. */
export const test = base.extend<{ isomeros: Isomeros; noErrors: undefined }>({
  isomeros: async ({}, use) => {
    const schema = `isomeros_e2e_${process.pid}_${++made}`;
    await execute(`CREATE DATABASE ${schema} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
    const url = new URL(process.env['ISOMEROS_TEST_DATABASE_URL'] ?? '');
    url.pathname = `/${schema}`;
    const isomeros = new Isomeros(url.href);
    await isomeros.start();
    await use(isomeros);
    await isomeros.end('SIGTERM');
    await execute(`DROP DATABASE ${schema}`);
  },
  noErrors: [
    async ({ page }, use) => {
      const errors: string[] = [];
      await page.addInitScript((face) => {
        if (localStorage.getItem('isomeros.face') === null) localStorage.setItem('isomeros.face', face);
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

/** Puts the cursor at the end of the notation and types there. */
export async function typeAtEnd(page: Page, text: string): Promise<void> {
  await page.getByLabel('Notation of the model').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(text, { delay: 4 });
}

export const stage = (page: Page, name: string): ReturnType<Page['locator']> =>
  page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name });
