// Typing into the page of a mock while others send 500 requests a second, in Chromium. Run: npm run bench:watching
import { join } from 'node:path';
import { chromium, type CDPSession } from '@playwright/test';
import { ensureChromium } from './chromium.js';
import { keystrokesOf } from './keystrokes.js';
import { ask, end, start } from './mock/programs.js';
import { build, here } from './otherTree.js';
import { startTestDatabase } from './testDatabase.js';

const PORT = '4876';
const SECONDS = Number(process.env['ISOMEROS_WATCH_SECONDS'] ?? 60);
const A_SECOND = 500;
/** Of so many requests one writes. */
const ONE_WRITE_IN = 10;
const EVERY_MS = 20;
const BETWEEN_MS = 400;
const TYPED = 'list 200 ';
const BUDGET_MS = 200;
const MOST_ROWS = 300;
const MOST_GROWTH = 1.5;
const FIRST_HEAP_AFTER_MS = 10_000;

const MODEL = `entity Route
  name: text(1..60), required
  state: choice(open, shut), default open

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`;

/** Sends so many requests a second until it is told to stop; how many were answered. */
function calling(base: string): { readonly stop: () => Promise<number> } {
  const asked = { stop: false };
  let answered = 0;
  const one = async (number: number): Promise<void> => {
    const isWrite = number % ONE_WRITE_IN === 0;
    const response = await fetch(
      isWrite ? `${base}/routes/1` : `${base}/routes?size=5`,
      isWrite
        ? {
            method: 'PATCH',
            headers: { 'Content-Type': 'application/json' },
            body: JSON.stringify({ name: `Route ${number}` }),
          }
        : {},
    );
    await response.text();
    answered++;
  };
  const done = (async (): Promise<number> => {
    const began = performance.now();
    const open = new Set<Promise<void>>();
    for (let sent = 0; !asked.stop;) {
      const due = Math.floor(((performance.now() - began) / 1_000) * A_SECOND);
      for (; sent < due; sent++) {
        const sending = one(sent);
        open.add(sending);
        void sending.finally(() => open.delete(sending));
      }
      await new Promise((resolve) => setTimeout(resolve, EVERY_MS));
    }
    await Promise.all(open);
    return answered;
  })();
  return {
    stop: () => {
      asked.stop = true;
      return done;
    },
  };
}

async function heapOf(session: CDPSession): Promise<number> {
  await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  return usedSize;
}

const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((one, other) => one - other)[Math.ceil(values.length * share) - 1] ?? NaN;

build(here, true);
const database = await startTestDatabase();
const browser = await chromium.launch({
  executablePath: await ensureChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
});
const child = await start(join(here, 'apps/server/dist/main.js'), [], {
  ISOMEROS_DATABASE_URL: database.url,
  ISOMEROS_PORT: PORT,
});
try {
  const url = `http://127.0.0.1:${PORT}`;
  const { id } = await ask<{ id: string }>(`${url}/api/designs`, {
    source: { format: 'notation', text: MODEL },
  });
  const { baseUrls } = await ask<{ baseUrls: { main: string } }>(`${url}/api/mocks`, {
    design: id,
    arrangements: ['main'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${url}/designs/${id}/mock`);
  const session = await page.context().newCDPSession(page);
  const callers = calling(baseUrls.main);
  const began = performance.now();
  const field = page.getByLabel('Narrow the exchanges');
  await field.click();
  const taken = await keystrokesOf(page);
  const times: number[] = [];
  let [firstHeap, rows] = [0, 0];
  while (performance.now() - began < SECONDS * 1_000) {
    for (const letter of TYPED) await field.press(letter === ' ' ? 'Space' : letter, { delay: BETWEEN_MS });
    for (let left = TYPED.length; left > 0; left--) await field.press('Backspace', { delay: BETWEEN_MS });
    for (const time of await taken()) times.push(time);
    rows = Math.max(rows, await page.getByRole('option').count());
    if (firstHeap === 0 && performance.now() - began > FIRST_HEAP_AFTER_MS) firstHeap = await heapOf(session);
  }
  const growth = (await heapOf(session)) / firstHeap;
  const says = await page.getByText('more than can be followed').count();
  const answered = await callers.stop();
  const rate = answered / ((performance.now() - began) / 1_000);
  console.log(
    [
      `${rate.toFixed(0)} requests a second for ${SECONDS} s, one write in ${ONE_WRITE_IN}`,
      `keystroke to frame, ${times.length} keystrokes: median ${quantile(times, 0.5).toFixed(1)} ms, 95th percentile ${quantile(times, 0.95).toFixed(1)} ms; budget ${BUDGET_MS} ms`,
      `heap after collection: ${growth.toFixed(2)} times that after ten seconds; budget ${MOST_GROWTH}`,
      `rows in the page: at most ${rows}; budget ${MOST_ROWS}`,
      `says that it samples: ${says > 0 ? 'yes' : 'no'}`,
    ].join('\n'),
  );
} finally {
  await browser.close();
  await end(child);
  await database.stop();
}
