// A mock beside what one would write by hand: same payloads, same client, 32 connections. Run: npm run bench:mock
import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { load, type Load, type Message } from './mock/load.js';
import { MODEL } from './mock/records.js';

const SECONDS = 4;
const RECORDS = 100_000;
const fromHere = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

interface TestDatabase {
  readonly url: string;
  readonly stop: () => Promise<void>;
}

const { startTestDatabase } = (await import(fromHere('../scripts/lib/testDatabase.mjs'))) as {
  startTestDatabase: () => Promise<TestDatabase>;
};

/** Starts a program that tells when it is ready. */
function start(
  path: string,
  args: readonly string[],
  environment: NodeJS.ProcessEnv = {},
): Promise<ChildProcess> {
  const isSource = path.endsWith('.ts');
  const child = fork(fromHere(path), args, {
    execArgv: isSource ? ['--import', 'tsx'] : [],
    env: { ...process.env, ...environment },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  return new Promise((resolve, reject) => {
    child.once('message', () => {
      resolve(child);
    });
    child.once('exit', (code) => {
      reject(new Error(`${path} ended with ${code ?? 'a signal'}.`));
    });
  });
}

async function ask<T>(url: string, body: unknown): Promise<T> {
  const headers = { 'Content-Type': 'application/json' };
  const response = await fetch(url, { method: 'POST', headers, body: JSON.stringify(body) });
  if (!response.ok) throw new Error(`${url} answered ${response.status}: ${await response.text()}`);
  return (await response.json()) as T;
}

const get =
  (path: (client: number, number: number) => string): Message =>
  (client, number) =>
    `GET ${path(client, number)} HTTP/1.1\r\nHost: 127.0.0.1\r\nAccept: application/json\r\n\r\n`;

const post =
  (path: string): Message =>
  (client, number) => {
    const body = JSON.stringify({ name: `New ${client}-${number}`, size: number, kind: 'a' });
    return `POST ${path} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: ${body.length}\r\n\r\n${body}`;
  };

const someId = (client: number, number: number): number => ((client * 7919 + number * 104_729) % RECORDS) + 1;

async function measured(port: number, message: Message): Promise<Load> {
  await load(port, message, 1);
  return load(port, message, SECONDS);
}

const text = ({ perSecond, median, p99 }: Load): string =>
  `${perSecond.toFixed(0).padStart(8)}/s  median ${median.toFixed(2).padStart(7)} ms  p99 ${p99.toFixed(2).padStart(7)} ms`;

function compare(title: string, mock: Load, others: readonly (readonly [string, Load, number])[]): void {
  console.log(`\n${title}\n  the mock       ${text(mock)}`);
  for (const [name, other, wanted] of others) {
    const ratio = mock.perSecond / other.perSecond;
    const judged = ratio >= wanted ? 'holds' : 'MISSES';
    console.log(`  ${name.padEnd(14)} ${text(other)}  ratio ${ratio.toFixed(2)}, ${judged} ${wanted}`);
  }
}

const BARE = 4_871;
const NEST = 4_872;
const database = await startTestDatabase();
const children: ChildProcess[] = [];
try {
  const schema = `${database.url.slice(0, database.url.lastIndexOf('/'))}/measured`;
  const { createConnection } = await import('mysql2/promise');
  const connection = await createConnection(database.url.replace('mariadb:', 'mysql:'));
  await connection.query('CREATE DATABASE measured');
  await connection.end();
  const application = await start('../apps/server/dist/main.js', [], {
    ISOMEROS_DATABASE_URL: schema,
    ISOMEROS_PORT: '4873',
  });
  children.push(application);
  const api = 'http://127.0.0.1:4873/api';
  const design = await ask<{ id: string }>(`${api}/designs`, { source: { format: 'notation', text: MODEL } });
  const began = performance.now();
  const mock = await ask<{ port: number }>(`${api}/mocks`, {
    design: design.id,
    arrangements: ['main'],
    counts: { Item: RECORDS },
  });
  console.log(`${RECORDS} records seeded and stored in ${((performance.now() - began) / 1000).toFixed(1)} s`);
  children.push(await start('./mock/bare.ts', [String(BARE)]));
  children.push(await start('./mock/nest.ts', [String(NEST), schema]));
  const item = get((client, number) => `/items/${someId(client, number)}`);
  const ownItem = get((client, number) => `/api/v1/items/${someId(client, number)}`);
  const list = get(() => '/items?kind=b');
  const ownList = get(() => '/api/v1/items?kind=b&sort=-size');
  compare('Item GET', await measured(mock.port, ownItem), [
    ['bare', await measured(BARE, item), 0.5],
    ['by hand, Nest', await measured(NEST, item), 1.5],
  ]);
  compare(`List of 20, filtered and sorted, out of ${RECORDS}`, await measured(mock.port, ownList), [
    ['bare', await measured(BARE, list), 0.35],
    ['by hand, Nest', await measured(NEST, list), 1.5],
  ]);
  compare('Durable POST', await measured(mock.port, post('/api/v1/items')), [
    ['Nest, TypeORM', await measured(NEST, post('/items')), 3],
  ]);
} finally {
  for (const child of children) {
    child.removeAllListeners('exit');
    child.kill('SIGTERM');
  }
  await Promise.all(children.map((child) => new Promise((resolve) => child.once('exit', resolve))));
  await database.stop();
}
