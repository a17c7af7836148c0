// This tree beside another commit: the same requests to a mock of each, in turns. Run: npm run bench:against [commit]
import type { ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import type { Message } from './mock/load.js';
import { get, post } from './mock/messages.js';
import { ask, end, start } from './mock/programs.js';
import { MODEL } from './mock/records.js';
import { inTurns, ratioOf, text, typical } from './mock/turns.js';
import { checkOut, commitName, here } from './otherTree.js';
import { startTestDatabase } from './testDatabase.js';

const RECORDS = 100_000;
/** Less than this of what the other commit answers is a step back. */
const LEAST = 0.93;

interface Side {
  readonly name: string;
  readonly port: number;
}

const [commit = 'HEAD~1'] = process.argv.slice(2);
const other = commitName(commit);
const tree = checkOut(other);
const children: ChildProcess[] = [];
const database = await startTestDatabase();
try {
  const { createConnection } = await import('mysql2/promise');
  const connection = await createConnection(database.url.replace('mariadb:', 'mysql:'));
  const server = database.url.slice(0, database.url.lastIndexOf('/'));
  const serve = async (name: string, folder: string, schema: string, port: string): Promise<Side> => {
    await connection.query(`CREATE DATABASE ${schema}`);
    const environment = { ISOMEROS_DATABASE_URL: `${server}/${schema}`, ISOMEROS_PORT: port };
    children.push(await start(join(folder, 'apps/server/dist/main.js'), [], environment));
    const api = `http://127.0.0.1:${port}/api`;
    const source = { format: 'notation', text: MODEL };
    const design = await ask<{ id: string }>(`${api}/designs`, { source });
    const wanted = { design: design.id, arrangements: ['main'], counts: { Item: RECORDS } };
    return { name, port: (await ask<{ port: number }>(`${api}/mocks`, wanted)).port };
  };
  const own = await serve('this tree', here, 'own', '4873');
  const beside = await serve(other, tree.folder, 'beside', '4874');
  await connection.end();
  const someId = (client: number, number: number): number =>
    ((client * 7919 + number * 104_729) % RECORDS) + 1;
  const messages: readonly (readonly [string, Message])[] = [
    ['Item GET', get((client, number) => `/api/v1/items/${someId(client, number)}`)],
    [`List of 20, filtered and sorted, out of ${RECORDS}`, get(() => '/api/v1/items?kind=b&sort=-size')],
    ['Durable POST', post('/api/v1/items')],
  ];
  for (const [title, message] of messages) {
    const sides = [own, beside].map((side) => ({ ...side, message }));
    const rounds = [...(await inTurns(sides)).values()];
    const ratio = ratioOf(rounds[0] ?? [], rounds[1] ?? []);
    console.log(`\n${title}`);
    for (const [index, loads] of rounds.entries())
      console.log(`  ${(sides[index]?.name ?? '').padEnd(14)} ${text(typical(loads))}`);
    console.log(`  ratio ${ratio.toFixed(2)}, ${ratio >= LEAST ? 'holds' : 'MISSES'} ${LEAST}`);
  }
} finally {
  await Promise.all(children.map(end));
  await database.stop();
  tree.remove();
}
