import { readFile } from 'node:fs/promises';
import type { Response } from '@playwright/test';
import { expect, stage, test } from './support/isomeros.js';

test('a design is copied from a sample, renamed, copied, removed and brought back', async ({
  page,
  isomeros,
}) => {
  await page.goto(isomeros.url);
  await page
    .getByRole('region', { name: 'Begin a design' })
    .getByRole('button', { name: 'Copy' })
    .last()
    .click();
  await expect(
    page.getByRole('tree', { name: 'Path tree' }).getByText('/tools', { exact: true }),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Isomeros' }).click();
  const shed = page.getByRole('article', { name: 'Tool shed', exact: true });
  await expect(shed).toContainText('3 entities, 2 relationships');

  await shed.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('New name of Tool shed').fill('Boat shed');
  await page.keyboard.press('Enter');
  const boats = page.getByRole('article', { name: 'Boat shed', exact: true });
  await expect(boats).toBeVisible();

  await boats.getByRole('button', { name: 'Copy' }).click();
  await expect(page.getByRole('article', { name: 'Boat shed, copy' })).toBeVisible();

  await boats.getByRole('button', { name: 'Remove' }).click();
  await expect(boats).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Bring it back' }).click();
  await expect(boats).toBeVisible();
});

test('a design leaves as a file and begins again from it', async ({ page, isomeros }) => {
  await isomeros.createDesign('design "On the road"\n\nentity Route\n  name: text\n');
  await page.goto(isomeros.url);
  const row = page.getByRole('article', { name: 'On the road' });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    row.getByRole('link', { name: 'File' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('on-the-road.isomeros.json');
  const buffer = await readFile(await download.path());
  await page
    .getByLabel('A file to begin with')
    .setInputFiles({ name: 'on-the-road.isomeros.json', mimeType: 'application/json', buffer });
  await expect(page.getByRole('heading', { name: 'On the road' })).toBeVisible();
  await expect(page.getByRole('tree', { name: 'Path tree' }).getByText('/routes')).toBeVisible();
  await page.getByRole('link', { name: 'Isomeros' }).click();
  await expect(row).toHaveCount(2);
});

test('a file that does not fit says where', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByLabel('A file to begin with').setInputFiles({
    name: 'x.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format": "isomeros-design", "version": 9}'),
  });
  await expect(page.getByRole('alert')).toContainText(
    'The design file does not fit: Expected a version from 1 to ',
  );
});

/** The script that Home may load, in bytes as they travel. */
const MOST_SCRIPT = 290_000;

test('Home loads little script, compressed, and what it loads is kept for good', async ({
  page,
  isomeros,
}) => {
  const scripts: Response[] = [];
  page.on('response', (response) => {
    if (response.request().resourceType() === 'script') scripts.push(response);
  });
  await page.goto(isomeros.url);
  await expect(page.getByRole('link', { name: 'Kestrel Sound Ferries' })).toBeVisible();
  let all = 0;
  for (const script of scripts) {
    const { responseBodySize } = await script.request().sizes();
    all += responseBodySize;
    const headers = script.headers();
    expect(headers['cache-control']).toBe('public, max-age=31536000, immutable');
    // Compressing the smallest would make them longer.
    if (responseBodySize > 2_000) expect(headers['content-encoding']).toMatch(/^(br|gzip)$/);
  }
  expect(all).toBeGreaterThan(50_000);
  expect(all).toBeLessThan(MOST_SCRIPT);
});

test('a stage that cannot be read says so, and the others go on', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign('entity Route\n  name: text\n');
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await page.route('**/ContractPage-*.js', (route) => route.abort());
  await stage(page, 'Contract').click();
  await expect(page.getByRole('alert')).toContainText('This page failed');
  await stage(page, 'Model').click();
  await expect(page.getByLabel('Notation of the model')).toContainText('entity Route');
});

test('designs are narrowed by the server, so that those beyond the first page are found', async ({
  page,
  isomeros,
}) => {
  await isomeros.createDesign('design "Boat shed"\n');
  await page.goto(isomeros.url);
  await expect(page.getByRole('article', { name: 'Kestrel Sound Ferries' })).toBeVisible();
  const asked = page.waitForRequest((request) => request.url().endsWith('/api/designs?limit=200&name=boat'));
  await page.getByLabel('Narrow the designs').fill('boat');
  await asked;
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.getByLabel('Narrow the designs').fill('no such');
  await expect(page.getByText('No design is called “no such”.')).toBeVisible();
});

test('a derivation that fails says so, keeps the text, and is made up for when the page comes again', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign('entity Route\n  name: text\n');
  await page.route('**/assets/derivation.worker*', (route) => route.abort());
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await expect(page.getByRole('alert')).toContainText('The contract of this text could not be derived');
  await page.locator('.cm-content').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('# written meanwhile');
  await expect(page.getByText('All changes kept')).toBeVisible();
  await page.unroute('**/assets/derivation.worker*');
  await page.reload();
  await expect(page.locator('.cm-content')).toContainText('# written meanwhile');
  await expect(page.getByText('1 entity · 0 relationships')).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
});
