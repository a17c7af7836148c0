// Many mocks under mixed load for a while: does memory stay where it is? Run: npm run bench:soak [seconds]
// Afterwards the same load once more with a journal of one exchange a mock: the difference is the journal's share.
import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { startTestDatabase } from './testDatabase.js';

const SECONDS = Number(process.argv[2] ?? 600);
const MOCKS = 24;
const SAMPLES = 20;
const PAUSE_MS = 10;
const fromHere = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

interface Server {
  readonly url: string;
  readonly child: ChildProcess;
}

function startServer(environment: Readonly<Record<string, string>>): Promise<Server> {
  const child = fork(fromHere('../apps/server/dist/main.js'), [], {
    env: { ...process.env, ISOMEROS_PORT: '5700', ...environment },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  return new Promise((resolve, reject) => {
    child.once('message', ({ url }: { url: string }) => {
      resolve({ url, child });
    });
    child.once('exit', (code) => {
      reject(new Error(`The server ended with ${code ?? 'a signal'}.`));
    });
  });
}

async function send<T>(method: string, url: string, body?: unknown): Promise<T | null> {
  const response = await fetch(url, {
    method,
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  if (response.status >= 500) throw new Error(`${method} ${url} answered ${response.status}`);
  return response.status === 204 ? null : ((await response.json()) as T);
}

const memory = ({ pid }: ChildProcess): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid ?? 0}/status`, 'utf8'))?.[1] ?? 0) / 1_024;

interface Count {
  requests: number;
}

/** Lists, reads, makes, changes and removes, one after the other, until told to stop. */
async function use(base: string, count: Count, goesOn: () => boolean): Promise<void> {
  for (let number = 0; goesOn(); number++) {
    const made = await send<{ code: string }>('POST', `${base}/harbours`, {
      code: [...number.toString(26)]
        .map((digit) => String.fromCharCode(65 + parseInt(digit, 26)))
        .join('')
        .padStart(5, 'Z'),
      name: `Harbour ${number} of ${base}`,
    });
    const item = `${base}/harbours/${made?.code ?? ''}`;
    await send('GET', item);
    await send('GET', `${base}/sailings?size=20&sort=-departsAt`);
    await send('GET', `${base}/bookings?page=${number % 3}`);
    await send('PATCH', item, { services: ['fuel'] });
    await send('GET', `${base}/nowhere/${number}`);
    await send('DELETE', item);
    count.requests += 7;
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}

interface Soaked {
  readonly samples: readonly number[];
  readonly requests: number;
}

async function soak(
  database: string,
  environment: Readonly<Record<string, string>>,
  seconds: number,
): Promise<Soaked> {
  const { url, child } = await startServer({ ISOMEROS_DATABASE_URL: database, ...environment });
  const { items = [] } = (await send<{ items: { id: string }[] }>('GET', `${url}api/designs`)) ?? {};
  const design = items[0]?.id;
  const bases: string[] = [];
  const ids: string[] = [];
  for (let made = 0; made < MOCKS; made++) {
    const mock = await send<{ id: string; baseUrls: { main: string } }>('POST', `${url}api/mocks`, {
      design,
      arrangements: ['main'],
    });
    bases.push(mock?.baseUrls.main ?? '');
    ids.push(mock?.id ?? '');
  }
  const end = Date.now() + seconds * 1_000;
  const count: Count = { requests: 0 };
  const users = bases.map((base) => use(base, count, () => Date.now() < end));
  const samples: number[] = [];
  for (let taken = 0; taken < SAMPLES; taken++) {
    await new Promise((resolve) => setTimeout(resolve, (seconds * 1_000) / SAMPLES));
    samples.push(memory(child));
  }
  await Promise.all(users);
  for (const id of ids) await send('DELETE', `${url}api/mocks/${id}`);
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  await ended;
  return { samples, requests: count.requests };
}

const whole = (numbers: readonly number[]): string => numbers.map((number) => number.toFixed(0)).join(' ');
const mean = (numbers: readonly number[]): number =>
  numbers.reduce((sum, number) => sum + number, 0) / numbers.length;

const database = await startTestDatabase();
try {
  const kept = await soak(database.url, {}, SECONDS);
  console.log(
    `${MOCKS} mocks, ${kept.requests} requests in ${SECONDS} s; MiB resident: ${whole(kept.samples)}`,
  );
  const [middle, last] = [
    kept.samples.slice(SAMPLES / 2, (SAMPLES * 3) / 4),
    kept.samples.slice(-SAMPLES / 4),
  ];
  console.log(`Last quarter against the one before: ${(mean(last) / mean(middle)).toFixed(3)}`);
  const lean = await soak(database.url, { ISOMEROS_MAX_EXCHANGES: '1' }, SECONDS / 4);
  console.log(`Without a journal, ${lean.requests} requests; MiB resident: ${whole(lean.samples)}`);
  console.log(`The journal's share: ${(mean(last) - mean(lean.samples.slice(-SAMPLES / 4))).toFixed(0)} MiB`);
} finally {
  await database.stop();
}
