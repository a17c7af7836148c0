// Typing in the page of this tree beside that of another commit, in turns. Run: npm run bench:typing [commit]
import type { ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { ensureChromium } from './chromium.js';
import { keystrokesOf } from './keystrokes.js';
import { ask, end, start } from './mock/programs.js';
import { median } from './mock/turns.js';
import { modelText } from './models.js';
import { build, checkOut, commitName, here } from './otherTree.js';
import { startTestDatabase } from './testDatabase.js';

const ENTITIES = 150;
/** Each side types so many letters a round, and so many rounds. */
const LETTERS = 10;
const ROUNDS = 6;
/** Somebody who types fast. */
const BETWEEN_MS = 160;

async function openModel(page: Page, url: string): Promise<void> {
  const source = { format: 'notation', text: modelText(ENTITIES) };
  const { id } = await ask<{ id: string }>(`${url}/api/designs`, { source });
  await page.goto(`${url}/designs/${id}/model?line=5`);
  await page.getByText(`${ENTITIES} entities`).first().waitFor();
  await page.locator('.cm-content').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('// ');
}

const [commit = 'HEAD~1'] = process.argv.slice(2);
const other = commitName(commit);
build(here, true);
const tree = checkOut(other, true);
const children: ChildProcess[] = [];
const database = await startTestDatabase();
const browser = await chromium.launch({
  executablePath: await ensureChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
});
try {
  const { createConnection } = await import('mysql2/promise');
  const connection = await createConnection(database.url.replace('mariadb:', 'mysql:'));
  const server = database.url.slice(0, database.url.lastIndexOf('/'));
  const open = async (name: string, folder: string, schema: string, port: string) => {
    await connection.query(`CREATE DATABASE ${schema}`);
    const environment = { ISOMEROS_DATABASE_URL: `${server}/${schema}`, ISOMEROS_PORT: port };
    children.push(await start(join(folder, 'apps/server/dist/main.js'), [], environment));
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await openModel(page, `http://127.0.0.1:${port}`);
    const times: number[] = [];
    return { name, page, taken: await keystrokesOf(page), times };
  };
  const sides = [
    await open('this tree', here, 'own', '4873'),
    await open(other, tree.folder, 'beside', '4874'),
  ];
  await connection.end();
  for (let round = 0; round <= ROUNDS; round++)
    for (const { page, taken, times } of sides) {
      await page.bringToFront();
      for (let letter = 0; letter < LETTERS; letter++) await page.keyboard.press('x', { delay: BETWEEN_MS });
      const measured = await taken();
      // In the first round everything is compiled.
      if (round > 0) for (const time of measured) times.push(time);
    }
  console.log(`Keystroke to frame, ${ENTITIES} entities, ${ROUNDS * LETTERS} keystrokes each, in turns`);
  for (const { name, times } of sides) {
    const slowest = [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? NaN;
    console.log(`  ${name.padEnd(10)} median ${median(times).toFixed(1)} ms  p95 ${slowest.toFixed(1)} ms`);
  }
  const [own, beside] = sides.map(({ times }) => median(times));
  console.log(`  ratio ${((own ?? NaN) / (beside ?? NaN)).toFixed(2)}`);
} finally {
  await browser.close();
  await Promise.all(children.map(end));
  await database.stop();
  tree.remove();
}
