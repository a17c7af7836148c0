import { expect, test } from './support/isomeros.js';

const TEXT = `design "Small"

entity Route
  name: text(1..60), required
`;

test('columns, actions and marks say what they are on hover, on focus, and on the command line', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const help = page.getByRole('tooltip');
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  // Once everything is where it stays.
  await expect(page.getByText('1 entity · 0 relationships')).toBeVisible();
  await expect(page.getByText('/routes').first()).toBeVisible();
  // Fonts that arrive move what was pointed at.
  await expect(async () => {
    await page.mouse.move(0, 0);
    await page.getByRole('button', { name: 'Format' }).hover();
    await expect(help).toContainText('Writes the text with the spaces', { timeout: 3_000 });
  }).toPass();
  await page.getByRole('button', { name: 'Format' }).click();
  await expect(help.filter({ visible: true })).toHaveCount(0);
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await page.getByText('out', { exact: true }).focus();
  await expect(help).toContainText('Whether a response holds it.');
  await page.locator('.explained-words').filter({ hasText: 'safe' }).focus();
  await expect(help.filter({ hasText: 'RFC 9110 §9.2' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('whom the mock lets in');
  const found = page.getByRole('option').filter({ hasText: 'Whom the mock lets in' });
  await expect(found).toContainText('Knows');
  await found.click();
  await expect(page).toHaveURL(/\/mock$/);
});

test('the five steps of a setting say its level in words', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await page.getByRole('img', { name: 'chosen at: default' }).first().focus();
  await expect(page.getByRole('tooltip').filter({ visible: true })).toContainText('default: nobody chose it');
});

test('the reference of the notation opens beside the text', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await page.getByText('Reference', { exact: true }).click();
  const reference = page.getByRole('region', { name: 'Reference of the notation' });
  await expect(reference.getByRole('heading', { name: 'Relationships' })).toBeVisible();
  await expect(reference.getByRole('cell', { name: 'text(1..60)' })).toBeVisible();
  await page.locator('.cm-content').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('// still written');
  await expect(page.getByText('All changes kept')).toBeVisible();
});

test('the rule between operations and findings is dragged, and found where it was left', async ({
  page,
  isomeros,
}) => {
  const deep = ['A', 'B', 'C', 'D'].map((name) => `entity ${name}\n  name: text\n`).join('\n');
  const owns = 'each A owns many B as bs\neach B owns many C as cs\neach C owns many D as ds\n';
  const id = await isomeros.createDesign(`design "Deep"\n\n${deep}\n${owns}`);
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  const findings = page.getByRole('list', { name: 'Findings' });
  const heightOf = async (): Promise<number> => (await findings.boundingBox())?.height ?? 0;
  await expect(findings).toBeVisible();
  const before = await heightOf();
  const box = await findings.boundingBox();
  if (box === null) throw new Error('There are no findings.');
  await page.mouse.move(box.x + 200, box.y - 1);
  await page.mouse.down();
  await page.mouse.move(box.x + 200, box.y - 101, { steps: 5 });
  await page.mouse.up();
  await expect.poll(heightOf).toBeGreaterThan(before + 80);
  const after = await heightOf();
  await page.reload();
  await expect.poll(heightOf).toBeCloseTo(after, -1);
});
