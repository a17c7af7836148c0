// Takes the pictures in docs/screenshots from a running application with the sample: npm start, then this.
import { Buffer } from 'node:buffer';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { ensureChromium } from './lib/chromium.mjs';
import { root } from './lib/processes.mjs';
import { runningStart } from './lib/running.mjs';
import { run, say, UserError } from './lib/say.mjs';

const folder = join(root, 'docs/screenshots');
const CHROMIUM = {
  executablePath: await ensureChromium(),
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

const OFFICES =
  'north south east west upper lower inner outer old new great little far near wide dark bright long round warm cold calm'.split(
    ' ',
  );

/** The tables and records of many offices, each with names of their own. */
function shoreOffices() {
  const office = readFileSync(join(root, 'packages/core/test/intake/corpus/shore-office.sql'), 'utf8');
  const tables = /\b(?:harbours|routes|sailings|vessels|certificates|crew|sailing_crew)\b(?=[ (;"'])/g;
  const texts = OFFICES.map((name) => office.replace(tables, (table) => `${name}_${table}`));
  return Buffer.from(texts.join('\n'));
}

async function ask(url, method = 'GET', body = undefined) {
  const headers = {
    'User-Agent': 'booking-web/2.1',
    ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
  };
  const response = await fetch(url, {
    method,
    headers,
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  return response.status === 204 ? null : response.json();
}

/** A copy of the sample with a mock that has seen a few exchanges. */
async function prepare(url) {
  const { items: designs } = await ask(`${url}api/designs`);
  for (const { id } of designs) await ask(`${url}api/designs/${id}`, 'DELETE');
  const { items: samples } = await ask(`${url}api/samples`);
  const made = [];
  for (const { id } of [...samples].reverse())
    made.push(await ask(`${url}api/designs`, 'POST', { source: { format: 'sample', text: id } }));
  const ferries = made.at(-1);
  const text = ferries.text
    .replace('berth: text(1..4)', 'berth: text(1..4)\n  platform: text(1..3)')
    .replace('note: text(0..400)', 'note: text(0..600)');
  await ask(`${url}api/designs/${ferries.id}/model`, 'PUT', { text });
  await ask(`${url}api/designs/${ferries.id}/releases`, 'POST', { label: '1.0', arrangement: 'main' });
  const mock = await ask(`${url}api/mocks`, 'POST', { design: ferries.id, arrangements: ['main'] });
  const base = mock.baseUrls.main;
  await ask(base);
  await ask(`${base}/routes/1/sailings?status=planned`);
  await ask(`${base}/routes/1/sailings`, 'POST', { departsAt: 'tomorrow' });
  await ask(`${base}/routes/2/sailings/1`);
  await ask(`${base}/routes/1/sailings/1`, 'PATCH', { berth: '2A' });
  return ferries.id;
}

/** The Arrange stage: the grid, what no rule derives, links, and operations left out. */
async function arrangePictures(open, keep, path) {
  const tree = (page) => page.getByRole('tree', { name: 'Path tree' });
  const row = (page, text) =>
    tree(page)
      .getByRole('treeitem')
      .filter({ has: page.getByText(text, { exact: true }) })
      .first();
  const arrange = await open('light', path);
  await row(arrange, '/{sailingId}').click();
  await arrange.getByRole('button', { name: 'berth, lists: yes' }).click();
  await arrange.getByRole('button', { name: 'berth, lists: no' }).waitFor();
  await arrange.getByLabel('Example exchange').filter({ hasText: '200 OK' }).waitFor();
  await keep(arrange, 'arrange');
  await arrange.getByRole('button', { name: 'berth, lists: no' }).click();
  await row(arrange, '/sign-in').click();
  await arrange.getByLabel('Example exchange').filter({ hasText: '/sign-in' }).waitFor();
  await keep(arrange, 'arrange-own');
  await linkPictures(arrange, keep, row(arrange, '/bookings/{bookingId}'));
  await offerPictures(arrange, keep, (text) => row(arrange, text));
}

/** The links of a path, one of them renamed and one left out, and the way to it by links; taken back after. */
async function linkPictures(page, keep, row) {
  await row.click();
  await page.getByRole('button', { name: 'Links', exact: true }).click();
  await page.getByLabel('Relation of Booking>Cabin:cabin').fill('berth');
  await page.keyboard.press('Enter');
  await page.getByRole('checkbox', { name: 'up in lists' }).uncheck();
  await page.locator('.link-table .was').waitFor();
  await page.getByText('All changes kept').waitFor();
  await page.locator('.link-table').evaluate((table) => table.scrollIntoView());
  await keep(page, 'arrange-links');
  await page.getByText('Where a client can go').click();
  await page.getByRole('option', { name: /passengers, 3 requests/ }).click();
  await page.getByRole('row', { name: /passengers 200/ }).waitFor();
  await page.getByRole('button', { name: 'Show among the paths' }).click();
  await page.getByRole('tree', { name: 'Path tree' }).focus();
  for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z');
}

/** A branch with operations left out and another about to be; taken back after. */
async function offerPictures(page, keep, row) {
  const offered = page.getByRole('region', { name: 'Operations of the path' });
  const ask = async (path, bundle) => {
    await row(path).click();
    await offered.getByText('its branch').click();
    await offered.getByRole('button', { name: bundle }).click();
    await offered.locator('.counts').filter({ hasText: 'operations removed' }).waitFor();
  };
  await ask('/vessels', 'read only');
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.locator('.tree-operation.left-out').first().waitFor();
  await ask('/routes', 'append only');
  await page.mouse.move(640, 790);
  await keep(page, 'arrange-offered');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.getByRole('tree', { name: 'Path tree' }).focus();
  await page.keyboard.press('Control+z');
  await page.locator('.tree-operation.left-out').first().waitFor({ state: 'detached' });
  await page.getByText('All changes kept').waitFor();
}

/** The sheet by tag while a description is written, what is published, and what is said of the API, dark. */
async function contractPictures(open, keep, path) {
  const page = await open('light', `${path}?operation=replaceSailing`);
  await page.getByText('tag', { exact: true }).click();
  await page.getByRole('button', { name: 'Write: Description' }).click();
  await page.getByRole('textbox', { name: 'Description', exact: true }).press('Control+End');
  await page.keyboard.type(' Who');
  await page.getByText('200 OK').waitFor();
  await keep(page, 'contract-tags');
  await page.keyboard.press('Escape');
  const published = await open('light', `${path}?published=`);
  await published
    .getByRole('row', { name: /openapi-3.0.json/ })
    .getByRole('button', { name: /things/ })
    .click();
  await keep(published, 'publication');
  const dark = await open('dark', `${path}?about=api`);
  await dark.getByText('tag', { exact: true }).click();
  await keep(dark, 'contract-dark');
}

/** The published reference, opened as a file. */
async function referencePicture(browser, keep, url, id) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' });
  await page.goto(`${url}api/designs/${id}/arrangements/main/publications/reference.html`);
  await keep(page, 'reference');
}

/** Exchanges, records that are edited, load, and what a removal took along. */
async function mockPictures(open, keep, url, id) {
  const mock = await open('light', `designs/${id}/mock`);
  await mock.getByRole('listbox', { name: 'Exchange log' }).getByText('changeSailing').click();
  await mock.locator('td.changed').first().waitFor();
  await keep(mock, 'mock');
  await mock.getByRole('button', { name: 'Records', exact: true }).click();
  await mock.getByRole('option', { name: /^Sailing\s*\d/ }).click();
  await mock.getByLabel('Find Sailing').fill('where status = planned by departsAt');
  await mock.keyboard.press('Enter');
  const rows = mock.getByRole('grid', { name: 'Sailing records' }).getByRole('row');
  await rows.nth(4).getByRole('gridcell').nth(3).dblclick();
  await mock.keyboard.type('7B');
  await mock.keyboard.press('Enter');
  await rows.nth(6).click();
  await mock.keyboard.press('Delete');
  await rows.nth(2).getByRole('gridcell').nth(3).dblclick();
  await mock.keyboard.type('PIER2');
  await mock.keyboard.press('Enter');
  await mock.getByRole('button', { name: 'Write 3' }).click();
  await mock.locator('.row-problems').waitFor();
  await mock.locator('.removal-tree').waitFor();
  await keep(mock, 'records');
  await mock.getByRole('button', { name: 'Discard' }).click();
  const { items } = await ask(`${url}api/mocks?design=${id}`);
  const base = items[0].baseUrls.main;
  await mock.getByRole('button', { name: 'Load', exact: true }).click();
  await callFor(20_000, base);
  await mock.waitForTimeout(1_500);
  await keep(mock, 'load');
  const removed = await open('dark', `designs/${id}/mock`);
  // A route that something needs is not removed.
  for (let route = 1; route <= 12; route++) {
    const { status } = await fetch(`${base}/routes/${route}`, { method: 'DELETE' });
    if (status === 204) break;
  }
  await removed.locator('.removal-tree').first().waitFor();
  await keep(removed, 'cascade');
}

/** Calls a mock for some milliseconds, now more and now less, so that there is something to draw. */
async function callFor(milliseconds, base) {
  const end = Date.now() + milliseconds;
  const paths = [
    '/routes',
    '/routes/1/sailings',
    '/vessels?size=5',
    '/routes/99',
    '/harbours',
    '/crew-members',
  ];
  for (let sent = 0; Date.now() < end; sent++) {
    const many = 2 + Math.round(8 * Math.abs(Math.sin(sent / 40)));
    await Promise.all(
      Array.from({ length: many }, (_, index) => ask(base + paths[(sent + index) % paths.length])),
    );
    await new Promise((resolve) => setTimeout(resolve, 40));
  }
}

/** A model that records stand against, half decided. */
async function migrationPicture(open, keep, url, id) {
  const { validText } = await ask(`${url}api/designs/${id}`);
  await ask(`${url}api/designs/${id}/model`, 'PUT', {
    text: validText
      .replace('  website: uri\n', '')
      .replace('distance: decimal(0.., scale 1), required', 'distance: integer(0..60), required')
      .replace('built: integer(1900..2100)', 'built: integer(1900..2100), required')
      .replace('seaView: boolean', 'deck: integer(1..9), required\n  seaView: boolean'),
  });
  const page = await open('light', `designs/${id}/mock`);
  await page.getByRole('button', { name: 'Migrate' }).click();
  const choose = async (step, offer) => {
    await page
      .getByRole('radiogroup', { name: `What is done: ${step}` })
      .getByText(offer)
      .click();
  };
  await choose('Route.distance', /^Convert/);
  await choose('Cabin.deck', /^Fill in/);
  await page.getByLabel('Value for: Cabin.deck').fill('3');
  await keep(page, 'migration');
}

await run(async () => {
  const running = await runningStart();
  if (running?.url == null) throw new UserError('Start the application first: npm start.');
  const { url } = running;
  const id = await prepare(url);
  const browser = await chromium.launch(CHROMIUM);
  const open = async (look, path) => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addInitScript((chosen) => localStorage.setItem('isomeros.look', chosen), look);
    await page.goto(url + path, { waitUntil: 'networkidle' });
    return page;
  };
  const keep = async (page, name) => {
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: join(folder, `${name}.png`) });
    say(name);
  };
  await keep(await open('light', ''), 'home');
  const model = await open('light', `designs/${id}/model`);
  await model.getByRole('button', { name: /^Sailing \d/ }).click();
  await keep(model, 'model');
  await arrangePictures(open, keep, `designs/${id}/arrange`);
  const contract = await open('light', `designs/${id}/contract?operation=createBooking`);
  await contract.getByRole('button', { name: 'Why 404' }).click();
  await contract.getByText('201 Created').waitFor();
  await keep(contract, 'contract');
  await contractPictures(open, keep, `designs/${id}/contract`);
  await referencePicture(browser, keep, url, id);
  await mockPictures(open, keep, url, id);
  const intake = await open('light', 'intake?from=sql');
  await intake
    .getByLabel('A file to read')
    .setInputFiles({ name: 'shore-offices.sql', mimeType: 'application/sql', buffer: shoreOffices() });
  await intake.getByRole('button', { name: 'Read it' }).click();
  const lines = intake.getByRole('tree', { name: 'Lines of notation' });
  await lines
    .getByRole('treeitem', { name: /^NorthRoute / })
    .getByRole('button')
    .click();
  await lines.getByText('distance: decimal').first().click();
  await keep(intake, 'intake');
  const { validText } = await ask(`${url}api/designs/${id}`);
  await ask(`${url}api/designs/${id}/model`, 'PUT', {
    text: validText.replace('berth: text(1..4)', 'berth: text(1..4)\n  gate: text(1..3)'),
  });
  const revisions = await open('light', `designs/${id}/revisions`);
  await revisions.locator('.cm-changedLine').first().waitFor();
  await keep(revisions, 'revisions');
  await ask(`${url}api/designs/${id}/model`, 'PUT', {
    text: (await ask(`${url}api/designs/${id}`)).validText.replace(
      'note: text(0..600)',
      'note: text(0..200)',
    ),
  });
  const { choices } = await ask(`${url}api/designs/${id}`);
  const main = { ...choices.arrangements[0] };
  delete main.name;
  await ask(`${url}api/designs/${id}/arrangements/main`, 'PUT', {
    ...main,
    placements: { ...main.placements, 'Vessel>Cabin:cabins': 'shallow' },
  });
  const release = await open('light', `designs/${id}/contract?release=1.0`);
  await release
    .getByRole('button', { name: /^note of/ })
    .first()
    .click();
  await keep(release, 'release');
  await migrationPicture(open, keep, url, id);
  await browser.close();
});
