// A mock beside what one would write by hand: same payloads, same client, 32 connections. Run: npm run bench:mock
import type { ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { load, type Load, type Message } from './mock/load.js';
import { get, post } from './mock/messages.js';
import { ask, end, start } from './mock/programs.js';
import { MODEL } from './mock/records.js';
import {
  inTurns,
  median,
  ratioOf,
  ROUND_SECONDS,
  ROUNDS,
  text,
  typical,
  warm,
  type Contestant,
} from './mock/turns.js';
import { startTestDatabase } from './testDatabase.js';

const SECONDS = 4;
const RECORDS = 100_000;
const MANY = 1_000_000;
const fromHere = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

const someId = (client: number, number: number): number => ((client * 7919 + number * 104_729) % RECORDS) + 1;

async function measured(port: number, message: Message): Promise<Load> {
  await warm({ port, message });
  return load(port, message, SECONDS);
}

async function timesSlower(one: Contestant, other: Contestant): Promise<number> {
  const rounds = await inTurns([one, other]);
  return ratioOf(rounds.get(other) ?? [], rounds.get(one) ?? []);
}

/** Lets the mock and others take turns, and tells how many times as much the mock answers. */
async function compare(
  title: string,
  mock: Contestant,
  others: readonly (Contestant & { readonly wanted: number })[],
): Promise<void> {
  const rounds = await inTurns([mock, ...others]);
  const own = rounds.get(mock) ?? [];
  console.log(`\n${title}\n  ${mock.name.padEnd(14)} ${text(typical(own))}`);
  for (const other of others) {
    const loads = rounds.get(other) ?? [];
    const ratio = ratioOf(own, loads);
    const judged = ratio >= other.wanted ? 'holds' : 'MISSES';
    console.log(
      `  ${other.name.padEnd(14)} ${text(typical(loads))}  ratio ${ratio.toFixed(2)}, ${judged} ${other.wanted}`,
    );
  }
}

const judge = (title: string, value: number, unit: string, most: number): void =>
  console.log(
    `${title.padEnd(58)} ${value.toFixed(value < 10 ? 2 : 0).padStart(7)} ${unit}, ${value <= most ? 'holds' : 'MISSES'} ${most}`,
  );

/** Memory that a process has in use, in MiB. */
const memoryOf = ({ pid }: ChildProcess): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? NaN) / 1024;

/** The slowest of the application's own answers while a mock is at full load, in milliseconds. */
async function slowestPage(port: number, message: Message): Promise<number> {
  const full = load(port, message, SECONDS);
  let slowest = 0;
  for (const until = performance.now() + SECONDS * 900; performance.now() < until;) {
    const asked = performance.now();
    await (await fetch(`${API}/designs`)).text();
    slowest = Math.max(slowest, performance.now() - asked);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await full;
  return slowest;
}

const BARE = 4_871;
const API = 'http://127.0.0.1:4873/api';
const NEST = 4_872;
const database = await startTestDatabase();
const children: ChildProcess[] = [];
try {
  const schema = `${database.url.slice(0, database.url.lastIndexOf('/'))}/measured`;
  const { createConnection } = await import('mysql2/promise');
  const connection = await createConnection(database.url.replace('mariadb:', 'mysql:'));
  await connection.query('CREATE DATABASE measured');
  await connection.end();
  const startApplication = (): Promise<ChildProcess> =>
    start(fromHere('../apps/server/dist/main.js'), [], {
      ISOMEROS_DATABASE_URL: schema,
      ISOMEROS_PORT: '4873',
    });
  const application = await startApplication();
  children.push(application);
  const design = await ask<{ id: string }>(`${API}/designs`, { source: { format: 'notation', text: MODEL } });
  const began = performance.now();
  const mock = await ask<{ port: number }>(`${API}/mocks`, {
    design: design.id,
    arrangements: ['main'],
    counts: { Item: RECORDS },
  });
  judge(`${RECORDS} records seeded and stored`, (performance.now() - began) / 1000, 's', 5);
  children.push(await start(fromHere('./mock/bare.ts'), [String(BARE)]));
  children.push(await start(fromHere('./mock/nest.ts'), [String(NEST), schema]));
  const item = get((client, number) => `/items/${someId(client, number)}`);
  const ownItem = get((client, number) => `/api/v1/items/${someId(client, number)}`);
  const list = get(() => '/items?kind=b');
  const ownList = get(() => '/api/v1/items?kind=b&sort=-size');
  const mockAt = (message: Message): Contestant => ({ name: 'the mock', port: mock.port, message });
  const bareAt = (message: Message): Contestant => ({ name: 'bare', port: BARE, message });
  const nestAt = (message: Message): Contestant => ({ name: 'by hand, Nest', port: NEST, message });
  await compare('Item GET', mockAt(ownItem), [
    { ...bareAt(item), wanted: 0.5 },
    { ...nestAt(item), wanted: 1.5 },
  ]);
  await compare(`List of 20, filtered and sorted, out of ${RECORDS}`, mockAt(ownList), [
    { ...bareAt(list), wanted: 0.35 },
    { ...nestAt(list), wanted: 1.5 },
  ]);
  await compare('Durable POST', mockAt(post('/api/v1/items')), [
    { ...nestAt(post('/items')), name: 'Nest, TypeORM', wanted: 3 },
  ]);

  console.log('\nAlone');
  const full = await measured(mock.port, ownItem);
  const halves: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const half = await load(mock.port, ownItem, ROUND_SECONDS * 2, full.perSecond / 2);
    halves.push(half.p99 / half.median);
  }
  judge('p99 at half of the full load, as a multiple of the median', median(halves), '', 5);
  judge('slowest page of the application under full load', await slowestPage(mock.port, ownItem), 'ms', 200);
  await end(application);
  children.shift();
  const again = performance.now();
  const recovered = await startApplication();
  children.unshift(recovered);
  await load(mock.port, ownItem, 0.01);
  judge(`${RECORDS} records recovered at start`, (performance.now() - again) / 1000, 's', 4);
  judge(`memory with ${RECORDS} records, at rest`, memoryOf(recovered), 'MiB', 400);

  console.log('\nGrowth');
  const mocks = await Promise.all(
    [1_000, MANY].map(async (count) => ({
      count,
      ...(await ask<{ port: number }>(`${API}/mocks`, {
        design: design.id,
        arrangements: ['main'],
        counts: { Item: count },
      })),
    })),
  );
  const [few, many] = mocks;
  if (few === undefined || many === undefined) throw new Error('There are no mocks to compare.');
  const among = (count: number): Message =>
    get((client, number) => `/api/v1/items/${((client * 7919 + number * 104_729) % count) + 1}`);
  const items = await timesSlower(
    { name: 'many', port: many.port, message: among(many.count) },
    { name: 'few', port: few.port, message: among(few.count) },
  );
  judge(`item GET, ${MANY} records against 1000, times slower`, items, '', 1.2);
  const lists = await timesSlower(
    { name: 'many', port: many.port, message: ownList },
    { name: 'few', port: few.port, message: ownList },
  );
  judge('first page, filtered and sorted, the same, times slower', lists, '', 2);
} finally {
  await Promise.all(children.map(end));
  await database.stop();
}
